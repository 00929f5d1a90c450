/**
 * A stroke that smears: each dab lays down what the one before took up, place by place in the dab, so that it goes over
 * edges and islands as the hand does.
 */
import type { DabFrame } from '#core/brush';
import { PigmentMixer } from '#core/colour';
import { Cover, cover, type PaintForm } from './cover';
import { reachOf } from './paintStroke';
import type { Places, TilePlaces } from './places';
import type { Texture } from './texture';
import { TileEdits } from './tileEdits';

export interface SmudgeOptions {
  locked?: boolean;
  pigment?: boolean;
}

/** Cells across what a dab carries: about as fine as texels, so that none is left empty. */
const MOST_CELLS = 160;
const LEAST_CELLS = 6;
const TEXELS_A_CELL = 1.5;

/** What a dab carries to the next: colour times cover, and cover, of each cell. */
interface Carried {
  side: number;
  cells: Float32Array;
}

export class SmudgeStroke {
  private readonly edits: TileEdits;
  private readonly covered = new Cover();
  /** By copy under symmetry. */
  private readonly carried = new Map<number, Carried>();
  private readonly mixer: PigmentMixer | null;

  constructor(
    on: Texture,
    private readonly places: Places,
    private readonly o: SmudgeOptions,
  ) {
    this.edits = new TileEdits(on);
    this.mixer = o.pigment ? new PigmentMixer() : null;
  }

  /** `copy` tells copies under symmetry apart: each carries its own. The first dab of each takes up alone. */
  dab(frame: DabFrame, form: PaintForm, copy: number, strength: number, changed: Set<number>): number {
    const before = this.carried.get(copy) ?? null;
    const near = this.places.near(frame.origin, reachOf(frame, form));
    const texel = near.reduce((least, { texel: width }) => (width > 0 ? Math.min(least, width) : least), Infinity);
    const fine = Math.round((2 * frame.radius) / (texel * TEXELS_A_CELL));
    const side = before?.side ?? Math.min(MOST_CELLS, Math.max(LEAST_CELLS, fine));
    const taken = new Float32Array(side * side * 5);
    let count = 0;
    for (const places of near) {
      if (!cover(places, frame, form, this.covered)) continue;
      count += this.covered.count;
      this.takeUp(places, side, taken);
      if (before && this.lay(places, before, strength)) changed.add(places.tile);
    }
    this.carried.set(copy, { side, cells: settled(taken, before, strength) });
    return count;
  }

  rewind(): Set<number> {
    this.carried.clear();
    return this.edits.rewind();
  }

  end(): ReadonlyMap<number, Uint16Array | null> {
    return this.edits.before;
  }

  /** Adds what lies under the dab, as it is before the dab, to the cells. */
  private takeUp({ tile, at: texels }: TilePlaces, side: number, taken: Float32Array): void {
    const { count, index, u, v } = this.covered;
    const words = this.edits.on.tiles.get(tile);
    for (let i = 0; i < count; i++) {
      const cell = cellAt(u[i], v[i], side) * 5;
      taken[cell + 4] += 1;
      if (!words) continue;
      const at = texels[index[i]] * 4;
      taken[cell] += words[at];
      taken[cell + 1] += words[at + 1];
      taken[cell + 2] += words[at + 2];
      taken[cell + 3] += words[at + 3];
    }
  }

  private lay({ tile, at: texels }: TilePlaces, { side, cells }: Carried, strength: number): boolean {
    const { count, index, u, v, amount } = this.covered;
    const { locked = false } = this.o;
    const last = side - 1;
    let words: Uint16Array | null = null;
    for (let i = 0; i < count; i++) {
      const share = amount[i] * strength;
      if (!(share > 0)) continue;
      words ??= this.edits.open(tile);
      const at = texels[index[i]] * 4;
      let x = ((u[i] + 1) / 2) * side - 0.5;
      let y = ((v[i] + 1) / 2) * side - 0.5;
      x = x < 0 ? 0 : x > last ? last : x;
      y = y < 0 ? 0 : y > last ? last : y;
      const column = x | 0;
      const row = y | 0;
      const fx = x - column;
      const fy = y - row;
      const one = (row * side + column) * 4;
      const right = column < last ? one + 4 : one;
      const down = row < last ? side * 4 : 0;
      const [wa, wb, wc, wd] = [(1 - fx) * (1 - fy), fx * (1 - fy), (1 - fx) * fy, fx * fy];
      const [low, lowRight] = [one + down, right + down];
      const r = cells[one] * wa + cells[right] * wb + cells[low] * wc + cells[lowRight] * wd;
      const g = cells[one + 1] * wa + cells[right + 1] * wb + cells[low + 1] * wc + cells[lowRight + 1] * wd;
      const b = cells[one + 2] * wa + cells[right + 2] * wb + cells[low + 2] * wc + cells[lowRight + 2] * wd;
      const a = cells[one + 3] * wa + cells[right + 3] * wb + cells[low + 3] * wc + cells[lowRight + 3] * wd;
      const base = words[at + 3];
      const alpha = locked ? base : base + (a - base) * share;
      if (this.mixer && base > 0 && a > 0 && alpha > 0) {
        const weight = (a * share) / (a * share + base * (1 - share));
        this.mixer.paint(r / a, g / a, b / a);
        const out = this.mixer.over(words[at] / base, words[at + 1] / base, words[at + 2] / base, weight);
        for (let k = 0; k < 3; k++) words[at + k] = out[k] * alpha + 0.5;
        words[at + 3] = alpha + 0.5;
        continue;
      }
      // What is clear has no colour to give.
      if (locked && a === 0) continue;
      const by = locked ? base / a : 1;
      words[at] = words[at] + (r * by - words[at]) * share + 0.5;
      words[at + 1] = words[at + 1] + (g * by - words[at + 1]) * share + 0.5;
      words[at + 2] = words[at + 2] + (b * by - words[at + 2]) * share + 0.5;
      words[at + 3] = alpha + 0.5;
    }
    return words !== null;
  }
}

function cellAt(u: number, v: number, side: number): number {
  const x = ((u + 1) * 0.5 * side) | 0;
  const y = ((v + 1) * 0.5 * side) | 0;
  const last = side - 1;
  return (y < 0 ? 0 : y > last ? last : y) * side + (x < 0 ? 0 : x > last ? last : x);
}

/** Means of what was taken up, and as much of what was carried as the stroke keeps. */
function settled(taken: Float32Array, before: Carried | null, strength: number): Float32Array {
  const count = taken.length / 5;
  const out = new Float32Array(count * 4);
  const kept = before ? strength : 0;
  for (let i = 0; i < count; i++) {
    const weight = taken[i * 5 + 4];
    for (let k = 0; k < 4; k++) {
      const was = before ? before.cells[i * 4 + k] : 0;
      out[i * 4 + k] = weight > 0 ? was * kept + (taken[i * 5 + k] / weight) * (1 - kept) : was;
    }
  }
  return out;
}
