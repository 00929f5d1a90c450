/**
 * What of a painting isn’t in the browser’s store yet, found by looking: tiles are never changed in place once a stroke
 * has ended, so one that is still the same array is kept already.
 */
import { headOf, type LayerHead, type Painting } from '#core/paint';

export interface DraftTile {
  layer: string;
  mask: boolean;
  tile: number;
  /** Null where it is gone. */
  words: Uint16Array | null;
}

export interface PaintDraft {
  size: number;
  layers: (LayerHead & { masked: boolean })[];
  tiles: DraftTile[];
  /** Nothing was kept before of this painting. */
  whole: boolean;
}

export class DraftedTiles {
  private painting: Painting | null = null;
  private readonly tiles = new Map<string, Uint16Array>();
  private heads = '';

  /** What was kept is lost: the next draft is whole. */
  forget(): void {
    this.painting = null;
  }

  /** A painting that came from where it is kept. */
  draftedAs(painting: Painting): void {
    this.draft(painting);
  }

  /** What is to be kept so that all is; null where all is. What it answers counts as kept from then on. */
  draft(painting: Painting): PaintDraft | null {
    const whole = this.painting !== painting;
    if (whole) this.tiles.clear();
    const layers = painting.layers.map((layer) => ({ ...headOf(layer), masked: layer.mask !== null }));
    const heads = JSON.stringify(layers);
    const out: DraftTile[] = [];
    /** Tiles that are one array here, as after a fill, are one there. */
    const copies = new Map<Uint16Array, Uint16Array>();
    const copyOf = (words: Uint16Array): Uint16Array => {
      const copy = copies.get(words) ?? words.slice();
      copies.set(words, copy);
      return copy;
    };
    const left = new Set(this.tiles.keys());
    for (const { id, tiles, mask } of painting.layers)
      for (const [isMask, own] of [
        [false, tiles],
        [true, mask],
      ] as const)
        for (const [tile, words] of own ?? []) {
          const key = `${id} ${isMask ? 'm' : 'c'} ${tile}`;
          left.delete(key);
          if (this.tiles.get(key) === words) continue;
          this.tiles.set(key, words);
          out.push({ layer: id, mask: isMask, tile, words: copyOf(words) });
        }
    for (const key of left) {
      const [layer, kind, tile] = key.split(' ');
      this.tiles.delete(key);
      out.push({ layer, mask: kind === 'm', tile: Number(tile), words: null });
    }
    if (!whole && out.length === 0 && heads === this.heads) return null;
    // A painting that was only begun isn’t worth another’s place.
    if (whole && out.length === 0 && painting.layers.length === 1) return null;
    this.painting = painting;
    this.heads = heads;
    return { size: painting.size, layers, tiles: out, whole };
  }
}
