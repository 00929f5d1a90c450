/** A patch's vertex colours beside its heights: the colour of the highest surface in each pixel, for painting. */
import { castHeights } from '#core/cast';
import type { Patch } from '#core/settings';
import { fillSmoothly } from './fill';
import type { PatchSurface } from './surface';

export interface ScanColours {
  /** Number in the scan's file of each of its vertices. */
  order: Uint32Array;
  /** Red, green, blue of each vertex of the file, sRGB bytes. */
  colours: Uint8Array;
}

/** Red, green, blue and cover of each pixel as sRGB bytes, first row at the top; holes are filled, their cover is 0. */
export function castColours(
  { positions, triangles, from }: PatchSurface,
  { order, colours }: ScanColours,
  patch: Patch,
  size: number,
): Uint8ClampedArray {
  const frame = { x: 0, y: 0, turn: 0, side: patch.cast.frame.side };
  const out = new Uint8ClampedArray(size * size * 4).fill(255);
  // Among faces that all look at the frame the highest hides little: each channel is cast as a height of its own.
  const places = positions.slice();
  for (let k = 0; k < 3; k++) {
    for (let v = 0; v < from.length; v++) places[v * 3 + 2] = colours[order[from[v]] * 3 + k];
    const channel = castHeights({ positions: places, triangles }, { frame, size, samples: 1 });
    const filled = fillSmoothly(channel);
    for (let i = 0; i < size * size; i++) {
      out[i * 4 + k] = filled.data[i];
      if (channel.data[i] !== channel.data[i]) out[i * 4 + 3] = 0;
    }
  }
  return out;
}
