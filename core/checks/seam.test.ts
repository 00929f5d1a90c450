import { growPattern, surprises } from '#core/pattern';
import { newPicture, type Picture } from '#core/picture';
import { seeded } from '#core/random';
import { newGrow, type Grow } from '#core/settings';
import { checkSeam, measureSeam } from './index';

/** A picture whose last column is `by` higher than its first one would have it. */
function withSeam({ width, height, data }: Picture, by: number): Picture {
  return { width, height, data: data.map((v, i) => v * (1 - by) + (by * (i % width)) / (width - 1)) };
}

test('a ramp has a seam, an even picture and a wave that comes round have none', () => {
  const size = 128;
  const ramp = newPicture(size);
  const wave = newPicture(size);
  for (let i = 0; i < ramp.data.length; i++) {
    ramp.data[i] = (i % size) / (size - 1);
    wave.data[i] = 0.5 + 0.5 * Math.sin(((i % size) / size) * 2 * Math.PI * 3);
  }
  expect(measureSeam(ramp)).toMatchObject({ shows: true, running: 0, runningInside: 1 });
  expect(measureSeam(wave).shows).toBe(false);
  expect(measureSeam(newPicture(size, size, 0.5)).shows).toBe(false);
  const half = { ...wave, data: wave.data.map((_, i) => 0.5 + 0.5 * Math.sin(((i % size) / size) * Math.PI * 3)) };
  expect(checkSeam(half).ok).toBe(false);
});

test('turned by a quarter the same seam is found', () => {
  const size = 96;
  const down = newPicture(size);
  for (let i = 0; i < down.data.length; i++) down.data[i] = Math.floor(i / size) / size;
  expect(measureSeam(down).shows).toBe(true);
});

test('noise repeats with any edge: its own steps are as large', () => {
  const random = seeded(4);
  const noise = newPicture(160);
  for (let i = 0; i < noise.data.length; i++) noise.data[i] = random();
  expect(measureSeam(noise).shows).toBe(false);
});

test('the shipped weave repeats, and so it does after a shift that puts a thread’s edge at the border', () => {
  const weave = growPattern(newGrow('weave'), 512);
  for (const shift of [0, 3, 17, 40]) {
    const data = weave.data.map((_, i) => weave.data[Math.floor(i / 512) * 512 + ((i + shift) % 512)]);
    expect(checkSeam({ ...weave, data })).toMatchObject({ ok: true });
  }
});

describe('over 13 of 200 patterns', () => {
  const grows: Grow[] = Array.from({ length: 13 }, (_, k) => surprises(null, (k + 1) * 7, true))
    .flat()
    .slice(0, 200)
    // One in sixteen: growing them is what takes the time.
    .filter((_, i) => i % 16 === 0);
  let found = 0;
  const alarms: string[] = [];
  beforeAll(() => {
    for (const grow of grows) {
      const picture = growPattern(grow, 384);
      if (measureSeam(picture).shows) alarms.push(`${grow.form} ${grow.seed}`);
      if (measureSeam(withSeam(picture, 0.02)).shows) found++;
    }
  }, 180_000);

  test('none that repeats is warned of', () => expect(alarms).toEqual([]));
  test('a seam of 2 % of the height is found in at least 12', () => expect(found).toBeGreaterThanOrEqual(12));
});
