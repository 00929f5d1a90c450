/**
 * Writes grey PNG pictures of 16 bits, quickly: each row as its difference from the one above. Compression itself
 * (zlib) is handed in, so that it can run beside the caller; so may be a quicker checksum.
 *
 * Source: "Portable Network Graphics Specification", W3C, 9.2 (filter 2, Up) and 11.2.
 */
import { crc32 } from './crc32';
import { textChunks } from './facts';

/** `says` are text chunks; with a large picture every copy costs, so it is put together once. */
export async function writePng16(
  greys: Uint16Array,
  size: number,
  deflate: (bytes: Uint8Array<ArrayBuffer>) => Promise<Uint8Array>,
  says: Readonly<Record<string, string>> = {},
  checksum: (bytes: Uint8Array) => number = crc32,
): Promise<Uint8Array<ArrayBuffer>> {
  const head = new Uint8Array(13);
  const view = new DataView(head.buffer);
  view.setUint32(0, size);
  view.setUint32(4, size);
  // 16 bits of grey, not interlaced.
  head[8] = 16;
  const texts = textChunks(says);
  const packed = await deflate(differences(greys, size));
  const chunks = [
    { type: 'IHDR', data: head },
    { type: 'IDAT', data: packed },
    { type: 'IEND', data: new Uint8Array() },
  ];
  const rest = SIGNATURE.length + texts.reduce((sum, { length }) => sum + length, 0);
  const out = new Uint8Array(rest + chunks.reduce((sum, { data }) => sum + CHUNK_BYTES + data.length, 0));
  out.set(SIGNATURE);
  let at = SIGNATURE.length;
  for (const { type, data } of chunks) {
    at = putChunk(out, at, type, data, checksum);
    if (type !== 'IHDR') continue;
    for (const text of texts) {
      out.set(text, at);
      at += text.length;
    }
  }
  return out;
}

/** Length, type and checksum. */
const CHUNK_BYTES = 12;
const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
const UP = 2;

/** Of the bytes, the higher first, as they stand in the file; both of a grey are taken off at once. */
function differences(greys: Uint16Array, size: number): Uint8Array<ArrayBuffer> {
  const bytes = size * 2;
  const out = new Uint8Array((bytes + 1) * size);
  const row = new Uint16Array(size);
  const rowBytes = new Uint8Array(row.buffer);
  for (let j = 0; j < size; j++) {
    for (let i = 0; i < size; i++) {
      const at = j * size + i;
      const grey = greys[at];
      const above = j === 0 ? 0 : greys[at - size];
      // Without a carry from the lower byte into the higher.
      const less = ((grey | 0x8080) - (above & 0x7f7f)) ^ ((grey ^ ~above) & 0x8080);
      row[i] = (less << 8) | ((less >>> 8) & 0xff);
    }
    out[j * (bytes + 1)] = UP;
    out.set(rowBytes, j * (bytes + 1) + 1);
  }
  return out;
}

/** Answers where the next one begins. */
function putChunk(out: Uint8Array, at: number, type: string, data: Uint8Array, checksum: typeof crc32): number {
  const view = new DataView(out.buffer);
  const end = at + 8 + data.length;
  view.setUint32(at, data.length);
  for (let i = 0; i < 4; i++) out[at + 4 + i] = type.charCodeAt(i);
  out.set(data, at + 8);
  view.setUint32(end, checksum(out.subarray(at + 4, end)));
  return end + 4;
}
