/**
 * What a stroke raised: masked, and cut off as a cut of its own with a closed back.
 *
 * The back is the untouched body under the cut, sunk a little along its normals, so that the cut is closed and has
 * thickness everywhere; walls join front and back along the rim.
 */
import { changeMask, changePlaces } from '#core/edit';
import { LEAF, type RawMesh } from '#core/mesh';
import type { Before, Surface } from '#core/sculpt';

/** Clay that moved by less than this share of the farthest is not raised. */
const RAISED = 0.08;
/** Vertices masked by more than this belong to the cut. */
const TAKEN = 0.5;

/** Masks what differs from how it stood before; everything else is left free. */
export function maskRaised(s: Surface, before: Before): void {
  const { positions: p, vertexCount } = s.mesh;
  const moved = new Float32Array(vertexCount);
  let most = 0;
  before.leaves.forEach((leaf, i) => {
    const first = leaf * LEAF;
    const own = Math.min(LEAF, vertexCount - first);
    for (let k = 0; k < own; k++) {
      const at = (first + k) * 3;
      const was = i * LEAF * 3 + k * 3;
      const by = Math.hypot(
        p[at] - before.positions[was],
        p[at + 1] - before.positions[was + 1],
        p[at + 2] - before.positions[was + 2],
      );
      moved[first + k] = by;
      most = Math.max(most, by);
    }
  });
  changeMask(s, (v) => (most > 0 && moved[v] > most * RAISED ? 1 : 0));
}

/**
 * The cut that is masked, as a closed mesh; null when no whole triangle is. `base` are the places of the untouched
 * body.
 */
export function cutting({ mesh }: Surface, base: Float32Array, thickness: number): RawMesh | null {
  const { positions: p, mask, triangles, vertexCount } = mesh;
  const taken: number[] = [];
  for (let t = 0; t < triangles.length; t += 3)
    if ([0, 1, 2].every((k) => mask[triangles[t + k]] > TAKEN)) taken.push(t);
  if (taken.length === 0) return null;
  const place = new Int32Array(vertexCount).fill(-1);
  const used: number[] = [];
  const faces: number[] = [];
  const edges = new Map<number, [number, number]>();
  const normals = new Float64Array(vertexCount * 3);
  for (const t of taken) {
    const corner = [triangles[t], triangles[t + 1], triangles[t + 2]] as const;
    for (const v of corner) {
      if (place[v] < 0) {
        place[v] = used.length;
        used.push(v);
      }
    }
    faces.push(...corner.map((v) => place[v]));
    addNormal(normals, base, corner);
    for (let k = 0; k < 3; k++) {
      const [a, b] = [corner[k], corner[(k + 1) % 3]];
      // An edge that is met both ways lies inside.
      if (!edges.delete(b * vertexCount + a)) edges.set(a * vertexCount + b, [place[a], place[b]]);
    }
  }
  const n = used.length;
  const out = new Float32Array(n * 6);
  used.forEach((v, i) => {
    const length = Math.hypot(normals[v * 3], normals[v * 3 + 1], normals[v * 3 + 2]) || 1;
    for (let k = 0; k < 3; k++) {
      out[i * 3 + k] = p[v * 3 + k];
      out[(n + i) * 3 + k] = base[v * 3 + k] - (normals[v * 3 + k] / length) * thickness;
    }
  });
  const back: number[] = [];
  for (let i = 0; i < faces.length; i += 3) back.push(n + faces[i], n + faces[i + 2], n + faces[i + 1]);
  const walls: number[] = [];
  for (const [a, b] of edges.values()) walls.push(b, a, n + a, b, n + a, n + b);
  return { positions: out, triangles: Uint32Array.from([...faces, ...back, ...walls]) };
}

/** Where the cut was, the body is as it was untouched; the mask is taken away. */
export function healCut(s: Surface, base: Float32Array): void {
  const { mask } = s.mesh;
  const was = mask.slice();
  changePlaces(s, (v, out) => {
    if (was[v] > TAKEN) for (let k = 0; k < 3; k++) out[k] = base[v * 3 + k];
  });
  changeMask(s, (v, now) => (was[v] > TAKEN ? 0 : now));
}

function addNormal(normals: Float64Array, p: Float32Array, [a, b, c]: readonly [number, number, number]): void {
  const u = [0, 1, 2].map((k) => p[b * 3 + k] - p[a * 3 + k]) as [number, number, number];
  const v = [0, 1, 2].map((k) => p[c * 3 + k] - p[a * 3 + k]) as [number, number, number];
  const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
  for (const w of [a, b, c]) for (let k = 0; k < 3; k++) normals[w * 3 + k] += n[k];
}
