import { usedRange, type Picture } from '#core/picture';
import { growSchema, newGrow, PATTERN_FORMS, settingsIn, type PatternForm } from '#core/settings';
import { growPattern, surprises } from './index';

const SIZE = 96;
const same = (a: Picture, b: Picture): boolean => a.data.every((v, i) => v === b.data[i]);

/** Mean step from the last to the first row and column, against the mean step inside. */
function seam({ width, data }: Picture): number {
  const row = (a: number, b: number): number =>
    Array.from({ length: width }, (_, i) => Math.abs(data[a * width + i] - data[b * width + i])).reduce(
      (x, y) => x + y,
      0,
    );
  const column = (a: number, b: number): number =>
    Array.from({ length: width }, (_, j) => Math.abs(data[j * width + a] - data[j * width + b])).reduce(
      (x, y) => x + y,
      0,
    );
  const inner = Array.from({ length: width - 1 }, (_, k) => [row(k, k + 1), column(k, k + 1)]);
  // Regular patterns have rows of large and of small steps; the seam may be like the largest of them.
  const most = (k: 0 | 1): number => Math.max(...inner.map((s) => s[k]), 1e-6);
  return Math.max(row(width - 1, 0) / most(0), column(width - 1, 0) / most(1));
}

describe.each(PATTERN_FORMS.map((form) => [form]))('%s', (form: PatternForm) => {
  test('the seed decides, the tones are used, and it tiles', () => {
    const a = growPattern(newGrow(form, 7), SIZE);
    expect(a.data.every((v) => v >= 0 && v <= 1)).toBe(true);
    expect(same(a, growPattern(newGrow(form, 7), SIZE))).toBe(true);
    if (form !== 'weave') expect(same(a, growPattern(newGrow(form, 8), SIZE))).toBe(false);
    expect(usedRange(a)).toBeGreaterThan(0.6);
    expect(seam(a)).toBeLessThan(1.15);
  });

  test('every setting changes it, at either end of its range too', () => {
    const grow = newGrow(form, 7);
    const before = growPattern(grow, SIZE);
    for (const [key, meta] of settingsIn(growSchema(form))) {
      if (key === 'seed') continue;
      const now = (grow as unknown as Record<string, number>)[key];
      for (const value of [meta.min, meta.scale === 'log' ? Math.min(meta.max, meta.fallback * 2) : meta.max]) {
        const p = growPattern({ ...grow, [key]: value }, SIZE);
        expect(p.data.every((v) => v >= 0 && v <= 1)).toBe(true);
        if (value !== now && !(form === 'soft' && key === 'rough'))
          expect([key, value, same(p, before)]).toEqual([key, value, false]);
      }
    }
  });
});

test('a pattern is the same one at another size', () => {
  const small = growPattern(newGrow('cells', 5), 64);
  const large = growPattern(newGrow('cells', 5), 192);
  let off = 0;
  for (let j = 0; j < 64; j++)
    for (let i = 0; i < 64; i++)
      off += Math.abs(small.data[j * 64 + i] - large.data[(3 * j + 1) * 192 + 3 * i + 1]) / 4096;
  expect(off).toBeLessThan(0.01);
});

test('not tiling gives other borders', () => {
  const grow = newGrow('ridges', 3);
  expect(seam(growPattern({ ...grow, tiles: false }, SIZE))).toBeGreaterThan(1.5);
});

test('a surprise is sixteen patterns that differ and can be grown', () => {
  const of = surprises('scales', 3, true);
  expect(of).toHaveLength(16);
  expect(new Set(of.map((g) => JSON.stringify(g))).size).toBe(16);
  expect(of.every((g) => g.form === 'scales')).toBe(true);
  expect(new Set(surprises(null, 3, true).map((g) => g.form)).size).toBe(PATTERN_FORMS.length);
  expect(surprises('dots', 3, true)).toEqual(surprises('dots', 3, true));
});
