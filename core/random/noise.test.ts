import { latticePair, layeredNoise, noise2, wrappedLayers, wrappedNoise } from './index';

const STEPS = 200;
/** Values over a square of ten units, a little off the lattice. */
function square(of: (x: number, y: number) => number): Float64Array {
  return Float64Array.from({ length: STEPS ** 2 }, (_, i) =>
    of(((i % STEPS) * 10) / STEPS + 0.013, (Math.floor(i / STEPS) * 10) / STEPS + 0.017),
  );
}
const mean = (values: Float64Array): number => values.reduce((a, b) => a + b, 0) / values.length;
const spread = (values: Float64Array): number => Math.sqrt(mean(values.map((v) => v * v)) - mean(values) ** 2);

describe.each([
  ['noise', (seed: number) => (x: number, y: number) => noise2(x, y, seed)],
  ['noise that repeats', (seed: number) => (x: number, y: number) => wrappedNoise(x, y, 10, 10, seed)],
] as const)('%s', (_, made) => {
  test('is nothing on the lattice and goes over it without a step', () => {
    const at = made(5);
    for (let i = 0; i < 8; i++) for (let j = 0; j < 8; j++) expect(at(i, j)).toBeCloseTo(0, 12);
    for (let i = 1; i < 8; i++) expect(Math.abs(at(i - 1e-6, 2.4) - at(i + 1e-6, 2.4))).toBeLessThan(1e-4);
  });

  test('lies within −1 and 1, about a middle of 0, with a spread that is seen', () => {
    for (const seed of [0, 1, 77]) {
      const values = square(made(seed));
      expect(Math.max(...values.map(Math.abs))).toBeLessThanOrEqual(1);
      expect(Math.abs(mean(values))).toBeLessThan(0.08);
      expect(spread(values)).toBeGreaterThan(0.2);
    }
  });

  test('another seed is another noise, not the same one moved or turned over', () => {
    const [a, b] = [square(made(3)), square(made(4))];
    const together = a.reduce((sum, v, i) => sum + v * b[i], 0) / a.length / (spread(a) * spread(b));
    expect(Math.abs(together)).toBeLessThan(0.2);
  });
});

test('octaves add finer ups and downs and keep the range', () => {
  const rough = (octaves: number): number => {
    const values = square((x, y) => layeredNoise(x, y, 9, octaves));
    let steps = 0;
    for (let i = 1; i < values.length; i++) if (i % STEPS) steps += Math.abs(values[i] - values[i - 1]);
    expect(Math.max(...values.map(Math.abs))).toBeLessThanOrEqual(1);
    return steps / spread(values);
  };
  expect(rough(4)).toBeGreaterThan(rough(1) * 1.5);
});

test.each([
  [3, 1, 0.5],
  [7, 4, 0.7],
])('layers repeat after %d units, octaves and all', (period, octaves, keep) => {
  for (const [x, y] of [
    [0.3, 0.8],
    [2.9, 1.1],
    [-1.4, 2.2],
  ] as const) {
    const here = wrappedLayers(x, y, period, 11, octaves, keep);
    expect(wrappedLayers(x + period, y, period, 11, octaves, keep)).toBeCloseTo(here, 9);
    expect(wrappedLayers(x, y - 2 * period, period, 11, octaves, keep)).toBeCloseTo(here, 9);
    expect(wrappedLayers(x + period / 2, y, period, 11, octaves, keep)).not.toBeCloseTo(here, 3);
  }
});

test('a lattice’s pairs fill the square evenly, and one says nothing of the other', () => {
  const bins = new Float64Array(16);
  for (let i = 0; i < 120; i++) {
    for (let j = 0; j < 120; j++) {
      const [a, b] = latticePair(i, j, 6);
      expect(a >= 0 && a < 1 && b >= 0 && b < 1).toBe(true);
      bins[Math.floor(a * 4) * 4 + Math.floor(b * 4)]++;
    }
  }
  const each = 120 ** 2 / 16;
  // Four standard deviations of a bin's count.
  for (const count of bins) expect(Math.abs(count - each)).toBeLessThan(4 * Math.sqrt(each));
});
