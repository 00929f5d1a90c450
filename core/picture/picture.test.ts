import {
  edgeGround,
  edgeSpread,
  fromUint16,
  halve,
  histogram,
  levelFor,
  newPicture,
  percentiles,
  psnr,
  pyramid,
  ringCover,
  ringMean,
  sample,
  toUint16,
  usedRange,
} from './index';

const filled = (n: number, f: (i: number, j: number) => number) => {
  const p = newPicture(n);
  for (let j = 0; j < n; j++) for (let i = 0; i < n; i++) p.data[j * n + i] = f(i, j);
  return p;
};

test('16 bits and back is within half a step', () => {
  const p = filled(32, (i, j) => (i * 32 + j) / 1023);
  const back = fromUint16(toUint16(p), 32);
  const worst = Math.max(...p.data.map((h, i) => Math.abs(h - back.data[i])));
  expect(worst).toBeLessThanOrEqual(0.5 / 65535 + 1e-7);
  expect(toUint16({ width: 2, height: 1, data: Float32Array.from([-1, 7]) })).toEqual(Uint16Array.from([0, 65535]));
  expect(() => fromUint16(new Uint16Array(3), 2)).toThrow('Expected 2 × 2 greys, found 3.');
});

test('sampling is exact at sample centres, linear between, and holds at the edge', () => {
  const p = filled(4, (i) => i);
  expect(sample(p, 1.5 / 4, 0.5)).toBe(1);
  expect(sample(p, 2 / 4, 0.5)).toBeCloseTo(1.5, 12);
  expect(sample(p, 0, 0)).toBe(0);
  expect(sample(p, 1, 1)).toBe(3);
});

test('halving keeps the mean, and a pyramid ends small', () => {
  const p = filled(64, (i, j) => Math.sin(i) * Math.cos(j));
  const mean = (d: Float32Array) => d.reduce((a, b) => a + b, 0) / d.length;
  expect(mean(halve(p).data)).toBeCloseTo(mean(p.data), 6);
  const levels = pyramid(p);
  expect(levels.levels.map((l) => l.width)).toEqual([64, 32, 16, 8]);
  expect(levelFor(levels, 1, 0.5).width).toBe(64);
  expect(levelFor(levels, 1, 2.1).width).toBe(32);
  expect(levelFor(levels, 1, 1000).width).toBe(8);
});

test('the ground at the edge is the border’s median, whatever is inside', () => {
  const p = filled(100, (i, j) => (i > 8 && i < 90 && j > 8 && j < 90 ? 0.9 : 0.25));
  p.data[5] = 1;
  expect(edgeGround(p)).toBeCloseTo(0.25, 6);
});

test('histogram counts every pixel once but the empty ones', () => {
  const p = filled(10, (i) => i / 9);
  p.data[3] = NaN;
  expect(histogram(p, 10).reduce((a, b) => a + b, 0)).toBe(99);
  expect(
    histogram(
      filled(4, () => 1),
      8,
    )[7],
  ).toBe(16);
});

test('used range and likeness', () => {
  expect(usedRange(filled(64, (i) => 0.4 + 0.2 * (i / 63)))).toBeCloseTo(0.2, 2);
  const p = filled(16, (i) => i / 15);
  expect(psnr(p, p)).toBe(Infinity);
  expect(
    psnr(
      p,
      filled(16, (i) => i / 15 + 0.01),
    ),
  ).toBeCloseTo(40, 3);
});

describe('what is read off a picture for its checks', () => {
  const ramp = (size: number): ReturnType<typeof newPicture> => {
    const picture = newPicture(size);
    for (let i = 0; i < picture.data.length; i++) picture.data[i] = (i % size) / (size - 1);
    return picture;
  };

  test('a level border has no spread, a ramp’s nearly all', () => {
    expect(edgeSpread(newPicture(64, 64, 0.3)).spread).toBe(0);
    const { spread, upper } = edgeSpread(ramp(64));
    expect(spread).toBeGreaterThan(0.9);
    expect(upper).toBeGreaterThan(0.95);
  });

  test('the ring’s mean leaves the corners out', () => {
    const picture = newPicture(100, 100, 1);
    for (let j = 0; j < 100; j++) {
      for (let i = 0; i < 100; i++)
        if (Math.hypot((i + 0.5) / 50 - 1, (j + 0.5) / 50 - 1) <= 1) picture.data[j * 100 + i] = 0.25;
    }
    expect(ringMean(picture)).toBeCloseTo(0.25, 9);
    expect(ringMean(ramp(101))).toBeCloseTo(0.5, 9);
  });

  test('the ring’s cover counts what differs from the ground', () => {
    const half = ramp(100);
    half.data.forEach((h, i) => (half.data[i] = h > 0.5 ? 1 : 0));
    expect(ringCover(half, 0)).toBeCloseTo(0.5, 2);
    expect(ringCover(newPicture(50, 50, 0.4), 0.4)).toBe(0);
    expect(ringCover(newPicture(50, 50, 0.4), 0)).toBe(1);
  });

  test('percentiles rise, leave empty pixels out, and find a spike', () => {
    const picture = ramp(200);
    const [low, middle, high] = percentiles(picture, [0.1, 0.5, 0.9]) as [number, number, number];
    expect(low).toBeCloseTo(0.1, 2);
    expect(middle).toBeCloseTo(0.5, 2);
    expect(high).toBeCloseTo(0.9, 2);
    picture.data.fill(NaN, 0, 20_000);
    expect(percentiles(picture, [0.5])[0]).toBeCloseTo(0.5, 2);
    const spike = newPicture(100, 100, 0.1);
    spike.data[5] = 1;
    expect(percentiles(spike, [0.998])[0]).toBeCloseTo(0.1, 2);
    expect(usedRange(spike)).toBe(0);
  });
});
