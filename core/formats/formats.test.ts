import { writeExr, writeTiff, type Deflate } from './index';

/** Stored blocks: zlib's own format without compression, so that core needs no machine to be tested. */
const stored: Deflate = async (bytes) => bytes;

test('an EXR says what it is, its window and its channels, and where its lines lie', async () => {
  const values = Float32Array.from({ length: 20 * 33 }, (_, i) => i / 7 - 3);
  const out = await writeExr({ width: 20, height: 33, channels: { Y: values } }, stored);
  const view = new DataView(out.buffer);
  expect(view.getUint32(0, true)).toBe(20000630);
  const text = Array.from(out, (byte) => String.fromCharCode(byte)).join('');
  for (const name of ['channels', 'compression', 'dataWindow', 'displayWindow', 'lineOrder', 'pixelAspectRatio', 'screenWindowCenter', 'screenWindowWidth']) expect(text).toContain(`${name}\0`);
  // Blocks of 16 lines: 0, 16 and 32. A block that doesn't shrink holds its floats as they are.
  const table = text.indexOf('screenWindowWidth') + 'screenWindowWidth\0float\0'.length + 4 + 4 + 1;
  [0, 16, 32].forEach((line, block) => {
    const at = Number(view.getBigUint64(table + block * 8, true));
    expect(view.getInt32(at, true)).toBe(line);
    expect(view.getFloat32(at + 8, true)).toBe(values[line * 20]);
  });
});

test('channels of another size than the picture are refused', async () => {
  await expect(writeExr({ width: 4, height: 4, channels: { R: new Float32Array(15) } }, stored)).rejects.toThrow('Channel R has 15 values');
  await expect(writeTiff(4, 4, new Float32Array(17), stored)).rejects.toThrow('Expected 4 × 4 values, found 17');
});

test.each([[16, 40], [8, 200]])('a TIFF of %p × %p names its strips', async (width, height) => {
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
  expect([tags.get(256)!.value, tags.get(257)!.value, tags.get(258)!.value & 0xffff, tags.get(339)!.value & 0xffff]).toEqual([width, height, 32, 3]);
  const strips = tags.get(273)!;
  expect(strips.count).toBe(Math.ceil(height / 64));
  const first = strips.count === 1 ? strips.value : view.getUint32(strips.value, true);
  expect(view.getFloat32(first, true)).toBe(values[0]);
  expect([...tags.keys()]).toEqual([...tags.keys()].sort((a, b) => a - b));
});
