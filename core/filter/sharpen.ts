/** Unsharp mask: adds `amount` times what a Gaussian of `sigmaPx` takes away. */
import type { Picture } from '#core/picture';
import { blur } from './blur';

export function sharpen(from: Picture, sigmaPx: number, amount: number): Picture {
  const soft = blur(from, sigmaPx);
  if (soft === from) return from;
  for (let i = 0; i < soft.data.length; i++) {
    const v = from.data[i] + amount * (from.data[i] - soft.data[i]);
    soft.data[i] = v < 0 ? 0 : v > 1 ? 1 : v;
  }
  return soft;
}
