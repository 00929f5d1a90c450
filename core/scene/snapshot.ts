/** Pieces as a body keeps them: the places of those that were bent lie in one run of numbers beside the document. */
import type { OwnBody } from '#core/settings';
import type { Piece } from './piece';

export interface PiecesSnapshot {
  pieces: OwnBody['pieces'];
  /** Null where none was bent. */
  shapes: Float32Array | null;
}

export function snapshotOfPieces(all: readonly Piece[]): PiecesSnapshot {
  const bent = all.flatMap(({ shape }) => (shape ? [shape] : []));
  const shapes = new Float32Array(bent.reduce((sum, shape) => sum + shape.length, 0));
  let from = 0;
  const pieces = all.map(({ shape, ...piece }) => {
    if (!shape) return { ...piece, shape: null };
    shapes.set(shape, from);
    from += shape.length;
    return { ...piece, shape: { from: from - shape.length, length: shape.length } };
  });
  return { pieces, shapes: shapes.length > 0 ? shapes : null };
}

/** Throws a sentence when a bent one's places are not there. */
export function piecesFrom({ pieces, shapes }: PiecesSnapshot): Piece[] {
  return pieces.map(({ shape, ...piece }) => {
    if (!shape) return { ...piece, shape: null };
    const own = shapes?.slice(shape.from, shape.from + shape.length);
    if (own?.length !== shape.length)
      throw new Error(`The piece “${piece.name}” is cut short: its places are missing.`);
    return { ...piece, shape: own };
  });
}
