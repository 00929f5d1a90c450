/**
 * Tiles of a texture that a stroke changes. A tile is copied when it is touched first, so that what others hold of it
 * stays as it was: undo, snapshots and copies of a layer share tiles for nothing.
 */
import { TILE_WORDS, type Texture, type Tiles } from './texture';

export class TileEdits {
  readonly before = new Map<number, Uint16Array | null>();

  constructor(readonly on: Texture) {}

  /** What was there when the stroke began; null where it was clear. */
  was(tile: number): Uint16Array | null {
    return (this.before.has(tile) ? this.before.get(tile) : this.on.tiles.get(tile)) ?? null;
  }

  /** The tile’s words, to be changed in place. */
  open(tile: number): Uint16Array {
    const now = this.on.tiles.get(tile);
    if (this.before.has(tile)) return now!;
    const words = now ? now.slice() : new Uint16Array(TILE_WORDS);
    this.before.set(tile, now ?? null);
    this.on.tiles.set(tile, words);
    return words;
  }

  /** Another tile in its place, which others may have too. */
  replace(tile: number, by: Uint16Array, changed: Set<number>): void {
    if (!this.before.has(tile)) this.before.set(tile, this.on.tiles.get(tile) ?? null);
    this.on.tiles.set(tile, by);
    changed.add(tile);
  }

  /** As if it had never been; answers the tiles that changed. */
  rewind(): Set<number> {
    const changed = new Set(this.before.keys());
    putTiles(this.on.tiles, this.before);
    this.before.clear();
    return changed;
  }
}

/** Puts tiles in, or takes them out where they are null; answers what brings back what was there. */
export function putTiles(into: Tiles, tiles: ReadonlyMap<number, Uint16Array | null>): Map<number, Uint16Array | null> {
  const back = new Map<number, Uint16Array | null>();
  for (const [tile, words] of tiles) {
    back.set(tile, into.get(tile) ?? null);
    if (words) into.set(tile, words);
    else into.delete(tile);
  }
  return back;
}
