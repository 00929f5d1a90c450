/** Texture coordinates for pieces that become part of a body that has some: islands where nothing of it lies yet. */
import { boxUnwrap, freeSquares, type RawMesh } from '#core/mesh';

/** Of its side, what a square keeps free round its islands. */
const INSET = 0.02;

/**
 * Six numbers for each triangle of each piece. A piece that has coordinates of its own within the square keeps its
 * islands, smaller. Throws a sentence where the body leaves no room.
 */
export function coordinatesBeside(body: Float32Array, pieces: readonly RawMesh[]): Float32Array[] {
  const squares = freeSquares(body, pieces.map(widest));
  if (!squares)
    throw new Error(
      `The texture has no room left for ${pieces.length === 1 ? 'this piece' : `${pieces.length} pieces`}: the body’s islands fill it. ` +
        'Take fewer pieces, or let the body be unwrapped anew before it is painted.',
    );
  return pieces.map((piece, i) => {
    const { u, v, side } = squares[i];
    const own = piece.carried?.coordinates;
    const within = own?.every((c) => c >= 0 && c <= 1) ? own : boxUnwrap(piece);
    const scale = side * (1 - 2 * INSET);
    return within.map((c, k) => (k % 2 === 0 ? u : v) + side * INSET + c * scale);
  });
}

function widest({ positions }: RawMesh): number {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  positions.forEach((x, i) => {
    low[i % 3] = Math.min(low[i % 3], x);
    high[i % 3] = Math.max(high[i % 3], x);
  });
  return Math.max(...high.map((x, k) => x - low[k]));
}
