/**
 * What takes a stroke's dabs: clay, or pieces. A stroke runs on several targets at once as on one; all of them gather
 * before any of them moves, so that each sees the others as they were before the dab.
 */
import type { ResolvedBrush } from '#core/brush';
import { PAINT_ACTIONS } from '#core/settings';
import type { Dab, Surface } from '#core/sculpt';
import type { StrokeRecord } from '#core/stroke';
import { placesOn, type Change, type Stage } from '#core/timeline';
import { clayTarget } from './clayTarget';
import { pieceClay, pieceClayTarget } from './pieceClay';
import { paintTarget } from './paintTarget';
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

/**
 * Where a stroke goes: on the body, its texture, or on pieces. One whose pieces are gone meets the body and changes
 * nothing, as does paint where there is no texture.
 */
/** What of a stage strokes go on. */
export type Ground = Pick<Stage, 'surface' | 'pieces' | 'painting' | 'places'>;

export function placeOf(stage: Ground, record: StrokeRecord): Place {
  const { surface, pieces } = stage;
  const { brush, on } = record;
  // Masks are the body's.
  const clay = on && brush.action !== 'mask' ? pieceClay(pieces, on, surface.mesh) : null;
  if (on && brush.action !== 'mask' && !clay) return { surface, targets: [] };
  const ground = clay?.surface ?? surface;
  const painted = paintedBy(stage, record);
  if (painted && paintsOnly(brush)) return { surface, targets: [painted] };
  if (paintsOnly(brush)) return { surface, targets: [] };
  if (brush.action === 'insert') return { surface: ground, targets: [pieceTarget(pieces, ground, record)] };
  if (clay) return { surface: ground, targets: [pieceClayTarget(clay, pieces, brush)] };
  // Texels are looked up before the clay moves.
  return { surface, targets: [...(painted ? [painted] : []), clayTarget(surface, brush)] };
}

/** Paint lies on the body alone. A body that lost its coordinates takes none. */
function paintedBy(stage: Ground, record: StrokeRecord): Target | null {
  const { brush, on } = record;
  if (!brush.paint || !stage.painting || !stage.surface.mesh.carried?.coordinates || on) return null;
  return paintTarget(stage.painting, placesOn(stage), brush.paint, record);
}

function paintsOnly({ paint, action }: ResolvedBrush): boolean {
  return paint !== null && (PAINT_ACTIONS as readonly string[]).includes(action);
}
