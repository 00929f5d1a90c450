import { buildMesh, faceNormal, pick } from '#core/mesh';
import { block, seatAlong, seatFields, standOnGround, stood } from '#core/part';
import { PartSeatSchema } from '#core/settings';
import { placeOnPart, restUnder } from './picking';

test('a press on the part as it stands is a place of the part itself; on the ground it is none', () => {
  const part = block([1, 2, 3], [7, 8, 9]);
  const seat = seatAlong(part, [0, 0, 1], [0, 1, 0]);
  const standing = buildMesh(standOnGround(part, PartSeatSchema.parse(seatFields(seat)), { bend: 0 }), {
    ringless: true,
  });
  // Straight down on its top, a quarter of its width off its middle.
  const [wide] = [stood(part, seat).positions.reduce((most, x, i) => (i % 3 ? most : Math.max(most, x)), 0)];
  expect(wide).toBeCloseTo(0.5, 5);
  const top = pick(standing, { origin: [0, 9, 0], direction: [0, -1, 0] })!;
  expect(faceNormal(standing, top.triangle)[1]).toBeGreaterThan(0);
  const [x, y, z] = placeOnPart(part, standing, top)!;
  expect([x, y]).toEqual([expect.closeTo(7, 3), expect.closeTo(8, 3)]);
  expect(z).toBeCloseTo(10.5, 3);
  const beside = pick(standing, { origin: [1.2, 9, 0.9], direction: [0, -1, 0] });
  if (beside) expect(placeOnPart(part, standing, beside)).toBeNull();
});

test('the rest point goes under the place that was picked, and keeps its height', () => {
  const part = block([1, 2, 3], [7, 8, 9]);
  const seat = seatAlong(part, [0, 0, 1], [0, 1, 0]);
  expect(seat.rest[2]).toBeCloseTo(7.5, 5);
  expect(restUnder(seat, [7.4, 8.9, 10.1])).toEqual([7.4, 8.9, expect.closeTo(7.5, 5)]);
});
