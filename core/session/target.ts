/**
 * What takes a stroke's dabs: clay, or pieces. A stroke runs on several targets at once as on one; all of them gather
 * before any of them moves, so that each sees the others as they were before the dab.
 */
import type { ResolvedBrush } from '#core/brush';
import type { Dab, Surface } from '#core/sculpt';
import type { StrokeRecord } from '#core/stroke';
import type { Change, Stage } from '#core/timeline';
import { clayTarget } from './clayTarget';
import { pieceClay, pieceClayTarget } from './pieceClay';
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

export interface Place {
  /** What the hand meets. */
  surface: Surface;
  /** What takes the dabs. */
  targets: Target[];
}

/** Where a stroke goes: on the body, or on pieces. One whose pieces are gone meets the body and changes nothing. */
export function placeOf({ surface, pieces }: Pick<Stage, 'surface' | 'pieces'>, record: StrokeRecord): Place {
  const { brush, on } = record;
  // Masks are the body's.
  const clay = on && brush.action !== 'mask' ? pieceClay(pieces, on, surface.mesh) : null;
  if (on && brush.action !== 'mask' && !clay) return { surface, targets: [] };
  const ground = clay?.surface ?? surface;
  if (brush.action === 'insert') return { surface: ground, targets: [pieceTarget(pieces, ground, record)] };
  return { surface: ground, targets: [clay ? pieceClayTarget(clay, pieces, brush) : clayTarget(surface, brush)] };
}
