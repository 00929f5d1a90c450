/** The form of a dab: the alpha's level that suits the surface's density, and what a full height of it is worth. */
import type { ResolvedBrush } from '#core/brush';
import { levelFor, type Picture } from '#core/picture';

export interface DabForm {
  picture: Picture | null;
  fit: number;
  ground: number;
  /** depth · relief · (2r / fit): body units for a full-height form. */
  scale: number;
}

export function dabForm(brush: ResolvedBrush, radius: number, spacing: number): DabForm {
  const side = (2 * radius) / brush.fit;
  const base = brush.alpha?.levels[0];
  return {
    picture: brush.alpha && base ? levelFor(brush.alpha, side / base.width, spacing) : null,
    fit: brush.fit,
    ground: brush.ground,
    // A plain form has no square to be shrunk, so fit leaves its depth alone.
    scale: brush.depth * brush.relief * (brush.alpha ? side : 2 * radius),
  };
}
