import { newPicture, type Picture } from '#core/picture';
import { seeded } from '#core/random';
import { boxBlur, blur } from './blur';
import { blurCompiled, levelsCompiled, median3Compiled, resizeAcrossCompiled, resizeDownCompiled } from './compiled';
import { median3, median3Plain } from './median';
import { resize, resizeAcrossPlain, resizeDownPlain, taps } from './resize';
import { levels, levelsPlain } from './tone';

const random = (width: number, height: number): Picture => {
  const next = seeded(width * 7 + height);
  const p = newPicture(width, height);
  for (let i = 0; i < p.data.length; i++) p.data[i] = next();
  return p;
};
function farthest(a: Picture, b: Picture): number {
  expect([a.width, a.height]).toEqual([b.width, b.height]);
  let most = 0;
  for (let i = 0; i < a.data.length; i++) most = Math.max(most, Math.abs(a.data[i] - b.data[i]));
  return most;
}

describe.each([
  [64, 48],
  [128, 4],
  [4, 128],
  [300, 200],
])('each compiled loop answers as its plain twin, %p × %p', (width, height) => {
  const p = random(width, height);

  test('levels', () => {
    const table = Float32Array.from({ length: 258 }, (_, i) => Math.min(1, i / 256) ** 0.7);
    for (const t of [null, table])
      expect(farthest(levelsCompiled(p, 0.2, 1.7, t)!, levelsPlainWith(p, t))).toBeLessThan(1e-4);
    expect(farthest(levels(p, 0.1, 1.6, 0.8), levelsPlain(p, 0.1, 1 / 0.7, null))).toBeGreaterThan(0.01);
  });

  test('median', () => expect(farthest(median3Compiled(p)!, median3Plain(p))).toBe(0));

  test.each([1.3, 4, 17, 60])('blur of %p px', (sigma) => {
    expect(farthest(blur(p, sigma), boxBlur(p, sigma))).toBeLessThan(2e-5);
  });

  test.each([[0.3], [0.75], [2.4]])('resizing by %p', (by) => {
    const to = Math.max(1, Math.round(height * by));
    const t = taps(height, to);
    expect(farthest(resizeDownCompiled(p, to, t)!, resizeDownPlain(p, to, t))).toBeLessThan(2e-6);
    const across = Math.max(1, Math.round(width * by));
    const a = taps(width, across);
    const pad = a.count + 4;
    expect(
      farthest(
        resizeAcrossCompiled(p, across, { ...a, first: a.first.map((i) => i + pad) }, pad)!,
        resizeAcrossPlain(p, across, a),
      ),
    ).toBeLessThan(2e-6);
  });
});

/** The compiled loop reads a table of any length. */
function levelsPlainWith(p: Picture, table: Float32Array | null): Picture {
  const straight = levelsPlain(p, 0.2, 1.7, null);
  if (!table) return straight;
  const last = table.length - 2;
  return {
    ...straight,
    data: straight.data.map(
      (v) =>
        table[Math.floor(v * last)] +
        (table[Math.floor(v * last) + 1] - table[Math.floor(v * last)]) * (v * last - Math.floor(v * last)),
    ),
  };
}

test('a picture whose sides don’t suit the loops is answered all the same', () => {
  const odd = random(37, 23);
  expect(blurCompiled(odd, 2, 0.2, 0.1)).toBeNull();
  expect(median3Compiled(odd)).toBeNull();
  expect(farthest(median3(odd), median3Plain(odd))).toBe(0);
  expect(farthest(blur(odd, 3), boxBlur(odd, 3))).toBe(0);
  expect(resize(odd, 20, 11).data).toHaveLength(220);
});

test('pictures of other sizes one after the other don’t spoil each other', () => {
  const small = random(32, 32);
  const before = blur(small, 3);
  blur(random(512, 512), 9);
  expect(farthest(blur(small, 3), before)).toBe(0);
});
