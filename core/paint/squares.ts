/** Tiles of a layer by squares of the texture, 8 × 8 tiles each: what is kept together. */
import { tilesAcross, type Tiles } from './texture';

const SIDE = 8;

/** Squares that have tiles, by their numbers row by row, and each one’s tiles by their numbers in it. */
export function squaresOf(tiles: Tiles, size: number): Map<number, Map<number, Uint16Array>> {
  const across = tilesAcross({ size });
  const out = new Map<number, Map<number, Uint16Array>>();
  for (const [tile, words] of tiles) {
    const [x, y] = [tile % across, Math.floor(tile / across)];
    const square = Math.floor(y / SIDE) * (across / SIDE) + Math.floor(x / SIDE);
    const own = out.get(square) ?? new Map<number, Uint16Array>();
    own.set((y % SIDE) * SIDE + (x % SIDE), words);
    out.set(square, own);
  }
  return out;
}

/** Puts a square’s tiles where they belong. Throws where the texture has no such square. */
export function putSquare(into: Tiles, size: number, square: number, tiles: ReadonlyMap<number, Uint16Array>): void {
  const across = tilesAcross({ size });
  const wide = across / SIDE;
  if (!(square >= 0 && square < wide * wide)) throw new Error(`A texture of ${size} has no square ${square}.`);
  const [left, top] = [(square % wide) * SIDE, Math.floor(square / wide) * SIDE];
  for (const [index, words] of tiles)
    into.set((top + Math.floor(index / SIDE)) * across + left + (index % SIDE), words);
}
