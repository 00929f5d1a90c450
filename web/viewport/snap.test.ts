import { snapped } from './snap';

const from = { x: 40, y: 30 };
const at = (degrees: number, length: number) => ({
  x: from.x + length * Math.cos((degrees * Math.PI) / 180),
  y: from.y + length * Math.sin((degrees * Math.PI) / 180),
});

test.each([
  [0, 0],
  [7, 0],
  [8, 15],
  [21, 15],
  [23, 30],
  [-52, -45],
  [98, 105],
  [176, 180],
  [-173, -180],
])('a line at %d° is kept at %d°', (drawn, kept) => {
  const to = snapped(from, at(drawn, 120));
  expect(to.x).toBeCloseTo(at(kept, 120).x, 9);
  expect(to.y).toBeCloseTo(at(kept, 120).y, 9);
});

test('the length is the hand’s, and a line without length stays a point', () => {
  const to = snapped(from, at(33, 57.3));
  expect(Math.hypot(to.x - from.x, to.y - from.y)).toBeCloseTo(57.3, 9);
  expect(snapped(from, from)).toEqual(from);
});
