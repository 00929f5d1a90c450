/** Small 8-bit copies of alphas for showing: drawn on canvases and laid into the cursor. Kept by content. */
import type { AlphaHead } from '#core/kept';
import { alphaHeights, isShaped, shapedPicture } from '#core/brush';
import { halve, pyramid, type Picture } from '#core/picture';
import type { Brush } from '#core/settings';
import { getBlob } from '../api/client';

export interface ShownAlpha {
  /** Heights 0–1, for measuring. */
  heights: Float32Array;
  greys: Uint8Array<ArrayBuffer>;
  size: number;
}

const LARGEST = 384;
const kept = new Map<string, Promise<ShownAlpha>>();

export function shownAlpha(alpha: AlphaHead): Promise<ShownAlpha> {
  const known = kept.get(alpha.blob);
  if (known) return known;
  const made = make(alpha);
  made.catch(() => kept.delete(alpha.blob));
  kept.set(alpha.blob, made);
  return made;
}

async function make(alpha: AlphaHead): Promise<ShownAlpha> {
  return reduced(alphaHeights(alpha, await getBlob(alpha.blob)));
}

export function reduced(whole: Picture): ShownAlpha {
  let picture = whole;
  while (picture.width > LARGEST) picture = halve(picture);
  return { heights: picture.data, greys: Uint8Array.from(picture.data, (h) => h * 255), size: picture.width };
}

/** As a brush stamps it: repeated, mirrored, inverted and faded inside its form. */
export function shownInside(shown: ShownAlpha, form: Brush['form']): ShownAlpha {
  if (!isShaped(form)) return shown;
  const whole = { width: shown.size, height: shown.size, data: shown.heights };
  return reduced(shapedPicture(pyramid(whole), form));
}

export function drawGreys(canvas: HTMLCanvasElement, shown: ShownAlpha): void {
  canvas.width = shown.size;
  canvas.height = shown.size;
  const image = new ImageData(shown.size, shown.size);
  for (let i = 0; i < shown.greys.length; i++) {
    const g = shown.greys[i];
    image.data.set([g, g, g, 255], i * 4);
  }
  canvas.getContext('2d')!.putImageData(image, 0, 0);
}
