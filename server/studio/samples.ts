/**
 * TIFF whose samples libvips doesn't read as they are: half floats (it rounds them to whole numbers), 16-bit numbers
 * with a sign (it clips them at nought), 64-bit floats, and floats with cover. Read by the `tiff` package; formats
 * after “TIFF Revision 6.0”, tags 258, 338 and 339.
 */
import { decode } from 'tiff';
import { halfToFloat } from '#core/formats';

export interface Samples {
  width: number;
  height: number;
  /** Interleaved; cover, where there is one, is the last channel, 0–1. */
  data: Float32Array;
  channels: number;
  cover: boolean;
  /** Photometric interpretation 0: white is nought. */
  inverted: boolean;
  what: string;
}

type Head = ReturnType<typeof decode>[number];

/** What the first page says of itself; null when it can't be read or libvips reads it well. */
export function oddSamples(bytes: Uint8Array): Head | null {
  let head: Head;
  try {
    head = decode(bytes, { ignoreImageData: true, pages: [0] })[0];
  } catch {
    return null;
  }
  const { sampleFormat, bitsPerSample } = head;
  if (sampleFormat === 3) return bitsPerSample !== 32 || head.alpha ? head : null;
  return sampleFormat === 2 && bitsPerSample === 16 ? head : null;
}

/** Named for people. */
export function sampleKind({ sampleFormat, bitsPerSample }: Head): string {
  return sampleFormat === 3 ? `${bitsPerSample}-bit float` : `${bitsPerSample} bit with a sign`;
}

/** Throws when the package can't unpack it. */
export function readSamples(bytes: Uint8Array): Samples {
  const page = decode(bytes, { pages: [0] })[0];
  const { width, height, components, data } = page;
  if (data.length < width * height * components) throw new Error('cut short');
  return {
    width,
    height,
    channels: components,
    cover: page.alpha,
    inverted: page.type === 0,
    data: floatsOf(page),
    what: `TIFF, ${sampleKind(page)}`,
  };
}

function floatsOf({ data, sampleFormat, bitsPerSample }: Head): Float32Array {
  if (sampleFormat === 3 && bitsPerSample === 16) return Float32Array.from(data, halfToFloat);
  if (sampleFormat === 2) return Float32Array.from(data, (v) => (v << 16) >> 16);
  return Float32Array.from(data);
}
