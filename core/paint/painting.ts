/** A painting on a body: a texture in layers, and which of its tiles changed since the page was told last. */
import { allTiles, tilesOf } from './flatten';
import { headOf, newLayer, type Layer, type LayerHead } from './layers';
import { TEXTURE_SIZES, TILE_WORDS, type Texture } from './texture';
import { putTiles } from './tileEdits';

/** What of a painting a stroke goes on. */
export interface OnLayer {
  layer: string;
  /** Its mask, not its colour. */
  mask: boolean;
}

/** Tiles as they become; null takes one away. */
export type TileChange = ReadonlyMap<number, Uint16Array | null>;

export class Painting {
  private own: readonly Layer[];
  private changed = new Set<number>();
  private arranged = true;

  constructor(
    readonly size: number,
    layers: readonly Layer[] = [newLayer('first', 'Layer 1')],
  ) {
    if (!(TEXTURE_SIZES as readonly number[]).includes(size))
      throw new Error(`A texture is ${TEXTURE_SIZES.join(', ')} texels a side; this one has ${size}.`);
    this.own = layers;
    this.note(tilesOf(layers));
  }

  get layers(): readonly Layer[] {
    return this.own;
  }

  /** What a stroke paints on; null where the layer, or its mask, isn’t there. */
  texture({ layer, mask }: OnLayer): Texture | null {
    const one = this.own.find(({ id }) => id === layer);
    const tiles = mask ? one?.mask : one?.tiles;
    return tiles ? { size: this.size, tiles } : null;
  }

  /** Puts tiles into a layer; answers what takes that back. */
  put(on: OnLayer, tiles: TileChange): TileChange {
    const texture = this.texture(on);
    if (!texture) return new Map();
    this.note(tiles.keys());
    return putTiles(texture.tiles, tiles);
  }

  /** Other layers in these ones’ place; answers those that were. */
  arrange(layers: readonly Layer[]): readonly Layer[] {
    const was = this.own;
    this.own = layers;
    this.arranged = true;
    this.note(tilesOf([...was, ...layers]));
    return was;
  }

  /** These tiles look different now. */
  note(tiles: Iterable<number>): void {
    for (const tile of tiles) this.changed.add(tile);
  }

  /** Whoever shows it begins anew. */
  noteAll(): void {
    this.arranged = true;
    this.note(allTiles(this.size));
  }

  /** What changed since it was asked last: tiles, and the layers’ heads where those did. */
  drain(): { tiles: number[]; heads: LayerHead[] | null; masked: string[] } {
    const out = {
      tiles: [...this.changed].sort((a, b) => a - b),
      heads: this.arranged ? this.own.map(headOf) : null,
      masked: this.own.filter(({ mask }) => mask).map(({ id }) => id),
    };
    this.changed = new Set();
    this.arranged = false;
    return out;
  }

  /** As it is now, with tiles that are shared until either changes them. */
  snapshot(): readonly Layer[] {
    return this.own.map((layer) => ({
      ...layer,
      tiles: new Map(layer.tiles),
      mask: layer.mask && new Map(layer.mask),
    }));
  }
}

/** Memory of layers, where they don’t share tiles with others. */
export function layersBytes(layers: readonly Layer[], beside: readonly Layer[] = []): number {
  const shared = new Set<Uint16Array>();
  for (const { tiles, mask } of beside)
    for (const words of [...tiles.values(), ...(mask?.values() ?? [])]) shared.add(words);
  let bytes = 0;
  for (const { tiles, mask } of layers)
    for (const words of [...tiles.values(), ...(mask?.values() ?? [])]) {
      if (shared.has(words)) continue;
      shared.add(words);
      bytes += TILE_WORDS * 2;
    }
  return bytes;
}

export function tilesBytes(tiles: TileChange): number {
  let bytes = 0;
  for (const words of tiles.values()) bytes += words ? words.byteLength : 0;
  return bytes;
}
