/**
 * The compiled loops of the filters, on a memory of their own that pictures are copied into and out of. Each answers
 * null where a picture doesn't suit it – sides that are no multiples of four, or more than the memory may hold – and
 * the plain twin is taken.
 */
import type { Picture } from '#core/picture';
import { LOOPS } from './loops.generated';

/** What the module exports; addresses are bytes. */
interface Exports {
  levels(from: number, to: number, count: number, black: number, scale: number, table: number, last: number): void;
  median3(from: number, to: number, width: number, height: number, rows: number): void;
  blurAcross(data: number, width: number, height: number, r: number, inner: number, outer: number, rows: number): void;
  blurDown(
    from: number,
    to: number,
    width: number,
    height: number,
    r: number,
    inner: number,
    outer: number,
    sums: number,
  ): void;
  resizeDown(
    from: number,
    to: number,
    width: number,
    height: number,
    target: number,
    first: number,
    count: number,
    weights: number,
  ): void;
  resizeAcross(
    from: number,
    to: number,
    width: number,
    height: number,
    target: number,
    first: number,
    count: number,
    weights: number,
    row: number,
    pad: number,
  ): void;
}

const PAGE = 65536;
const MOST_PAGES = 16384;
/** Loops read and write up to four floats beyond a run. */
const SLACK = 64;

// Compiled once a thread; its memory is room to reckon in, and nothing of a caller stays in it.
// eslint-disable-next-line no-restricted-syntax
let module: { exports: Exports; memory: WebAssembly.Memory; pages: number } | null = null;

/** Addresses of runs of so many bytes, and the loops; null when they don't fit. */
function rooms(sizes: readonly number[]): { e: Exports; memory: WebAssembly.Memory; at: number[] } | null {
  let end = 1024;
  const at = sizes.map((bytes) => {
    const start = end;
    end = (end + bytes + SLACK + 15) & ~15;
    return start;
  });
  const pages = Math.ceil(end / PAGE);
  if (pages > MOST_PAGES || end < 0) return null;
  if (!module) {
    const memory = new WebAssembly.Memory({ initial: pages, maximum: MOST_PAGES, shared: true });
    const compiled = new WebAssembly.Module(Uint8Array.from(atob(LOOPS), (c) => c.charCodeAt(0)));
    module = {
      exports: new WebAssembly.Instance(compiled, { env: { memory } }).exports as unknown as Exports,
      memory,
      pages,
    };
  } else if (pages > module.pages) {
    module.memory.grow(pages - module.pages);
    module.pages = pages;
  }
  return { e: module.exports, memory: module.memory, at };
}

const put = (memory: WebAssembly.Memory, at: number, values: Float32Array | Int32Array): void => {
  if (values instanceof Int32Array) new Int32Array(memory.buffer, at, values.length).set(values);
  else new Float32Array(memory.buffer, at, values.length).set(values);
};
const pictureAt = (memory: WebAssembly.Memory, at: number, width: number, height: number): Picture => ({
  width,
  height,
  data: new Float32Array(new Float32Array(memory.buffer, at, width * height)),
});

/** `table` holds the answers for 0 to 1 and one more, or is null for a straight line. */
export function levelsCompiled(
  { width, height, data }: Picture,
  black: number,
  scale: number,
  table: Float32Array | null,
): Picture | null {
  const room = rooms([data.byteLength, table?.byteLength ?? 0]);
  if (!room) return null;
  const { e, memory, at } = room;
  put(memory, at[0], data);
  if (table) put(memory, at[1], table);
  e.levels(at[0], at[0], data.length, black, scale, table ? at[1] : 0, table ? table.length - 2 : 0);
  return pictureAt(memory, at[0], width, height);
}

export function median3Compiled({ width, height, data }: Picture): Picture | null {
  const room = width % 4 === 0 ? rooms([data.byteLength, data.byteLength, 3 * (width * 4 + 64)]) : null;
  if (!room) return null;
  const { e, memory, at } = room;
  put(memory, at[0], data);
  e.median3(at[0], at[1], width, height, at[2]);
  return pictureAt(memory, at[1], width, height);
}

/** Three extended box passes each way. */
export function blurCompiled(
  { width, height, data }: Picture,
  r: number,
  inner: number,
  outer: number,
): Picture | null {
  if (width % 4 !== 0 || height % 4 !== 0) return null;
  const room = rooms([data.byteLength, data.byteLength, Math.max(width * 4, 2 * (width + 2 * r + 3) * 16)]);
  if (!room) return null;
  const { e, memory, at } = room;
  const [a, b, spare] = at as [number, number, number];
  put(memory, a, data);
  e.blurAcross(a, width, height, r, inner, outer, spare);
  e.blurDown(a, b, width, height, r, inner, outer, spare);
  e.blurDown(b, a, width, height, r, inner, outer, spare);
  e.blurDown(a, b, width, height, r, inner, outer, spare);
  return pictureAt(memory, b, width, height);
}

/** Where each target sample begins to read, how many it reads, and their weights. */
export interface Taps {
  first: Int32Array;
  count: number;
  weights: Float32Array;
}

export function resizeDownCompiled({ width, height, data }: Picture, target: number, taps: Taps): Picture | null {
  const room =
    width % 4 === 0
      ? rooms([data.byteLength, width * target * 4, taps.first.byteLength, taps.weights.byteLength])
      : null;
  if (!room) return null;
  const { e, memory, at } = room;
  put(memory, at[0], data);
  put(memory, at[2], taps.first);
  put(memory, at[3], taps.weights);
  e.resizeDown(at[0], at[1], width, height, target, at[2], taps.count, at[3]);
  return pictureAt(memory, at[1], width, target);
}

/** `taps.count` is a multiple of four, and `taps.first` are counted from `pad` before the row. */
export function resizeAcrossCompiled(
  { width, height, data }: Picture,
  target: number,
  taps: Taps,
  pad: number,
): Picture | null {
  const room = rooms([
    data.byteLength,
    target * height * 4,
    taps.first.byteLength,
    taps.weights.byteLength,
    (width + 2 * pad) * 4,
  ]);
  if (!room) return null;
  const { e, memory, at } = room;
  put(memory, at[0], data);
  put(memory, at[2], taps.first);
  put(memory, at[3], taps.weights);
  e.resizeAcross(at[0], at[1], width, height, target, at[2], taps.count, at[3], at[4], pad);
  return pictureAt(memory, at[1], target, height);
}
