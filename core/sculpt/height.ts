/** The form of a dab: the alpha's level that suits the surface's density, and what a full height of it is worth. */
import type { DabFrame, ResolvedBrush } from '#core/brush';
import { levelFor, type Picture } from '#core/picture';
import { stencilSide, type StencilRows } from '#core/stroke';

export interface DabForm {
  picture: Picture | null;
  fit: number;
  ground: number;
  /** depth · relief · side: body units for a full-height form. */
  scale: number;
}

export function dabForm(brush: ResolvedBrush, frame: DabFrame, stencil: StencilRows | null, spacing: number): DabForm {
  const side = sideOf(brush, frame, stencil);
  const base = brush.alpha?.levels[0];
  return {
    picture: brush.alpha && base ? levelFor(brush.alpha, side / base.width, spacing) : null,
    fit: brush.fit,
    ground: brush.ground,
    // A plain form has no square to be shrunk, so fit leaves its depth alone.
    scale: brush.height ?? brush.depth * brush.relief * (brush.alpha ? side : 2 * frame.radius),
  };
}

/** Side of the alpha's square on the body. */
function sideOf(brush: ResolvedBrush, frame: DabFrame, stencil: StencilRows | null): number {
  switch (brush.mapping) {
    case 'surface':
    case 'view':
    case 'shuffled':
      return (2 * frame.radius) / brush.fit;
    case 'wrapped':
      return brush.tile;
    case 'stencil':
      return stencil ? stencilSide(stencil, frame.origin, frame.tangent, frame.bitangent) : 0;
  }
}
