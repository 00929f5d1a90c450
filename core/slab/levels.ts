/**
 * Levels of a slab: square grids of (cells + 1)² places in stored order (x, y, z row by row), each twice as fine as
 * the one below.
 *
 * Finer: the middle of a monotone cubic (F. Fritsch, J. Butland, 1984) along rows and columns; what is there stays
 * where it is, what is between lies on a smooth curve through it that never overshoots an upright edge. Coarser: the
 * mean weighted 1-2-1 along rows and columns. Borders are worked along the border alone, and corners stay.
 */
import type { UpperLevel } from '#core/timeline';

/** Places of twice the cells, through the given ones. */
export function finer(places: Float32Array, cells: number): Float32Array {
  return spreadRows(spreadColumns(places, cells + 1, cells + 1, 3), cells + 1, cells * 2 + 1, 3);
}

/** Values a vertex (masks) at twice the cells. */
export function finerValues(values: Float32Array, cells: number): Float32Array {
  const out = spreadRows(spreadColumns(values, cells + 1, cells + 1, 1), cells + 1, cells * 2 + 1, 1);
  for (let i = 0; i < out.length; i++) out[i] = Math.max(0, Math.min(1, out[i]));
  return out;
}

/** Places of half the cells. */
export function coarser(places: Float32Array, cells: number): Float32Array {
  const row = cells + 1;
  const half = cells / 2;
  const out = new Float32Array((half + 1) ** 2 * 3);
  const weight = (at: number, last: number): readonly (readonly [number, number])[] =>
    at === 0 || at === last
      ? [[0, 1]]
      : [
          [-1, 0.25],
          [0, 0.5],
          [1, 0.25],
        ];
  for (let j = 0; j <= half; j++) {
    for (let i = 0; i <= half; i++) {
      // Along a border only the border counts, so that the outline doesn't shrink.
      const across = weight(i, half);
      const along = weight(j, half);
      for (let c = 0; c < 3; c++) {
        let sum = 0;
        for (const [dj, wj] of along)
          for (const [di, wi] of across) sum += wj * wi * places[((2 * j + dj) * row + 2 * i + di) * 3 + c];
        out[(j * (half + 1) + i) * 3 + c] = sum;
      }
    }
  }
  return out;
}

export function coarserValues(values: Float32Array, cells: number): Float32Array {
  const half = cells / 2;
  return Float32Array.from(
    { length: (half + 1) ** 2 },
    (_, k) => values[Math.floor(k / (half + 1)) * 2 * (cells + 1) + (k % (half + 1)) * 2],
  );
}

/**
 * The finer level again after the one below was changed: where that stayed as it was the places come back to the
 * byte; elsewhere the detail is carried along and turned with the surface under it.
 */
export function carriedUp(level: UpperLevel, below: Float32Array): Float32Array {
  const before = finer(level.base, level.cells / 2);
  const after = finer(below, level.cells / 2);
  const out = level.fine.slice();
  const row = level.cells + 1;
  const still = (v: number): boolean =>
    before[v * 3] === after[v * 3] && before[v * 3 + 1] === after[v * 3 + 1] && before[v * 3 + 2] === after[v * 3 + 2];
  for (let j = 0; j < row; j++) {
    for (let i = 0; i < row; i++) {
      const v = j * row + i;
      const [w, e, s, n] = [i > 0 ? v - 1 : v, i < row - 1 ? v + 1 : v, j > 0 ? v - row : v, j < row - 1 ? v + row : v];
      if (still(v) && still(w) && still(e) && still(s) && still(n)) continue;
      const from = gridFrame(before, w, e, s, n);
      const to = gridFrame(after, w, e, s, n);
      const d = [0, 1, 2].map((c) => level.fine[v * 3 + c] - before[v * 3 + c]);
      const local = from.map((axis) => axis[0] * d[0] + axis[1] * d[1] + axis[2] * d[2]);
      for (let c = 0; c < 3; c++)
        out[v * 3 + c] = after[v * 3 + c] + to[0][c] * local[0] + to[1][c] * local[1] + to[2][c] * local[2];
    }
  }
  return out;
}

/** Tangent, bitangent and normal at a grid point, from its neighbours. */
function gridFrame(p: Float32Array, w: number, e: number, s: number, n: number): number[][] {
  const x = [0, 1, 2].map((c) => p[e * 3 + c] - p[w * 3 + c]);
  const y = [0, 1, 2].map((c) => p[n * 3 + c] - p[s * 3 + c]);
  const normal = unit([x[1] * y[2] - x[2] * y[1], x[2] * y[0] - x[0] * y[2], x[0] * y[1] - x[1] * y[0]], [0, 0, 1]);
  const tangent = unit(x, [1, 0, 0]);
  return [
    tangent,
    [
      normal[1] * tangent[2] - normal[2] * tangent[1],
      normal[2] * tangent[0] - normal[0] * tangent[2],
      normal[0] * tangent[1] - normal[1] * tangent[0],
    ],
    normal,
  ];
}

function unit(v: number[], instead: number[]): number[] {
  const length = Math.hypot(v[0], v[1], v[2]);
  return length > 1e-20 ? v.map((c) => c / length) : instead;
}

/** Puts a new value between each two of a row; `width` × `height` points of `words` each. */
function spreadColumns(from: Float32Array, width: number, height: number, words: number): Float32Array {
  const wide = 2 * width - 1;
  const out = new Float32Array(wide * height * words);
  for (let j = 0; j < height; j++)
    spread(
      { of: from, start: j * width * words, stride: words },
      { of: out, start: j * wide * words, stride: words },
      width,
      words,
    );
  return out;
}

function spreadRows(from: Float32Array, height: number, width: number, words: number): Float32Array {
  const out = new Float32Array(width * (2 * height - 1) * words);
  for (let i = 0; i < width; i++)
    spread(
      { of: from, start: i * words, stride: width * words },
      { of: out, start: i * words, stride: width * words },
      height,
      words,
    );
  return out;
}

/** Points in a row: where the first stands, and how many words lie from one to the next. */
interface Row {
  of: Float32Array;
  start: number;
  stride: number;
}

function spread(from: Row, to: Row, count: number, words: number): void {
  const out = to.of;
  for (let c = 0; c < words; c++) {
    const at = (k: number): number => from.of[from.start + k * from.stride + c];
    for (let k = 0; k < count; k++) {
      out[to.start + 2 * k * to.stride + c] = at(k);
      if (k === count - 1) break;
      const b = at(k);
      const d = at(k + 1);
      const rise = d - b;
      // Beyond the border the line goes on straight.
      const before = k > 0 ? slope(b - at(k - 1), rise) : rise;
      const after = k + 2 < count ? slope(rise, at(k + 2) - d) : rise;
      out[to.start + (2 * k + 1) * to.stride + c] = (b + d) / 2 + (before - after) / 8;
    }
  }
}

/** Slope at a point between two steps: their harmonic mean, level at a turning point. */
function slope(before: number, after: number): number {
  return before * after > 0 ? (2 * before * after) / (before + after) : 0;
}
