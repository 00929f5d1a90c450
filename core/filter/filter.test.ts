import { newPicture, type Picture } from '#core/picture';
import { seeded } from '#core/random';
import { RetouchStrokeSchema, type RetouchStroke } from '#core/settings';
import {
  addNoise,
  backgroundMatte,
  bevel,
  blur,
  chamferProfile,
  combine,
  components,
  cover,
  crop,
  cut,
  deband,
  despeckle,
  distanceFrom,
  evenLight,
  feather,
  flip,
  formBox,
  invert,
  levels,
  median3,
  medianWide,
  mirror,
  padded,
  radial,
  removeBackground,
  repeat,
  resize,
  retouch,
  roundProfile,
  seamless,
  sharpen,
  sized,
  terrace,
  threshold,
  toneCurve,
  turned,
} from './index';

const picture = (width: number, height: number, at: (i: number, j: number) => number): Picture => {
  const out = newPicture(width, height);
  for (let j = 0; j < height; j++) for (let i = 0; i < width; i++) out.data[j * width + i] = at(i, j);
  return out;
};
const random = (width: number, height: number, seed = 1): Picture => {
  const next = seeded(seed);
  return picture(width, height, () => next());
};
/** Value for value; a matcher would walk the array far more slowly. */
const same = (a: Picture, b: Picture): boolean => a.data.every((v, i) => v === b.data[i]);
const at = (p: Picture, i: number, j: number): number => p.data[j * p.width + i];
const mean = (p: Picture): number => p.data.reduce((a, b) => a + b, 0) / p.data.length;

describe('blur', () => {
  test.each([0.6, 1, 1.5, 3, 7.3, 20])('a point spreads with the deviation %p in both directions', (sigma) => {
    const side = 2 * Math.ceil(sigma * 5) + 21;
    const mid = side >> 1;
    const out = blur(
      picture(side, side, (i, j) => (i === mid && j === mid ? 1 : 0)),
      sigma,
    );
    let sum = 0;
    let xx = 0;
    let yy = 0;
    for (let j = 0; j < side; j++)
      for (let i = 0; i < side; i++) {
        sum += at(out, i, j);
        xx += at(out, i, j) * (i - mid) ** 2;
        yy += at(out, i, j) * (j - mid) ** 2;
      }
    expect(sum).toBeCloseTo(1, 3);
    expect(Math.sqrt(xx / sum) / sigma).toBeCloseTo(1, 1);
    expect(Math.sqrt(yy / sum) / Math.sqrt(xx / sum)).toBeCloseTo(1, 3);
  });

  test('it looks like a Gaussian and leaves an even picture even', () => {
    const out = blur(
      picture(101, 3, (i) => (i === 50 ? 1 : 0)),
      5,
    );
    const peak = 1 / (5 * Math.sqrt(2 * Math.PI));
    for (const d of [0, 3, 6, 10]) expect(at(out, 50 + d, 1)).toBeCloseTo(peak * Math.exp(-(d * d) / 50), 2);
    for (const v of blur(newPicture(40, 30, 0.3), 4).data) expect(v).toBeCloseTo(0.3, 5);
  });
});

