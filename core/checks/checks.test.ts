import { newPicture } from '#core/picture';
import { bestFit, checkMargin, checkRingLoss, measureMargin, ringLoss } from './index';

function square(size: number, from: number, to: number, ground = 0) {
  const p = newPicture(size, size, ground);
  for (let j = from; j < to; j++) for (let i = from; i < to; i++) p.data[j * size + i] = 1;
  return p;
}

test('the margin is the distance of the form from the nearest side', () => {
  expect(measureMargin(square(100, 12, 90)).marginPx).toBe(10);
  expect(measureMargin(square(100, 12, 90)).box).toEqual({ left: 12, top: 12, right: 89, bottom: 89 });
  expect(measureMargin(square(100, 12, 90, 0.5)).marginPx).toBe(10);
  expect(measureMargin(newPicture(64)).box).toBeNull();
});

test('a form at the side is named as cut, one with room passes', () => {
  expect(checkMargin(square(100, 0, 100, 0)).ok).toBe(true);
  const cut = newPicture(100);
  for (let j = 40; j < 60; j++) for (let i = 50; i < 100; i++) cut.data[j * 100 + i] = 1;
  expect(checkMargin(cut)).toMatchObject({
    ok: false,
    value: 0,
    sentence: expect.stringContaining('touches the side'),
  });
  expect(checkMargin(square(100, 20, 80))).toMatchObject({ ok: true, value: 20, limit: 2 });
});

test('a full square loses 1 − π/4 of itself outside the ring', () => {
  expect(ringLoss(square(400, 0, 400), 1, 0)).toBeCloseTo(1 - Math.PI / 4, 3);
  expect(ringLoss(square(400, 0, 400), Math.SQRT2, 0)).toBe(0);
  expect(checkRingLoss(square(100, 0, 100), 1, 0).ok).toBe(false);
});

test('the best fit puts the corners of the form on the ring', () => {
  expect(bestFit(square(400, 0, 400), 0)).toBeCloseTo(1.41, 1);
  const half = bestFit(square(400, 100, 300), 0);
  expect(half).toBeCloseTo(Math.SQRT1_2, 1);
  expect(ringLoss(square(400, 100, 300), half, 0)).toBeLessThan(0.001);
});
