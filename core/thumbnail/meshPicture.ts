/** A mesh as it is seen a little from the side and from above, lit like the rest of the small pictures. */
import { castHeights } from '#core/cast';
import type { RawMesh } from '#core/mesh';
import type { Picture } from '#core/picture';
import { shade, type Lit } from './shade';

const YAW = (-28 * Math.PI) / 180;
const PITCH = (22 * Math.PI) / 180;
/** The middle of the view's ground, sRGB. */
const GROUND = [176, 175, 172] as const;
/** Of the picture's side that stays clear round the mesh. */
const CLEAR = 1.08;

/** RGBA bytes, sRGB, size × size. O(triangles + pixels). */
export function meshPicture({ positions, triangles }: RawMesh, size: number): Uint8ClampedArray {
  const turned = new Float32Array(positions.length);
  const [cy, sy, cp, sp] = [Math.cos(YAW), Math.sin(YAW), Math.cos(PITCH), Math.sin(PITCH)];
  const low = [Infinity, Infinity];
  const high = [-Infinity, -Infinity];
  for (let i = 0; i < positions.length; i += 3) {
    const x = positions[i] * cy + positions[i + 2] * sy;
    const z = positions[i + 2] * cy - positions[i] * sy;
    const y = positions[i + 1] * cp - z * sp;
    turned[i] = x;
    turned[i + 1] = y;
    turned[i + 2] = positions[i + 1] * sp + z * cp;
    low[0] = Math.min(low[0], x);
    high[0] = Math.max(high[0], x);
    low[1] = Math.min(low[1], y);
    high[1] = Math.max(high[1], y);
  }
  const side = Math.max(high[0] - low[0], high[1] - low[1], 1e-6) * CLEAR;
  const frame = { x: (low[0] + high[0]) / 2, y: (low[1] + high[1]) / 2, turn: 0, side };
  return standing(castHeights({ positions: turned, triangles }, { frame, size, samples: 1 }), side / size);
}

/** Heights of something that stands free, lit, on the view's ground. */
export function standing(heights: Picture, pixel: number, lit?: Lit): Uint8ClampedArray {
  const { width: size } = heights;
  const empty = heights.data.map((h) => (h === h ? 0 : 1));
  // Slopes at the outline are taken within the mesh alone.
  for (let j = 0; j < size; j++) {
    for (let i = 0; i < size; i++) {
      const at = j * size + i;
      if (!empty[at]) continue;
      const beside = [at - 1, at + 1, at - size, at + size].find((k) => empty[k] === 0);
      if (beside !== undefined) heights.data[at] = heights.data[beside];
    }
  }
  const out = shade(heights, pixel, lit);
  for (let i = 0; i < empty.length; i++) if (empty[i]) out.set(GROUND, i * 4);
  return out;
}
