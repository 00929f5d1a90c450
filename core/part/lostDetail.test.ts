import { buildMesh, pick, plane, type Mesh, type RawMesh } from '#core/mesh';
import { seeded } from '#core/random';
import { lostDetail, lostGreys, lostNormals, reduced, seatAlong } from './index';
import { block } from './solids';

/** A slab with waves on its top, straight walls and a flat back: what is brought down loses the waves. */
function waves(cells: number, height: number, length: number): RawMesh {
  const { positions, triangles } = plane(cells, 2);
  return {
    positions: positions.map((x, i) =>
      i % 3 === 2 ? Math.sin((positions[i - 2]! / length) * 2 * Math.PI) * height : x,
    ),
    triangles,
  };
}
const SEAT = seatAlong(plane(4, 2), [0, 0, 1], [0, 1, 0]);

test('waves over a plain plate come out with their height, on a ground that stands for no loss', () => {
  const lost = lostDetail(waves(200, 0.02, 0.5), plane(4, 2), { seat: SEAT, size: 256 });
  expect(lost.high).toBeCloseTo(0.02, 3);
  expect(lost.low).toBeCloseTo(-0.02, 3);
  expect(lost.side).toBeCloseTo(2.12, 5);
  const { greys, relief, ground } = lostGreys(lost);
  expect(relief).toBeCloseTo(0.04 / 2.12, 3);
  expect(ground).toBeCloseTo(0.5, 2);
  // Beside the plate lies the ground.
  expect(greys[0]).toBe(Math.fround(ground));
  // Four waves: in the middle row the greys cross the ground eight times.
  const row = [...greys.subarray(128 * 256 + 8, 128 * 256 + 248)];
  expect(row.filter((g, i) => i > 0 && g > ground !== row[i - 1]! > ground).length).toBeGreaterThanOrEqual(7);
});

test('its normals lean as the waves do, and stand straight where nothing is lost', () => {
  const words = lostNormals(lostDetail(waves(200, 0.02, 0.5), plane(4, 2), { seat: SEAT, size: 256 }));
  const at = (x: number, y: number): number[] => [0, 1, 2].map((k) => words[(y * 256 + x) * 3 + k]! / 32767.5 - 1);
  expect(at(1, 1).map((n) => Math.round(n))).toEqual([0, 0, 1]);
  const leans = Array.from({ length: 240 }, (_, i) => at(8 + i, 128));
  const steepest = Math.atan((0.02 * 2 * Math.PI) / 0.5);
  expect(Math.max(...leans.map(([x]) => x!))).toBeCloseTo(Math.sin(steepest), 2);
  expect(Math.min(...leans.map(([x]) => x!))).toBeCloseTo(-Math.sin(steepest), 2);
  for (const [x, y, z] of leans) {
    expect(Math.abs(y!)).toBeLessThan(0.02);
    expect(Math.hypot(x!, y!, z!)).toBeCloseTo(1, 3);
  }
});

test('a part that is brought down and its detail on it are nearer to what was captured than it is alone', async () => {
  const whole = waves(120, 0.03, 1);
  const few = await reduced(whole, { way: 'shape', faces: 60 });
  const size = 256;
  const { heights, side } = lostDetail(whole, few, { seat: SEAT, size });
  const [was, is] = [whole, few].map((of) => buildMesh(of, { ringless: true })) as [Mesh, Mesh];
  const random = seeded(2);
  let [without, with_] = [0, 0];
  for (let n = 0; n < 400; n++) {
    const [x, y] = [random() * 1.8 - 0.9, random() * 1.8 - 0.9];
    const down = { origin: [x, y, 5], direction: [0, 0, -1] } as const;
    const lost = pick(was, down)!.z - pick(is, down)!.z;
    const pixel = [x / side + 0.5, 0.5 - y / side].map((share) => Math.floor(share * size));
    without += Math.abs(lost);
    with_ += Math.abs(lost - heights.data[pixel[1]! * size + pixel[0]!]!);
  }
  expect(with_).toBeLessThan(without / 5);
});

test('where nothing is lost that is said', () => {
  const cube = block([1, 1, 1], [0, 0, 0]);
  expect(() => lostDetail(cube, cube, { seat: SEAT, size: 64 })).toThrow('Nothing was lost');
});
