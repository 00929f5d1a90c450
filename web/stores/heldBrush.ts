/** The brushes that a held key puts in the hand: one that smooths, one that masks. */
import { BASE_BRUSHES, SLAB_BRUSHES } from '#core/presets';
import type { Brush } from '#core/settings';
import { plain } from '../api/plain';

export const SMOOTH = BASE_BRUSHES.find((b) => b.touch.action === 'smooth')!;
export const MASK = SLAB_BRUSHES.find((b) => b.touch.action === 'mask')!;

/** The brush of that id that a held key puts in the hand, at a size; null for any other id. */
export function heldBrush(id: string, size: number): Brush | null {
  const preset = [SMOOTH, MASK].find((b) => b.id === id);
  if (!preset) return null;
  const out = plain(preset);
  out.stroke.size = size;
  out.stroke.mapping = 'surface';
  return out;
}
