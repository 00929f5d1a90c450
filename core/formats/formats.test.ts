import { reliefIn, reliefText, RELIEF_KEY, withPngRelief, writeExr, writeTiff, type Deflate } from './index';

/** Stored blocks: zlib's own format without compression, so that core needs no machine to be tested. */
const stored: Deflate = async (bytes) => bytes;

test('an EXR says what it is, its window and its channels, and where its lines lie', async () => {
  const values = Float32Array.from({ length: 20 * 33 }, (_, i) => i / 7 - 3);
  const out = await writeExr({ width: 20, height: 33, channels: { Y: values } }, stored);
  const view = new DataView(out.buffer);
  expect(view.getUint32(0, true)).toBe(20000630);
  const text = Array.from(out, (byte) => String.fromCharCode(byte)).join('');
  for (const name of [
    'channels',
    'compression',
    'dataWindow',
    'displayWindow',
    'lineOrder',
    'pixelAspectRatio',
    'screenWindowCenter',
    'screenWindowWidth',
  ])
    expect(text).toContain(`${name}\0`);
  // Blocks of 16 lines: 0, 16 and 32. A block that doesn't shrink holds its floats as they are.
  const table = text.indexOf('screenWindowWidth') + 'screenWindowWidth\0float\0'.length + 4 + 4 + 1;
  [0, 16, 32].forEach((line, block) => {
    const at = Number(view.getBigUint64(table + block * 8, true));
    expect(view.getInt32(at, true)).toBe(line);
    expect(view.getFloat32(at + 8, true)).toBe(values[line * 20]);
  });
});

test('channels of another size than the picture are refused', async () => {
  await expect(writeExr({ width: 4, height: 4, channels: { R: new Float32Array(15) } }, stored)).rejects.toThrow(
    'Channel R has 15 values',
  );
  await expect(writeTiff(4, 4, new Float32Array(17), stored)).rejects.toThrow('Expected 4 × 4 values, found 17');
});

test.each([
  [16, 40],
  [8, 200],
])('a TIFF of %p × %p names its strips', async (width, height) => {
  const values = Float32Array.from({ length: width * height }, (_, i) => Math.sin(i));
  const out = await writeTiff(width, height, values, stored);
  const view = new DataView(out.buffer);
  expect([view.getUint16(0, true), view.getUint16(2, true)]).toEqual([0x4949, 42]);
  const directory = view.getUint32(4, true);
  const tags = new Map<number, { count: number; value: number }>();
  for (let i = 0; i < view.getUint16(directory, true); i++) {
    const at = directory + 2 + i * 12;
    tags.set(view.getUint16(at, true), { count: view.getUint32(at + 4, true), value: view.getUint32(at + 8, true) });
  }
  expect([
    tags.get(256)!.value,
    tags.get(257)!.value,
    tags.get(258)!.value & 0xffff,
    tags.get(339)!.value & 0xffff,
  ]).toEqual([width, height, 32, 3]);
  const strips = tags.get(273)!;
  expect(strips.count).toBe(Math.ceil(height / 64));
  const first = strips.count === 1 ? strips.value : view.getUint32(strips.value, true);
  expect(view.getFloat32(first, true)).toBe(values[0]);
  expect([...tags.keys()]).toEqual([...tags.keys()].sort((a, b) => a - b));
});

describe('the relief inside a file', () => {
  const values = Float32Array.from({ length: 64 }, (_, i) => i / 64);
  // Signature and header of a PNG, and its end.
  const bare = Uint8Array.from([
    0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0, 0, 13, 0x49, 0x48, 0x44, 0x52, 0, 0, 0, 8, 0, 0, 0, 8, 16, 0, 0, 0, 0,
    1, 2, 3, 4, 0, 0, 0, 0, 0x49, 0x45, 0x4e, 0x44, 0xae, 0x42, 0x60, 0x82,
  ]);

  test.each([0.1, 0.123456789012345, 1e-6, 100, 1 / 3])(
    '%d reads back to the same number from PNG, TIFF and EXR',
    async (relief) => {
      expect(reliefIn(withPngRelief(bare, relief))).toBe(relief);
      for (const [width, height] of [
        [8, 8],
        [8, 200],
      ] as const) {
        const tiff = await writeTiff(width, height, new Float32Array(width * height), stored, reliefText(relief));
        expect(reliefIn(tiff)).toBe(relief);
      }
      expect(
        reliefIn(
          await writeExr(
            { width: 8, height: 8, channels: { Y: values }, says: { [RELIEF_KEY]: String(relief) } },
            stored,
          ),
        ),
      ).toBe(relief);
    },
  );

  test('files that say none, or nonsense, or end in the middle, say none', async () => {
    expect(reliefIn(bare)).toBeNull();
    expect(reliefIn(await writeTiff(8, 8, values, stored))).toBeNull();
    const exr = await writeExr({ width: 8, height: 8, channels: { Y: values }, says: { [RELIEF_KEY]: '0.5' } }, stored);
    for (const relief of [0, -1, NaN, 101]) expect(reliefIn(withPngRelief(bare, relief))).toBeNull();
    for (let end = 0; end < exr.length; end += 3) expect([null, 0.5]).toContain(reliefIn(exr.subarray(0, end)));
    expect(reliefIn(new Uint8Array(0))).toBeNull();
  });
});
