/**
 * A picture with one plane (grey) or three (red, green, blue); every plane has width × height values, 0–1, first row at
 * the top.
 */
import type { Picture } from './picture';

export interface Raster {
  width: number;
  height: number;
  planes: readonly Float32Array[];
}

export function rasterOf(picture: Picture): Raster {
  return { width: picture.width, height: picture.height, planes: [picture.data] };
}

export function planeOf(raster: Raster, k: number): Picture {
  return { width: raster.width, height: raster.height, data: raster.planes[k] };
}

/** Rec. 709 luma weights, on the values as they are stored. */
export const LUMA = [0.2126, 0.7152, 0.0722] as const;

/** Grey as the weighted sum of the planes; a grey raster is returned as it is. */
export function toGrey(raster: Raster, weights: readonly [number, number, number] = LUMA): Picture {
  const { width, height, planes } = raster;
  if (planes.length === 1) return planeOf(raster, 0);
  const [r, g, b] = planes as [Float32Array, Float32Array, Float32Array];
  const data = new Float32Array(width * height);
  const [wr, wg, wb] = weights;
  for (let i = 0; i < data.length; i++) data[i] = r[i] * wr + g[i] * wg + b[i] * wb;
  return { width, height, data };
}

/** The same change on every plane. */
export function eachPlane(raster: Raster, change: (picture: Picture) => Picture): Raster {
  const changed = raster.planes.map((_, k) => change(planeOf(raster, k)));
  return { width: changed[0].width, height: changed[0].height, planes: changed.map((p) => p.data) };
}
