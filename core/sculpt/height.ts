/** The form of a dab: h − ground at (u, v), read from the alpha's level that suits the surface's density. */
import type { ResolvedBrush } from '#core/brush';
import { levelFor, sample, type Picture } from '#core/picture';

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

/** Outside the alpha's square the form moves nothing. */
export function heightAt(form: DabForm, u: number, v: number): number {
  if (!form.picture) return 1;
  const x = u * form.fit;
  const y = v * form.fit;
  if (x > 1 || x < -1 || y > 1 || y < -1) return 0;
  return sample(form.picture, (x + 1) / 2, (1 - y) / 2) - form.ground;
}
