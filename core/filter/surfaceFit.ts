/**
 * A quadratic surface through values on a grid by least squares, re-weighted so that what stands out to one side
 * doesn't pull the fit (iteratively re-weighted least squares with Cauchy weights; Holland and Welsch, 1977).
 */
const TERMS = 6;
const ROUNDS = 12;

const termsAt = (x: number, y: number): number[] => [1, x, y, x * x, x * y, y * y];

/** Values of the fit at the same places, row by row. */
export function fitSurface(values: ArrayLike<number>, columns: number, rows: number): Float64Array {
  const place = (k: number): [number, number] => [
    (k % columns) / Math.max(1, columns - 1) - 0.5,
    Math.floor(k / columns) / Math.max(1, rows - 1) - 0.5,
  ];
  const count = columns * rows;
  const weights = new Float64Array(count).fill(1);
  const fitted = new Float64Array(count);
  for (let round = 0; round < ROUNDS; round++) {
    const matrix = Array.from({ length: TERMS }, () => new Array<number>(TERMS + 1).fill(0));
    for (let k = 0; k < count; k++) {
      const t = termsAt(...place(k));
      for (let a = 0; a < TERMS; a++) {
        for (let b = 0; b < TERMS; b++) matrix[a][b] += weights[k] * t[a] * t[b];
        matrix[a][TERMS] += weights[k] * t[a] * values[k];
      }
    }
    // A ridge of next to nothing keeps grids of one row or column solvable.
    for (let a = 0; a < TERMS; a++) matrix[a][a] += 1e-9;
    const c = solve(matrix);
    const off: number[] = [];
    for (let k = 0; k < count; k++) {
      fitted[k] = termsAt(...place(k)).reduce((sum, t, a) => sum + t * c[a], 0);
      off.push(Math.abs(values[k] - fitted[k]));
    }
    const typical = Math.max(1e-5, off.slice().sort((a, b) => a - b)[count >> 1] * 2);
    for (let k = 0; k < count; k++) weights[k] = 1 / (1 + (off[k] / typical) ** 2);
  }
  return fitted;
}

/** Gauss's elimination with pivots; the last column is the right side. */
export function solve(m: number[][]): number[] {
  const n = m.length;
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(m[r][c]) > Math.abs(m[pivot][c])) pivot = r;
    [m[c], m[pivot]] = [m[pivot], m[c]];
    for (let r = 0; r < n; r++) {
      if (r === c) continue;
      const f = m[r][c] / m[c][c];
      for (let k = c; k <= n; k++) m[r][k] -= f * m[c][k];
    }
  }
  return m.map((row, r) => row[n] / row[r]);
}