describe('medians', () => {
  const slow = (p: Picture, r: number, i: number, j: number): number => {
    const near: number[] = [];
    for (let y = j - r; y <= j + r; y++)
      for (let x = i - r; x <= i + r; x++)
        near.push(at(p, Math.max(0, Math.min(p.width - 1, x)), Math.max(0, Math.min(p.height - 1, y))));
    return near.sort((a, b) => a - b)[near.length >> 1];
  };

  test('three by three is the middle of nine, at the sides too', () => {
    const p = random(17, 13);
    const out = median3(p);
    for (let j = 0; j < 13; j++) for (let i = 0; i < 17; i++) expect(at(out, i, j)).toBe(slow(p, 1, i, j));
  });

  test.each([2, 5])('a wide one of radius %p is the median to a 512th', (r) => {
    const p = random(24, 21, 5);
    const out = medianWide(p, r);
    for (let j = 0; j < 21; j++)
      for (let i = 0; i < 24; i++) expect(Math.abs(at(out, i, j) - slow(p, r, i, j))).toBeLessThan(1.01 / 512);
  });

  test('specks go, grain and edges stay', () => {
    const p = picture(40, 40, (i) => (i < 20 ? 0.2 : 0.8) + (i % 2) * 0.01);
    p.data[5 * 40 + 5] = 1;
    p.data[30 * 40 + 30] = 0;
    const out = despeckle(p, { radiusPx: 1, contrast: 0.1 });
    expect(at(out, 5, 5)).toBeLessThan(0.22);
    expect(at(out, 30, 30)).toBeGreaterThan(0.79);
    expect(at(out, 12, 12)).toBe(at(p, 12, 12));
    expect(at(out, 19, 12)).toBe(at(p, 19, 12));
    const wide = picture(60, 60, (i, j) => (Math.hypot(i - 30, j - 30) < 4 ? 1 : 0.3));
    expect(at(despeckle(wide, { radiusPx: 7, contrast: 0.1 }), 30, 30)).toBeCloseTo(0.3, 2);
    expect(at(despeckle(wide, { radiusPx: 2, contrast: 0.1 }), 30, 30)).toBe(1);
  });
});

describe('tones', () => {
  const ramp = picture(11, 1, (i) => i / 10);

  test('levels stretch, lift and invert', () => {
    expect([...levels(ramp, 0.2, 1, 0.8).data].map((v) => Number(v.toFixed(4)))).toEqual([
      0, 0, 0, 0.1667, 0.3333, 0.5, 0.6667, 0.8333, 1, 1, 1,
    ]);
    expect(at(levels(ramp, 0, 2, 1), 4, 0)).toBeCloseTo(Math.sqrt(0.4), 5);
    expect(at(levels(ramp, 1, 1, 0), 3, 0)).toBeCloseTo(0.7, 6);
    for (const v of levels(ramp, 0.5, 1, 0.5).data) expect([0, 1]).toContain(v);
  });

  test('invert, threshold, terrace and curve', () => {
    expect(at(invert(ramp), 3, 0)).toBeCloseTo(0.7, 6);
    expect([...threshold(ramp, 0.45, 0).data]).toEqual([0, 0, 0, 0, 0, 1, 1, 1, 1, 1, 1]);
    expect(at(threshold(ramp, 0.5, 0.4), 5, 0)).toBeCloseTo(0.5, 5);
    expect(new Set([...terrace(ramp, 3, 0).data])).toEqual(new Set([0, 0.5, 1]));
    const curve = [
      { x: 0, y: 0, corner: true },
      { x: 0.5, y: 0.9, corner: true },
      { x: 1, y: 1, corner: true },
    ];
    expect(at(toneCurve(ramp, curve), 5, 0)).toBeCloseTo(0.9, 4);
    expect(at(toneCurve(ramp, curve), 2, 0)).toBeCloseTo(0.36, 3);
  });
});

