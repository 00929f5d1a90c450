import { blur, resize } from '#core/filter';
import { growPattern } from '#core/pattern';
import { newPicture, type Picture } from '#core/picture';
import { seeded } from '#core/random';
import { newGrow } from '#core/settings';
import { checkBanding, greysInUse, measureBackground, pictureChecks, trueShare } from './index';

const noise = (size: number, seed = 1): Picture => {
  const random = seeded(seed);
  const p = newPicture(size);
  for (let i = 0; i < p.data.length; i++) p.data[i] = random();
  return p;
};

describe('true resolution', () => {
  test.each([1, 2, 4, 8])('a picture enlarged %p times has so much less detail than pixels', (times) => {
    const share = trueShare(resize(noise(512 / times), 512, 512));
    expect(share * times).toBeGreaterThan(0.8);
    expect(share * times).toBeLessThan(1.55);
  });

  test.each([1.5, 3, 6])('a blur of %p px ends it where the Gaussian lets next to nothing through', (sigma) => {
    // exp(−2π²σ²f²) = 5 % at f = 0.39/σ cycles a pixel, of 0.5.
    const wanted = Math.min(1, (2 * 0.39) / sigma);
    const share = trueShare(blur(noise(512), sigma));
    expect(share / wanted).toBeGreaterThan(0.6);
    expect(share / wanted).toBeLessThan(2);
  });

  test('an even picture has nothing to lose', () => expect(trueShare(newPicture(256, 256, 0.5))).toBe(1));
});

test('terraces of 8 bits are found on slopes; 16 bits, noise and cut shapes pass', () => {
  const slope = (levels: number): Picture => {
    const p = newPicture(512);
    for (let j = 0; j < 512; j++)
      for (let i = 0; i < 512; i++)
        p.data[j * 512 + i] = Math.round((0.2 + 0.3 * (i / 512) + 0.1 * Math.sin(j / 90)) * levels) / levels;
    return p;
  };
  expect(checkBanding(slope(255))).toMatchObject({ ok: false, name: 'banding' });
  expect(checkBanding(slope(65535)).ok).toBe(true);
  expect(checkBanding(noise(128)).ok).toBe(true);
  const cut = newPicture(128);
  for (let i = 0; i < cut.data.length; i++) cut.data[i] = i % 128 > 40 && i % 128 < 90 ? 1 : 0;
  expect(checkBanding(cut).ok).toBe(true);
  expect(greysInUse(cut)).toBe(2);
});

describe('background', () => {
  const form = (): Picture => {
    const p = newPicture(200);
    for (let j = 0; j < 200; j++)
      for (let i = 0; i < 200; i++)
        p.data[j * 200 + i] = Math.max(0, Math.min(1, (60 - Math.hypot(i - 100, j - 100)) / 20));
    return p;
  };

  test('a clean form with a soft edge is clean', () => {
    const report = measureBackground(form(), 0);
    expect(report.specks).toEqual([]);
    expect(report.dirt).toBe(0);
    expect(report.dirty).toEqual([]);
  });

  test('specks are counted and shown where they are; faint dirt is measured', () => {
    const p = form();
    p.data[20 * 200 + 30] = 0.8;
    p.data[20 * 200 + 31] = 0.7;
    p.data[180 * 200 + 170] = 0.5;
    for (let j = 2; j < 22; j++) for (let i = 150; i < 190; i++) p.data[j * 200 + i] = 0.03;
    const report = measureBackground(p, 0);
    expect(report.specks).toHaveLength(2);
    expect(report.specks[0].x).toBeCloseTo(31 / 200, 2);
    expect(report.specks[0].y).toBeCloseTo(20.5 / 200, 2);
    expect(report.dirt).toBeCloseTo(800 / 40_000, 4);
    // The dirt lies in the upper right.
    expect(report.dirty.length).toBeGreaterThan(10);
    for (const { x, y } of report.dirty) {
      expect(x).toBeGreaterThan(0.72);
      expect(y).toBeLessThan(0.13);
    }
    const { checks } = pictureChecks(p, false, 0);
    expect(checks.filter((c) => !c.ok).map((c) => c.name)).toEqual(expect.arrayContaining(['dirt', 'specks']));
  });

  test('a pattern that tiles is asked for its seam and not for margin', () => {
    const names = pictureChecks(growPattern(newGrow('cells', 2), 128), true).checks.map((c) => c.name);
    expect(names).toContain('seam');
    expect(names).not.toContain('margin');
  });
});
