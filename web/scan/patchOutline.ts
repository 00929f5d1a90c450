/** The frame of a patch as it lies on the scan: its sides follow the surface. */
import { pick, type MeshArrays } from '#core/mesh';
import { patchFrame, type Vec3 } from '#core/scan';
import type { Patch } from '#core/settings';

/** Places along each side. */
const STEPS = 20;
/** A side is looked for this far over the frame, in sides. */
const OVER = 0.4;

export interface Outline {
  id: string;
  /** Round the frame, from its lower left corner. */
  rim: Vec3[];
  /** Lower left, lower right, upper right, upper left. */
  corners: Vec3[];
  middle: Vec3;
  /** In the middle of the upper side, and a little beyond it. */
  top: Vec3;
  out: Vec3;
  side: number;
}

export function outlineOf(mesh: MeshArrays, patch: Patch): Outline {
  const { at, right, up, out, side } = patchFrame(patch);
  const half = side / 2;
  const placed = (u: number, v: number, z: number): Vec3 => {
    const along = (k: number): number => at[k] + right[k] * u + up[k] * v + out[k] * z;
    return [along(0), along(1), along(2)];
  };
  /** Height over the frame; not a number where there is no surface near it. */
  const height = (u: number, v: number): number => {
    const hit = pick(mesh, { origin: placed(u, v, side * OVER), direction: [-out[0], -out[1], -out[2]] });
    return hit && hit.distance < 2 * side * OVER ? side * OVER - hit.distance : NaN;
  };
  const places = [
    [-half, -half],
    [half, -half],
    [half, half],
    [-half, half],
  ].flatMap(([u, v], k, square) => {
    const [u1, v1] = square[(k + 1) % 4];
    return Array.from({ length: STEPS }, (_, i) => [u + ((u1 - u) * i) / STEPS, v + ((v1 - v) * i) / STEPS] as const);
  });
  const heights = bridged(places.map(([u, v]) => height(u, v)));
  const rim = places.map(([u, v], i) => placed(u, v, heights[i]));
  const middleOfTop = heights[Math.round(STEPS * 2.5)];
  return {
    id: patch.id,
    rim,
    corners: [0, 1, 2, 3].map((k) => rim[k * STEPS]),
    middle: at,
    top: placed(0, half * 1.14, middleOfTop),
    out,
    side,
  };
}

/** Gaps run straight from one end to the other, round the rim. */
function bridged(heights: readonly number[]): number[] {
  const n = heights.length;
  const first = heights.findIndex((h) => h === h);
  if (first < 0) return heights.map(() => 0);
  const out = [...heights];
  let last = first;
  for (let step = 1; step <= n; step++) {
    const i = (first + step) % n;
    if (heights[i] !== heights[i]) continue;
    const gap = (i - last + n) % n || n;
    for (let k = 1; k < gap; k++) out[(last + k) % n] = heights[last] + ((heights[i] - heights[last]) * k) / gap;
    last = i;
  }
  return out;
}
