/**
 * A layer and the one below it as one that looks the same. What one layer can hold depends on the pair: two normal ones
 * always, others by what they lie on (an opaque layer, nothing at all). So candidates are made and the first that shows
 * what the two showed is taken: every texel they touch, all layers over each other, is compared.
 */
import { Flattener, flattened, tilesOf } from './flatten';
import type { Layer } from './layers';

/** Largest difference of a word of 16 bits: what rounding the merged layer to words may add. */
const SAME = 48;

/**
 * The list with both merged into the lower one's place, under its id and name. Throws a sentence where no single layer
 * shows what the two show. O(texels of both × layers).
 */
export function mergedDown(layers: readonly Layer[], at: number): Layer[] {
  if (at === 0) throw new Error('There is no layer below this one to merge it with.');
  const [below, above] = [layers[at - 1], layers[at]];
  const tiles = tilesOf([below, above]);
  const shown = shownOf(layers, tiles);
  for (const one of candidates(below, above)) {
    const merged = [...layers.slice(0, at - 1), { ...one, id: below.id, name: below.name }, ...layers.slice(at + 1)];
    if (sameLook(shown, shownOf(merged, tiles))) return merged;
  }
  throw new Error(
    `“${above.name}” and “${below.name}” can’t be one layer that looks the same: ${reason(layers, at)} Merge those first, or flatten a copy.`,
  );
}

/** Simplest first. */
function* candidates(below: Layer, above: Layer): Generator<Layer> {
  if (!seen(above)) yield below;
  if (!seen(below)) {
    yield { ...above, locked: below.locked };
    yield below;
  }
  const first = { ...below, clipped: false };
  const second = { ...above, clipped: above.clipped && !below.clipped };
  const { tiles } = flattened([first, second], 0);
  const whole = { ...below, tiles, mask: null, opacity: 1, hidden: false };
  yield { ...whole, blend: 'normal' };
  yield { ...whole, blend: 'normal', clipped: false };
  yield { ...whole, tiles: flattened([{ ...first, blend: 'normal' }, second], 0).tiles };
}

const seen = ({ hidden, opacity }: Layer): boolean => !hidden && opacity > 0;

function reason(layers: readonly Layer[], at: number): string {
  const [below, above] = [layers[at - 1], layers[at]];
  if (layers[at + 1]?.clipped) return 'layers above are clipped onto it.';
  if (above.blend !== 'normal' || below.blend !== 'normal')
    return 'they blend with what shows through from the layers below.';
  return 'they are clipped onto a layer that shows through.';
}

function shownOf(layers: readonly Layer[], tiles: readonly number[]): (Uint16Array | null)[] {
  const flat = new Flattener();
  return tiles.map((tile) => flat.wordsOf(layers, tile)?.slice() ?? null);
}

function sameLook(one: readonly (Uint16Array | null)[], other: readonly (Uint16Array | null)[]): boolean {
  return one.every((words, i) => {
    const others = other[i];
    for (let w = 0; w < (words ?? others ?? []).length; w++)
      if (Math.abs((words?.[w] ?? 0) - (others?.[w] ?? 0)) > SAME) return false;
    return true;
  });
}
