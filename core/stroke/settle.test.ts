import { seeded } from '#core/random';
import { settled, type Guides, type PlanePlace } from './index';

const none: Guides = { centre: false, grid: false, step: 0.1, line: null };
const close = (p: PlanePlace, q: PlanePlace): void => p.forEach((c, k) => expect(c).toBeCloseTo(q[k], 9));

test('without guides a place stays where it is', () => {
  expect(settled([0.3, -0.2], none, 0.1)).toEqual([0.3, -0.2]);
});

test('a centre line takes what is near it along its own axis alone', () => {
  const centre = { ...none, centre: true };
  expect(settled([0.05, 0.4], centre, 0.08)).toEqual([0, 0.4]);
  expect(settled([0.05, -0.02], centre, 0.08)).toEqual([0, 0]);
  expect(settled([0.09, 0.4], centre, 0.08)).toEqual([0.09, 0.4]);
});

test('on a grid it is the nearest crossing, whatever the place, and settling again changes nothing', () => {
  const grid = { ...none, grid: true, step: 0.25 };
  const random = seeded(3);
  for (let n = 0; n < 100; n++) {
    const at = [random() * 4 - 2, random() * 4 - 2] as const;
    const to = settled(at, grid, 0.08);
    for (const k of [0, 1] as const) {
      expect(Math.abs(to[k] / 0.25 - Math.round(to[k] / 0.25))).toBeLessThan(1e-9);
      expect(Math.abs(to[k] - at[k])).toBeLessThanOrEqual(0.125 + 1e-9);
    }
    close(settled(to, grid, 0.08), to);
  }
});

test('near the line through the last stamps it lies on that line; far from it, on the other guides', () => {
  const lined: Guides = {
    ...none,
    line: [
      [0, 0.1],
      [1, 0.6],
    ],
  };
  close(settled([0.4, 0.32], lined, 0.08), [0.408, 0.304]);
  expect(settled([0.4, 0.6], lined, 0.08)).toEqual([0.4, 0.6]);
  // Where the line crosses a centre line, that is where it settles.
  close(settled([0.03, 0.13], { ...lined, centre: true }, 0.08), [0, 0.1]);
});

test('two stamps at one place make no line', () => {
  expect(
    settled(
      [0.4, 0.1],
      {
        ...none,
        line: [
          [0.4, 0.1],
          [0.4, 0.1],
        ],
      },
      0.5,
    ),
  ).toEqual([0.4, 0.1]);
});
