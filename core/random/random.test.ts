import { seeded } from './random';

test('the same seed gives the same numbers, another seed or stream others', () => {
  const take = (seed: number, stream = 0) => Array.from({ length: 8 }, seeded(seed, stream));
  expect(take(7)).toEqual(take(7));
  expect(take(7)).not.toEqual(take(8));
  expect(take(7, 0)).not.toEqual(take(7, 1));
});

test('numbers are uniform in [0, 1)', () => {
  const random = seeded(42);
  const bins = new Array<number>(10).fill(0);
  for (let i = 0; i < 100_000; i++) bins[Math.floor(random() * 10)]++;
  expect(bins).toHaveLength(10);
  // Four standard deviations of a bin's count.
  for (const count of bins) expect(Math.abs(count - 10_000)).toBeLessThan(4 * Math.sqrt(9000));
});
