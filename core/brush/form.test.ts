import { alphaForm, alphaHeights, vectorChannels, type AlphaKind } from './index';

const kind = (format: AlphaKind['format'], size = 2): AlphaKind => ({ format, size, relief: 0.3 });

test('16-bit greys go from 0 to 1', () => {
  const form = alphaForm(kind('grey16'), Uint16Array.from([0, 65535, 13107, 32768]).buffer);
  expect(form.vector).toBeNull();
  expect(form.relief).toBe(0.3);
  [0, 1, 0.2, 32768 / 65535].forEach((h, i) => expect(form.pyramid.levels[0].data[i]).toBeCloseTo(h, 6));
});

test('float greys are taken as they are', () => {
  expect(alphaHeights(kind('grey32f'), Float32Array.from([0, 0.25, 0.5, 1]).buffer).data).toEqual(
    Float32Array.from([0, 0.25, 0.5, 1]),
  );
});

test('vectors come apart into right, up and out; what is shown goes from the lowest out to the highest', () => {
  const bytes = Float32Array.from([1, 2, -1, 3, 4, 0, 5, 6, 1, 7, 8, 3]).buffer;
  const [x, y, z] = vectorChannels(kind('vector32f'), bytes);
  expect([x, y, z].map((p) => Array.from(p.data))).toEqual([
    [1, 3, 5, 7],
    [2, 4, 6, 8],
    [-1, 0, 1, 3],
  ]);
  const form = alphaForm(kind('vector32f'), bytes);
  expect(Array.from(form.pyramid.levels[0].data)).toEqual([0, 0.25, 0.5, 1]);
  expect(form.vector!.map((p) => p.levels[0].data[3])).toEqual([7, 8, 3]);
});

test('level offsets show as black, not as nothing', () => {
  expect(Array.from(alphaHeights(kind('vector32f'), new Float32Array(12).fill(2).buffer).data)).toEqual([0, 0, 0, 0]);
});

test.each([
  ['grey16', 7, 8],
  ['grey32f', 8, 16],
  ['vector32f', 47, 48],
] as const)('%s of %p bytes is refused', (format, found, wanted) => {
  expect(() => alphaForm(kind(format), new ArrayBuffer(found))).toThrow(
    `has ${found} bytes; 2 × 2 pixels need ${wanted}`,
  );
});
