import { resize } from '#core/filter';
import { newPicture, type Raster } from '#core/picture';
import { layeredNoise, seeded } from '#core/random';
import type { PickStroke } from '#core/settings';
import { INSIDE, loadGrabCut, OUTSIDE, pickMatte, segmentJob, type Segment } from './index';

let segment: Segment;
beforeAll(async () => (segment = await loadGrabCut()), 60_000);

const [WIDE, HIGH] = [640, 480];

/** A lump with hairs on its rim before leaves, and how much of each pixel is its own. */
interface Photo {
  raster: Raster;
  truth: Float32Array;
}
const photos = new Map<number, Photo>();
function photo(seed: number): Photo {
  const made = photos.get(seed) ?? drawPhoto(seed);
  photos.set(seed, made);
  return made;
}

function drawPhoto(seed: number): Photo {
  const random = seeded(seed);
  const truth = newPicture(WIDE, HIGH);
  const hairs = Array.from({ length: 40 }, (_, n) => (n / 40) * 2 * Math.PI + random() * 0.1);
  for (let j = 0; j < HIGH; j++)
    for (let i = 0; i < WIDE; i++) {
      const [x, y] = [i - WIDE / 2, j - HIGH / 2];
      const r = Math.hypot(x, y);
      const angle = Math.atan2(y, x);
      const rim = 142 + 18 * layeredNoise(Math.cos(angle) * 3, Math.sin(angle) * 3, seed, 3);
      let own = Math.max(0, Math.min(1, rim - r + 0.5));
      if (r > 120 && r < 180)
        for (const hair of hairs) {
          const off = Math.abs(Math.sin(angle - hair)) * r;
          if (Math.cos(angle - hair) > 0 && r < rim + 12) own = Math.max(own, Math.max(0, Math.min(1, 1.6 - off)));
        }
      truth.data[j * WIDE + i] = own;
    }
  const planes = [0, 1, 2].map((k) => {
    const out = new Float32Array(WIDE * HIGH);
    for (let i = 0; i < out.length; i++) {
      const [x, y] = [i % WIDE, Math.floor(i / WIDE)];
      const leaf = [0.2, 0.42, 0.16][k] + [0.2, 0.3, 0.12][k] * layeredNoise(x / 40, y / 30, seed + 9, 4);
      const lump = [0.72, 0.5, 0.36][k] + [0.16, 0.14, 0.12][k] * layeredNoise(x / 25, y / 25, seed + 5, 4);
      const grain = (random() - 0.5) * 0.04;
      out[i] = Math.max(0, Math.min(1, leaf + (lump - leaf) * truth.data[i] + grain));
    }
    return out;
  });
  return { raster: { width: WIDE, height: HIGH, planes }, truth: truth.data };
}

const line = (inside: boolean, ...points: number[]): PickStroke => ({ inside, size: 1.2, points });
const over = line(true, 0.42, 0.3, 0.58, 0.42, 0.45, 0.45);
const round = line(false, 0.1, 0.08, 0.9, 0.08, 0.92, 0.68, 0.1, 0.7);

/** Share of what is in either that is in both. */
function overlap(matte: Float32Array, truth: Float32Array): number {
  let [both, either] = [0, 0];
  matte.forEach((v, i) => {
    const [a, b] = [v > 0.5, truth[i] > 0.5];
    if (a && b) both++;
    if (a || b) either++;
  });
  return both / either;
}

function meanError(matte: Float32Array, truth: Float32Array, where: (i: number) => boolean): number {
  let [sum, count] = [0, 0];
  matte.forEach((v, i) => {
    if (!where(i)) return;
    sum += Math.abs(v - truth[i]);
    count++;
  });
  return sum / count;
}

test('a lump is picked out from before leaves by two strokes; one over it alone does as well', () => {
  const { raster, truth } = photo(1);
  const { data } = pickMatte(raster, { strokes: [over, round], edge: 0.03, segment });
  expect(overlap(data, truth)).toBeGreaterThan(0.96);
  expect(overlap(pickMatte(raster, { strokes: [over], edge: 0.03, segment }).data, truth)).toBeGreaterThan(0.95);
});

