/** Edges over which a surface turns. */
import type { Edges } from './edges';
import { faceCross } from './faceCross';

/**
 * 1 for edges whose faces turn by more than the angle of this cosine, for borders, and for edges of three faces or
 * more.
 */
export function sharpEdges(p: Float32Array, triangles: Uint32Array, edges: Edges, cos: number): Uint8Array {
  const sharp = new Uint8Array(edges.count);
  const normals = new Float32Array(edges.count * 3);
  const n = new Float64Array(3);
  for (let t = 0; t < triangles.length; t += 3) {
    faceUnit(p, triangles[t], triangles[t + 1], triangles[t + 2], n);
    for (let k = 0; k < 3; k++) {
      const e = edges.ofTriangle[t + k];
      if (edges.uses[e] !== 2) sharp[e] = 1;
      const at = e * 3;
      if (normals[at] === 0 && normals[at + 1] === 0 && normals[at + 2] === 0) {
        normals[at] = n[0];
        normals[at + 1] = n[1];
        normals[at + 2] = n[2];
      } else if (normals[at] * n[0] + normals[at + 1] * n[1] + normals[at + 2] * n[2] < cos) sharp[e] = 1;
    }
  }
  return sharp;
}

function faceUnit(p: Float32Array, a: number, b: number, c: number, out: Float64Array): void {
  faceCross(p, a, b, c, out);
  const length = Math.sqrt(out[0] ** 2 + out[1] ** 2 + out[2] ** 2) || 1;
  for (let k = 0; k < 3; k++) out[k] /= length;
}

/** How many sharp edges meet at each vertex. */
export function creasesOf({ count, ends }: Edges, sharp: Uint8Array, vertices: number): Uint8Array {
  const out = new Uint8Array(vertices);
  for (let e = 0; e < count; e++) if (sharp[e]) for (let k = 0; k < 2; k++) out[ends[e * 2 + k]]++;
  return out;
}
