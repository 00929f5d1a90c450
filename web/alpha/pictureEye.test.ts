import { pictureEye } from './pictureEye';

function eye() {
  const e = pictureEye();
  e.resize(600, 400);
  return e;
}

test('a picture is fitted in the middle of its view, and again when the view changes, until a hand moves it', () => {
  const e = eye();
  expect(e.at.side).toBe(400 - 28);
  expect([e.at.x + e.at.side / 2, e.at.y + e.at.side / 2]).toEqual([300, 200]);
  e.resize(300, 500);
  expect(e.at.side).toBe(300 - 28);
  e.pan(10, 0);
  e.resize(900, 900);
  expect(e.at.side).toBe(300 - 28);
  e.fit();
  expect(e.at.side).toBe(900 - 28);
});

test.each([
  [1.5, 120, 80],
  [0.4, 480, 333],
])('zooming by %p keeps the point under the pointer', (factor, x, y) => {
  const e = eye();
  const under = e.toPicture(x, y);
  const side = e.at.side;
  e.zoom(factor, x, y, 10_000);
  expect(e.at.side).toBeCloseTo(side * factor, 9);
  expect(e.toPicture(x, y)[0]).toBeCloseTo(under[0], 9);
  expect(e.toPicture(x, y)[1]).toBeCloseTo(under[1], 9);
});

test('it is never zoomed beyond what is asked, nor to nothing; panning moves it as far as the hand', () => {
  const e = eye();
  e.zoom(1000, 300, 200, 2000);
  expect(e.at.side).toBe(2000);
  e.zoom(1e-6, 300, 200, 2000);
  expect(e.at.side).toBe(40);
  const { x, y } = e.at;
  e.pan(-7, 12);
  expect([e.at.x - x, e.at.y - y]).toEqual([-7, 12]);
});

test('the picture’s corners are 0 and 1', () => {
  const e = eye();
  const { x, y, side } = e.at;
  expect(e.toPicture(x, y)).toEqual([0, 0]);
  expect(e.toPicture(x + side, y + side)).toEqual([1, 1]);
});
