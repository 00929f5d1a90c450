/**
 * Evens out light: a smooth background is estimated and divided out, so that bare paper takes one tone.
 *
 * The background is the bright (or dark) side of each cell of a coarse grid – the 80th or 20th per cent, which marks
 * hardly touch – with cells that are mostly mark filled from those round them, then smoothed.
 */
import type { Picture } from '#core/picture';
import { fitSurface } from './surfaceFit';

/** Values of a coarse grid over the whole picture, read bilinearly; row by row from the top. */
export interface Grid {
  columns: number;
  rows: number;
  values: Float32Array;
}

export interface PaperOptions {
  /** Cells along the longer side. */
  cells: number;
  /** The background is the bright side of the tones, or the dark. */
  way: 'bright' | 'dark';
}

export function paperGrid(from: Picture, { cells, way }: PaperOptions): Grid {
  const { width, height, data } = from;
  const longer = Math.max(width, height);
  const columns = Math.max(1, Math.round((cells * width) / longer));
  const rows = Math.max(1, Math.round((cells * height) / longer));
  const values = new Float32Array(columns * rows);
  const bins = new Uint32Array(1024);
  for (let r = 0; r < rows; r++) {
    const j0 = Math.floor((r * height) / rows);
    const j1 = Math.max(j0 + 1, Math.floor(((r + 1) * height) / rows));
    for (let c = 0; c < columns; c++) {
      const i0 = Math.floor((c * width) / columns);
      const i1 = Math.max(i0 + 1, Math.floor(((c + 1) * width) / columns));
      bins.fill(0);
      for (let j = j0; j < j1; j++)
        for (let i = i0; i < i1; i++) bins[Math.max(0, Math.min(1023, Math.floor(data[j * width + i] * 1024)))]++;
      values[r * columns + c] = share(bins, (j1 - j0) * (i1 - i0), way === 'bright' ? 0.8 : 0.2);
    }
  }
  bridgeMarks(values, columns, rows, way);
  return { columns, rows, values: smoothed(values, columns, rows) };
}

function share(bins: Uint32Array, total: number, wanted: number): number {
  let sum = 0;
  for (let b = 0; b < bins.length; b++) {
    sum += bins[b];
    if (sum >= total * wanted) return (b + 0.5) / bins.length;
  }
  return 1;
}

/** A cell far on the marks' side of a smooth surface through all cells is mark, not paper. */
function bridgeMarks(values: Float32Array, columns: number, rows: number, way: 'bright' | 'dark'): void {
  const paper = fitSurface(values, columns, rows);
  for (let k = 0; k < values.length; k++) {
    const own = values[k];
    const typical = paper[k];
    if (way === 'bright' ? own < typical * 0.93 : 1 - own < (1 - typical) * 0.93) values[k] = typical;
  }
}

/** Mean weighted 1-2-1 both ways; beyond the sides the slope goes on. */
function smoothed(values: Float32Array, columns: number, rows: number): Float32Array {
  const across = values.slice();
  const soft = (before: number, own: number, after: number): number => (before + 2 * own + after) / 4;
  for (let r = 0; r < rows; r++) {
    for (let c = 1; c < columns - 1; c++)
      across[r * columns + c] = soft(values[r * columns + c - 1], values[r * columns + c], values[r * columns + c + 1]);
  }
  const out = across.slice();
  for (let r = 1; r < rows - 1; r++) {
    for (let c = 0; c < columns; c++)
      out[r * columns + c] = soft(
        across[(r - 1) * columns + c],
        across[r * columns + c],
        across[(r + 1) * columns + c],
      );
  }
  return out;
}

/**
 * Bilinear value at (s, t), 0–1 of the picture the grid was made of; beyond the middles of the outer cells the slope
 * goes on.
 */
export function gridAt(grid: Grid, s: number, t: number): number {
  const { columns, rows, values } = grid;
  const [c, c1, fx] = between(s * columns - 0.5, columns);
  const [r, r1, fy] = between(t * rows - 0.5, rows);
  const top = values[r * columns + c] + (values[r * columns + c1] - values[r * columns + c]) * fx;
  const bottom = values[r1 * columns + c] + (values[r1 * columns + c1] - values[r1 * columns + c]) * fx;
  return top + (bottom - top) * fy;
}

function between(x: number, count: number): [number, number, number] {
  if (count === 1) return [0, 0, 0];
  const at = Math.max(-0.5, Math.min(count - 0.5, x));
  const low = Math.max(0, Math.min(count - 2, Math.floor(at)));
  return [low, low + 1, at - low];
}

/** `size` is the width (0–1 of the longer side) over which light may vary. Paper keeps its mean tone. */
export function evenLight(from: Picture, size: number, way: 'bright' | 'dark'): Picture {
  const grid = paperGrid(from, { cells: Math.max(2, Math.round(1 / Math.max(0.01, size))), way });
  const mean = grid.values.reduce((a, b) => a + b, 0) / grid.values.length;
  const { width, height, data } = from;
  const out = new Float32Array(data.length);
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const at = j * width + i;
      const paper = gridAt(grid, (i + 0.5) / width, (j + 0.5) / height);
      // Dark ground: what glows over it is kept in proportion to the room above.
      const v =
        way === 'bright'
          ? (data[at] * mean) / Math.max(paper, 0.02)
          : 1 - ((1 - data[at]) * (1 - mean)) / Math.max(1 - paper, 0.02);
      out[at] = v < 0 ? 0 : v > 1 ? 1 : v;
    }
  }
  return { width, height, data: out };
}
