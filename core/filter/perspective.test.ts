import { newPicture, type Picture } from '#core/picture';
import { seeded } from '#core/random';
import { inFourSided, isFourSided, proportionOf, straightenedFrom, straightenedSize } from './index';

const WHOLE = [0, 0, 1, 0, 1, 1, 0, 1];

/**
 * Corners of a rectangle `ratio` wide and 1 high that is turned and tipped before a camera at the origin, 0–1 of a
 * picture of this size; `focal` in pixels.
 */
function seen(ratio: number, [turn, tip, roll]: readonly number[], size: { width: number; height: number }): number[] {
  const focal = 1.2 * size.width;
  return [
    [-ratio / 2, -0.5],
    [ratio / 2, -0.5],
    [ratio / 2, 0.5],
    [-ratio / 2, 0.5],
  ].flatMap(([x, y]) => {
    const [x1, y1] = [x * Math.cos(roll) - y * Math.sin(roll), x * Math.sin(roll) + y * Math.cos(roll)];
    const [x2, z2] = [x1 * Math.cos(turn), x1 * Math.sin(turn)];
    const [y3, z3] = [y1 * Math.cos(tip) - z2 * Math.sin(tip), y1 * Math.sin(tip) + z2 * Math.cos(tip)];
    const z = z3 + 3.2;
    return [0.5 + (focal * x2) / z / size.width, 0.5 + (focal * y3) / z / size.height];
  });
}

test('the proportion of a rectangle seen from the side is found, whichever way it is turned', () => {
  const random = seeded(3);
  const size = { width: 1200, height: 900 };
  for (let n = 0; n < 200; n++) {
    const ratio = 0.4 + random() * 2;
    const side = (): number => (random() < 0.5 ? -1 : 1) * (0.25 + random() * 0.5);
    const corners = seen(ratio, [side(), side(), (random() - 0.5) * 0.6], size);
    expect(isFourSided(corners)).toBe(true);
    expect(proportionOf(corners, size) / ratio).toBeCloseTo(1, 3);
  }
});

test('where opposite sides are parallel their lengths are the proportion', () => {
  const size = { width: 800, height: 600 };
  expect(proportionOf(WHOLE, size)).toBeCloseTo(4 / 3, 9);
  expect(proportionOf([0.2, 0.3, 0.7, 0.3, 0.7, 0.8, 0.2, 0.8], size)).toBeCloseTo(4 / 3, 9);
});

test('the whole picture as its corners is the picture', () => {
  const random = seeded(5);
  const picture = newPicture(40, 28);
  for (let i = 0; i < picture.data.length; i++) picture.data[i] = random();
  const size = straightenedSize(WHOLE, picture, 40 / 28);
  expect(size).toEqual({ width: 40, height: 28 });
  const out = straightenedFrom(picture, WHOLE, size, 0);
  out.data.forEach((v, i) => expect(v).toBeCloseTo(picture.data[i], 5));
});

test('a pattern seen from the side comes back straight', () => {
  const size = { width: 640, height: 480 };
  const corners = seen(1.5, [0.5, -0.4, 0.2], size);
  const pattern = (u: number, v: number): number => 0.5 + 0.25 * Math.sin(u * 18) + 0.25 * Math.cos(v * 14);
  const flat = pictureOf(600, 400, pattern);
  // The photograph: each of its pixels where the mapping of the corners leads to.
  const photo = newPicture(size.width, size.height, 0.5);
  for (let j = 0; j < size.height; j++)
    for (let i = 0; i < size.width; i++) {
      const at = unmapped(corners, (i + 0.5) / size.width, (j + 0.5) / size.height);
      if (at) photo.data[j * size.width + i] = pattern(...at);
    }
  const back = straightenedFrom(photo, corners, flat, 0.5);
  let worst = 0;
  // Beside the sides lies what isn't of the pattern.
  for (let j = 6; j < 394; j++)
    for (let i = 6; i < 594; i++) worst = Math.max(worst, Math.abs(back.data[j * 600 + i] - flat.data[j * 600 + i]));
  expect(worst).toBeLessThan(0.02);
});

test('corners that cross, dent or fall together are told from a four-sided shape', () => {
  expect(isFourSided([0, 0, 1, 1, 1, 0, 0, 1])).toBe(false);
  expect(isFourSided([0, 0, 1, 0, 0.2, 0.2, 0, 1])).toBe(false);
  expect(isFourSided([0, 0, 0, 0, 1, 1, 0, 1])).toBe(false);
  expect(isFourSided([0, 0, 0, 1, 1, 1, 1, 0])).toBe(false);
  expect(isFourSided([-0.2, 0.1, 1.3, 0, 1, 1.2, 0, 1])).toBe(true);
});

function pictureOf(width: number, height: number, of: (u: number, v: number) => number): Picture {
  const out = newPicture(width, height);
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) out.data[j * width + i] = of((i + 0.5) / width, (j + 0.5) / height);
  return out;
}

/** u, v of the place in the four-sided shape that is seen here, by Newton's way; null outside. */
function unmapped(corners: readonly number[], x: number, y: number): [number, number] | null {
  const map = inFourSided([0, 2, 4, 6].map((k) => [corners[k], corners[k + 1]] as const));
  let [u, v] = [0.5, 0.5];
  for (let n = 0; n < 12; n++) {
    const [fx, fy] = map(u, v);
    const e = 1e-6;
    const [ax, ay] = map(u + e, v);
    const [bx, by] = map(u, v + e);
    const [a, b, c, d] = [(ax - fx) / e, (bx - fx) / e, (ay - fy) / e, (by - fy) / e];
    const det = a * d - b * c;
    u += ((x - fx) * d - (y - fy) * b) / det;
    v += ((y - fy) * a - (x - fx) * c) / det;
  }
  return u > -0.1 && v > -0.1 && u < 1.1 && v < 1.1 ? [u, v] : null;
}
