import Module, { type ManifoldToplevel } from 'manifold-3d';
import { ball, type RawMesh } from '#core/mesh';
import { block, isClosed, volumeOf } from '#core/part';
import { seeded } from '#core/random';
import { merged, unmergeable } from './index';

let kit: ManifoldToplevel;
beforeAll(async () => {
  kit = await Module();
  kit.setup();
});

const CUBE = { name: 'Cube', mesh: block([2, 2, 2], [0, 0, 0]) };
const movedBy = (mesh: RawMesh, by: readonly [number, number, number]): RawMesh => ({
  positions: mesh.positions.map((x, i) => x + by[i % 3]!),
  triangles: mesh.triangles,
});
const peg = (x: number, y: number) => ({ name: 'Peg', mesh: block([0.2, 0.2, 1], [x, y, 1]) });

test('known solids: the union is closed and its volume is right', () => {
  const one = merged(kit, CUBE, [peg(0, 0)]);
  expect(isClosed(one)).toBe(true);
  // Half of the peg is under the top.
  expect(volumeOf(one)).toBeCloseTo(8 + 0.2 * 0.2 * 0.5, 6);
  const pegs = Array.from({ length: 60 }, (_, i) => peg(-0.8 + (i % 10) * 0.17, -0.8 + Math.floor(i / 10) * 0.3));
  const many = merged(kit, CUBE, pegs);
  expect(isClosed(many)).toBe(true);
  // Their neighbours in a row cross by 0.03.
  expect(volumeOf(many)).toBeCloseTo(8 + (60 * 0.2 - 54 * 0.03) * 0.2 * 0.5, 5);
});

test('apart, inside, and one on the other face to face', () => {
  const apart = merged(kit, CUBE, [{ name: 'Far', mesh: movedBy(CUBE.mesh, [5, 0, 0]) }]);
  expect([isClosed(apart), volumeOf(apart)]).toEqual([true, expect.closeTo(16, 5)]);
  const inside = merged(kit, CUBE, [{ name: 'In', mesh: block([1, 1, 1], [0, 0, 0]) }]);
  expect(volumeOf(inside)).toBeCloseTo(8, 6);
  const touching = merged(kit, CUBE, [{ name: 'On', mesh: movedBy(CUBE.mesh, [0, 0, 2]) }]);
  expect([isClosed(touching), volumeOf(touching)]).toEqual([true, expect.closeTo(16, 5)]);
});

test('one that is inside out counts as what it bounds', () => {
  const { positions, triangles } = peg(0, 0).mesh;
  const turned = triangles.slice();
  for (let t = 0; t < turned.length; t += 3) [turned[t + 1], turned[t + 2]] = [turned[t + 2]!, turned[t + 1]!];
  const one = merged(kit, CUBE, [{ name: 'Turned', mesh: { positions, triangles: turned } }]);
  expect(volumeOf(one)).toBeCloseTo(8.02, 6);
});

test.each([1, 2, 3, 4])(
  'balls at random places (seed %d): closed, no less than the largest, no more than all',
  (seed) => {
    const random = seeded(seed);
    const balls = Array.from({ length: 12 }, () => {
      const size = 0.1 + random() * 0.4;
      const at = [random() * 2 - 1, random() * 2 - 1, random() * 2 - 1] as const;
      const { positions, triangles } = ball(6);
      return { name: 'Ball', mesh: { positions: positions.map((x, i) => x * size + at[i % 3]!), triangles } };
    });
    const shares: number[] = [];
    const one = merged(kit, CUBE, balls, (share) => shares.push(share));
    expect(isClosed(one)).toBe(true);
    const sum = balls.reduce((all, { mesh }) => all + volumeOf(mesh), 8);
    expect(volumeOf(one)).toBeGreaterThanOrEqual(8 - 1e-5);
    expect(volumeOf(one)).toBeLessThanOrEqual(sum + 1e-5);
    expect(shares.every((share, i) => share > 0 && share <= 1 && share >= (shares[i - 1] ?? 0))).toBe(true);
  },
);

test('an open body or piece is said to be one, and how to go on', () => {
  const open = { positions: CUBE.mesh.positions, triangles: CUBE.mesh.triangles.slice(3) };
  expect(unmergeable(CUBE, 'body')).toBeNull();
  expect(() => merged(kit, { name: 'Tile', mesh: open }, [peg(0, 0)])).toThrow('“Tile” is open at 3 edges');
  expect(() => merged(kit, CUBE, [peg(0, 0), { name: 'Shell', mesh: open }])).toThrow('Close it on the part bench');
  const twice = {
    positions: CUBE.mesh.positions,
    triangles: Uint32Array.from([...CUBE.mesh.triangles, ...CUBE.mesh.triangles]),
  };
  expect(unmergeable({ name: 'Twice', mesh: twice }, 'piece')).toContain('more than two faces meet');
});
