/**
 * The layers of a painting, from the lowest to the topmost, and what is done to them. A layer is never changed in place
 * but by a stroke that runs: every edit answers a list with new layers where they differ.
 */
import type { BlendMode, Linear } from '#core/colour';
import { allTiles } from './flatten';
import { mergedDown } from './mergeDown';
import { FULL, TILE_WORDS, type Tiles } from './texture';

export interface LayerHead {
  id: string;
  name: string;
  hidden: boolean;
  /** 0–1. */
  opacity: number;
  blend: BlendMode;
  /** Seen only where the layer that it lies on covers. */
  clipped: boolean;
  /** Colours change and what is clear stays clear. */
  locked: boolean;
}

export interface Layer extends LayerHead {
  tiles: Tiles;
  /** Its cover is how much of the layer is hidden; null for no mask. */
  mask: Tiles | null;
}

export const MOST_LAYERS = 64;

export function newLayer(id: string, name: string): Layer {
  return {
    id,
    name,
    hidden: false,
    opacity: 1,
    blend: 'normal',
    clipped: false,
    locked: false,
    tiles: new Map(),
    mask: null,
  };
}

/** A layer of one colour all over, with one tile for all. */
export function filledLayer(id: string, size: number, [r, g, b]: Linear): Layer {
  const words = new Uint16Array(TILE_WORDS);
  for (let i = 0; i < TILE_WORDS; i += 4) words.set([r * FULL, g * FULL, b * FULL, FULL], i);
  return { ...newLayer(id, 'Ground'), tiles: new Map(allTiles(size).map((tile) => [tile, words])) };
}

export function headOf({ id, name, hidden, opacity, blend, clipped, locked }: Layer): LayerHead {
  return { id, name, hidden, opacity, blend, clipped, locked };
}

export type LayerEdit =
  /** Above the layer that is named, or topmost. */
  | { kind: 'add'; id: string; name: string; above: string | null }
  | { kind: 'remove'; id: string }
  /** Of one `gesture`, e.g. a drag of a slider, the last counts. */
  | { kind: 'set'; id: string; to: Partial<Omit<LayerHead, 'id'>>; gesture?: number }
  /** To a place in the list, 0 the lowest. */
  | { kind: 'move'; id: string; to: number }
  | { kind: 'copy'; id: string; as: string; name: string }
  /** Begins a mask that hides nothing, or takes it off. */
  | { kind: 'mask'; id: string; on: boolean }
  | { kind: 'clear'; id: string }
  /** Layers from elsewhere, over all others. */
  | { kind: 'bring'; id: string; layers: readonly Layer[] }
  /** One layer of this and the one below it, as the two look. */
  | { kind: 'merge'; id: string };

/** Throws a sentence where a layer isn’t there, or there would be none or too many. */
export function edited(layers: readonly Layer[], edit: LayerEdit): Layer[] {
  const at = edit.kind === 'add' || edit.kind === 'bring' ? -1 : layers.findIndex(({ id }) => id === edit.id);
  if (edit.kind !== 'add' && edit.kind !== 'bring' && at < 0) throw new Error('This layer isn’t there any more.');
  const one = layers[at];
  const replaced = (by: Partial<Layer>): Layer[] => layers.map((layer, i) => (i === at ? { ...layer, ...by } : layer));
  switch (edit.kind) {
    case 'add':
    case 'copy': {
      if (layers.length >= MOST_LAYERS) throw new Error(`A painting has at most ${MOST_LAYERS} layers.`);
      const below = edit.kind === 'copy' ? at : layers.findIndex(({ id }) => id === edit.above);
      const made = edit.kind === 'copy' ? copied(one, edit.as, edit.name) : newLayer(edit.id, edit.name);
      const place = below < 0 ? layers.length : below + 1;
      return [...layers.slice(0, place), made, ...layers.slice(place)];
    }
    case 'bring': {
      if (layers.length + edit.layers.length > MOST_LAYERS)
        throw new Error(`A painting has at most ${MOST_LAYERS} layers.`);
      return [...layers, ...edit.layers.map((layer) => copied(layer, layer.id, layer.name))];
    }
    case 'remove':
      if (layers.length === 1) throw new Error('A painting needs one layer at least.');
      return layers.filter((_, i) => i !== at);
    case 'set':
      return replaced(edit.to);
    case 'move': {
      const rest = layers.filter((_, i) => i !== at);
      const to = Math.max(0, Math.min(rest.length, edit.to));
      return [...rest.slice(0, to), one, ...rest.slice(to)];
    }
    case 'mask':
      return replaced({ mask: edit.on ? (one.mask ?? new Map()) : null });
    case 'clear':
      return replaced({ tiles: new Map() });
    case 'merge':
      return mergedDown(layers, at);
  }
}

function copied(layer: Layer, id: string, name: string): Layer {
  return { ...layer, id, name, tiles: new Map(layer.tiles), mask: layer.mask && new Map(layer.mask) };
}
