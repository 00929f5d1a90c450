/**
 * A stroke of paint: its dabs gather on a layer of its own, which lies over what was there when it began.
 *
 * Even takes the most of all dabs, so that a stroke is nowhere stronger than its flow; Add up lets flow build,
 * 1 − (1 − f)ⁿ after n dabs. Opacity is how much of the layer lies over what was there.
 */
import type { DabFrame } from '#core/brush';
import type { Linear } from '#core/colour';
import { cover, type PaintForm } from './cover';
import type { Places, TilePlaces } from './places';
import { APPLY_MODES, texelRoom } from './texelRoom';
import { FULL, TILE_WORDS, type Texture } from './texture';
import { TileEdits } from './tileEdits';

export interface PaintOptions {
  overlaps: 'even' | 'add';
  /** 0–1. */
  opacity: number;
  /** Takes paint away instead of laying it. */
  erases?: boolean;
  /** Colours change and what is clear stays clear. */
  locked?: boolean;
  /** Mixes with what lies below as pigments do. */
  pigment?: boolean;
}

export class PaintStroke {
  private readonly edits: TileEdits;
  /** Its own layer: colour in linear light times cover, and cover, of each texel. */
  private readonly layer = new Map<number, Float32Array>();
  private readonly covered = texelRoom();

  constructor(
    on: Texture,
    private readonly places: Places,
    private readonly o: PaintOptions,
  ) {
    this.edits = new TileEdits(on);
  }

  /** Lays a dab; answers how many texels it covered, and adds the tiles that changed. O(texels of tiles met). */
  dab(frame: DabFrame, form: PaintForm, colour: Linear, flow: number, changed: Set<number>): number {
    let count = 0;
    const within = this.places.within(frame, form);
    for (const places of this.places.near(frame.origin, reachOf(frame, form))) {
      if (!cover(places, frame, form, this.covered, within)) continue;
      count += this.covered.count;
      if (this.apply(places, form, colour, flow)) changed.add(places.tile);
    }
    return count;
  }

  /** The mean colour of what lies under a dab, times cover, and its cover, 0–1. */
  below(frame: DabFrame, form: PaintForm): readonly [number, number, number, number] {
    const sum = [0, 0, 0, 0];
    let weight = 0;
    const within = this.places.within(frame, form);
    for (const places of this.places.near(frame.origin, reachOf(frame, form))) {
      if (!cover(places, frame, { ...form, pooling: 0 }, this.covered, within)) continue;
      const words = this.edits.on.tiles.get(places.tile);
      const { count, index, amount } = this.covered;
      for (let i = 0; i < count; i++) {
        weight += amount[i];
        if (!words) continue;
        const at = places.at[index[i]] * 4;
        for (let k = 0; k < 4; k++) sum[k] += words[at + k] * amount[i];
      }
    }
    const by = weight > 0 ? 1 / (weight * FULL) : 0;
    return [sum[0] * by, sum[1] * by, sum[2] * by, sum[3] * by];
  }

  /** As if it had never been; answers the tiles that changed. */
  rewind(): Set<number> {
    this.layer.clear();
    return this.edits.rewind();
  }

  /** What brings back what was there: tiles, null where there was none. */
  end(): ReadonlyMap<number, Uint16Array | null> {
    return this.edits.before;
  }

  /** Whether it changed a texel. */
  private apply(places: TilePlaces, form: PaintForm, colour: Linear, flow: number): boolean {
    const { tile } = places;
    if (!(this.covered.strongest() * flow > 0)) return false;
    const { overlaps, opacity, erases, locked, pigment } = this.o;
    const was = this.edits.was(tile);
    // What is clear stays clear.
    if (!was && (erases || locked)) return false;
    this.covered.apply(
      places,
      { layer: this.layerOf(tile), words: this.edits.open(tile), was },
      {
        colour,
        flow,
        even: overlaps === 'even',
        opacity,
        mode: APPLY_MODES[erases ? 'erases' : locked ? 'locked' : 'plain'],
        pigment: Boolean(pigment && !erases),
        pooling: form.pooling,
        owns: form.colours?.laid ?? false,
      },
    );
    return true;
  }

  private layerOf(tile: number): Float32Array {
    let layer = this.layer.get(tile);
    if (!layer) {
      layer = new Float32Array(TILE_WORDS);
      this.layer.set(tile, layer);
    }
    return layer;
  }
}

/** How far from its middle a dab can paint, body units. */
export function reachOf({ radius }: DabFrame, { square, reach }: PaintForm): number {
  return Math.hypot(square ? Math.SQRT2 : 1, reach) * radius * 1.05;
}
