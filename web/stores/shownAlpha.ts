/** Small 8-bit copies of alphas for showing: drawn on canvases and laid into the cursor. */
import { isShaped, shapedPicture } from '#core/brush';
import { halve, pyramid, type Picture } from '#core/picture';
import type { Brush } from '#core/settings';

export interface ShownAlpha {
  /** Heights 0–1, for measuring. */
  heights: Float32Array;
  greys: Uint8Array<ArrayBuffer>;
  size: number;
}

const LARGEST = 384;

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
