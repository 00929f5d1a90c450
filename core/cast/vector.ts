/**
 * Vector cast: for each pixel the way from where the clay lay at rest to where it is now, so that overhangs survive.
 *
 * Offset = (p − rest)/side in the frame's own axes (right, up, out), read at the rest place of the pixel, bilinear
 * between the slab's grid points. Pixels beside the clay have no offset.
 */
import type { Frame } from '#core/settings';
import { CastCancelled } from './heights';
import { frameMap, pixelPlace } from './frameMap';

export interface VectorCast {
  size: number;
  /** x, y, z of each pixel in frame sides, row by row from the top. */
  offsets: Float32Array;
  /** Largest out less smallest, in frame sides: the depth that a height cast would call relief. */
  relief: number;
}

/** `places` in stored order, (cells + 1)² of them; `side` is the slab's. */
export function castVector(
  places: Float32Array,
  cells: number,
  side: number,
  frame: Frame,
  size: number,
  onProgress: (share: number) => boolean = () => true,
): VectorCast {
  const map = frameMap(frame, size);
  const turn = (frame.turn * Math.PI) / 180;
  const c = Math.cos(turn);
  const s = Math.sin(turn);
  const row = cells + 1;
  const offsets = new Float32Array(size * size * 3);
  let low = Infinity;
  let high = -Infinity;
  for (let j = 0; j < size; j++) {
    if (j % 64 === 0 && !onProgress(j / size)) throw new CastCancelled();
    for (let i = 0; i < size; i++) {
      const [x, y] = pixelPlace(map, i, j);
      const gx = (x / side + 0.5) * cells;
      const gy = (y / side + 0.5) * cells;
      if (gx < 0 || gy < 0 || gx > cells || gy > cells) continue;
      const column = Math.min(cells - 1, Math.floor(gx));
      const line = Math.min(cells - 1, Math.floor(gy));
      const fx = gx - column;
      const fy = gy - line;
      const at = (line * row + column) * 3;
      const mixed = (k: number): number => {
        const a = places[at + k];
        const b = places[at + 3 + k];
        const d = places[at + row * 3 + k];
        const e = places[at + row * 3 + 3 + k];
        const bottom = a + (b - a) * fx;
        return bottom + (d + (e - d) * fx - bottom) * fy;
      };
      const dx = mixed(0) - x;
      const dy = mixed(1) - y;
      const dz = mixed(2);
      const out = (j * size + i) * 3;
      offsets[out] = (dx * c + dy * s) / frame.side;
      offsets[out + 1] = (dy * c - dx * s) / frame.side;
      offsets[out + 2] = dz / frame.side;
      low = Math.min(low, dz);
      high = Math.max(high, dz);
    }
  }
  return { size, offsets, relief: high > low ? (high - low) / frame.side : 0 };
}
