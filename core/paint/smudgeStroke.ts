/**
 * A stroke that smears: each dab lays down what the one before took up, place by place in the dab, so that it goes over
 * edges and islands as the hand does.
 */
import type { DabFrame } from '#core/brush';
import { cover, type PaintForm } from './cover';
import { reachOf } from './paintStroke';
import type { Places } from './places';
import { MOST_CELLS, texelRoom } from './texelRoom';
import type { Texture } from './texture';
import { TileEdits } from './tileEdits';

export interface SmudgeOptions {
  locked?: boolean;
  pigment?: boolean;
}

/** Cells across what a dab carries: about as fine as texels, so that none is left empty. */
const LEAST_CELLS = 6;
const TEXELS_A_CELL = 1.5;

/** What a dab carries to the next: colour times cover, and cover, of each cell. */
interface Carried {
  side: number;
  cells: Float32Array;
}

export class SmudgeStroke {
  private readonly edits: TileEdits;
  private readonly covered = texelRoom();
  /** By copy under symmetry. */
  private readonly carried = new Map<number, Carried>();

  constructor(
    on: Texture,
    private readonly places: Places,
    private readonly o: SmudgeOptions,
  ) {
    this.edits = new TileEdits(on);
  }

  /** `copy` tells copies under symmetry apart: each carries its own. The first dab of each takes up alone. */
  dab(frame: DabFrame, form: PaintForm, copy: number, strength: number, changed: Set<number>): number {
    const before = this.carried.get(copy) ?? null;
    const near = this.places.near(frame.origin, reachOf(frame, form));
    const texel = near.reduce((least, { texel: width }) => (width > 0 ? Math.min(least, width) : least), Infinity);
    const fine = Math.round((2 * frame.radius) / (texel * TEXELS_A_CELL));
    const side = before?.side ?? Math.min(MOST_CELLS, Math.max(LEAST_CELLS, fine));
    const { locked = false, pigment = false } = this.o;
    this.covered.beginSmear(side, before?.cells ?? null);
    let count = 0;
    const within = this.places.within(frame, form);
    for (const places of near) {
      if (!cover(places, frame, form, this.covered, within)) continue;
      count += this.covered.count;
      this.covered.takeUp(places, this.edits.on.tiles.get(places.tile), side);
      if (!before || !(this.covered.strongest() * strength > 0)) continue;
      this.covered.smear(places, this.edits.open(places.tile), side, { strength, locked, pigment });
      changed.add(places.tile);
    }
    this.carried.set(copy, { side, cells: this.covered.endSmear(side, before !== null, strength) });
    return count;
  }

  rewind(): Set<number> {
    this.carried.clear();
    return this.edits.rewind();
  }

  end(): ReadonlyMap<number, Uint16Array | null> {
    return this.edits.before;
  }
}
