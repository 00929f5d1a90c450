/** Pieces that become part of a body with texture coordinates. */
import Module, { type ManifoldToplevel } from 'manifold-3d';
import { ball, boxCoordinates, buildMesh, freeSquares, nearest, type RawMesh } from '#core/mesh';
import { islandPicture } from '#core/paint';
import { block, isClosed } from '#core/part';
import { joinedTo, merged } from './index';

let kit: ManifoldToplevel;
beforeAll(async () => {
  kit = await Module();
  kit.setup();
});

const CELLS = 12;
const COORDINATES = boxCoordinates(CELLS, CELLS, CELLS);
const BODY = { name: 'Ball', mesh: { ...ball(CELLS), carried: { coordinates: COORDINATES, groups: null } } };
const peg = (x: number, y: number) => ({ name: 'Peg', mesh: block([0.2, 0.2, 1], [x, y, 1]) });
const PEGS = [peg(-0.3, 0), peg(0.3, 0), peg(0, 0.4)];

function report(mesh: RawMesh) {
  return islandPicture({ mesh: buildMesh(mesh) }, buildMesh(mesh).carried!.coordinates!, 512).report;
}

test('joined as they are: the body’s coordinates stay, the pieces’ lie beside them, nothing overlaps', () => {
  const whole = joinedTo(BODY, PEGS);
  expect([...whole.carried!.coordinates!.subarray(0, COORDINATES.length)]).toEqual([...COORDINATES]);
  expect(whole.triangles.length).toBe(BODY.mesh.triangles.length + 3 * PEGS[0]!.mesh.triangles.length);
  expect(report(whole).overlapping).toBe(0);
  expect(report(whole).islands).toBe(6 + 3 * 6);
});

test('open ones are joined too, and take their name as a group where the body has groups', () => {
  const open = { name: 'Flap', mesh: { ...PEGS[0]!.mesh, triangles: PEGS[0]!.mesh.triangles.slice(3) } };
  const grouped = {
    ...BODY,
    mesh: {
      ...BODY.mesh,
      carried: { coordinates: null, groups: { names: ['Shell'], of: new Uint16Array(BODY.mesh.triangles.length / 3) } },
    },
  };
  const { groups, coordinates } = joinedTo(grouped, [open, PEGS[1]!]).carried!;
  expect(coordinates).toBeNull();
  expect(groups!.names).toEqual(['Shell', 'Flap', 'Peg']);
  expect([groups!.of[0], groups!.of.at(-13), groups!.of.at(-1)]).toEqual([0, 1, 2]);
});

test('merged: closed, and each place of the body has the coordinates that it had', () => {
  const whole = merged(kit, BODY, PEGS);
  expect(isClosed(whole)).toBe(true);
  expect(report(whole).overlapping).toBeLessThan(1e-3);
  const before = buildMesh(BODY.mesh);
  const had = before.carried!.coordinates!;
  const has = whole.carried!.coordinates!;
  let onBody = 0;
  for (let t = 0; t < whole.triangles.length / 3; t++) {
    // Of the body are those in the lower part of the square.
    if (Math.max(has[t * 6 + 1]!, has[t * 6 + 3]!, has[t * 6 + 5]!) > 2 / 3) continue;
    onBody++;
    // The middle of a face, so that no seam is met.
    const mean = (of: (corner: number) => number): number => (of(0) + of(1) + of(2)) / 3;
    const at = [0, 1, 2].map((k) => mean((c) => whole.positions[whole.triangles[t * 3 + c]! * 3 + k]!));
    const found = nearest(before, at[0]!, at[1]!, at[2]!)!;
    expect(found.distance).toBeLessThan(1e-5);
    const own = [0, 1, 2].map((c) => {
      const v = before.triangles[found.triangle * 3 + c]! * 3;
      return before.positions.subarray(v, v + 3);
    });
    const shares = barycentric([found.x, found.y, found.z], own);
    for (let k = 0; k < 2; k++) {
      const expected = shares.reduce((sum, share, c) => sum + share * had[found.triangle * 6 + c * 2 + k]!, 0);
      expect(mean((c) => has[t * 6 + c * 2 + k]!)).toBeCloseTo(expected, 3);
    }
  }
  expect(onBody).toBeGreaterThan(500);
});

test('a body that fills its texture says so, and a body without coordinates gives none', () => {
  const full = Float32Array.from([0, 0, 1, 0, 1, 1, 0, 0, 1, 1, 0, 1]);
  const sheet: RawMesh = {
    positions: Float32Array.from([0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0]),
    triangles: Uint32Array.from([0, 1, 2, 0, 2, 3]),
    carried: { coordinates: full, groups: null },
  };
  expect(() => joinedTo({ name: 'Sheet', mesh: sheet }, PEGS)).toThrow('no room left for 3 pieces');
  expect(joinedTo({ name: 'Ball', mesh: ball(4) }, PEGS).carried).toBeUndefined();
});

test.each([1, 7, 60])(
  '%p free squares lie beside what is there, apart from each other, and as their sizes are',
  (n) => {
    const sizes = Array.from({ length: n }, (_, i) => 1 + (i % 3));
    const squares = freeSquares(COORDINATES, sizes)!;
    expect(squares).toHaveLength(n);
    squares.forEach((a, i) => {
      expect(a.v >= 2 / 3 - 0.02 && a.v + a.side <= 1 && a.u >= 0 && a.u + a.side <= 1).toBe(true);
      for (const b of squares.slice(i + 1))
        expect(a.u + a.side <= b.u || b.u + b.side <= a.u || a.v + a.side <= b.v || b.v + b.side <= a.v).toBe(true);
    });
    if (n > 3) expect(squares[2]!.side / squares[0]!.side).toBeCloseTo(3, 0);
  },
);

function barycentric(at: readonly number[], [a, b, c]: Float32Array[]): number[] {
  const minus = (p: ArrayLike<number>, q: ArrayLike<number>) => [p[0]! - q[0]!, p[1]! - q[1]!, p[2]! - q[2]!];
  const dot = (p: number[], q: number[]): number => p[0]! * q[0]! + p[1]! * q[1]! + p[2]! * q[2]!;
  const [e, f, g] = [minus(b!, a!), minus(c!, a!), minus(at, a!)];
  const [ee, ef, ff, ge, gf] = [dot(e, e), dot(e, f), dot(f, f), dot(g, e), dot(g, f)];
  const whole = ee * ff - ef * ef;
  const [v, w] = [(ff * ge - ef * gf) / whole, (ee * gf - ef * ge) / whole];
  return [1 - v - w, v, w];
}