describe('size and shape', () => {
  test('reducing by half averages, enlarging and reducing brings a smooth picture back', () => {
    const smooth = picture(64, 48, (i, j) => 0.5 + 0.3 * Math.sin(i / 7) * Math.cos(j / 9));
    expect(mean(resize(smooth, 32, 24))).toBeCloseTo(mean(smooth), 4);
    const back = resize(resize(smooth, 128, 96), 64, 48);
    for (let j = 4; j < 44; j++)
      for (let i = 4; i < 60; i++) expect(Math.abs(at(back, i, j) - at(smooth, i, j))).toBeLessThan(0.004);
    expect(sized(400, 100, 64)).toEqual([64, 16]);
    expect(sized(3, 4000, 16)).toEqual([1, 16]);
  });

  test('crop, flip and repeat', () => {
    const p = picture(4, 3, (i, j) => i + 10 * j);
    expect([...crop(p, { left: 1, top: 1, width: 2, height: 2 }).data]).toEqual([11, 12, 21, 22]);
    expect([...crop(p, { left: -1, top: 0, width: 2, height: 1 }, 7).data]).toEqual([7, 0]);
    expect([...flip(p, { across: true, down: false }).data].slice(0, 4)).toEqual([3, 2, 1, 0]);
    expect([...flip(p, { across: false, down: true }).data].slice(0, 4)).toEqual([20, 21, 22, 23]);
    const twice = repeat(p, 2, 2);
    expect([twice.width, twice.height, at(twice, 5, 4)]).toEqual([8, 6, 11]);
  });

  test('a quarter turn is exact, anticlockwise', () => {
    const p = random(9, 9);
    const out = turned(p, Math.PI / 2, 0);
    for (let j = 0; j < 9; j++) for (let i = 0; i < 9; i++) expect(at(out, i, j)).toBeCloseTo(at(p, 8 - j, i), 5);
  });

  test('padding centres the form with its margin; a picture without form is left whole', () => {
    const p = picture(100, 80, (i, j) => (i >= 10 && i < 30 && j >= 50 && j < 60 ? 1 : 0));
    expect(formBox(p, 0)).toEqual({ left: 10, top: 50, right: 30, bottom: 60 });
    const out = padded(p, 0.1, true);
    expect([out.width, out.height]).toEqual([25, 25]);
    expect(formBox(out, 0)).toEqual({ left: 2, top: 7, right: 22, bottom: 17 });
    expect(padded(newPicture(40, 20, 0.5), 0, true)).toMatchObject({ width: 40, height: 40 });
  });

  test('mirrors and wheels agree with themselves', () => {
    const p = random(32, 32);
    const m = mirror(p, { across: true, down: true });
    for (let j = 0; j < 32; j++)
      for (let i = 0; i < 32; i++) {
        expect(at(m, i, j)).toBe(at(m, 31 - i, j));
        expect(at(m, i, j)).toBe(at(m, i, 31 - j));
      }
    const wheel = radial(blur(p, 1), 4);
    for (let j = 2; j < 30; j++)
      for (let i = 2; i < 30; i++) expect(at(wheel, i, j)).toBeCloseTo(at(wheel, j, 31 - i), 5);
  });
});

describe('distance and areas', () => {
  test('the distance is exact', () => {
    const inside = new Uint8Array(30 * 20);
    for (const k of [65, 247, 411]) inside[k] = 1;
    const d = distanceFrom(inside, 30, 20);
    for (let k = 0; k < 600; k++) {
      const least = Math.min(
        ...[65, 247, 411].map((s) => Math.hypot((k % 30) - (s % 30), Math.floor(k / 30) - Math.floor(s / 30))),
      );
      expect(d[k]).toBeCloseTo(least, 9);
    }
  });

  test('areas that touch at a corner are one, others apart', () => {
    const map = ['##..#', '..#.#', '.....', '#.#.#', '###..'].join('');
    const found = components(
      Uint8Array.from(map, (c) => (c === '#' ? 1 : 0)),
      5,
      5,
    );
    expect(found.count).toBe(4);
    expect([...found.areas.slice(1)].sort()).toEqual([1, 2, 3, 5]);
  });

  test('outlines cover exactly what they enclose', () => {
    const square = cover([[1.25, 1.5, 4.75, 1.5, 4.75, 3, 1.25, 3]], 8, 5);
    expect(mean(square) * 40).toBeCloseTo(3.5 * 1.5, 5);
    expect(at(square, 1, 1)).toBeCloseTo(0.375, 5);
    expect(at(square, 4, 2)).toBeCloseTo(0.75, 5);
    const disc = Array.from({ length: 200 }, (_, k) => [
      20 + 12.3 * Math.cos((k / 100) * Math.PI),
      20 + 12.3 * Math.sin((k / 100) * Math.PI),
    ]).flat();
    expect(mean(cover([disc], 40, 40)) * 1600).toBeCloseTo(100 * 12.3 * 12.3 * Math.sin(Math.PI / 100), 1);
    // Beyond the sides it is cut off; a hole is an outline the other way round.
    expect(mean(cover([[-5, -5, 20, -5, 20, 20, -5, 20]], 8, 8))).toBeCloseTo(1, 6);
    expect(
      mean(
        cover(
          [
            [0, 0, 8, 0, 8, 8, 0, 8],
            [2, 2, 2, 6, 6, 6, 6, 2],
          ],
          8,
          8,
        ),
      ) * 64,
    ).toBeCloseTo(48, 4);
    expect(at(cut(newPicture(8, 8, 0.5), [[0, 0, 0.5, 0, 0.5, 1, 0, 1]], 0), 1, 4)).toBeCloseTo(0.5, 6);
  });
});

