import { newPicture, type Picture } from '#core/picture';
import { DetrendSchema, type DetrendKind } from '#core/settings';
import { detrend } from './detrend';
import { fillSmoothly } from './fill';

const SIZE = 256;
type Height = (x: number, y: number) => number;

/** Heights over −1 to 1, y up. */
function picture(height: Height, size = SIZE): Picture {
  const out = newPicture(size);
  for (let j = 0; j < size; j++)
    for (let i = 0; i < size; i++)
      out.data[j * size + i] = height(((i + 0.5) / size) * 2 - 1, 1 - ((j + 0.5) / size) * 2);
  return out;
}

/** Pegs that stand on the ground: a fifth of it, all to one side. */
const pegs: Height = (x, y) => {
  const u = ((((x + 1) * 4) % 1) + 1) % 1;
  const v = ((((y + 1) * 4) % 1) + 1) % 1;
  const r = Math.hypot(u - 0.5, v - 0.5) / 0.26;
  return r < 1 ? 0.05 * (1 - r * r) ** 2 : 0;
};
const SHEETS: Record<Exclude<DetrendKind, 'none'>, Height> = {
  plane: (x, y) => 0.3 + 0.4 * x - 0.2 * y,
  quadratic: (x, y) => 0.1 - 0.25 * x * x + 0.12 * x * y - 0.3 * y * y + 0.2 * x,
  cubic: (x, y) => -0.2 * x * x + 0.15 * x ** 3 - 0.1 * x * y * y + 0.05 * y ** 3,
  gaussian: (x, y) => -0.2 * x * x - 0.1 * y * y + 0.015 * Math.sin(2.2 * x + 0.7) * Math.cos(1.8 * y),
};

/** Largest difference from the relief, apart from a height that is the same everywhere, as a share of the relief. */
function wrong(found: Picture, relief: Picture): number {
  const off = Float64Array.from(found.data, (h, i) => h - relief.data[i]);
  const level = off.slice().sort()[off.length >> 1];
  let most = 0;
  for (const d of off) most = Math.max(most, Math.abs(d - level));
  return most / 0.05;
}

test.each(['plane', 'quadratic', 'cubic'] as const)('%s: the relief on a curved sheet is left within 1 %%', (kind) => {
  const heights = picture((x, y) => SHEETS[kind](x, y) + pegs(x, y));
  const { heights: left, shape } = detrend(heights, DetrendSchema.parse({ kind }));
  expect(wrong(left, picture(pegs))).toBeLessThan(0.01);
  const sheet = picture(SHEETS[kind], shape.width);
  for (let i = 0; i < sheet.data.length; i += 97) expect(shape.data[i]).toBeCloseTo(sheet.data[i], 3);
});

test('Gaussian: fine relief on a sheet that waves widely is left within 1 % of it on the whole', () => {
  const fine: Height = (x, y) => pegs(x * 2.5, y * 2.5);
  const heights = picture((x, y) => SHEETS.gaussian(x, y) + fine(x, y));
  const { heights: left } = detrend(heights, DetrendSchema.parse({ kind: 'gaussian', width: 16 }));
  const relief = picture(fine);
  const off = Float64Array.from(left.data, (h, i) => h - relief.data[i]);
  const level = off.slice().sort()[off.length >> 1];
  const deviation = Math.sqrt(off.reduce((sum, d) => sum + (d - level) ** 2, 0) / off.length);
  expect(deviation / 0.05).toBeLessThan(0.01);
});

test('the strength says how much of the shape goes; “none” leaves every bit of it', () => {
  const heights = picture((x, y) => SHEETS.quadratic(x, y));
  const none = detrend(heights, DetrendSchema.parse({ kind: 'none' }));
  expect(none.heights).toBe(heights);
  const half = detrend(heights, DetrendSchema.parse({ kind: 'quadratic', strength: 50 }));
  for (let i = 0; i < heights.data.length; i += 313) expect(half.heights.data[i]).toBeCloseTo(heights.data[i] / 2, 4);
});

test('what is empty doesn’t count and stays empty; an empty frame is told', () => {
  const heights = picture((x, y) => SHEETS.quadratic(x, y) + pegs(x, y));
  const holed = { ...heights, data: heights.data.slice() };
  for (let j = 90; j < 140; j++) for (let i = 20; i < 90; i++) holed.data[j * SIZE + i] = NaN;
  const whole = detrend(heights, DetrendSchema.parse({}));
  const left = detrend(holed, DetrendSchema.parse({}));
  for (let i = 0; i < holed.data.length; i += 41) {
    if (Number.isNaN(holed.data[i])) expect(left.heights.data[i]).toBeNaN();
    else expect(left.heights.data[i]).toBeCloseTo(whole.heights.data[i], 3);
  }
  expect(() => detrend(newPicture(16, 16, NaN), DetrendSchema.parse({}))).toThrow(/doesn’t reach/);
});

test('holes are filled smoothly: a slope goes on over them, and what is there stays to the bit', () => {
  const slope = picture((x, y) => 0.3 * x + 0.2 * y, 128);
  const holed = { ...slope, data: slope.data.slice() };
  for (let j = 40; j < 80; j++) for (let i = 50; i < 95; i++) holed.data[j * 128 + i] = NaN;
  const filled = fillSmoothly(holed);
  let worst = 0;
  for (let i = 0; i < slope.data.length; i++) {
    if (holed.data[i] !== holed.data[i]) worst = Math.max(worst, Math.abs(filled.data[i] - slope.data[i]));
    else if (filled.data[i] !== slope.data[i]) throw new Error(`Pixel ${i} changed.`);
  }
  expect(worst).toBeLessThan(0.012);
  expect(fillSmoothly(slope)).toBe(slope);
  expect(() => fillSmoothly(newPicture(8, 8, NaN))).toThrow(/doesn’t reach/);
});
