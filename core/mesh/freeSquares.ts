/** Squares of a texture where nothing of a mesh lies yet, for the islands of what is added to it. */

/** Cells across the texture that are found free or taken. */
const CELLS = 256;
/** Cells kept free round what is there. */
const MARGIN = 1;
/** A square under so many cells is too small to be painted on. */
const LEAST_CELLS = 3;
const TRIES = 14;

export interface FreeSquare {
  /** Lower left corner and side, 0–1. */
  u: number;
  v: number;
  side: number;
}

/**
 * A square for each of these sizes, in proportion to them as far as cells allow, as large as all fit. Null where there
 * isn’t enough room. O(triangles + sizes · cells).
 */
export function freeSquares(coordinates: Float32Array, sizes: readonly number[]): FreeSquare[] | null {
  const taken = takenBy(coordinates);
  const largest = sizes.reduce((most, size) => Math.max(most, size), 0);
  if (largest <= 0) return null;
  const order = sizes.map((_, i) => i).sort((a, b) => sizes[b] - sizes[a]);
  let best: FreeSquare[] | null = null;
  let [low, high] = [0, CELLS];
  for (let n = 0; n < TRIES; n++) {
    const middle = (low + high) / 2;
    const found = placed(taken, order, (i) => Math.max(LEAST_CELLS, Math.floor((sizes[i] / largest) * middle)));
    if (found) {
      best = found;
      low = middle;
    } else high = middle;
  }
  return best;
}

/** 1 for each cell that something lies in, or near. */
function takenBy(coordinates: Float32Array): Uint8Array {
  const met = new Uint8Array(CELLS * CELLS);
  const mark = (x: number, y: number): void => {
    const i = Math.min(CELLS - 1, Math.max(0, Math.floor(x)));
    const j = Math.min(CELLS - 1, Math.max(0, Math.floor(y)));
    met[j * CELLS + i] = 1;
  };
  for (let t = 0; t < coordinates.length; t += 6) {
    const [ax, ay] = [coordinates[t] * CELLS, coordinates[t + 1] * CELLS];
    const [bx, by] = [coordinates[t + 2] * CELLS - ax, coordinates[t + 3] * CELLS - ay];
    const [cx, cy] = [coordinates[t + 4] * CELLS - ax, coordinates[t + 5] * CELLS - ay];
    // Points of the triangle that are no further apart than half a cell.
    const steps = Math.max(1, Math.ceil(2 * Math.max(Math.abs(bx), Math.abs(by), Math.abs(cx), Math.abs(cy))));
    for (let i = 0; i <= steps; i++)
      for (let j = 0; i + j <= steps; j++) mark(ax + (bx * i + cx * j) / steps, ay + (by * i + cy * j) / steps);
  }
  const out = new Uint8Array(CELLS * CELLS);
  for (let j = 0; j < CELLS; j++)
    for (let i = 0; i < CELLS; i++) {
      if (!met[j * CELLS + i]) continue;
      for (let y = Math.max(0, j - MARGIN); y <= Math.min(CELLS - 1, j + MARGIN); y++)
        for (let x = Math.max(0, i - MARGIN); x <= Math.min(CELLS - 1, i + MARGIN); x++) out[y * CELLS + x] = 1;
    }
  return out;
}

/** The largest first, row by row from below; null where one finds no place. */
function placed(taken: Uint8Array, order: readonly number[], sideOf: (i: number) => number): FreeSquare[] | null {
  const cells = taken.slice();
  const out: FreeSquare[] = [];
  let from = 0;
  let last = 0;
  for (const i of order) {
    const side = sideOf(i);
    // Smaller ones may fit where larger ones didn’t.
    if (side !== last) from = 0;
    last = side;
    const at = nextFree(cells, side, from);
    if (at < 0) return null;
    from = at;
    const [x, y] = [at % CELLS, Math.floor(at / CELLS)];
    for (let row = y; row < y + side; row++) cells.fill(1, row * CELLS + x, row * CELLS + x + side);
    out[i] = { u: x / CELLS, v: y / CELLS, side: side / CELLS };
  }
  return out;
}

/** The first cell from `from` on that a free square of so many cells begins at; −1 where there is none. */
function nextFree(cells: Uint8Array, side: number, from: number): number {
  for (let y = Math.floor(from / CELLS); y + side <= CELLS; y++) {
    let x = y === Math.floor(from / CELLS) ? from % CELLS : 0;
    while (x + side <= CELLS) {
      const blocked = lastTaken(cells, x, y, side);
      if (blocked < 0) return y * CELLS + x;
      x = blocked + 1;
    }
  }
  return -1;
}

/** The rightmost column of the square that has something in it; −1 where all of it is free. */
function lastTaken(cells: Uint8Array, x: number, y: number, side: number): number {
  let most = -1;
  for (let row = y; row < y + side; row++)
    for (let column = x + side - 1; column > most && column >= x; column--)
      if (cells[row * CELLS + column]) {
        most = column;
        break;
      }
  return most;
}