test('its hairs are found at full size, closer than by the cut alone', () => {
  const { raster, truth } = photo(1);
  const job = segmentJob(raster, [over, round]);
  const cut = resize({ width: job.width, height: job.height, data: Float32Array.from(segment(job)) }, WIDE, HIGH).data;
  const matte = pickMatte(raster, { strokes: [over, round], edge: 0.03, segment }).data;
  const fringe = (i: number): boolean => {
    const r = Math.hypot((i % WIDE) - WIDE / 2, Math.floor(i / WIDE) - HIGH / 2);
    return r > 134 && r < 178;
  };
  expect(meanError(matte, truth, fringe)).toBeLessThan(meanError(cut, truth, fringe) * 0.7);
  expect(matte.every((v) => v >= 0 && v <= 1)).toBe(true);
});

test('another stroke corrects it: what is said to be outside stays so, and so does what is inside', () => {
  const { raster } = photo(2);
  const taken = line(false, 0.5, 0.25, 0.5, 0.3);
  const { data } = pickMatte(raster, { strokes: [over, round, taken], edge: 0.01, segment });
  const at = (x: number, y: number): number => data[Math.round(y * WIDE) * WIDE + Math.round(x * WIDE)];
  expect(at(0.5, 0.27)).toBeLessThan(0.2);
  expect(at(0.5, 0.37)).toBeGreaterThan(0.9);
});

test('twice is the same, and at half its size it is the same thing', () => {
  const { raster } = photo(3);
  const options = { strokes: [over, round], edge: 0.02, segment };
  const once = pickMatte(raster, options);
  expect(pickMatte(raster, options).data).toEqual(once.data);
  const half: Raster = {
    width: WIDE / 2,
    height: HIGH / 2,
    planes: raster.planes.map((data) => resize({ width: WIDE, height: HIGH, data }, WIDE / 2, HIGH / 2).data),
  };
  const matte = resize(pickMatte(half, options), WIDE, HIGH).data;
  expect(overlap(matte, once.data)).toBeGreaterThan(0.97);
});

test('strokes are drawn where they lie; without one outside the sides of the picture are', () => {
  const flat: Raster = { width: 200, height: 100, planes: [new Float32Array(20_000).fill(0.5)] };
  const { known, width, height } = segmentJob(flat, [line(true, 0.5, 0.25, 0.6, 0.25)]);
  expect([width, height]).toEqual([200, 100]);
  expect(known[50 * 200 + 110]).toBe(INSIDE);
  expect([known[0], known[99 * 200 + 60], known[50 * 200 + 199]]).toEqual([OUTSIDE, OUTSIDE, OUTSIDE]);
  const said = segmentJob(flat, [line(true, 0.5, 0.25), line(false, 0.1, 0.1)]).known;
  expect(said[20 * 200 + 20]).toBe(OUTSIDE);
  expect(said[0]).not.toBe(OUTSIDE);
});

test('where nothing is left of one side there is nothing to find: what was said is the answer', () => {
  const flat: Raster = { width: 60, height: 40, planes: [new Float32Array(2400).fill(0.5)] };
  const everywhere = (inside: boolean): PickStroke => ({
    inside,
    size: 20,
    points: [0, 0.1, 1, 0.1, 1, 0.3, 0, 0.3, 0, 0.5, 1, 0.5],
  });
  const whole = pickMatte(flat, { strokes: [line(false, 0.5, 0.3), everywhere(true)], edge: 0.02, segment });
  expect(whole.data.every((v) => v === 1)).toBe(true);
  const none = pickMatte(flat, { strokes: [line(true, 0.5, 0.3), everywhere(false)], edge: 0.02, segment });
  expect(none.data.every((v) => v === 0)).toBe(true);
});

test('a picture of one colour, and one stroke in it, come to a matte all the same', () => {
  const flat: Raster = { width: 90, height: 70, planes: [new Float32Array(6300).fill(0.4)] };
  const { data } = pickMatte(flat, { strokes: [line(true, 0.5, 0.4)], edge: 0.02, segment });
  expect(data.every((v) => v >= 0 && v <= 1)).toBe(true);
  expect(data[Math.round(0.4 * 90) * 90 + 45]).toBe(1);
});
