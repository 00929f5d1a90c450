/**
 * A texture at another size: sizes are powers of two, so texels are averaged by whole numbers, or read in between.
 * Tiles that are one array, as after a fill, stay one where they can.
 */
import { texture, TILE, TILE_WORDS, tilesAcross, type Texture } from './texture';

/** O(texels of tiles that are there, at the larger of the two sizes). */
export function resized(from: Texture, size: number): Texture {
  if (from.size === size) return from;
  return from.size > size ? averaged(from, size) : spread(from, size);
}

/** What a tile of one colour becomes, whatever its size. */
class Flat {
  private readonly known = new Map<Uint16Array, boolean>();

  is(words: Uint16Array): boolean {
    let flat = this.known.get(words);
    if (flat === undefined) {
      flat = words.every((word, i) => word === words[i & 3]);
      this.known.set(words, flat);
    }
    return flat;
  }
}

function averaged(from: Texture, size: number): Texture {
  const out = texture(size);
  const by = from.size / size;
  const [wide, across] = [tilesAcross(from), tilesAcross(out)];
  const flat = new Flat();
  const sources = new Map<number, [tile: number, words: Uint16Array][]>();
  for (const [tile, words] of from.tiles) {
    const to = Math.floor(Math.floor(tile / wide) / by) * across + Math.floor((tile % wide) / by);
    const list = sources.get(to) ?? [];
    list.push([tile, words]);
    sources.set(to, list);
  }
  const sum = new Float64Array(TILE_WORDS);
  const part = TILE / by;
  const shift = Math.log2(by);
  for (const [to, list] of sources) {
    const [[, first]] = list;
    if (list.length === by * by && list.every(([, words]) => words === first) && flat.is(first)) {
      out.tiles.set(to, first);
      continue;
    }
    sum.fill(0);
    for (const [tile, words] of list) {
      const [left, top] = [((tile % wide) % by) * part, (Math.floor(tile / wide) % by) * part];
      for (let i = 0; i < TILE * TILE; i++) {
        const at = ((top + (i >> (6 + shift))) * TILE + left + ((i & (TILE - 1)) >> shift)) * 4;
        sum[at] += words[i * 4];
        sum[at + 1] += words[i * 4 + 1];
        sum[at + 2] += words[i * 4 + 2];
        sum[at + 3] += words[i * 4 + 3];
      }
    }
    const words = new Uint16Array(TILE_WORDS);
    const share = 1 / (by * by);
    let any = 0;
    for (let i = 0; i < TILE_WORDS; i++) any |= words[i] = sum[i] * share + 0.5;
    if (any !== 0) out.tiles.set(to, words);
  }
  return out;
}

/** A tile with a texel of its neighbours round it. */
const SIDE = TILE + 2;

function spread(from: Texture, size: number): Texture {
  const out = texture(size);
  const by = size / from.size;
  const [wide, across] = [tilesAcross(from), tilesAcross(out)];
  const flat = new Flat();
  const round = new Float32Array(SIDE * SIDE * 4);
  // What is clear beside what isn’t takes from it too.
  const wanted = new Set<number>();
  for (const tile of from.tiles.keys()) for (const near of neighbours(tile, wide)) if (near >= 0) wanted.add(near);
  for (const tile of wanted) {
    const near = neighbours(tile, wide);
    const own = from.tiles.get(tile);
    const same = own && flat.is(own) && near.every((other) => other < 0 || from.tiles.get(other) === own);
    if (!same) fillRound(from, tile, round);
    const [left, top] = [(tile % wide) * by, Math.floor(tile / wide) * by];
    for (let j = 0; j < by; j++)
      for (let i = 0; i < by; i++) {
        const words = same ? own : between(round, by, (i * TILE) / by, (j * TILE) / by);
        if (words) out.tiles.set((top + j) * across + left + i, words);
      }
  }
  return out;
}

/** The tile and those round it, row by row; −1 for what is beyond the texture. */
function neighbours(tile: number, wide: number): number[] {
  const [x, y] = [tile % wide, Math.floor(tile / wide)];
  return [-1, 0, 1].flatMap((dy) =>
    [-1, 0, 1].map((dx) =>
      x + dx >= 0 && y + dy >= 0 && x + dx < wide && y + dy < wide ? (y + dy) * wide + x + dx : -1,
    ),
  );
}

/** Beyond the texture its edge goes on. */
function fillRound({ tiles, size }: Texture, tile: number, into: Float32Array): void {
  const wide = size / TILE;
  const [left, top] = [(tile % wide) * TILE, Math.floor(tile / wide) * TILE];
  for (let j = 0; j < SIDE; j++) {
    const y = Math.min(size - 1, Math.max(0, top + j - 1));
    for (let i = 0; i < SIDE; i++) {
      const x = Math.min(size - 1, Math.max(0, left + i - 1));
      const words = tiles.get((y >> 6) * wide + (x >> 6));
      const from = ((y & (TILE - 1)) * TILE + (x & (TILE - 1))) * 4;
      const at = (j * SIDE + i) * 4;
      for (let k = 0; k < 4; k++) into[at + k] = words ? words[from + k] : 0;
    }
  }
}

/** A tile of the larger one, which begins at this texel of the smaller’s; null where all of it is clear. */
function between(round: Float32Array, by: number, left: number, top: number): Uint16Array | null {
  const out = new Uint16Array(TILE_WORDS);
  const across = SIDE * 4;
  let any = 0;
  for (let y = 0, to = 0; y < TILE; y++) {
    const py = top + (y + 0.5) / by + 0.5;
    const row = py | 0;
    const fy = py - row;
    for (let x = 0; x < TILE; x++, to += 4) {
      const px = left + (x + 0.5) / by + 0.5;
      const column = px | 0;
      const fx = px - column;
      const a = (row * SIDE + column) * 4;
      const [ab, cd] = [(1 - fx) * (1 - fy), (1 - fx) * fy];
      const [ba, dc] = [fx * (1 - fy), fx * fy];
      const c = a + across;
      any |= out[to] = round[a] * ab + round[a + 4] * ba + round[c] * cd + round[c + 4] * dc + 0.5;
      any |= out[to + 1] = round[a + 1] * ab + round[a + 5] * ba + round[c + 1] * cd + round[c + 5] * dc + 0.5;
      any |= out[to + 2] = round[a + 2] * ab + round[a + 6] * ba + round[c + 2] * cd + round[c + 6] * dc + 0.5;
      any |= out[to + 3] = round[a + 3] * ab + round[a + 7] * ba + round[c + 3] * cd + round[c + 7] * dc + 0.5;
    }
  }
  return any >= 1 ? out : null;
}
