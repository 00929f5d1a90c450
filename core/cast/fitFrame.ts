/**
 * The frame that holds the form and keeps a margin clear. The form is what differs from the ground, the median height
 * along the slab's border, by more than 1 % of the whole range of heights.
 */
import type { Frame } from '#core/settings';
import { FrameSchema, settingAt } from '#core/settings';
import type { MeshArrays } from '#core/mesh';

const FORM = 0.01;
/** Outer share of the slab that its ground is read from. */
const BORDER = 0.04;

/**
 * `inside` 'square' puts the form inside the frame's sides, 'ring' inside its reach ring. Null when there is no form.
 */
export function fitFrame(
  mesh: MeshArrays,
  turn: number,
  marginPercent: number,
  inside: 'square' | 'ring',
): Frame | null {
  const { positions: p, vertexCount } = mesh;
  const points = formPoints(mesh);
  if (points.length === 0) return null;
  const a = (turn * Math.PI) / 180;
  const c = Math.cos(a);
  const s = Math.sin(a);
  let u0 = Infinity;
  let u1 = -Infinity;
  let v0 = Infinity;
  let v1 = -Infinity;
  for (const v of points) {
    const u = p[v * 3] * c + p[v * 3 + 1] * s;
    const w = p[v * 3 + 1] * c - p[v * 3] * s;
    u0 = Math.min(u0, u);
    u1 = Math.max(u1, u);
    v0 = Math.min(v0, w);
    v1 = Math.max(v1, w);
  }
  const u = (u0 + u1) / 2;
  const w = (v0 + v1) / 2;
  let reach = Math.max(u1 - u0, v1 - v0) / 2;
  if (inside === 'ring') {
    reach = 0;
    for (const v of points)
      reach = Math.max(reach, Math.hypot(p[v * 3] * c + p[v * 3 + 1] * s - u, p[v * 3 + 1] * c - p[v * 3] * s - w));
  }
  // A form is never narrower than the clay's own grain.
  reach += 2 / Math.sqrt(vertexCount);
  const { min, max } = settingAt(FrameSchema, 'side');
  return {
    x: u * c - w * s,
    y: u * s + w * c,
    turn,
    side: Math.max(min, Math.min(max, (2 * reach) / (1 - marginPercent / 50))),
  };
}

function formPoints(mesh: MeshArrays): number[] {
  const { positions: p, vertexCount } = mesh;
  let most = 0;
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < vertexCount * 3; i += 3) {
    most = Math.max(most, Math.abs(p[i]), Math.abs(p[i + 1]));
    low = Math.min(low, p[i + 2]);
    high = Math.max(high, p[i + 2]);
  }
  const edge: number[] = [];
  for (let i = 0; i < vertexCount * 3; i += 3)
    if (Math.max(Math.abs(p[i]), Math.abs(p[i + 1])) > most * (1 - BORDER)) edge.push(p[i + 2]);
  const ground = Float32Array.from(edge).sort()[edge.length >> 1];
  const out: number[] = [];
  if (high - low <= 0) return out;
  for (let v = 0; v < vertexCount; v++) if (Math.abs(p[v * 3 + 2] - ground) > FORM * (high - low)) out.push(v);
  return out;
}
