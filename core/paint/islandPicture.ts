/**
 * The islands of a mesh as a picture: each face coloured by its stretch, from cool where the texture is finer than its
 * mean to warm where it is coarser; rims of islands dark, and ochre where one lies over another.
 */
import { linearOfLch, srgbOf } from '#core/colour';
import { faceNormal } from '#core/mesh';
import { atlas, texelWidth, type Atlas } from './atlas';
import { islands } from './regions';
import { eachTexel } from './texels';

export interface IslandReport {
  islands: number;
  /** Share of the square that is used. */
  used: number;
  /** Share of what is used that two faces have. */
  overlapping: number;
  /** The coarsest hundredth’s width of a texel over the mean. */
  stretch: number;
}

/** Colours at the finest and the coarsest, twice or half the mean and beyond: lightness, chroma, hue. */
const FINE = 250;
const COARSE = 40;
const OVER = [0.72, 0.16, 75] as const;

/** RGBA bytes, `side` pixels a side, a size that textures have. O(triangles + pixels). */
export function islandPicture(of: Pick<Atlas, 'mesh'>, coordinates: Float32Array, side: number) {
  const on = atlas(of.mesh, coordinates, side);
  const { mesh } = of;
  const count = mesh.triangleCount;
  const owner = islands(on);
  const widths = new Float32Array(count);
  let [flat, solid] = [0, 0];
  for (let t = 0; t < count; t++) {
    const twice = Math.hypot(...faceNormal(mesh, t));
    widths[t] = texelWidth(on.corners, t, twice);
    if (widths[t] > 0) flat += twice / widths[t] ** 2;
    solid += twice;
  }
  const mean = Math.sqrt(solid / (flat || 1));
  const tints = Array.from({ length: 65 }, (_, i) => tint(i / 32 - 1));
  const rgba = new Uint8ClampedArray(side * side * 4);
  const island = new Int32Array(side * side).fill(-1);
  const over = srgbOf(linearOfLch(OVER)).map((c) => c * 255);
  let [used, twice] = [0, 0];
  for (let t = 0; t < count; t++) {
    const warm = Math.max(-1, Math.min(1, Math.log2(widths[t] / mean || 1)));
    const colour = tints[Math.round((warm + 1) * 32)];
    eachTexel(on, t, (x, y) => {
      const i = y * side + x;
      const again = island[i] >= 0;
      if (again) twice++;
      else used++;
      island[i] = owner[t];
      rgba.set(again ? over : colour, i * 4);
      rgba[i * 4 + 3] = 255;
    });
  }
  for (let y = 1; y < side; y++)
    for (let x = 1; x < side; x++) {
      const i = y * side + x;
      if (island[i] === island[i - 1] && island[i] === island[i - side]) continue;
      const rim = island[i] >= 0 ? i : island[i - 1] >= 0 ? i - 1 : i - side;
      for (let k = 0; k < 3; k++) rgba[rim * 4 + k] *= 0.45;
    }
  const sorted = widths.filter((w) => w > 0).sort();
  const report: IslandReport = {
    islands: new Set(owner).size,
    used: used / side ** 2,
    overlapping: used > 0 ? twice / used : 0,
    stretch: (sorted[Math.floor(sorted.length * 0.99)] ?? mean) / mean,
  };
  return { rgba, report };
}

/** Displayed bytes, of −1 for the finest to 1 for the coarsest. */
function tint(warm: number): number[] {
  const hue = warm < 0 ? FINE : COARSE;
  return srgbOf(linearOfLch([0.78 - 0.12 * Math.abs(warm), 0.015 + 0.13 * Math.abs(warm), hue])).map((c) => c * 255);
}
