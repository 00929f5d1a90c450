/**
 * Banding: terraces of a picture that had few greys. Looked for on slopes: pixels that are equal to their neighbour
 * though the ground goes on rising, where all greys in use are few.
 */
import type { Picture } from '#core/picture';
import type { Check } from './check';

/** A picture of more greys than this shows no terraces. */
export const BANDING_LIMIT = 400;
const FEW_FOR_A_SHAPE = 24;

/** Greys in use to 1/65535, each counted only where a thousandth of a per cent of the pixels has it. */
export function greysInUse(picture: Picture): number {
  const counts = new Uint32Array(65536);
  for (const v of picture.data) counts[Math.max(0, Math.min(65535, Math.round(v * 65535)))]++;
  const least = Math.max(1, picture.data.length * 1e-5);
  let used = 0;
  for (const n of counts) if (n >= least) used++;
  return used;
}

export function checkBanding(picture: Picture): Check {
  const { width, height, data } = picture;
  const value = greysInUse(picture);
  let level = 0;
  let sloping = 0;
  for (let j = 0; j < height; j++) {
    for (let i = 8; i < width; i++) {
      const at = j * width + i;
      const rise = Math.abs(data[at] - data[at - 8]);
      if (rise < 1e-6 || rise > 0.06) continue;
      sloping++;
      if (data[at] === data[at - 1]) level++;
    }
  }
  // A shape cut from one tone has few greys by right, and hardly any slope.
  const terraced = sloping > data.length * 0.02 && level > sloping * 0.5;
  const ok = value > BANDING_LIMIT || value < FEW_FOR_A_SHAPE || !terraced;
  return {
    name: 'banding',
    ok,
    value,
    limit: BANDING_LIMIT,
    unit: 'greys',
    sentence: ok ? 'No terraces' : `The slopes are made of ${value} greys alone, and would be sculpted as terraces.`,
  };
}
