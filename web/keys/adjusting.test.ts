import fc from 'fast-check';
import { BrushSchema, settingAt } from '#core/settings';
import { adjusted } from './adjusting';

test('no drag changes nothing; right is larger, up is stronger', () => {
  expect(adjusted({ size: 0.1, strength: 40 }, 0, 0)).toEqual({ size: 0.1, strength: 40 });
  expect(adjusted({ size: 0.1, strength: 40 }, 100, -50).size).toBeCloseTo(0.1 * 1.008 ** 100, 2);
  expect(adjusted({ size: 0.1, strength: 40 }, 100, -50).strength).toBe(60);
});

test('property: whatever is dragged, size and strength stay within their ranges', () => {
  const size = settingAt(BrushSchema, 'stroke.size');
  fc.assert(
    fc.property(
      fc.double({ min: size.min, max: size.max, noNaN: true }),
      fc.integer({ min: 0, max: 100 }),
      fc.integer({ min: -4000, max: 4000 }),
      fc.integer({ min: -4000, max: 4000 }),
      (from, strength, dx, dy) => {
        const to = adjusted({ size: from, strength }, dx, dy);
        expect(to.size).toBeGreaterThanOrEqual(size.min);
        expect(to.size).toBeLessThanOrEqual(size.max);
        expect(to.strength).toBeGreaterThanOrEqual(0);
        expect(to.strength).toBeLessThanOrEqual(100);
      },
    ),
    { seed: 4, numRuns: 100 },
  );
});
