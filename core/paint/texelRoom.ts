/**
 * The compiled loops over texels, and the memory they reckon in. One a thread: what is in it is gone with the next
 * call, except pictures and the falloff, which are known by their arrays.
 */
import { BLEND_MODES, PIGMENT_BANDS, toLinear, toSrgb, type BlendMode } from '#core/colour';
import { FALLOFF_STEPS } from '#core/falloff';
import type { DabFrame } from '#core/brush';
import type { Picture } from '#core/picture';
import { LOOPS } from './loops.generated';
import type { TexelLoops } from './texelLoops';
import type { TilePlaces } from './places';
import { FULL, TILE, TILE_WORDS } from './texture';

const PAGE = 65_536;
const MOST_PAGES = 4096;
/** Loops read up to three texels beyond a run. */
const SLACK = 64;
const TEXELS = TILE * TILE;
/** Plain layers that are laid over each other in one go. */
export const MOST_STACKED = 32;
/** Cells across what a dab that smears carries. */
export const MOST_CELLS = 160;
const SHOWN_STEPS = 8192;
const LIGHT_STEPS = 4096;
const BYTE_STEPS = 16_383;
/** Of pictures, before they are dropped and read in anew. */
const PICTURE_BYTES = 64 * 1024 * 1024;

export const APPLY_MODES = { plain: 0, locked: 1, erases: 2 } as const;

/** A tile of a plain layer. */
export interface Stacked {
  words: Uint16Array;
  opacity: number;
}

export class TexelRoom {
  private readonly memory = new WebAssembly.Memory({ initial: 64, maximum: MOST_PAGES });
  private readonly e: TexelLoops;
  private end = 1024;
  private pages = 64;

  private readonly table = this.take((FALLOFF_STEPS + 2) * 4);
  private readonly dab = this.take(19 * 4);
  private readonly map = this.take(6 * 4);
  private readonly colour = this.take(16);
  private readonly four = this.take(64);
  private readonly pigment = this.take(14 * 48);
  private readonly layer = this.take(TILE_WORDS * 4);
  private readonly words = this.take(TILE_WORDS * 2);
  private readonly was = this.take(TILE_WORDS * 2);
  private readonly outAt = this.take(TILE_WORDS * 4);
  private readonly base = this.take(TEXELS * 4);
  private readonly stack = this.take(MOST_STACKED * TILE_WORDS * 2);
  private readonly shares = this.take(MOST_STACKED * 4);
  private readonly bytes = this.take(TILE_WORDS);
  private readonly shownTable = this.take((SHOWN_STEPS + 2) * 4);
  private readonly lightTable = this.take((LIGHT_STEPS + 2) * 4);
  private readonly shownBytes = this.take(BYTE_STEPS + 1);
  private readonly taken = this.take(MOST_CELLS ** 2 * 16);
  private readonly carried = this.take(MOST_CELLS ** 2 * 16);
  private readonly weights = this.take(MOST_CELLS ** 2 * 4);
  private readonly fixedEnd = this.end;

  /** Where what goes with the count of texels lies. */
  private capacity = 0;
  private at = { places: 0, index: 0, u: 0, v: 0, amount: 0, rim: 0, own: 0 };
  private pictures = new WeakMap<Float32Array, number>();
  private picturesFrom = 0;
  private falloff: Float32Array | null = null;

  /** What a dab covers: which of the tile’s texels, their places in the dab in radii, and how much. */
  count = 0;
  index: Uint32Array = new Uint32Array(0);
  u: Float32Array = new Float32Array(0);
  v: Float32Array = new Float32Array(0);
  amount: Float32Array = new Float32Array(0);
  /** How far each belongs to the rim that dries darker, 0–1. */
  rim: Float32Array = new Float32Array(0);
  /** Red, green, blue in linear light, of a picture’s own. */
  own: Float32Array = new Float32Array(0);
  /** A tile of layers over each other: colour in linear light times cover, and cover, 0–1. */
  out: Float32Array = new Float32Array(0);

