import { newPicture, type Picture } from '#core/picture';
import { seeded } from '#core/random';
import { heightsFromShading, resize } from './index';

/** Heights in pixels: bumps of several sizes about a middle. */
function bumps(width: number, height: number, seed: number): Picture {
  const random = seeded(seed);
  const out = newPicture(width, height);
  const unit = Math.max(width, height);
  for (let n = 0; n < 26; n++) {
    const [x, y] = [0.12 + random() * 0.76, 0.12 + random() * 0.76];
    const r = (0.025 + random() * 0.05) * unit;
    const high = r * 0.35;
    for (let j = 0; j < height; j++)
      for (let i = 0; i < width; i++) {
        const d2 = ((i - x * width) ** 2 + (j - y * height) ** 2) / (r * r);
        if (d2 < 9) out.data[j * width + i] += high * Math.exp(-d2);
      }
  }
  return out;
}

/** A matt white surface under one light, 35° over the plane. */
function lit({ width, height, data }: Picture, lightRad: number): Picture {
  const up = (35 * Math.PI) / 180;
  const out = newPicture(width, height);
  const at = (i: number, j: number): number =>
    data[Math.max(0, Math.min(height - 1, j)) * width + Math.max(0, Math.min(width - 1, i))];
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const zx = (at(i + 1, j) - at(i - 1, j)) / 2;
      const zy = -(at(i, j + 1) - at(i, j - 1)) / 2;
      const facing = -zx * Math.cos(lightRad) * Math.cos(up) - zy * Math.sin(lightRad) * Math.cos(up) + Math.sin(up);
      out.data[j * width + i] = Math.max(0, facing / Math.hypot(zx, zy, 1));
    }
  return out;
}

function likeness(a: Picture, b: Picture): number {
  const mean = (p: Picture): number => p.data.reduce((s, v) => s + v, 0) / p.data.length;
  const [ma, mb] = [mean(a), mean(b)];
  let [ab, aa, bb] = [0, 0, 0];
  for (let i = 0; i < a.data.length; i++) {
    const [x, y] = [a.data[i] - ma, b.data[i] - mb];
    ab += x * y;
    aa += x * x;
    bb += y * y;
  }
  return ab / Math.sqrt(aa * bb);
}

const options = { largest: 0.4, calm: 0.2 };

test.each([0, 40, 135, -100])('lit from %d° the heights are much like those that were lit', (degrees) => {
  const lightRad = (degrees * Math.PI) / 180;
  const heights = bumps(300, 240, 7);
  const photo = lit(heights, lightRad);
  const estimate = heightsFromShading(photo, { ...options, lightRad });
  expect(likeness(estimate, heights)).toBeGreaterThan(0.8);
  // The other light makes hollows of them.
  expect(likeness(heightsFromShading(photo, { ...options, lightRad: lightRad + Math.PI }), heights)).toBeLessThan(-0.8);
});

test('a reduced copy gives the same heights, and so does a picture that is solved in bands and tiles', () => {
  const photo = lit(bumps(400, 400, 11), 2);
  const small = heightsFromShading(photo, { ...options, lightRad: 2 });
  const half = heightsFromShading(resize(photo, 200, 200), { ...options, lightRad: 2 });
  expect(likeness(resize(small, 200, 200), half)).toBeGreaterThan(0.98);
  const large = heightsFromShading(resize(photo, 1000, 1000), { ...options, lightRad: 2 });
  expect(likeness(resize(large, 400, 400), small)).toBeGreaterThan(0.98);
});

test('no tile’s side shows in what is finer than the reduced copy holds', () => {
  const random = seeded(2);
  const noise = newPicture(1800, 1000);
  for (let i = 0; i < noise.data.length; i++) noise.data[i] = 0.5 + (random() - 0.5) * 0.2;
  const { data, width } = heightsFromShading(noise, { ...options, lightRad: 0.6 });
  const steps = (column: number): number => {
    let sum = 0;
    for (let j = 0; j < 1000; j++) sum += Math.abs(data[j * width + column + 1] - data[j * width + column]);
    return sum;
  };
  // Tiles begin every 832 pixels.
  const elsewhere = [300, 500, 700, 1100].map(steps).reduce((a, b) => a + b) / 4;
  for (const side of [831, 832, 895, 896]) expect(steps(side) / elsewhere).toBeLessThan(1.15);
});

test('an even picture is even', () => {
  const { data } = heightsFromShading(newPicture(64, 48, 0.3), { ...options, lightRad: 1 });
  expect(data.every((v) => v === 0.5)).toBe(true);
});
