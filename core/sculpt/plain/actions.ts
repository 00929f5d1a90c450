/** What each action does to the vertices gathered and weighed. */
import type { DabFrame, Vec3 } from '#core/brush';
import { COPY_MASK, COPY_NORMALS, COPY_STRONGEST, LEAF, LEAF_SHIFT, RING_BREAK, RING_VERTEX } from '#core/mesh';
import { displacementsOf, type Surface } from '../surface';

export function push(s: Surface, along: Vec3, scale: number, even: boolean): void {
  const { touched, amount, touchedCount, start } = s;
  const { positions: p } = s.mesh;
  const { heap } = start;
  const [nx, ny, nz] = along;
  for (let i = 0; i < touchedCount; i++) {
    const by = scale * amount[i];
    const vertex = touched[i];
    const at = vertex * 3;
    if (!even) {
      add(p, at, nx * by, ny * by, nz * by);
      continue;
    }
    const copy = start.copyAt[vertex >> LEAF_SHIFT] >> 2;
    const local = vertex & (LEAF - 1);
    const strongest = copy + COPY_STRONGEST + local;
    if (Math.abs(by) <= Math.abs(heap[strongest])) continue;
    heap[strongest] = by;
    const from = copy + local * 3;
    p[at] = heap[from] + nx * by;
    p[at + 1] = heap[from + 1] + ny * by;
    p[at + 2] = heap[from + 2] + nz * by;
  }
}

export function pushOut(s: Surface, scale: number, even: boolean): void {
  const { touched, amount, touchedCount, start } = s;
  const { positions: p } = s.mesh;
  const { heap } = start;
  for (let i = 0; i < touchedCount; i++) {
    const by = scale * amount[i];
    const vertex = touched[i];
    const at = vertex * 3;
    const copy = start.copyAt[vertex >> LEAF_SHIFT] >> 2;
    const local = vertex & (LEAF - 1);
    const from = copy + local * 3;
    const n = from + COPY_NORMALS;
    if (!even) {
      add(p, at, heap[n] * by, heap[n + 1] * by, heap[n + 2] * by);
      continue;
    }
    const strongest = copy + COPY_STRONGEST + local;
    if (Math.abs(by) <= Math.abs(heap[strongest])) continue;
    heap[strongest] = by;
    for (let k = 0; k < 3; k++) p[at + k] = heap[from + k] + heap[n + k] * by;
  }
}

export function inflate(s: Surface, scale: number): void {
  const { touched, amount, touchedCount } = s;
  const { positions: p, normals: n } = s.mesh;
  for (let i = 0; i < touchedCount; i++) {
    const at = touched[i] * 3;
    const by = scale * amount[i];
    add(p, at, n[at] * by, n[at + 1] * by, n[at + 2] * by);
  }
}

export function crease(s: Surface, frame: DabFrame, scale: number, together: number): void {
  const { touched, amount, v, touchedCount } = s;
  const { positions: p } = s.mesh;
  const [nx, ny, nz] = frame.normal;
  const [bx, by, bz] = frame.bitangent;
  for (let i = 0; i < touchedCount; i++) {
    const down = scale * amount[i];
    const across = together * v[i] * amount[i];
    add(p, touched[i] * 3, nx * down + bx * across, ny * down + by * across, nz * down + bz * across);
  }
}

export function meanHeight(s: Surface, frame: DabFrame): number {
  const { touched, amount, touchedCount } = s;
  let sum = 0;
  let weight = 0;
  for (let i = 0; i < touchedCount; i++) {
    sum += over(s, frame, touched[i]) * amount[i];
    weight += amount[i];
  }
  return weight > 0 ? sum / weight : 0;
}

export function level(s: Surface, frame: DabFrame, to: number, share: number, most: number, from: -1 | 0 | 1): void {
  const { touched, amount, touchedCount } = s;
  for (let i = 0; i < touchedCount; i++) {
    const move = to - over(s, frame, touched[i]);
    const by = (from < 0 && move < 0) || (from > 0 && move > 0) ? 0 : Math.max(-most, Math.min(most, move));
    amount[i] = by * amount[i] * share;
  }
}

export function carry(s: Surface, by: Vec3, share: number): void {
  const { touched, amount, touchedCount } = s;
  for (let i = 0; i < touchedCount; i++) {
    const w = amount[i] * share;
    add(s.mesh.positions, touched[i] * 3, by[0] * w, by[1] * w, by[2] * w);
  }
}

/**
 * Umbrella Laplacian (G. Taubin, "A signal processing approach to fair surface design", 1995); all displacements
 * are found before any vertex moves.
 */
export function relax(s: Surface, share: number): void {
  const { touched, amount, touchedCount } = s;
  const { positions: p, ringStarts, rings } = s.mesh;
  const displacements = displacementsOf(s);
  for (let i = 0; i < touchedCount; i++) {
    const vertex = touched[i];
    const at = vertex * 3;
    const first = ringStarts[vertex];
    const last = ringStarts[vertex + 1] - 1;
    // A closed ring names its first neighbour again; an open one, or several, are a border.
    let whole = last > first && rings[first] === rings[last];
    const sum = [0, 0, 0];
    for (let k = first; k < last; k++) {
      if (rings[k] >= RING_BREAK) whole = false;
      const b = (rings[k] & RING_VERTEX) * 3;
      for (let c = 0; c < 3; c++) sum[c] += p[b + c];
    }
    const n = last - first;
    const pull = whole ? (share * amount[i]) / n : 0;
    for (let c = 0; c < 3; c++) displacements[i * 3 + c] = (sum[c] - n * p[at + c]) * pull;
  }
}

export function shift(s: Surface): void {
  const displacements = displacementsOf(s);
  for (let i = 0; i < s.touchedCount; i++)
    add(s.mesh.positions, s.touched[i] * 3, displacements[i * 3], displacements[i * 3 + 1], displacements[i * 3 + 2]);
}

export function paintMask(s: Surface, scale: number, even: boolean): void {
  const { touched, amount, touchedCount, start } = s;
  const { mask } = s.mesh;
  const { heap } = start;
  for (let i = 0; i < touchedCount; i++) {
    const vertex = touched[i];
    const by = scale * amount[i];
    let from = mask[vertex];
    if (even) {
      const copy = start.copyAt[vertex >> LEAF_SHIFT] >> 2;
      const local = vertex & (LEAF - 1);
      if (Math.abs(by) <= Math.abs(heap[copy + COPY_STRONGEST + local])) continue;
      heap[copy + COPY_STRONGEST + local] = by;
      from = heap[copy + COPY_MASK + local];
    }
    mask[vertex] = Math.max(0, Math.min(1, from + by));
  }
}

function over(s: Surface, frame: DabFrame, vertex: number): number {
  const { positions: p } = s.mesh;
  const at = vertex * 3;
  const { origin: o, normal: n } = frame;
  return (p[at] - o[0]) * n[0] + (p[at + 1] - o[1]) * n[1] + (p[at + 2] - o[2]) * n[2];
}

function add(p: Float32Array, at: number, x: number, y: number, z: number): void {
  p[at] = p[at] + x;
  p[at + 1] = p[at + 1] + y;
  p[at + 2] = p[at + 2] + z;
}
