/** What a step changed, kept as what brings it back. Whatever is changed by a step of history is one of these. */
import { bytesOf, endSpan, restore, copyLeaves, type Before, type Surface } from '#core/sculpt';
import { layersBytes, tilesBytes, type Layer, type OnLayer, type Painting, type TileChange } from '#core/paint';
import { piecesBytes, type PieceChange } from '#core/scene';
import { snapshotBytes, snapshot, stageOf, type MeshSnapshot, type Stage } from './stage';

export type Change =
  /** Leaves of the mesh, as they stood. */
  | { kind: 'leaves'; leaves: Before }
  /** Another mesh in this one's place; `on` is what the step then changed of this one. */
  | { kind: 'mesh'; mesh: MeshSnapshot; on: Before | null }
  /** Pieces as they were. */
  | { kind: 'pieces'; pieces: readonly PieceChange[] }
  /** Tiles of a layer, or of its mask, as they were. */
  | { kind: 'tiles'; on: OnLayer; tiles: TileChange }
  /** The painting’s layers as they were; `bytes` of those tiles that the ones in their place don’t have. */
  | { kind: 'layers'; layers: readonly Layer[]; bytes: number }
  /** Another painting in this one’s place. */
  | { kind: 'painting'; painting: Painting }
  /** What lies beside the clay. */
  | { kind: 'beside'; text: string | null };

/** Makes the change and answers the one that takes it back. Throws OutOfMemory and changes nothing. */
export function applied(stage: Stage, change: Change): Change {
  switch (change.kind) {
    case 'leaves': {
      const leaves = copyLeaves(stage.surface, change.leaves);
      restore(stage.surface, change.leaves);
      return { kind: 'leaves', leaves };
    }
    case 'mesh': {
      const mesh = snapshot(stage);
      Object.assign(stage, stageOf(change.mesh));
      return { kind: 'mesh', mesh, on: null };
    }
    case 'pieces':
      return { kind: 'pieces', pieces: stage.pieces.make(change.pieces) };
    case 'tiles':
      return { kind: 'tiles', on: change.on, tiles: stage.painting?.put(change.on, change.tiles) ?? new Map() };
    case 'layers': {
      const layers = stage.painting?.arrange(change.layers) ?? [];
      return { kind: 'layers', layers, bytes: layersBytes(layers, change.layers) };
    }
    case 'painting': {
      const painting = stage.painting ?? change.painting;
      putPainting(stage, change.painting);
      return { kind: 'painting', painting };
    }
    case 'beside': {
      const text = stage.beside;
      stage.beside = change.text;
      return { kind: 'beside', text };
    }
  }
}

/** Makes the change where nobody will want it back. */
export function apply(stage: Stage, change: Change): void {
  switch (change.kind) {
    case 'leaves':
      return restore(stage.surface, change.leaves);
    case 'mesh':
      return void Object.assign(stage, stageOf(change.mesh));
    case 'pieces':
      return void stage.pieces.make(change.pieces);
    case 'tiles':
      return void stage.painting?.put(change.on, change.tiles);
    case 'layers':
      return void stage.painting?.arrange(change.layers);
    case 'painting':
      return putPainting(stage, change.painting);
    case 'beside':
      stage.beside = change.text;
  }
}

function putPainting(stage: Stage, painting: Painting): void {
  stage.painting = painting;
  painting.noteAll();
}

/** Ends the span of a surface; what brings back what stood before it, nothing where nothing changed. */
export function spanChanges(surface: Surface): Change[] {
  const leaves = endSpan(surface);
  return leaves.leaves.length > 0 ? [{ kind: 'leaves', leaves }] : [];
}

/** Memory that a change takes while it is kept. */
export function changeBytes(change: Change): number {
  switch (change.kind) {
    case 'leaves':
      return bytesOf(change.leaves);
    case 'mesh':
      return snapshotBytes(change.mesh) + (change.on ? bytesOf(change.on) : 0);
    case 'pieces':
      return piecesBytes(change.pieces);
    case 'tiles':
      return tilesBytes(change.tiles);
    case 'layers':
      return change.bytes;
    case 'painting':
      return layersBytes(change.painting.layers);
    case 'beside':
      return (change.text?.length ?? 0) * 2;
  }
}
