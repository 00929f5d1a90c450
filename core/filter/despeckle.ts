/**
 * Takes away specks of up to `radiusPx`: a pixel that stands out from the median round it by more than `contrast` (0–1)
 * takes the median; the rest keeps its grain. Wide medians are taken of a reduced copy, since only their tone is
 * wanted.
 */
import type { Picture } from '#core/picture';
import { median3, medianWide } from './median';
import { resize } from './resize';

export interface DespeckleOptions {
  radiusPx: number;
  contrast: number;
}

export function despeckle(from: Picture, { radiusPx, contrast }: DespeckleOptions): Picture {
  const r = Math.round(radiusPx);
  if (r < 1) return from;
  const median = r === 1 ? median3(from) : wide(from, r);
  // A wide median is known to 1/512 alone; what is no speck must not be rounded by it.
  const least = r === 1 ? contrast : Math.max(contrast, 1 / 256);
  if (least <= 0) return median;
  const { data } = median;
  for (let i = 0; i < data.length; i++) {
    const was = from.data[i];
    const off = was - data[i];
    if (off <= least && off >= -least) data[i] = was;
  }
  return median;
}

/** Radius of the median that is taken of the copy. */
const COPY_RADIUS = 3;

function wide(from: Picture, r: number): Picture {
  if (r <= COPY_RADIUS) return medianWide(from, r);
  const share = COPY_RADIUS / r;
  const small = resize(from, Math.max(1, Math.round(from.width * share)), Math.max(1, Math.round(from.height * share)));
  return resize(medianWide(small, COPY_RADIUS), from.width, from.height);
}