  /** Views of the stack’s tiles, of what each is multiplied by, and of the tile that is answered: made once. */
  private stacked: Uint16Array[] = [];
  private sharesOf: Float32Array = new Float32Array(0);
  private flat: Uint16Array = new Uint16Array(0);

  constructor() {
    compiled ??= new WebAssembly.Module(Uint8Array.from(atob(LOOPS), (c) => c.charCodeAt(0)));
    this.e = new WebAssembly.Instance(compiled, { env: { memory: this.memory } }).exports as unknown as TexelLoops;
    this.grow(this.end);
    this.look();
    this.floats(this.pigment, PIGMENT_BANDS.length).set(PIGMENT_BANDS);
    // No paint was absorbed yet.
    this.floats(this.pigment + 11 * 48 + 16, 4).fill(-1);
    this.floats(this.shownTable, SHOWN_STEPS + 2).set(tableOf(SHOWN_STEPS, toSrgb));
    this.floats(this.lightTable, LIGHT_STEPS + 2).set(tableOf(LIGHT_STEPS, toLinear));
    const shown = new Uint8Array(this.buffer, this.shownBytes, BYTE_STEPS + 1);
    for (let i = 0; i <= BYTE_STEPS; i++) shown[i] = Math.round(toSrgb(i / BYTE_STEPS) * 255);
  }

  /** Finds what a dab covers of a tile by its falloff, the mask and how far texels are turned away; how many. */
  gather(
    places: TilePlaces,
    { origin, normal, tangent, bitangent, radius }: DabFrame,
    { falloff, square, reach }: { falloff: Float32Array; square: boolean; reach: number },
    facing: { least: number; whole: number },
  ): number {
    this.make(places.count);
    const { dab, table, four, at } = this;
    const texel = places.texel / radius;
    const edge = 1 + texel / 2;
    const steep = 1 / (127 * (facing.whole - facing.least));
    this.floats(dab, 19).set([
      ...origin,
      ...tangent.map((c) => c / radius),
      ...bitangent.map((c) => c / radius),
      ...normal,
      square ? 2 * edge * edge : edge * edge,
      texel > 0 ? 1 / texel : 1e6,
      reach * radius,
      ...normal.map((c) => c * steep),
      facing.least / (facing.whole - facing.least),
    ]);
    if (this.falloff !== falloff) {
      this.floats(table, FALLOFF_STEPS + 2).set(falloff);
      this.falloff = falloff;
    }
    new Uint8Array(this.buffer, at.places, places.block.length).set(places.block);
    this.count = this.e.gather(
      places.count,
      at.places,
      dab,
      table,
      FALLOFF_STEPS,
      square,
      at.index,
      at.u,
      at.v,
      at.amount,
      four,
    );
    return this.count;
  }

  /** Multiplies what is covered by base + gain × grey; `map` takes places in the dab to sides of the picture. */
  read(picture: Picture, map: readonly number[], repeats: boolean, gain: number, base: number): void {
    const { at } = this;
    this.floats(this.map, 6).set(map);
    const from = this.pictureAt(picture.data);
    const { width, height } = picture;
    this.e.readFlat(this.count, at.u, at.v, at.amount, from, width, height, this.map, repeats, gain, base);
  }

  /** The most that is covered. */
  strongest(): number {
    return this.e.strongest(this.count, this.at.amount);
  }

