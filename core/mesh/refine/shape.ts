/** Measures of triangles and edges that refining goes by. Arrays are x, y, z of each vertex. */
import { faceCross } from '../faceCross';

/** Normals that turn by less than this are one smooth surface. */
export const SMOOTH_COS = Math.cos((40 * Math.PI) / 180);

/** A face may turn by this much when edges are joined. */
export const TURN_COS = 0.5;

export function square(p: Float32Array, a: number, b: number): number {
  return (p[a * 3]! - p[b * 3]!) ** 2 + (p[a * 3 + 1]! - p[b * 3 + 1]!) ** 2 + (p[a * 3 + 2]! - p[b * 3 + 2]!) ** 2;
}

export function dot(n: Float32Array, a: number, b: number): number {
  return n[a * 3]! * n[b * 3]! + n[a * 3 + 1]! * n[b * 3 + 1]! + n[a * 3 + 2]! * n[b * 3 + 2]!;
}

/** Area over the sum of squared sides, 1 for three equal ones. */
export function quality(p: Float32Array, a: number, b: number, c: number): number {
  const n = [0, 0, 0];
  faceCross(p, a, b, c, n);
  return (2 * Math.sqrt(3) * Math.hypot(...n)) / (square(p, a, b) + square(p, b, c) + square(p, c, a));
}

/** Angle at a vertex between two others. */
export function angle(p: Float32Array, at: number, a: number, b: number): number {
  const u = [0, 1, 2].map((k) => p[a * 3 + k]! - p[at * 3 + k]!);
  const v = [0, 1, 2].map((k) => p[b * 3 + k]! - p[at * 3 + k]!);
  const cos = (u[0]! * v[0]! + u[1]! * v[1]! + u[2]! * v[2]!) / (Math.hypot(...u) * Math.hypot(...v));
  return Math.acos(Math.max(-1, Math.min(1, cos)));
}

export function turned(p: Float32Array, was: readonly [number, number, number], is: readonly [number, number, number]): boolean {
  const before = [0, 0, 0];
  const after = [0, 0, 0];
  faceCross(p, ...was, before);
  faceCross(p, ...is, after);
  const lengths = Math.hypot(...before) * Math.hypot(...after);
  return lengths === 0 || before[0]! * after[0]! + before[1]! * after[1]! + before[2]! * after[2]! < TURN_COS * lengths;
}

/** Whether a face looks away from the surface round a vertex. */
export function away(p: Float32Array, face: readonly [number, number, number], normals: Float32Array, vertex: number): boolean {
  const n = [0, 0, 0];
  faceCross(p, ...face, n);
  return n[0]! * normals[vertex * 3]! + n[1]! * normals[vertex * 3 + 1]! + n[2]! * normals[vertex * 3 + 2]! < TURN_COS * 0.5 * Math.hypot(...n);
}

/** Area-weighted unit normals. */
export function vertexNormals(p: Float32Array, triangles: Uint32Array): Float32Array {
  const out = new Float32Array(p.length);
  const n = [0, 0, 0];
  for (let t = 0; t < triangles.length; t += 3) {
    faceCross(p, triangles[t]!, triangles[t + 1]!, triangles[t + 2]!, n);
    for (let k = 0; k < 3; k++) for (let c = 0; c < 3; c++) out[triangles[t + k]! * 3 + c]! += n[c]!;
  }
  for (let i = 0; i < out.length; i += 3) {
    const length = Math.hypot(out[i]!, out[i + 1]!, out[i + 2]!) || 1;
    for (let c = 0; c < 3; c++) out[i + c]! /= length;
  }
  return out;
}
