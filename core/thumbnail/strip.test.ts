import { resolveBrush } from '#core/brush';
import { newBrush, STROKE_TYPES, type Brush } from '#core/settings';
import { brushStrip, stripClay } from './strip';

const WIDTH = 400;
const clay = stripClay(WIDTH);

function made(change: (b: Brush) => void = () => undefined): ReturnType<typeof brushStrip> {
  const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Strip');
  change(brush);
  return brushStrip(clay, resolveBrush(brush, null), WIDTH);
}

/** How uneven a part of the strip looks, from column to column. */
function relief(strip: ReturnType<typeof brushStrip>, from: number, to: number): number {
  let sum = 0;
  for (let j = 0; j < strip.height; j++)
    for (let i = Math.round(from * WIDTH); i < Math.round(to * WIDTH) - 1; i++)
      sum += Math.abs(strip.data[(j * WIDTH + i) * 4] - strip.data[(j * WIDTH + i + 1) * 4]);
  return sum;
}

test('the clay is as it was for the next strip: the same brush gives the same picture', () => {
  const first = made();
  made((b) => (b.touch.action = 'crease'));
  expect(made().data.every((c, i) => c === first.data[i])).toBe(true);
});

test.each(STROKE_TYPES)('%s leaves something on it', (type) => {
  expect(
    relief(
      made((b) => (b.stroke.type = type)),
      0,
      1,
    ),
  ).toBeGreaterThan(5000);
});

test('pressure that goes to strength leaves the ends flatter than the middle', () => {
  const even = made((b) => (b.stroke.spacing = 60));
  const pressed = made((b) => {
    b.stroke.spacing = 60;
    b.pen.pressureStrength.low = 0;
  });
  expect(relief(pressed, 0, 0.2) / relief(pressed, 0.4, 0.6)).toBeLessThan(
    (relief(even, 0, 0.2) / relief(even, 0.4, 0.6)) * 0.7,
  );
});

test('the hand gets faster along the strip, to what the brush calls fast, whatever that is', () => {
  const even = made((b) => (b.stroke.spacing = 60));
  for (const fast of [0.2, 12]) {
    const slowed = made((b) => {
      b.stroke.spacing = 60;
      b.pen.fast = fast;
      b.pen.speedStrength.high = 0;
    });
    const kept = (from: number, to: number): number => relief(slowed, from, to) / relief(even, from, to);
    expect(kept(0.08, 0.2)).toBeGreaterThan(0.75);
    expect(kept(0.85, 0.97)).toBeLessThan(0.35);
  }
});

test('Smooth works on rippled clay, a mask darkens', () => {
  expect(
    relief(
      made((b) => (b.touch.action = 'smooth')),
      0.3,
      0.7,
    ),
  ).toBeGreaterThan(0);
  const light = (strip: ReturnType<typeof brushStrip>): number => strip.data.reduce((a, b) => a + b, 0);
  expect(light(made((b) => (b.touch.action = 'mask')))).toBeLessThan(light(made((b) => (b.touch.strength = 0))) * 0.95);
});