  /** Lays what is covered onto the stroke’s own layer of the tile, and that over what was there, into `words`. */
  apply(
    places: TilePlaces,
    tile: { layer: Float32Array; words: Uint16Array; was: Uint16Array | null },
    how: {
      colour: readonly number[];
      flow: number;
      even: boolean;
      opacity: number;
      mode: number;
      pigment: boolean;
      /** 0 where nothing pools. */
      pooling: number;
      owns: boolean;
    },
  ): void {
    const { at } = this;
    const layer = this.floats(this.layer, TILE_WORDS);
    const words = this.wordsAt(this.words);
    layer.set(tile.layer);
    words.set(tile.words);
    if (tile.was) this.wordsAt(this.was).set(tile.was);
    this.floats(this.colour, 4).set([...how.colour, 1]);
    this.e.apply(
      this.count,
      this.texels(places),
      at.index,
      at.amount,
      how.pooling > 0 ? at.rim : 0,
      how.owns ? at.own : 0,
      this.layer,
      this.words,
      tile.was ? this.was : 0,
      how.pigment ? this.pigment : 0,
      this.colour,
      how.pooling,
      how.flow,
      how.even,
      how.opacity,
      how.mode,
    );
    tile.layer.set(layer);
    tile.words.set(words);
  }

  /** A dab that smears begins; `before` is what the last one carried, of as many cells a side. */
  beginSmear(side: number, before: Float32Array | null): void {
    this.floats(this.taken, side * side * 4).fill(0);
    this.floats(this.weights, side * side).fill(0);
    if (before) this.floats(this.carried, side * side * 4).set(before);
  }

  /** Adds what lies under the dab to its cells. */
  takeUp(places: TilePlaces, words: Uint16Array | undefined, side: number): void {
    const { at } = this;
    if (words) this.wordsAt(this.words).set(words);
    this.e.takeUp(
      this.count,
      this.texels(places),
      at.index,
      at.u,
      at.v,
      words ? this.words : 0,
      side,
      this.taken,
      this.weights,
    );
  }

  /** Lays down what is carried. */
  smear(
    places: TilePlaces,
    words: Uint16Array,
    side: number,
    how: { strength: number; locked: boolean; pigment: boolean },
  ): void {
    const { at } = this;
    const here = this.wordsAt(this.words);
    here.set(words);
    this.e.smear(
      this.count,
      this.texels(places),
      at.index,
      at.u,
      at.v,
      at.amount,
      how.strength,
      side,
      this.carried,
      this.words,
      how.locked,
      how.pigment ? this.pigment : 0,
    );
    words.set(here);
  }

  /** What the dab carries on: means of what it took up, and `kept` of what it had. */
  endSmear(side: number, hadBefore: boolean, kept: number): Float32Array {
    this.e.settle(side * side, this.taken, this.weights, hadBefore ? this.carried : 0, hadBefore ? kept : 0);
    return this.floats(this.taken, side * side * 4).slice();
  }

  /** Plain layers, no more than MOST_STACKED, over nothing, the lowest first. */
  overAll(layers: readonly Stacked[]): void {
    this.stackUp(layers, 0);
  }

  /** The same, as a tile of a texture holds it. */
  wordsOfAll(layers: readonly Stacked[]): Uint16Array {
    this.stackUp(layers, this.words);
    return this.flat.slice();
  }

  private stackUp(layers: readonly Stacked[], to: number): void {
    for (let i = 0; i < layers.length; i++) {
      this.stacked[i].set(layers[i].words);
      this.sharesOf[i] = layers[i].opacity / FULL;
    }
    this.e.overAll(this.outAt, to, this.stack, this.shares, layers.length);
  }

  /** Layers of a tile begin: nothing is there yet. */
  clear(): void {
    this.out.fill(0);
  }

  /** A layer over what is there; `based` where what unclipped layers cover counts. */
  over(
    words: Uint16Array,
    hidden: Uint16Array | null,
    { opacity, blend, clipped }: { opacity: number; blend: BlendMode; clipped: boolean },
    based: boolean,
  ): void {
    this.wordsAt(this.words).set(words);
    if (hidden) this.wordsAt(this.was).set(hidden);
    this.e.over(
      this.outAt,
      this.words,
      hidden ? this.was : 0,
      based ? this.base : 0,
      opacity,
      clipped,
      BLEND_MODES.indexOf(blend),
      this.shownTable,
      SHOWN_STEPS,
      this.lightTable,
      LIGHT_STEPS,
    );
  }