describe('background', () => {
  const p = picture(40, 40, (i, j) =>
    Math.hypot(i - 20, j - 20) < 12 ? (Math.hypot(i - 20, j - 20) < 5 ? 0.11 : 0.8) : 0.1,
  );

  test('by tone takes inner tones too, by edge and by click only what is connected', () => {
    expect(at(backgroundMatte(p, { by: 'tone', tone: 0.1 }, { tolerance: 0.05, soft: 0.1 }), 20, 20)).toBe(0);
    const edge = removeBackground(p, { by: 'edge' }, { tolerance: 0.05, soft: 0.1 });
    expect(at(edge, 1, 1)).toBe(0);
    expect(at(edge, 20, 20)).toBeCloseTo(0.11, 6);
    const click = removeBackground(p, { by: 'click', x: 0.5, y: 0.5 }, { tolerance: 0.05, soft: 0.1 });
    expect(at(click, 20, 20)).toBe(0);
    expect(at(click, 1, 1)).toBeCloseTo(0.1, 6);
  });

  test('a soft edge stays soft', () => {
    const glow = picture(60, 60, (i, j) => Math.max(0, 1 - Math.hypot(i - 30, j - 30) / 25));
    const matte = backgroundMatte(glow, { by: 'edge' }, { tolerance: 0.04, soft: 0.3 });
    const row = Array.from({ length: 30 }, (_, i) => at(matte, i, 30));
    for (let i = 1; i < 30; i++) expect(row[i]).toBeGreaterThanOrEqual(row[i - 1] - 1e-6);
    expect(row.filter((v) => v > 0.05 && v < 0.95).length).toBeGreaterThan(3);
  });
});

test('uneven light is divided out, marks stay', () => {
  const p = picture(
    200,
    140,
    (i, j) => (0.95 - 0.4 * (i / 200) - 0.1 * (j / 140)) * (Math.hypot(i - 100, j - 70) < 14 ? 0.3 : 1),
  );
  const out = evenLight(p, 0.12, 'bright');
  const bare = [
    [10, 10],
    [190, 10],
    [10, 130],
    [190, 130],
    [100, 20],
  ].map(([i, j]) => at(out, i, j));
  expect(Math.max(...bare) - Math.min(...bare)).toBeLessThan(0.03);
  expect(at(out, 100, 70) / at(out, 100, 20)).toBeCloseTo(0.3, 1);
});

test('terraces of 8 bits are smoothed, a real edge is not', () => {
  const stepped = picture(256, 8, (i) => Math.round((i / 256) * 40) / 255 + (i > 200 ? 0.4 : 0));
  const out = deband(stepped, 1 / 255, 4);
  let largest = 0;
  for (let i = 20; i < 190; i++) largest = Math.max(largest, Math.abs(at(out, i, 4) - at(out, i - 1, 4)));
  expect(largest).toBeLessThan(0.6 / 255);
  expect(at(out, 203, 4) - at(out, 199, 4)).toBeGreaterThan(0.39);
});

