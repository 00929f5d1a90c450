import { ball, body, buildMesh, plane, together, type RawMesh } from '#core/mesh';
import { seeded } from '#core/random';
import { unit, type Vec3 } from '#core/vector';
import { componentAt, isClosed, lassoed, raisedPart, tidyRim, volumeOf, withBack, type Lasso } from './index';
import { block } from './solids';

const circle = (x: number, y: number, r: number): [number, number][] =>
  Array.from({ length: 48 }, (_, i) => [x + r * Math.cos((i / 24) * Math.PI), y + r * Math.sin((i / 24) * Math.PI)]);

/** Seen from +z along it, 2 units from side to side. */
const straight = (outline: [number, number][]): Lasso => ({
  outline,
  matrix: [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1],
  eye: [0, 0, 1],
  parallel: true,
});

test('a lasso on a ball holds the side that is seen, and its back closes it', () => {
  const mesh = buildMesh(ball(40));
  const sheet = lassoed(mesh, straight(circle(0, 0, 0.5)));
  for (let v = 2; v < sheet.positions.length; v += 3) expect(sheet.positions[v]).toBeGreaterThan(0.8);
  const solid = withBack(sheet, { down: [0, 0, -1], level: null, under: 0.1 });
  expect(isClosed(solid)).toBe(true);
  // The cap of a ball over its rim at √¾, and a cylinder of a tenth under it.
  const h = 1 - Math.sqrt(0.75);
  const cap = (Math.PI * h * h * (3 - h)) / 3;
  const walls = Math.PI * 0.25 * 0.1;
  expect(volumeOf(solid) / (cap + walls)).toBeGreaterThan(0.88);
  expect(volumeOf(solid) / (cap + walls)).toBeLessThan(1.02);
});

test('through an eye with perspective, faces behind others are left', () => {
  const mesh = buildMesh(together([ball(24), block([0.4, 0.4, 0.4], [0, 0, 1.4])]));
  // An eye at (0, 0, 6) that looks back along z, with a field of 35°: x and y over depth.
  const f = 1 / Math.tan((35 / 360) * Math.PI);
  const matrix = [f, 0, 0, 0, 0, f, 0, 0, 0, 0, -1, -1, 0, 0, 6, 6];
  const sheet = lassoed(mesh, { outline: circle(0, 0, 0.7), matrix, eye: [0, 0, 6], parallel: false });
  // The ball’s cap round the block’s shadow is one sheet, larger than the block’s front.
  expect(sheet.triangles.length / 3).toBeGreaterThan(40);
  const solid = withBack(sheet, { down: [0, 0, -1], level: null, under: 0.05 });
  expect(isClosed(solid)).toBe(true);
});

test('a lasso beside the mesh says so', () => {
  expect(() => lassoed(buildMesh(ball(12)), straight(circle(3, 3, 0.5)))).toThrow('holds no whole faces');
});

test.each([1, 2, 3, 4, 5])('any region of a stone has a closed back with its inside inside (seed %d)', (seed) => {
  const random = seeded(seed);
  const mesh = buildMesh(body('stone', 30));
  const outline = Array.from({ length: 9 }, (_, i): [number, number] => {
    const r = 0.25 + random() * 0.4;
    return [r * Math.cos((i / 9) * 2 * Math.PI), r * Math.sin((i / 9) * 2 * Math.PI)];
  });
  const sheet = lassoed(mesh, straight(outline));
  const down = unit([(random() - 0.5) * 0.4, (random() - 0.5) * 0.4, -1]);
  const solid = withBack(sheet, { down, level: null, under: 0.02 });
  expect(isClosed(solid)).toBe(true);
  expect(volumeOf(solid)).toBeGreaterThan(0);
});

test('small holes in a sheet are filled, its outline gets the back', () => {
  const raw = plane(20, 2);
  const middle = [9, 10].flatMap((j) => [9, 10].map((i) => (j * 20 + i) * 2)).flatMap((t) => [t, t + 1]);
  const holed: RawMesh = {
    positions: raw.positions,
    triangles: raw.triangles.filter((_, i) => !middle.includes(Math.floor(i / 3))),
  };
  const solid = withBack(holed, { down: [0, 0, -1], level: null, under: 0.5 });
  expect(isClosed(solid)).toBe(true);
  expect(volumeOf(solid)).toBeCloseTo(2, 5);
});

test('a closed mesh needs no back, and a sheet seen from its edge has none', () => {
  const down: Vec3 = [0, 0, -1];
  expect(volumeOf(withBack(block([1, 1, 1]), { down, level: null, under: 1 }))).toBeCloseTo(1, 6);
  expect(() => withBack(plane(4, 2), { down: [0, 0, 1], level: null, under: 0.1 })).toThrow('outline');
});

test('a sheet that touches itself at a vertex is parted there, so that its back shares no edge', () => {
  const raw = plane(4, 2);
  // Two cells that meet at one corner alone, and a ring of others left out.
  const cell = (j: number, i: number): number[] => [(j * 4 + i) * 2, (j * 4 + i) * 2 + 1];
  const kept = [...cell(1, 1), ...cell(2, 2)];
  const sheet = {
    positions: raw.positions,
    triangles: raw.triangles.filter((_, i) => kept.includes(Math.floor(i / 3))),
  };
  const solid = withBack(tidyRim(sheet), { down: [0, 0, -1], level: null, under: 0.5 });
  expect(isClosed(solid)).toBe(true);
  expect(volumeOf(solid)).toBeCloseTo(2 * 0.25 * 0.5, 5);
});

test('one component of several', () => {
  const two = together([ball(8), block([1, 1, 1], [4, 0, 0])]);
  const only = componentAt(two, two.triangles.length / 3 - 1);
  expect(volumeOf(only)).toBeCloseTo(1, 6);
});

test('what stands out of a slab becomes a part with a flat back, and only within the frame', () => {
  const raw = plane(60, 2);
  for (let v = 0; v < raw.positions.length; v += 3) {
    const [x, y] = [raw.positions[v]!, raw.positions[v + 1]!];
    raw.positions[v + 2] = Math.max(0, 0.25 - (x - 0.3) ** 2 - y * y) + (x < -0.6 ? 0.4 : 0);
  }
  const part = raisedPart(raw, { x: 0.3, y: 0, turn: 30, side: 1 });
  expect(isClosed(part)).toBe(true);
  // Half a paraboloid of height ¼ and radius ½.
  expect(volumeOf(part) / ((Math.PI * 0.25 * 0.25) / 2)).toBeGreaterThan(0.9);
  expect(volumeOf(part) / ((Math.PI * 0.25 * 0.25) / 2)).toBeLessThan(1.02);
  expect(() => raisedPart(plane(8, 2), { x: 0, y: 0, turn: 0, side: 1 })).toThrow('Nothing in the frame');
});
