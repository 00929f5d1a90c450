/**
 * Changes of a whole slab that are no strokes: masks, changes by number, baking set forms. Kept in undo and run again
 * as they are.
 */
import type { Surface } from '#core/sculpt';
import type { Picture } from '#core/picture';
import type { ByNumber, Frame, NumberKind, SetForm, Symmetry } from '#core/settings';
import { bake, type PartHeights } from './bake';
import { changeByNumber } from './byNumber';
import { maskFromAlpha, maskFromHeight, maskFromSlope } from './maskFrom';
import { maskShape, type MaskShape } from './maskShape';
import { invertMask, clearMask, growMask, softenMask } from './maskWhole';
import { untouched } from './untouched';

/** Whether a mask is added to what is masked or taken away from it. */
export type MaskMode = 'add' | 'subtract';

export type Edit =
  | { kind: 'mask-shape'; shape: MaskShape; mode: MaskMode; symmetry: Symmetry }
  | { kind: 'mask-invert' }
  | { kind: 'mask-clear' }
  | { kind: 'mask-soften'; steps: number }
  /** Negative shrinks. */
  | { kind: 'mask-grow'; steps: number }
  | { kind: 'mask-alpha'; picture: Picture; frame: Frame; mode: MaskMode }
  /** Heights in body units; `soft` is the width of the edges. */
  | { kind: 'mask-height'; low: number; high: number; soft: number; mode: MaskMode }
  /** Degrees from level. */
  | { kind: 'mask-slope'; low: number; high: number; soft: number; mode: MaskMode }
  | { kind: 'by-number'; change: NumberKind; numbers: ByNumber }
  | { kind: 'bake'; setForms: readonly SetForm[]; parts: PartHeights }
  /** Back to a flat plane of this side; masks stay. */
  | { kind: 'untouched'; side: number };

export function touchesMask(edit: Edit): boolean {
  return edit.kind.startsWith('mask-');
}

/** Applies the edit within the surface's running span. */
export function applyEdit(s: Surface, edit: Edit): void {
  switch (edit.kind) {
    case 'mask-shape':
      return maskShape(s, edit.shape, edit.mode, edit.symmetry);
    case 'mask-invert':
      return invertMask(s);
    case 'mask-clear':
      return clearMask(s);
    case 'mask-soften':
      return softenMask(s, edit.steps);
    case 'mask-grow':
      return growMask(s, edit.steps);
    case 'mask-alpha':
      return maskFromAlpha(s, edit.picture, edit.frame, edit.mode);
    case 'mask-height':
      return maskFromHeight(s, edit.low, edit.high, edit.soft, edit.mode);
    case 'mask-slope':
      return maskFromSlope(s, edit.low, edit.high, edit.soft, edit.mode);
    case 'by-number':
      return changeByNumber(s, edit.change, edit.numbers);
    case 'bake':
      return bake(s, edit.setForms, edit.parts);
    case 'untouched':
      return untouched(s, edit.side);
  }
}
