import { body, buildMesh, plane, type RawMesh } from '#core/mesh';
import { surface } from '#core/sculpt';
import { lengthOf, walk, walkEnd, walkTo, type Place, type Sample } from './index';

const down = (x: number, y: number): Sample => ({ origin: [x, y, 4], direction: [0, 0, -1] });
const ground = (raw: RawMesh = plane(32, 2)) => {
  const { mesh, start } = surface(buildMesh(raw));
  return { mesh, start };
};

/** Dabs of a walk through these places, steps as given. */
function walked(
  points: readonly (readonly [number, number])[],
  stepAt: (travelled: number) => number,
  waits = false,
  on = ground(),
): Place[] {
  const places: Place[] = [];
  const state = walk(({ travelled }) => stepAt(travelled), waits);
  for (const [x, y] of points) walkTo(state, on.mesh, on.start, down(x, y), (place) => places.push(place));
  walkEnd(state, (place) => places.push(place));
  return places;
}
const xs = (places: readonly Place[]): number[] => places.map(({ hit }) => hit.x);

test('dabs stand a step apart, the first at the press and the last at the end where it falls there', () => {
  const places = walked(
    [
      [-0.5, 0],
      [0.5, 0],
    ],
    () => 0.25,
  );
  expect(places).toHaveLength(5);
  xs(places).forEach((x, i) => expect(x).toBeCloseTo(-0.5 + i * 0.25, 6));
  expect(places.map((p) => p.travelled)).toEqual([0, 0.25, 0.5, 0.75, 1].map((d) => expect.closeTo(d, 6)));
});

test('how often the hand is asked makes no difference, round a corner neither', () => {
  const corner = [
    [-0.4, -0.4],
    [0.4, -0.4],
    [0.4, 0.4],
  ] as const;
  const often = Array.from(
    { length: 81 },
    (_, i) => (i <= 40 ? [-0.4 + i * 0.02, -0.4] : [0.4, -0.4 + (i - 40) * 0.02]) as [number, number],
  );
  const [few, many] = [walked(corner, () => 0.13), walked(often, () => 0.13)];
  expect(many).toHaveLength(few.length);
  many.forEach(({ hit, travelled }, i) => {
    expect([hit.x, hit.y]).toEqual([expect.closeTo(few[i].hit.x, 5), expect.closeTo(few[i].hit.y, 5)]);
    expect(travelled).toBeCloseTo(few[i].travelled, 5);
  });
});

test('a step that grows with the way is taken from where the last dab lies', () => {
  const places = walked(
    [
      [-0.8, 0],
      [0.8, 0],
    ],
    (travelled) => 0.1 + travelled * 0.5,
  );
  const at = [0, 0.1];
  while (at.at(-1)! <= 1.6) at.push(at.at(-1)! + 0.1 + at.at(-1)! * 0.5);
  expect(places.map((p) => p.travelled)).toEqual(at.slice(0, -1).map((d) => expect.closeTo(d, 5)));
});

test('a stroke that turns with its direction waits for one; a press alone is laid at its end, once', () => {
  const places = walked(
    [
      [0, 0],
      [0.001, 0],
      [0.3, 0],
    ],
    () => 0.1,
    true,
  );
  expect(places[0].direction).toEqual([expect.closeTo(1, 6), expect.closeTo(0, 6), expect.closeTo(0, 6)]);
  expect(xs(places)[0]).toBeCloseTo(0, 2);
  const press = walked([[0.2, 0.1]], () => 0.1, true);
  expect(press.map(({ direction }) => direction)).toEqual([null]);
});

test('a hand that leaves the body begins anew where it comes back, and what was drawn beside it doesn’t count', () => {
  const places = walked(
    [
      [0.7, 0],
      [0.9, 0],
      [1.5, 0],
      [1.5, 0.5],
      [0.9, 0.5],
      [0.7, 0.5],
    ],
    () => 0.1,
  );
  expect(places.map(({ hit }) => [hit.x, hit.y].map((c) => Math.round(c * 100) / 100))).toEqual([
    [0.7, 0],
    [0.8, 0],
    [0.9, 0],
    [0.9, 0.5],
    [0.8, 0.5],
    [0.7, 0.5],
  ]);
  const { mesh, start } = ground();
  expect(
    lengthOf(mesh, start, [down(0.7, 0), down(0.9, 0), down(1.5, 0.2), down(0.9, 0.5), down(0.7, 0.5)]),
  ).toBeCloseTo(0.4, 5);
});

test('a line’s length is the way along the surface', () => {
  const flat = ground();
  expect(lengthOf(flat.mesh, flat.start, [down(-0.3, -0.2), down(0.1, 0.1)])).toBeCloseTo(0.5, 6);
  const ball = ground(body('ball', 48));
  const quarter = Array.from({ length: 65 }, (_, i) => down(Math.sin(((i - 32) / 64) * (Math.PI / 2)), 0));
  expect(lengthOf(ball.mesh, ball.start, quarter)).toBeCloseTo(Math.PI / 2, 2);
});

test('a step longer than the line is asked for once, and nothing but the press is laid', () => {
  for (const long of [5, Infinity]) {
    let asked = 0;
    const places = walked(
      [
        [-0.5, 0],
        [0, 0],
        [0.5, 0.2],
      ],
      () => {
        asked++;
        return long;
      },
    );
    expect([asked, places.length]).toEqual([1, 1]);
  }
});

test('a pen that jumps lays a line, not a long wait', () => {
  expect(
    walked(
      [
        [-0.9, 0],
        [0.9, 0],
      ],
      () => 1e-7,
    ).length,
  ).toBeLessThan(5000);
});
