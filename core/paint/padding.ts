/**
 * Texels beside an island take the colour of the nearest one in it, so that a renderer that reads between texels finds
 * no clear ones at a seam.
 */
import type { Atlas } from './atlas';
import { eachTexel } from './texels';
import { TILE, tileAt, touchTile, wordAt, type Texture } from './texture';

/** Texels out from an island. */
export const PADDING = 4;

/** Which texel of an island each texel beside it takes after, tile by tile; found when it is asked for first. */
export class Padding {
  /** x and y of the one beside, x and y of the one that it takes after. */
  private readonly found = new Map<number, Uint16Array>();

  constructor(private readonly of: Atlas) {}

  /** Pads round these tiles, which changed; answers the tiles that changed by it. */
  apply(on: Texture, changed: Iterable<number>): Set<number> {
    const across = this.of.size / TILE;
    const near = new Set<number>();
    for (const tile of changed)
      for (const dy of [-1, 0, 1])
        for (const dx of [-1, 0, 1]) {
          const [i, j] = [(tile % across) + dx, Math.floor(tile / across) + dy];
          if (i >= 0 && j >= 0 && i < across && j < across) near.add(j * across + i);
        }
    const out = new Set<number>();
    for (const tile of near) if (this.padTile(on, tile)) out.add(tile);
    return out;
  }

  private padTile(on: Texture, tile: number): boolean {
    const pairs = this.pairsOf(tile);
    let padded = false;
    for (let i = 0; i < pairs.length; i += 4) {
      const from = on.tiles.get(tileAt(on, pairs[i + 2], pairs[i + 3]));
      const into = from ? touchTile(on, tile) : on.tiles.get(tile);
      if (!into) continue;
      const at = wordAt(pairs[i], pairs[i + 1]);
      const source = wordAt(pairs[i + 2], pairs[i + 3]);
      for (let k = 0; k < 4; k++) {
        const word = from ? from[source + k] : 0;
        if (into[at + k] !== word) padded = true;
        into[at + k] = word;
      }
    }
    return padded;
  }

  private pairsOf(tile: number): Uint16Array {
    const known = this.found.get(tile);
    if (known) return known;
    const { size } = this.of;
    const across = size / TILE;
    const left = (tile % across) * TILE - PADDING;
    const top = Math.floor(tile / across) * TILE - PADDING;
    const side = TILE + 2 * PADDING;
    const own = this.occupied(left, top, side);
    const pairs: number[] = [];
    for (let y = PADDING; y < side - PADDING; y++)
      for (let x = PADDING; x < side - PADDING; x++) {
        if (own[y * side + x] !== 0) continue;
        const nearest = nearestOf(own, side, x, y);
        if (nearest) pairs.push(left + x, top + y, left + nearest[0], top + nearest[1]);
      }
    const packed = Uint16Array.from(pairs);
    this.found.set(tile, packed);
    return packed;
  }

  /** 1 where a triangle has the texel. */
  private occupied(left: number, top: number, side: number): Uint8Array {
    const { size, starts, triangles } = this.of;
    const across = size / TILE;
    const own = new Uint8Array(side * side);
    const inside = { left, top, right: left + side, bottom: top + side };
    const seen = new Set<number>();
    for (let j = Math.max(0, top >> 6); j <= Math.min(across - 1, (top + side - 1) >> 6); j++)
      for (let i = Math.max(0, left >> 6); i <= Math.min(across - 1, (left + side - 1) >> 6); i++)
        for (let n = starts[j * across + i]; n < starts[j * across + i + 1]; n++) seen.add(triangles[n]);
    for (const t of seen) eachTexel(this.of, t, (x, y) => (own[(y - top) * side + x - left] = 1), inside);
    return own;
  }
}

function nearestOf(own: Uint8Array, side: number, x: number, y: number): readonly [number, number] | null {
  let best: readonly [number, number] | null = null;
  let least = PADDING * PADDING + 1;
  for (let dy = -PADDING; dy <= PADDING; dy++)
    for (let dx = -PADDING; dx <= PADDING; dx++) {
      const far = dx * dx + dy * dy;
      if (far < least && own[(y + dy) * side + x + dx] === 1) {
        best = [x + dx, y + dy];
        least = far;
      }
    }
  return best;
}
