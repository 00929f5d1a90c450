import { newPicture, type Picture } from '#core/picture';
import { shade } from './shade';

const SIZE = 32;
function slope(dx: number, dy: number): Picture {
  const picture = newPicture(SIZE);
  for (let i = 0; i < picture.data.length; i++) picture.data[i] = dx * (i % SIZE) + dy * Math.floor(i / SIZE);
  return picture;
}
/** Brightness of the middle pixel. */
function middle(picture: Picture): number {
  const at = ((SIZE / 2) * SIZE + SIZE / 2) * 4;
  const rgba = shade(picture, 1);
  return rgba[at] + rgba[at + 1] + rgba[at + 2];
}

test('light comes from the upper left: what faces it is lighter than the flat, what looks away is darker', () => {
  const flat = middle(slope(0, 0));
  // Rises to the right, so it faces left; rises downwards, so it faces up.
  for (const [dx, dy] of [
    [0.4, 0],
    [0, 0.4],
    [0.4, 0.4],
  ] as const) {
    expect(middle(slope(dx, dy))).toBeGreaterThan(flat * 1.05);
    expect(middle(slope(-dx, -dy))).toBeLessThan(flat * 0.9);
  }
});

test('height alone makes no difference, the pixel’s size does', () => {
  const low = slope(0.2, 0);
  const high: Picture = { ...low, data: low.data.map((h) => h + 9) };
  expect(Math.abs(middle(high) - middle(low))).toBeLessThanOrEqual(3);
  const steep = shade(slope(0.2, 0), 0.5);
  const gentle = shade(slope(0.2, 0), 2);
  const at = ((SIZE / 2) * SIZE + SIZE / 2) * 4;
  expect(steep[at]).toBeGreaterThan(gentle[at]);
});

test('every pixel is opaque, and where there is no clay it is drawn flat', () => {
  const holed = slope(0, 0);
  holed.data.fill(NaN);
  const out = shade(holed, 1);
  expect(out.filter((_, i) => i % 4 === 3).every((a) => a === 255)).toBe(true);
  expect(out).toEqual(shade(slope(0, 0), 1));
});
