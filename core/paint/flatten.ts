/**
 * Layers seen as one: normal ones lie over each other in linear light, the others blend by the W3C’s Compositing and
 * Blending Level 1 in displayed colours, as it is written for.
 */
import { toSrgb } from '#core/colour';
import type { Layer } from './layers';
import { MOST_STACKED, texelRoom, type Stacked } from './texelRoom';
import { FULL, TILE_WORDS, tilesAcross, type Texture } from './texture';

export class Flattener {
  private readonly room = texelRoom();
  private readonly stack: Stacked[] = [];
  /** Colour in linear light times cover, and cover, 0–1, of the texels of the tile that was flattened last. */
  get out(): Float32Array {
    return this.room.out;
  }

  /** False where all of the tile is clear. O(layers that have the tile). */
  flatten(layers: readonly Layer[], tile: number): boolean {
    const { stack } = this;
    if (stackUp(stack, layers, tile)) {
      if (stack.length > 0) this.room.overAll(stack);
      return stack.length > 0;
    }
    let any = false;
    let hasBase = false;
    const clips = layers.some(({ clipped }) => clipped);
    for (const layer of layers) {
      const words = layer.tiles.get(tile);
      const seen = words && !layer.hidden && layer.opacity > 0;
      if (!layer.clipped) {
        hasBase = Boolean(seen);
        if (!seen) continue;
      } else if (!seen || !hasBase) continue;
      if (!any) this.room.clear();
      any = true;
      this.room.over(words, layer.mask?.get(tile) ?? null, layer, clips);
    }
    return any;
  }

  /** As a card that knows sRGB holds it: displayed colours of light times cover, and cover, 8 bits each. */
  bytesOf(layers: readonly Layer[], tile: number, into = new Uint8Array(TILE_WORDS)): Uint8Array {
    const [only, ...others] = layers.filter(({ hidden, opacity, tiles }) => !hidden && opacity > 0 && tiles.has(tile));
    const plain = only && others.length === 0 && only.opacity === 1 && !only.clipped && !only.mask?.has(tile);
    if (plain) wordsShown(only.tiles.get(tile)!, into);
    else if (this.flatten(layers, tile)) this.room.toBytes(into);
    else into.fill(0);
    return into;
  }

  /** As a tile of a texture holds it; null where all of it is clear. */
  wordsOf(layers: readonly Layer[], tile: number): Uint16Array | null {
    const { stack } = this;
    if (stackUp(stack, layers, tile)) return stack.length > 0 ? this.room.wordsOfAll(stack) : null;
    return this.flatten(layers, tile) ? this.room.toWords() : null;
  }

  /** As a tile of a texture holds what was flattened last. */
  words(): Uint16Array {
    return this.room.toWords();
  }
}

/** Puts what is seen of the tile into `stack`; false where layers do more than lie over each other. */
function stackUp(stack: Stacked[], layers: readonly Layer[], tile: number): boolean {
  stack.length = 0;
  for (const { tiles, mask, hidden, opacity, blend, clipped } of layers) {
    if (clipped) return false;
    const words = tiles.get(tile);
    if (!words || hidden || opacity <= 0) continue;
    if (blend !== 'normal' || mask?.has(tile)) return false;
    stack.push({ words, opacity });
  }
  return stack.length <= MOST_STACKED;
}

/** Displayed byte of each word. */
const SHOWN_WORDS = Uint8Array.from({ length: FULL + 1 }, (_, i) => Math.round(toSrgb(i / FULL) * 255));

function wordsShown(words: Uint16Array, out: Uint8Array): void {
  for (let i = 0; i < TILE_WORDS; i += 4) {
    out[i] = SHOWN_WORDS[words[i]];
    out[i + 1] = SHOWN_WORDS[words[i + 1]];
    out[i + 2] = SHOWN_WORDS[words[i + 2]];
    out[i + 3] = (words[i + 3] + 128) / 257;
  }
}

/** All of it, as one texture. */
export function flattened(layers: readonly Layer[], size: number): Texture {
  const out: Texture = { size, tiles: new Map() };
  const flat = new Flattener();
  for (const tile of tilesOf(layers)) {
    const words = flat.wordsOf(layers, tile);
    if (words) out.tiles.set(tile, words);
  }
  return out;
}

/** Every tile that a layer has, in order. */
export function tilesOf(layers: readonly Layer[]): number[] {
  return [...new Set(layers.flatMap(({ tiles }) => [...tiles.keys()]))].sort((a, b) => a - b);
}

/** Every tile there can be. */
export function allTiles(size: number): number[] {
  return Array.from({ length: tilesAcross({ size }) ** 2 }, (_, i) => i);
}
