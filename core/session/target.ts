/**
 * What takes a stroke's dabs: clay, or pieces. A stroke runs on several targets at once as on one; all of them gather
 * before any of them moves, so that each sees the others as they were before the dab.
 */
import type { ResolvedBrush } from '#core/brush';
import { applyGathered, beginSpan, gatherDabs, rewindSpan, type Dab, type Surface } from '#core/sculpt';
import type { StrokeRecord } from '#core/stroke';
import { spanChanges, type Change, type Stage } from '#core/timeline';
import { pieceTarget } from './pieceTarget';

export interface Target {
  /**
   * Finds what a dab and its copies touch, and how much of them it takes; moves nothing. Answers how much it touched.
   */
  gather(dabs: readonly Dab[], sign: 1 | -1, brush: ResolvedBrush): number;
  /** Takes what was gathered last. */
  apply(): void;
  /** Is again as it was when the stroke began; the stroke goes on. */
  rewind(): void;
  /** The stroke has ended. Answers what brings back what was before it; nothing where nothing changed. */
  end(): Change[];
}

/** What takes the dabs of a stroke: clay, or pieces. */
export function targetsOf({ surface, pieces }: Pick<Stage, 'surface' | 'pieces'>, record: StrokeRecord): Target[] {
  return record.brush.action === 'insert'
    ? [pieceTarget(pieces, surface, record)]
    : [clayTarget(surface, record.brush)];
}

/** Clay that a stroke of this brush begins on. */
export function clayTarget(surface: Surface, brush: ResolvedBrush): Target {
  beginSpan(surface, brush.action === 'mask', looksAtNormals(brush));
  let apply = (): void => undefined;
  return {
    gather(dabs, sign, dabBrush) {
      const gathered = gatherDabs(surface, dabs, dabBrush, sign);
      apply = () => applyGathered(surface, gathered);
      return gathered.touched;
    },
    apply: () => apply(),
    rewind: () => rewindSpan(surface),
    end: () => spanChanges(surface),
  };
}

/** Whether dabs look at the normals that the surface began with. */
function looksAtNormals(brush: ResolvedBrush): boolean {
  return brush.direction === 'own' || brush.mapping === 'wrapped' || (brush.tooth !== null && !brush.tooth.carried);
}
