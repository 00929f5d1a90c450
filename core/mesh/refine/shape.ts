/** Measures of triangles and edges that refining goes by. Arrays are x, y, z of each vertex. */
import { faceCross } from '../faceCross';

/** Normals that turn by less than this are one smooth surface. */
export const SMOOTH_COS = Math.cos((40 * Math.PI) / 180);

/** A face may turn by this much when edges are joined. */
export const TURN_COS = 0.5;

export function square(p: Float32Array, a: number, b: number): number {
  return (p[a * 3] - p[b * 3]) ** 2 + (p[a * 3 + 1] - p[b * 3 + 1]) ** 2 + (p[a * 3 + 2] - p[b * 3 + 2]) ** 2;
}

export function dot(n: Float32Array, a: number, b: number): number {
  return n[a * 3] * n[b * 3] + n[a * 3 + 1] * n[b * 3 + 1] + n[a * 3 + 2] * n[b * 3 + 2];
}

/** Rooms for one face at a time, so that none is made anew for each of many. */
const N = new Float64Array(3);
const M = new Float64Array(3);

function long(n: Float64Array): number {
  return Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
}

/** Area over the sum of squared sides, 1 for three equal ones. */
export function quality(p: Float32Array, a: number, b: number, c: number): number {
  faceCross(p, a, b, c, N);
  return (2 * Math.sqrt(3) * long(N)) / (square(p, a, b) + square(p, b, c) + square(p, c, a));
}

/** Whether the angles at two vertices over one edge come to more than half a turn, by a hair. */
export function wideOver(p: Float32Array, a: number, b: number, c: number, d: number): boolean {
  const atC = between(p, c, a, b);
  const atD = between(p, d, a, b);
  faceCross(p, c, a, b, N);
  faceCross(p, d, a, b, M);
  const [sinC, sinD] = [long(N), long(M)];
  // sin(γ + δ) < 0, times the lengths of the four sides.
  return atC * sinD + sinC * atD < -1e-3 * Math.sqrt((atC * atC + sinC * sinC) * (atD * atD + sinD * sinD));
}

/** Scalar product of the ways from one vertex to two others. */
function between(p: Float32Array, at: number, a: number, b: number): number {
  let sum = 0;
  for (let k = 0; k < 3; k++) sum += (p[a * 3 + k] - p[at * 3 + k]) * (p[b * 3 + k] - p[at * 3 + k]);
  return sum;
}

/** Whether a face of these corners turns over when one of them goes to another place. */
export function turned(p: Float32Array, a: number, b: number, c: number, x: number, y: number, z: number): boolean {
  faceCross(p, a, b, c, N);
  faceCross(p, x, y, z, M);
  const lengths = long(N) * long(M);
  return lengths === 0 || N[0] * M[0] + N[1] * M[1] + N[2] * M[2] < TURN_COS * lengths;
}

/** Whether a face looks away from the surface round a vertex. */
export function away(p: Float32Array, a: number, b: number, c: number, normals: Float32Array, vertex: number): boolean {
  faceCross(p, a, b, c, N);
  return (
    N[0] * normals[vertex * 3] + N[1] * normals[vertex * 3 + 1] + N[2] * normals[vertex * 3 + 2] <
    TURN_COS * 0.5 * long(N)
  );
}

/** Area-weighted unit normals. */
export function vertexNormals(p: Float32Array, triangles: Uint32Array): Float32Array {
  const out = new Float32Array(p.length);
  for (let t = 0; t < triangles.length; t += 3) {
    faceCross(p, triangles[t], triangles[t + 1], triangles[t + 2], N);
    for (let k = 0; k < 3; k++) for (let c = 0; c < 3; c++) out[triangles[t + k] * 3 + c] += N[c];
  }
  for (let i = 0; i < out.length; i += 3) {
    const length = Math.sqrt(out[i] ** 2 + out[i + 1] ** 2 + out[i + 2] ** 2) || 1;
    for (let c = 0; c < 3; c++) out[i + c] /= length;
  }
  return out;
}
