/**
 * Writes TIFF pictures of 32-bit floats, greyscale or red, green, blue and cover, deflated in strips.
 *
 * Source: "TIFF Revision 6.0", 1992, with SampleFormat 3 (IEEE float) and compression 8 (Deflate). The
 * compression itself is handed in.
 */
import type { Deflate } from './exr';

const ROWS_A_STRIP = 64;
const SHORT = 3;
const LONG = 4;
const ASCII = 2;

/**
 * `data` holds one value a pixel, or four: colours in linear light times cover, and cover. `says` is the picture's
 * description, plain ASCII.
 */
export async function writeTiff(
  width: number,
  height: number,
  data: Float32Array,
  deflate: Deflate,
  says = '',
): Promise<Uint8Array<ArrayBuffer>> {
  const samples = data.length === width * height * 4 ? 4 : 1;
  if (data.length !== width * height * samples)
    throw new Error(`Expected ${width} × ${height} values, found ${data.length}.`);
  const strips: Uint8Array[] = [];
  for (let j = 0; j < height; j += ROWS_A_STRIP) {
    const rows = data.slice(j * width * samples, Math.min(height, j + ROWS_A_STRIP) * width * samples);
    strips.push(await deflate(new Uint8Array(rows.buffer)));
  }
  const count = strips.length;
  // Tag, type, count, value; one value stands in the entry itself, more stand behind the directory.
  const entries: readonly (readonly [number, number, readonly number[]])[] = [
    [256, LONG, [width]],
    [257, LONG, [height]],
    [258, SHORT, new Array<number>(samples).fill(32)],
    [259, SHORT, [8]],
    [262, SHORT, [samples === 4 ? 2 : 1]],
    ...(says ? [[270, ASCII, Array.from(`${says.padEnd(7, ' ')}\0`, (c) => c.charCodeAt(0) & 127)] as const] : []),
    [273, LONG, new Array<number>(count).fill(0)],
    [277, SHORT, [samples]],
    [278, LONG, [ROWS_A_STRIP]],
    [279, LONG, strips.map((s) => s.length)],
    [284, SHORT, [1]],
    // Colours are multiplied by their cover.
    ...(samples === 4 ? [[338, SHORT, [1]] as const] : []),
    [339, SHORT, new Array<number>(samples).fill(3)],
  ];
  const directory = 8;
  const lists = directory + 2 + entries.length * 12 + 4;
  const described = says ? Math.max(8, says.length + 1) : 0;
  const shorts = samples > 1 ? samples * 2 * 2 : 0;
  const first = lists + (count > 1 ? count * 8 : 0) + described + (described % 2) + shorts;
  const out = new Uint8Array(first + strips.reduce((sum, s) => sum + s.length, 0));
  const view = new DataView(out.buffer);
  const offsets: number[] = [];
  let at = first;
  for (const strip of strips) {
    offsets.push(at);
    out.set(strip, at);
    at += strip.length;
  }
  out.set([0x49, 0x49, 42, 0]);
  view.setUint32(4, directory, true);
  view.setUint16(directory, entries.length, true);
  let list = lists;
  entries.forEach(([tag, type, values], i) => {
    const entry = directory + 2 + i * 12;
    const real = tag === 273 ? offsets : values;
    view.setUint16(entry, tag, true);
    view.setUint16(entry + 2, type, true);
    view.setUint32(entry + 4, real.length, true);
    if (real.length === 1) {
      if (type === SHORT) view.setUint16(entry + 8, real[0], true);
      else view.setUint32(entry + 8, real[0], true);
      return;
    }
    view.setUint32(entry + 8, list, true);
    if (type === ASCII) {
      out.set(real, list);
      list += real.length + (real.length % 2);
      return;
    }
    for (const value of real) {
      if (type === SHORT) view.setUint16(list, value, true);
      else view.setUint32(list, value, true);
      list += type === SHORT ? 2 : 4;
    }
  });
  return out;
}
