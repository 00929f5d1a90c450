/**
 * Twice the area times the unit normal of the face through three vertices, in the places' units squared, into `out`.
 */
export function faceCross(p: Float32Array, a: number, b: number, c: number, out: Float64Array): void {
  const [i, j, k] = [a * 3, b * 3, c * 3];
  const ux = p[j] - p[i];
  const uy = p[j + 1] - p[i + 1];
  const uz = p[j + 2] - p[i + 2];
  const vx = p[k] - p[i];
  const vy = p[k + 1] - p[i + 1];
  const vz = p[k + 2] - p[i + 2];
  out[0] = uy * vz - uz * vy;
  out[1] = uz * vx - ux * vz;
  out[2] = ux * vy - uy * vx;
}
