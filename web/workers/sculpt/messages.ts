/** What goes between the page and the worker that owns the memory of a body. */
import type { Edit } from '#core/edit';
import type { BodyName, MeshLayout } from '#core/mesh';
import type { Layer, LayerHead } from '#core/paint';
import type { Piece, PieceChange } from '#core/scene';
import type { Step } from '#core/session';
import type { Frame } from '#core/settings';
import type { StrokeRecord, StrokeStart } from '#core/stroke';
import type { UpperLevel } from '#core/timeline';

export type Opening =
  | {
      kind: 'slab';
      cells: number;
      places: ArrayBuffer | null;
      mask: ArrayBuffer | null;
      upper: UpperLevel[];
      history: ArrayBuffer | null;
    }
  /** `fresh` leaves the strokes of the body before behind; otherwise they are run again on this one. */
  | {
      kind: 'body';
      body: { name: BodyName; density: number } | { mesh: ArrayBuffer };
      levels: number;
      fresh: boolean;
      /** `merged` where the body is the one that is open, with what was merged into it: what was done since is run. */
      pieces?: Piece[] | 'merged';
      /** What is painted on it already. */
      painting?: { size: number; layers: Layer[] } | null;
      /** What drafts of its painting are kept as. */
      paintedAs?: string;
    };

/** A call that the page follows, and may give up by its number. */
export interface Followed {
  call: number;
  told: ((share: number) => void) | null;
}

export interface Opened {
  buffer: SharedArrayBuffer;
  layout: MeshLayout;
  spacing: number;
  /** Shown in passing, while a stroke is drawn: the body itself is as it was. */
  passing: boolean;
}

export interface Change {
  /** Leaves whose vertices changed, ascending. */
  leaves: Uint32Array;
  /** Another mesh took the place of the one that was open. */
  reopened: Opened | null;
  /** Steps that changed the clay and can be undone. */
  strokes: number;
  canUndo: boolean;
  canRedo: boolean;
  /** A stroke is shown that is neither kept nor taken back. */
  stroking: boolean;
  /** Radius and turn of the dab that is being laid, while it is. */
  dab: { radius: number } | null;
  level: LevelState | null;
  /** Pieces that changed since the page was told last, as they are now. */
  pieces: PieceChange[];
  /** Pieces were merged into the body since it was opened. */
  merged: boolean;
  /** What lies beside the clay from now on, where undo or redo changed it. */
  beside: string | null;
  /** What changed of the painting; null where nothing did. */
  painted: Painted | null;
}

/** What changed of a painting since the page was told last. */
export interface Painted {
  /** Texels a side. */
  size: number;
  /** Another painting, or another mesh under it: u, v of each corner of each triangle, null where it has none. */
  on: { coordinates: Float32Array | null } | null;
  tiles: Uint32Array;
  /** What is seen, tile behind tile: displayed colours of light times cover, and cover. Those alike are there once. */
  bytes: Uint8Array;
  /** Which of these each of `tiles` shows. */
  runs: Uint32Array;
  /** Its layers from the lowest, where they became others; “masked” have a mask. */
  layers: (LayerHead & { masked: boolean })[] | null;
}

/** The level of a slab that is sculpted, and how many finer ones were stepped down from. */
export interface LevelState {
  cells: number;
  upper: number;
}

/** A stroke as it is kept: everything but its brush's settings. */
export type StrokeSnapshot = Omit<StrokeRecord, 'brush'> & { brushId: string };

/** A step as it is laid on another body. */
export type StepSnapshot =
  | { kind: 'stroke'; stroke: StrokeSnapshot }
  | Extract<Step, { kind: 'edit' | 'layers' | 'size' | 'mask-raised' | 'cut' }>;

export type Begin = Omit<StrokeStart, 'brush'> & { brushId: string };

/** An edit as the page names it: an alpha by its id, its picture is here. */
export type EditOrder =
  | Exclude<Edit, { kind: 'mask-alpha' | 'bake' }>
  | { kind: 'mask-alpha'; alphaId: string; frame: Frame; mode: 'add' | 'subtract' };