  /** What is there, as a tile of a texture holds it. */
  toWords(): Uint16Array {
    this.e.toWords(this.outAt, this.words);
    return this.flat.slice();
  }

  /** As a card that knows sRGB holds it: displayed colours of light times cover, and cover, 8 bits each. */
  toBytes(into: Uint8Array): void {
    this.e.toBytes(this.outAt, this.bytes, this.shownBytes, BYTE_STEPS);
    into.set(new Uint8Array(this.buffer, this.bytes, TILE_WORDS));
  }

  /** Where each texel lies in its tile: after x, y and z of all. */
  private texels({ count }: TilePlaces): number {
    return this.at.places + count * 12;
  }

  private floats(at: number, count: number): Float32Array {
    return new Float32Array(this.buffer, at, count);
  }

  private wordsAt(at: number): Uint16Array {
    return new Uint16Array(this.buffer, at, TILE_WORDS);
  }

  private take(bytes: number): number {
    const at = this.end;
    this.end = (this.end + bytes + SLACK + 15) & ~15;
    return at;
  }

  private grow(end: number): void {
    const pages = Math.ceil(end / PAGE);
    if (pages <= this.pages) return;
    this.memory.grow(pages - this.pages);
    this.pages = pages;
    this.look();
  }

  /** The memory is another after it grew. */
  private look(): void {
    const { at, capacity } = this;
    this.index = new Uint32Array(this.buffer, at.index, capacity);
    this.u = this.floats(at.u, capacity);
    this.v = this.floats(at.v, capacity);
    this.amount = this.floats(at.amount, capacity);
    this.rim = this.floats(at.rim, capacity);
    this.own = this.floats(at.own, capacity * 3);
    this.out = this.floats(this.outAt, TILE_WORDS);
    this.stacked = Array.from({ length: MOST_STACKED }, (_, i) => this.wordsAt(this.stack + i * TILE_WORDS * 2));
    this.sharesOf = this.floats(this.shares, MOST_STACKED);
    this.flat = this.wordsAt(this.words);
  }

  private get buffer(): ArrayBuffer {
    return this.memory.buffer as ArrayBufferLike as ArrayBuffer;
  }

  /** Room for so many texels of a tile. */
  private make(count: number): void {
    if (count <= this.capacity) return;
    const most = Math.max(TEXELS, Math.ceil(count / 4) * 4);
    this.end = this.fixedEnd;
    this.at = {
      places: this.take(most * 18),
      index: this.take(most * 4),
      u: this.take(most * 4),
      v: this.take(most * 4),
      amount: this.take(most * 4),
      rim: this.take(most * 4),
      own: this.take(most * 12),
    };
    this.capacity = most;
    this.grow(this.end);
    this.picturesFrom = this.end;
    this.pictures = new WeakMap();
    this.look();
  }

  private pictureAt(data: Float32Array): number {
    const known = this.pictures.get(data);
    if (known !== undefined) return known;
    if (this.end + data.byteLength > this.picturesFrom + PICTURE_BYTES) {
      this.pictures = new WeakMap();
      this.end = this.picturesFrom;
    }
    const at = this.take(data.byteLength);
    this.grow(this.end);
    this.floats(at, data.length).set(data);
    this.pictures.set(data, at);
    return at;
  }
}

function tableOf(steps: number, of: (c: number) => number): Float32Array {
  return Float32Array.from({ length: steps + 2 }, (_, i) => of(Math.min(1, i / steps)));
}

// Compiled once a thread; its memory is room to reckon in, and nothing of a caller stays in it.
/* eslint-disable no-restricted-syntax */
let compiled: WebAssembly.Module | null = null;
let shared: TexelRoom | null = null;
/* eslint-enable no-restricted-syntax */

export function texelRoom(): TexelRoom {
  return (shared ??= new TexelRoom());
}
