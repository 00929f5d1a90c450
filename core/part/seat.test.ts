import { body } from '#core/mesh';
import { seeded } from '#core/random';
import { cross, dot, length, minus, unit, type Vec3 } from '#core/vector';
import { block } from './solids';
import { ontoSeat, seatAlong, seatFromView, seatOnFace, seatOnFlattest, snappedSeat, turnedSeat } from './index';

const AXES: Vec3[] = [
  [1, 0, 0],
  [-1, 0, 0],
  [0, 1, 0],
  [0, -1, 0],
  [0, 0, 1],
  [0, 0, -1],
];
const near = (got: Vec3, wanted: Vec3): void => got.forEach((v, k) => expect(v).toBeCloseTo(wanted[k]!, 5));

test.each(AXES)('seen from (%d, %d, %d) that is up, and it rests on the middle of the other side', (...eye) => {
  const mesh = block([2, 3, 5], [1, 2, 3]);
  const screenUp: Vec3 = Math.abs(eye[1]) < 0.5 ? [0, 1, 0] : [0, 0, 1];
  const seat = seatFromView(mesh, eye as Vec3, screenUp);
  near(seat.up, eye as Vec3);
  near(seat.forward, screenUp);
  const half = [2, 3, 5].map((side, k) => (side / 2) * Math.abs(eye[k]!));
  near(seat.rest, [1, 2, 3].map((at, k) => at - eye[k]! * half[k]!) as unknown as Vec3);
});

test('stood on its seat everything lies on or over the ground, whatever way is up', () => {
  const random = seeded(4);
  const mesh = body('stone', 12);
  const direction = (): Vec3 => unit([random() - 0.5, random() - 0.5, random() - 0.5]);
  for (let n = 0; n < 40; n++) {
    const seat = seatAlong(mesh, direction(), direction());
    expect(dot(seat.up, seat.forward)).toBeCloseTo(0, 9);
    expect([length(seat.up), length(seat.forward)]).toEqual([expect.closeTo(1, 9), expect.closeTo(1, 9)]);
    let lowest = Infinity;
    for (let v = 0; v < mesh.positions.length; v += 3)
      lowest = Math.min(lowest, ontoSeat(seat, [...mesh.positions.subarray(v, v + 3)] as unknown as Vec3)[2]);
    expect(lowest).toBeCloseTo(0, 5);
  }
});

test('standing it on its seat is a turn and a shift: lengths and handedness stay', () => {
  const seat = seatAlong(block([1, 2, 3]), [1, 2, 2], [0, 0, 1]);
  const [o, x, y, z] = (
    [
      [0, 0, 0],
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
    ] as const
  ).map((at) => ontoSeat(seat, at));
  const [a, b, c] = [minus(x!, o!), minus(y!, o!), minus(z!, o!)];
  expect(dot(cross(a, b), c)).toBeCloseTo(1, 9);
  near(ontoSeat(seat, seat.rest), [0, 0, 0]);
});

test('it rests on a picked face, and on its flattest side', () => {
  const mesh = block([4, 3, 1]);
  // The second side looks up: resting on it, the part stands on its head.
  near(seatOnFace(mesh, 2, [0, 1, 0]).up, [0, 0, -1]);
  // The largest sides are the lower and the upper one.
  expect(Math.abs(seatOnFlattest(mesh, [0, 1, 0]).up[2])).toBeCloseTo(1, 9);
  const wedge = block([2, 2, 2]);
  // Its upper side shrinks: the lower one is the flattest then.
  for (const v of [4, 5, 6, 7]) for (const k of [0, 1]) wedge.positions[v * 3 + k]! *= 0.3;
  near(seatOnFlattest(wedge, [0, 1, 0]).up, [0, 0, 1]);
});

test('snapped, turned by typed angles, and turned back', () => {
  const mesh = block([1, 2, 3]);
  const seat = seatAlong(mesh, [0.1, 0.2, 0.9], [0.1, 1, 0]);
  near(snappedSeat(mesh, seat).up, [0, 0, 1]);
  near(snappedSeat(mesh, seat).forward, [0, 1, 0]);
  const straight = seatAlong(mesh, [0, 0, 1], [0, 1, 0]);
  const quarter = Math.PI / 2;
  near(turnedSeat(mesh, straight, { roll: 0, tip: 0, turn: quarter }).forward, [-1, 0, 0]);
  near(turnedSeat(mesh, straight, { roll: 0, tip: quarter, turn: 0 }).up, [0, -1, 0]);
  near(turnedSeat(mesh, straight, { roll: quarter, tip: 0, turn: 0 }).up, [1, 0, 0]);
  const there = turnedSeat(mesh, seat, { roll: 0, tip: 0, turn: 0.7 });
  near(turnedSeat(mesh, there, { roll: 0, tip: 0, turn: -0.7 }).forward, seat.forward);
});

test('a wish that lies along up, and a part without height, have a seat all the same', () => {
  const flat = block([2, 2, 0]);
  const seat = seatAlong(flat, [0, 0, 1], [0, 0, 1]);
  expect(dot(seat.forward, seat.up)).toBeCloseTo(0, 9);
  near(seat.rest, [0, 0, 0]);
  expect(() => seatAlong(flat, [0, 0, 0], [0, 1, 0])).toThrow('without length');
});
