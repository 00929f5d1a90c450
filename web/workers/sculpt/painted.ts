/** What the page is told of a painting: the tiles that look different now, and its layers where they changed. */
import { Flattener, TILE_WORDS, type Painting } from '#core/paint';
import type { Mesh } from '#core/mesh';
import type { Session } from '#core/session';
import type { Painted } from './messages';

/** `told` is what the page knows: another painting, or another mesh, is told whole. */
export function paintedSince(
  { painting, surface: { mesh } }: Session,
  told: { painted: { painting: Painting; mesh: Mesh } | null },
): Painted | null {
  if (!painting) {
    const left = told.painted !== null;
    told.painted = null;
    return left
      ? {
          size: 0,
          on: { coordinates: null },
          tiles: new Uint32Array(0),
          runs: new Uint32Array(0),
          bytes: new Uint8Array(0),
          layers: [],
        }
      : null;
  }
  const fresh = told.painted?.painting !== painting;
  const moved = fresh || told.painted?.mesh !== mesh;
  told.painted = { painting, mesh };
  if (fresh) painting.noteAll();
  const { tiles, heads, masked } = painting.drain();
  if (!moved && tiles.length === 0 && !heads) return null;
  const flat = new Flattener();
  // A new texture is clear: what is clear needn’t be told.
  const seen = tiles.filter((tile) => !fresh || painting.layers.some((layer) => layer.tiles.has(tile)));
  const { runs, of } = alike(painting, seen);
  const bytes = new Uint8Array(of.length * TILE_WORDS);
  of.forEach((tile, i) => {
    flat.bytesOf(painting.layers, tile, bytes.subarray(i * TILE_WORDS, (i + 1) * TILE_WORDS));
  });
  return {
    size: painting.size,
    on: moved ? { coordinates: mesh.carried?.coordinates?.slice() ?? null } : null,
    tiles: Uint32Array.from(seen),
    runs,
    bytes,
    layers: heads?.map((head) => ({ ...head, masked: masked.includes(head.id) })) ?? null,
  };
}

/** Tiles that are the same arrays in every layer, as after a fill, look alike: each is told once. */
function alike({ layers }: Painting, tiles: readonly number[]): { runs: Uint32Array; of: number[] } {
  const ids = new Map<Uint16Array | undefined, number>([[undefined, 0]]);
  const idOf = (words: Uint16Array | undefined): number => {
    const id = ids.get(words) ?? ids.size;
    ids.set(words, id);
    return id;
  };
  const known = new Map<string, number>();
  const of: number[] = [];
  const runs = Uint32Array.from(tiles, (tile) => {
    const key = layers.map((layer) => `${idOf(layer.tiles.get(tile))} ${idOf(layer.mask?.get(tile))}`).join();
    const run = known.get(key) ?? of.push(tile) - 1;
    known.set(key, run);
    return run;
  });
  return { runs, of };
}