test('noise has its height and its seed; sharpening undoes a blur in part', () => {
  const flat = newPicture(128, 128, 0.5);
  const a = addNoise(flat, 0.1, 0.1, 3);
  expect(same(a, addNoise(flat, 0.1, 0.1, 3))).toBe(true);
  expect(same(a, addNoise(flat, 0.1, 0.1, 4))).toBe(false);
  expect(Math.max(...a.data)).toBeLessThan(0.61);
  expect(Math.max(...a.data)).toBeGreaterThan(0.54);
  const edge = picture(40, 5, (i) => (i < 20 ? 0.3 : 0.7));
  const soft = blur(edge, 2);
  const sharp = sharpen(soft, 2, 1);
  const off = (p: Picture): number => p.data.reduce((s, v, k) => s + Math.abs(v - edge.data[k]), 0);
  expect(off(sharp)).toBeLessThan(off(soft) * 0.9);
});

test('feather keeps the middle and reaches the ground at the ring', () => {
  const out = feather(newPicture(100, 100, 0.9), { shape: 'round', start: 0.6, end: 0.95, ground: 0.2 });
  expect(at(out, 50, 50)).toBeCloseTo(0.9, 6);
  expect(at(out, 0, 50)).toBeCloseTo(0.2, 6);
  expect(at(out, 2, 2)).toBeCloseTo(0.2, 6);
  const square = feather(newPicture(100, 100, 0.9), { shape: 'square', start: 0.6, end: 1.2, ground: 0.2 });
  expect(at(square, 1, 1)).toBeCloseTo(at(square, 1, 50), 6);
});

describe('seamless', () => {
  test.each([1, 2, 3])('the seam is no stronger than the picture’s own inner differences (%p)', (seed) => {
    const p = blur(random(128, 128, seed), 2.5);
    const stretched = levels(p, 0.35, 1, 0.65);
    const out = seamless(stretched, 0.2);
    const step = (pick: (k: number) => [number, number]): number =>
      Array.from({ length: 128 }, (_, k) => pick(k)).reduce((s, [a, b]) => s + Math.abs(a - b), 0) / 128;
    const seam = step((k) => [at(out, 127, k), at(out, 0, k)]);
    const seamDown = step((k) => [at(out, k, 127), at(out, k, 0)]);
    let inner = 0;
    for (let i = 1; i < 128; i++) inner += step((k) => [at(out, i, k), at(out, i - 1, k)]) / 127;
    expect(step((k) => [at(stretched, 127, k), at(stretched, 0, k)])).toBeGreaterThan(inner * 2);
    expect(seam).toBeLessThan(inner * 1.3);
    expect(seamDown).toBeLessThan(inner * 1.3);
  });
});

describe('bevel', () => {
  const disc = cover(
    [
      Array.from({ length: 240 }, (_, k) => [
        50 + 40 * Math.cos((k / 120) * Math.PI),
        50 + 40 * Math.sin((k / 120) * Math.PI),
      ]).flat(),
    ],
    100,
    100,
  );

  test('a chamfer rises evenly from the outline, a round one as a quarter circle', () => {
    const flat = bevel(disc, { level: 0.5, widthPx: 20, profile: chamferProfile });
    expect(at(flat, 50, 50)).toBeCloseTo(1, 5);
    for (const i of [14, 18, 24]) expect(at(flat, i, 50)).toBeCloseTo((i + 0.5 - 10) / 20, 1);
    const round = bevel(disc, { level: 0.5, widthPx: 20, profile: roundProfile });
    expect(at(round, 19, 50)).toBeCloseTo(Math.sqrt(1 - 0.525 ** 2), 1);
    expect(at(round, 2, 2)).toBe(0);
  });

  test('a grey form keeps its own grey', () => {
    const grey = { ...disc, data: disc.data.map((v) => v * 0.5) };
    const out = bevel(grey, { level: 0.5, widthPx: 10, profile: chamferProfile });
    expect(at(out, 50, 50)).toBeCloseTo(0.5, 2);
    expect(at(out, 15, 50)).toBeCloseTo(0.27, 1);
  });
});

