/**
 * A square of a painted layer, 8 × 8 tiles, as it is kept before it is compressed: "MSPS", version, count of tiles;
 * then each tile: its number in the square, row by row, and its words. Numbers are little-endian uint32.
 *
 * The words of a tile are laid apart so that they compress: for each channel the upper bytes of all texels, then the
 * lower ones, each less the byte before it.
 */
import { TILE_WORDS } from '#core/paint';

const MAGIC = 0x5350534d;
const VERSION = 1;
const HEAD_BYTES = 12;
/** Tiles along a side of a square. */
export const SQUARE_TILES = 8;
const TILE_BYTES = TILE_WORDS * 2;
/** A square is never larger than this. */
export const MOST_SQUARE_BYTES = HEAD_BYTES + SQUARE_TILES ** 2 * (4 + TILE_BYTES);

/** `tiles` by their numbers in the square. */
export function packSquare(tiles: ReadonlyMap<number, Uint16Array>): ArrayBuffer {
  const out = new ArrayBuffer(HEAD_BYTES + tiles.size * (4 + TILE_BYTES));
  const head = new DataView(out);
  [MAGIC, VERSION, tiles.size].forEach((word, i) => head.setUint32(i * 4, word, true));
  let at = HEAD_BYTES;
  for (const [index, words] of [...tiles].sort((a, b) => a[0] - b[0])) {
    head.setUint32(at, index, true);
    apart(words, new Uint8Array(out, at + 4, TILE_BYTES));
    at += 4 + TILE_BYTES;
  }
  return out;
}

/** Throws a sentence where it isn’t one. */
export function readSquare(bytes: ArrayBuffer): Map<number, Uint16Array> {
  const head = new DataView(bytes);
  const said = (what: string): Error => new Error(`This part of a painting can’t be read: ${what}.`);
  if (bytes.byteLength < HEAD_BYTES || head.getUint32(0, true) !== MAGIC) throw said('it is something else');
  const version = head.getUint32(4, true);
  if (version !== VERSION) throw said(`it is of version ${version}, and this program knows version ${VERSION}`);
  const count = head.getUint32(8, true);
  if (count > SQUARE_TILES ** 2 || bytes.byteLength !== HEAD_BYTES + count * (4 + TILE_BYTES))
    throw said(`${count} tiles don’t fit ${bytes.byteLength} bytes`);
  const out = new Map<number, Uint16Array>();
  for (let i = 0, at = HEAD_BYTES; i < count; i++, at += 4 + TILE_BYTES) {
    const index = head.getUint32(at, true);
    if (index >= SQUARE_TILES ** 2 || out.has(index)) throw said(`tile ${index} isn’t one of its own`);
    out.set(index, together(new Uint8Array(bytes, at + 4, TILE_BYTES)));
  }
  return out;
}

const TEXELS = TILE_WORDS / 4;

function apart(words: Uint16Array, out: Uint8Array): void {
  for (let channel = 0, at = 0; channel < 4; channel++)
    for (const shift of [8, 0]) {
      let before = 0;
      for (let i = 0; i < TEXELS; i++, at++) {
        const byte = (words[i * 4 + channel] >> shift) & 255;
        out[at] = byte - before;
        before = byte;
      }
    }
}

function together(bytes: Uint8Array): Uint16Array {
  const words = new Uint16Array(TILE_WORDS);
  for (let channel = 0, at = 0; channel < 4; channel++)
    for (const shift of [8, 0]) {
      let byte = 0;
      for (let i = 0; i < TEXELS; i++, at++) {
        byte = (byte + bytes[at]) & 255;
        words[i * 4 + channel] |= byte << shift;
      }
    }
  return words;
}
