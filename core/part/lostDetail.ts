/**
 * What a part lost when it was brought down: how far what was captured lies over what is set down, seen along its up,
 * as heights in a square round it; and the same as normals.
 */
import { castHeights } from '#core/cast';
import type { RawMesh } from '#core/mesh';
import { newPicture, type Picture } from '#core/picture';
import { deviation, extentsOf } from './measure';
import { stood, type Seat } from './seat';

export interface LostDetail {
  /** Units of the part's mesh; 0 beside it, and where one of the two alone is seen. */
  heights: Picture;
  /** Of the square, units of the part's mesh. */
  side: number;
  /** From the lowest to the highest. */
  low: number;
  high: number;
}

/** Room round the part. */
const ROOM = 1.06;
/** Walls are seen from their ends: there a hair aside is a long way down, and no detail. */
const MOST_OF_ERROR = 1.5;

/** Throws a sentence where nothing was lost. O(triangles + pixels). */
export function lostDetail(whole: RawMesh, mesh: RawMesh, { seat, size }: { seat: Seat; size: number }): LostDetail {
  const [was, is] = [stood(whole, seat), stood(mesh, seat)];
  const { low, high, size: across } = extentsOf(was.positions);
  const side = Math.max(high[0] - low[0], high[1] - low[1]) * ROOM;
  const frame = { x: (low[0] + high[0]) / 2, y: (low[1] + high[1]) / 2, turn: 0, side };
  const [over, under] = [was, is].map((of) => castHeights(of, { frame, size, samples: 4 }).data);
  const most = (deviation(whole, mesh).largest / 100) * across * MOST_OF_ERROR;
  const heights = newPicture(size, size);
  let [lowest, highest] = [0, 0];
  for (let i = 0; i < heights.data.length; i++) {
    const lost = over[i] - under[i];
    if (Number.isNaN(lost)) continue;
    const h = Math.max(-most, Math.min(most, lost));
    heights.data[i] = h;
    lowest = Math.min(lowest, h);
    highest = Math.max(highest, h);
  }
  if (!(highest - lowest > side * 1e-5))
    throw new Error('Nothing was lost: what is set down is what was captured, as far as it is seen from above.');
  return { heights, side, low: lowest, high: highest };
}

/** Greys from 0 at the lowest to 1 at the highest, how high that is over the square's side, and the grey of no loss. */
export function lostGreys({ heights, side, low, high }: LostDetail): {
  greys: Float32Array;
  relief: number;
  ground: number;
} {
  const over = high - low;
  return {
    greys: heights.data.map((h) => (h - low) / over),
    relief: over / side,
    ground: -low / over,
  };
}

/**
 * Normals of the lost heights, three 16-bit words a pixel: x to the right, y up the picture, z towards the eye, each
 * from −1 at 0 to 1 at 65 535.
 */
export function lostNormals({ heights, side }: LostDetail): Uint16Array {
  const { width, height, data } = heights;
  const pixel = side / width;
  const at = (x: number, y: number): number =>
    data[Math.max(0, Math.min(height - 1, y)) * width + Math.max(0, Math.min(width - 1, x))];
  const out = new Uint16Array(width * height * 3);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const right = (at(x + 1, y) - at(x - 1, y)) / (2 * pixel);
      const up = (at(x, y - 1) - at(x, y + 1)) / (2 * pixel);
      const long = Math.hypot(right, up, 1);
      [-right, -up, 1].forEach((n, k) => (out[(y * width + x) * 3 + k] = Math.round((n / long + 1) * 32767.5)));
    }
  return out;
}
