/**
 * A stroke of paint: its dabs gather on a layer of its own, which lies over what was there when it began.
 *
 * Even takes the most of all dabs, so that a stroke is nowhere stronger than its flow; Add up lets flow build,
 * 1 − (1 − f)ⁿ after n dabs. Opacity is how much of the layer lies over what was there.
 */
import type { DabFrame } from '#core/brush';
import { PigmentMixer, type Linear } from '#core/colour';
import { Cover, cover, type PaintForm } from './cover';
import type { Places, TilePlaces } from './places';
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

/** How much darker a rim that pools in full is. */
const POOLED = 0.75;
/** What is rim of one dab gives way to what is inner of another, though both cover in full. */
const RIM_YIELDS = 0.004;

export class PaintStroke {
  private readonly edits: TileEdits;
  /** Its own layer: colour in linear light times cover, and cover, of each texel. */
  private readonly layer = new Map<number, Float32Array>();
  private readonly covered = new Cover();
  private readonly mixer: PigmentMixer | null;

  constructor(
    on: Texture,
    private readonly places: Places,
    private readonly o: PaintOptions,
  ) {
    this.edits = new TileEdits(on);
    this.mixer = o.pigment && !o.erases ? new PigmentMixer() : null;
  }

  /** Lays a dab; answers how many texels it covered, and adds the tiles that changed. O(texels of tiles met). */
  dab(frame: DabFrame, form: PaintForm, colour: Linear, flow: number, changed: Set<number>): number {
    let count = 0;
    for (const places of this.places.near(frame.origin, reachOf(frame, form))) {
      if (!cover(places, frame, form, this.covered)) continue;
      count += this.covered.count;
      if (this.lay(places, form, colour, flow)) changed.add(places.tile);
    }
    return count;
  }

  /** The mean colour of what lies under a dab, times cover, and its cover, 0–1. */
  below(frame: DabFrame, form: PaintForm): readonly [number, number, number, number] {
    const sum = [0, 0, 0, 0];
    let weight = 0;
    for (const places of this.places.near(frame.origin, reachOf(frame, form))) {
      if (!cover(places, frame, { ...form, pooling: 0 }, this.covered)) continue;
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
  private lay({ tile, at: texels }: TilePlaces, form: PaintForm, colour: Linear, flow: number): boolean {
    const { count, index, amount, rim, own } = this.covered;
    const even = this.o.overlaps === 'even';
    const pools = form.pooling > 0;
    const owns = form.colours?.laid ?? false;
    let most = 0;
    for (let i = 0; i < count; i++) if (amount[i] > most) most = amount[i];
    if (!(most * flow > 0)) return false;
    const layer = this.layerOf(tile);
    const words = this.edits.open(tile);
    const was = this.edits.before.get(tile) ?? null;
    let [r, g, b] = colour;
    for (let i = 0; i < count; i++) {
      let alpha = amount[i] * flow;
      const at = texels[index[i]] * 4;
      let shade = 1;
      if (pools) {
        shade = 1 - POOLED * form.pooling * rim[i];
        alpha *= 1 - RIM_YIELDS * rim[i];
      }
      const before = layer[at + 3];
      if (alpha <= (even ? before : 0)) continue;
      if (owns) {
        r = own[i * 3];
        g = own[i * 3 + 1];
        b = own[i * 3 + 2];
      }
      const kept = even ? 0 : 1 - alpha;
      const by = alpha * shade;
      layer[at] = layer[at] * kept + r * by;
      layer[at + 1] = layer[at + 1] * kept + g * by;
      layer[at + 2] = layer[at + 2] * kept + b * by;
      layer[at + 3] = before * kept + alpha;
    }
    this.compose(layer, words, was, texels);
    return true;
  }

  /** The layer over what was there, where the dab covered. */
  private compose(layer: Float32Array, words: Uint16Array, was: Uint16Array | null, texels: Uint16Array): void {
    const { opacity, erases, locked } = this.o;
    const { count, index } = this.covered;
    if (!was) {
      if (erases || locked) return;
      const over = opacity * FULL;
      for (let i = 0; i < count; i++) {
        const at = texels[index[i]] * 4;
        words[at] = layer[at] * over + 0.5;
        words[at + 1] = layer[at + 1] * over + 0.5;
        words[at + 2] = layer[at + 2] * over + 0.5;
        words[at + 3] = layer[at + 3] * over + 0.5;
      }
      return;
    }
    for (let i = 0; i < count; i++) {
      const at = texels[index[i]] * 4;
      const cover = layer[at + 3];
      const under = 1 - cover * opacity;
      if (erases) {
        for (let k = at; k < at + 4; k++) words[k] = was[k] * under + 0.5;
        continue;
      }
      const base = was[at + 3];
      const over = opacity * (locked ? base : FULL);
      words[at + 3] = locked ? base : base * under + cover * over + 0.5;
      if (this.mixer && base > 0 && cover > 0) this.mixPigment(layer, words, was, at);
      else {
        words[at] = was[at] * under + layer[at] * over + 0.5;
        words[at + 1] = was[at + 1] * under + layer[at + 1] * over + 0.5;
        words[at + 2] = was[at + 2] * under + layer[at + 2] * over + 0.5;
      }
    }
  }

  private mixPigment(layer: Float32Array, words: Uint16Array, was: Uint16Array, at: number): void {
    const { opacity, locked } = this.o;
    const base = was[at + 3];
    const alpha = layer[at + 3] * opacity;
    const share = locked ? alpha : (alpha * FULL) / (alpha * FULL + base * (1 - alpha));
    const [up, down] = [1 / layer[at + 3], 1 / base];
    const mixer = this.mixer!;
    mixer.paint(layer[at] * up, layer[at + 1] * up, layer[at + 2] * up);
    const out = mixer.over(was[at] * down, was[at + 1] * down, was[at + 2] * down, share);
    const by = words[at + 3];
    words[at] = out[0] * by + 0.5;
    words[at + 1] = out[1] * by + 0.5;
    words[at + 2] = out[2] * by + 0.5;
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
