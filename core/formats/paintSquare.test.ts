import { seeded } from '#core/random';
import { TILE_WORDS } from '#core/paint';
import { packSquare, readSquare } from './paintSquare';

const tile = (seed: number): Uint16Array => {
  const random = seeded(seed);
  return Uint16Array.from({ length: TILE_WORDS }, () => Math.floor(random() * 65_536));
};

test('a square is read back to the word, whatever tiles it has', () => {
  for (const indices of [[], [0], [63, 5], Array.from({ length: 64 }, (_, i) => i)]) {
    const tiles = new Map(indices.map((i) => [i, tile(i + 1)] as const));
    expect(readSquare(packSquare(tiles))).toEqual(tiles);
  }
});

test('one that is cut, grown, of another kind or version, or names a tile twice or none of its own is told', () => {
  const bytes = packSquare(
    new Map([
      [3, tile(1)],
      [4, tile(2)],
    ]),
  );
  const changed = (at: number, to: number): ArrayBuffer => {
    const copy = bytes.slice(0);
    new DataView(copy).setUint32(at, to, true);
    return copy;
  };
  expect(() => readSquare(new ArrayBuffer(4))).toThrow('something else');
  expect(() => readSquare(changed(0, 7))).toThrow('something else');
  expect(() => readSquare(changed(4, 9))).toThrow('version 9');
  expect(() => readSquare(bytes.slice(0, bytes.byteLength - 1))).toThrow('2 tiles don’t fit');
  expect(() => readSquare(changed(8, 4_000_000_000))).toThrow('4000000000 tiles');
  expect(() => readSquare(changed(12, 64))).toThrow('tile 64');
  expect(() => readSquare(changed(12, 4))).toThrow('tile 4');
});