test.each([
  ['max', 0.6],
  ['min', 0.4],
  ['add', 1],
  ['multiply', 0.24],
  ['over', 0.76],
] as const)('combine by %s', (way, answer) => {
  expect(combine(newPicture(2, 2, 0.4), newPicture(2, 2, 0.6), way, 1).data[0]).toBeCloseTo(answer, 6);
  expect(combine(newPicture(2, 2, 0.4), newPicture(2, 2, 0.6), way, 0).data[0]).toBeCloseTo(0.4, 6);
});

describe('retouch', () => {
  const stroke = (change: Partial<RetouchStroke> & Pick<RetouchStroke, 'tool'>): RetouchStroke =>
    RetouchStrokeSchema.parse({ size: 8, strength: 100, hardness: 60, points: [0.5, 0.5, 1], ...change });
  const grain = picture(100, 100, (i, j) => 0.4 + 0.1 * Math.sin(i * 1.9) * Math.sin(j * 2.3) + 0.001 * i);

  test('paint, erase, lighten and darken change the middle and nothing beyond the radius', () => {
    for (const [tool, want] of [
      ['paint', 0.9],
      ['erase', 0.2],
    ] as const) {
      const out = retouch(grain, [stroke({ tool, grey: 0.9 })], 0.2);
      expect(at(out, 50, 50)).toBeCloseTo(want, 5);
      expect(at(out, 60, 50)).toBe(at(grain, 60, 50));
    }
    expect(at(retouch(grain, [stroke({ tool: 'lighten' })], 0), 50, 50)).toBeGreaterThan(at(grain, 50, 50));
    expect(at(retouch(grain, [stroke({ tool: 'darken' })], 0), 50, 50)).toBeLessThan(at(grain, 50, 50));
    const lights =
      at(retouch(newPicture(100, 100, 0.1), [stroke({ tool: 'lighten', range: 'lights' })], 0), 50, 50) - 0.1;
    const shadows =
      at(retouch(newPicture(100, 100, 0.1), [stroke({ tool: 'lighten', range: 'shadows' })], 0), 50, 50) - 0.1;
    expect(shadows).toBeGreaterThan(lights * 10);
  });

  test('copy takes from its source, heal covers a blot with grain of the right tone', () => {
    const out = retouch(grain, [stroke({ tool: 'copy', from: [0.2, 0.1] })], 0);
    expect(at(out, 50, 50)).toBeCloseTo(at(grain, 70, 60), 5);
    const blot = {
      ...grain,
      data: grain.data.map((v, k) => (Math.hypot((k % 100) - 50, Math.floor(k / 100) - 50) < 5 ? 1 : v)),
    };
    const healed = retouch(blot, [stroke({ tool: 'heal' })], 0);
    const near: number[] = [];
    for (let j = 46; j < 55; j++) for (let i = 46; i < 55; i++) near.push(at(healed, i, j));
    expect(Math.max(...near)).toBeLessThan(0.6);
    expect(near.reduce((a, b) => a + b, 0) / near.length).toBeCloseTo(0.45, 1);
    expect(Math.max(...near) - Math.min(...near)).toBeGreaterThan(0.1);
  });

  test('smudge carries tone along, and the strokes of a recipe are the same at any size', () => {
    const half = picture(100, 100, (i) => (i < 40 ? 1 : 0));
    const out = retouch(half, [stroke({ tool: 'smudge', points: [0.3, 0.5, 1, 0.6, 0.5, 1], strength: 90 })], 0);
    expect(at(out, 48, 50)).toBeGreaterThan(0.3);
    expect(at(out, 48, 20)).toBe(0);
    const strokes = [
      stroke({ tool: 'paint', grey: 1, points: [0.2, 0.3, 1, 0.7, 0.6, 0.5] }),
      stroke({ tool: 'erase', points: [0.5, 0.5, 1] }),
    ];
    const small = retouch(newPicture(100, 100, 0.3), strokes, 0);
    const large = resize(retouch(newPicture(400, 400, 0.3), strokes, 0), 100, 100);
    let off = 0;
    for (let k = 0; k < 10_000; k++) off += Math.abs(small.data[k] - large.data[k]) / 10_000;
    expect(off).toBeLessThan(0.004);
  });
});
