/** The steps of a session's history, and whether one can be run again. */
import type { DabFrame } from '#core/brush';
import type { Edit } from '#core/edit';
import type { Layer, LayerEdit } from '#core/paint';
import type { Piece, PieceChange } from '#core/scene';
import type { RefineUnder, StrokeRecord } from '#core/stroke';
import type { MeshSnapshot } from '#core/timeline';

/** What lies beside the clay changed, as text that whoever opened the session reads. */
export interface Beside {
  /** Changes of one id that follow each other are one step. */
  id: number;
  before: string;
  after: string;
}

export type Step =
  | { kind: 'stroke'; record: StrokeRecord }
  | { kind: 'edit'; edit: Edit; beside?: Beside }
  /** Pieces became others. */
  | { kind: 'pieces'; changes: readonly PieceChange[] }
  /**
   * Pieces were merged into the body, which begins anew from there: strokes before it aren't run again. `left` are the
   * pieces that stand on it then, `painted` the layers and `size` the texture's, `origin` what the session had as its
   * own before.
   */
  | { kind: 'merge'; left: readonly Piece[]; painted: readonly Layer[]; size: number; origin: MeshSnapshot | null }
  /** Layers of the painting became others. */
  | { kind: 'layers'; edit: LayerEdit }
  /** The texture became larger or smaller, with what is on it. */
  | { kind: 'size'; size: number }
  /** The clay stays; what lies beside it changed. */
  | { kind: 'beside'; beside: Beside }
  /** Masks what the step before it raised. */
  | { kind: 'mask-raised' }
  /** Takes what is masked off the body. */
  | { kind: 'cut' }
  /** Another level of a slab. */
  | { kind: 'level' }
  /** A step of which only what it changed is known. */
  | { kind: 'earlier' };

/** Dabs of a stroke that asks for finer triangles, those of the symmetry's copies among them. */
export interface Under {
  frames: readonly DabFrame[];
  refine: RefineUnder;
}

/** Whether it gives the same again from the same clay, so that what stood after it needn't be kept. */
export function runsAgain({ kind }: Step): boolean {
  return kind !== 'level' && kind !== 'earlier' && kind !== 'merge';
}

/** Strokes of a brush in `brushes` take its settings, the others keep their own. */
export function withBrushes<T extends Step>(step: T, brushOf: (record: StrokeRecord) => StrokeRecord['brush']): T {
  return step.kind === 'stroke' ? { ...step, record: { ...step.record, brush: brushOf(step.record) } } : step;
}
