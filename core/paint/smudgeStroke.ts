/**
 * A stroke that smears: each dab lays down what the one before took up, place by place in the dab, so that it goes over
 * edges and islands as the hand does.
 */
import type { DabFrame } from '#core/brush';
import { PigmentMixer } from '#core/colour';
import { Cover, cover, type PaintForm } from './cover';
import { reachOf } from './paintStroke';
import type { Places, TilePlaces } from './places';
import { FULL, type Texture } from './texture';
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
      for (let k = 0; k < 4; k++) taken[cell + k] += words[at + k];
    }
  }

  private lay({ tile, at: texels }: TilePlaces, { side, cells }: Carried, strength: number): boolean {
    const { count, index, u, v, amount } = this.covered;
    let words: Uint16Array | null = null;
    for (let i = 0; i < count; i++) {
      const share = amount[i] * strength;
      if (!(share > 0)) continue;
      words ??= this.edits.open(tile);
      const at = texels[index[i]] * 4;
      const x = Math.min(side - 1, Math.max(0, ((u[i] + 1) / 2) * side - 0.5));
      const y = Math.min(side - 1, Math.max(0, ((v[i] + 1) / 2) * side - 0.5));
      const [column, row] = [Math.floor(x), Math.floor(y)];
      const [fx, fy] = [x - column, y - row];
      const right = column + 1 < side ? 4 : 0;
      const below = row + 1 < side ? side * 4 : 0;
      const cell = (row * side + column) * 4;
      const read = (k: number): number =>
        (cells[cell + k] * (1 - fx) + cells[cell + right + k] * fx) * (1 - fy) +
        (cells[cell + below + k] * (1 - fx) + cells[cell + below + right + k] * fx) * fy;
      this.mix(words, at, [read(0), read(1), read(2), read(3)], share);
    }
    return words !== null;
  }

  private mix(
    words: Uint16Array,
    at: number,
    [r, g, b, a]: readonly [number, number, number, number],
    share: number,
  ): void {
    const base = words[at + 3];
    const alpha = this.o.locked ? base : base + (a - base) * share;
    if (this.mixer && base > 0 && a > 0 && alpha > 0) {
      const weight = (a * share) / (a * share + base * (1 - share));
      this.mixer.paint(r / a, g / a, b / a);
      const out = this.mixer.over(words[at] / base, words[at + 1] / base, words[at + 2] / base, weight);
      for (let k = 0; k < 3; k++) words[at + k] = out[k] * alpha + 0.5;
      words[at + 3] = alpha + 0.5;
      return;
    }
    // What is clear has no colour to give.
    const by = this.o.locked ? (a > 0 ? base / a : 0) : 1;
    if (this.o.locked && a === 0) return;
    words[at] = Math.min(FULL, words[at] + (r * by - words[at]) * share + 0.5);
    words[at + 1] = Math.min(FULL, words[at + 1] + (g * by - words[at + 1]) * share + 0.5);
    words[at + 2] = Math.min(FULL, words[at + 2] + (b * by - words[at + 2]) * share + 0.5);
    words[at + 3] = alpha + 0.5;
  }
}

function cellAt(u: number, v: number, side: number): number {
  const x = Math.min(side - 1, Math.max(0, Math.floor(((u + 1) / 2) * side)));
  const y = Math.min(side - 1, Math.max(0, Math.floor(((v + 1) / 2) * side)));
  return y * side + x;
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
