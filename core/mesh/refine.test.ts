import { seeded } from '#core/random';
import { body, buildMesh, plane, refine, type Companions, type RawMesh } from './index';
import { edgesOf } from './edges';

const along = (places: Float32Array, ...values: Float32Array[]): Companions => ({ places: [places], values });
const everywhere = (): boolean => true;
const near =
  (c: readonly [number, number, number], reach: number) =>
  (x: number, y: number, z: number): boolean =>
    Math.hypot(x - c[0], y - c[1], z - c[2]) < reach;

function lengths({ positions: p, triangles }: RawMesh, where: (x: number, y: number, z: number) => boolean): number[] {
  const { ends, count } = edgesOf(triangles, p.length / 3);
  const out: number[] = [];
  for (let e = 0; e < count; e++) {
    const [a, b] = [ends[e * 2] * 3, ends[e * 2 + 1] * 3];
    if (where(p[a], p[a + 1], p[a + 2]) && where(p[b], p[b + 1], p[b + 2]))
      out.push(Math.hypot(p[a] - p[b], p[a + 1] - p[b + 1], p[a + 2] - p[b + 2]));
  }
  return out;
}

/** Holes, edges of too many faces, Euler's number, and faces that look inwards or have no area. */
function faults(
  { positions: p, triangles: t }: RawMesh,
  outwards: (x: number, y: number, z: number) => readonly number[],
): { open: number; euler: number; turned: number; used: number } {
  const vertices = p.length / 3;
  const edges = edgesOf(t, vertices);
  let turned = 0;
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [t[i] * 3, t[i + 1] * 3, t[i + 2] * 3];
    const u = [0, 1, 2].map((k) => p[b + k] - p[a + k]);
    const v = [0, 1, 2].map((k) => p[c + k] - p[a + k]);
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    const out = outwards(p[a], p[a + 1], p[a + 2]);
    if (n[0] * out[0] + n[1] * out[1] + n[2] * out[2] <= 0) turned++;
  }
  return {
    open: edges.uses.filter((n) => n !== 2).length,
    euler: vertices - edges.count + t.length / 3,
    turned,
    used: new Set(t).size,
  };
}

test('coarse clay takes edges about as long as asked where the dab was, and stays as it was elsewhere', () => {
  const raw = body('ball', 12);
  const where = near([0, 0, 1], 0.4);
  const { mesh } = refine(raw, along(raw.positions), { edge: 0.03, inside: where, most: 1e6 });
  const inside = lengths(mesh, near([0, 0, 1], 0.3));
  expect(Math.max(...inside)).toBeLessThan(0.03 * 1.4);
  expect(inside.reduce((a, b) => a + b, 0) / inside.length).toBeGreaterThan(0.03 * 0.5);
  const far = (m: RawMesh): number => lengths(m, near([0, 0, -1], 0.6)).length;
  expect(far(mesh)).toBe(far(raw));
});

test('beside the dab every face is the one it was, and a vertex that no face names is left', () => {
  const ball = body('ball', 16);
  const raw = { positions: Float32Array.from([...ball.positions, 7, 7, 7]), triangles: ball.triangles };
  const { mesh, along: went } = refine(raw, along(raw.positions), {
    edge: 0.04,
    inside: near([0, 0, 1], 0.3),
    most: 1e6,
  });
  const faces = ({ positions: p, triangles: t }: RawMesh): Set<string> => {
    const out = new Set<string>();
    for (let i = 0; i < t.length; i += 3) {
      const corners = [0, 1, 2].map((k) => Array.from(p.subarray(t[i + k] * 3, t[i + k] * 3 + 3)));
      if (corners.every((c) => c[2] < 0.4)) out.add(corners.map(String).sort().join(' '));
    }
    return out;
  };
  expect(faces(mesh)).toEqual(faces(raw));
  expect(faces(raw).size).toBeGreaterThan(500);
  expect(Array.from(mesh.positions).join().includes('7,7,7')).toBe(true);
  expect(went.places[0]).toEqual(mesh.positions);
});

test('a split that runs from longest edge to longest edge is followed as far as it goes, and no hole opens', () => {
  // A strip that winds outwards: the longest edge of each triangle is the next, larger one's short side.
  const count = 24;
  const [turn, growth] = [(130 * Math.PI) / 180, 1.3];
  const positions = Float32Array.from({ length: count * 3 }, (_, i) => {
    const n = Math.floor(i / 3);
    return [growth ** n * Math.cos(n * turn), growth ** n * Math.sin(n * turn), n * 0.2][i % 3];
  });
  const triangles = Uint32Array.from(
    Array.from({ length: count - 2 }, (_, n) => (n % 2 === 0 ? [n, n + 1, n + 2] : [n + 1, n, n + 2])).flat(),
  );
  const { mesh, split } = refine({ positions, triangles }, along(positions), {
    edge: 1.5,
    inside: near([1, 0, 0], 0.5),
    most: 1e6,
  });
  expect(split).toBeGreaterThan(count / 2);
  expect(faults(mesh, () => [0, 0, 1])).toMatchObject({ euler: 1, used: mesh.positions.length / 3 });
  const border = ({ triangles: t, positions: p }: RawMesh): number => {
    const { uses, ends, count: edges } = edgesOf(t, p.length / 3);
    let sum = 0;
    for (let e = 0; e < edges; e++)
      if (uses[e] === 1)
        sum += Math.hypot(...[0, 1, 2].map((k) => p[ends[e * 2] * 3 + k] - p[ends[e * 2 + 1] * 3 + k]));
    return sum;
  };
  expect(border(mesh) / border({ positions, triangles })).toBeCloseTo(1, 4);
});

test('clay that is too dense is joined, and keeps its form', () => {
  const raw = body('ball', 48);
  const { mesh, joined } = refine(raw, along(raw.positions), { edge: 0.12, inside: everywhere, most: 1e6 });
  expect(joined).toBeGreaterThan(raw.positions.length / 3 / 2);
  for (let v = 0; v < mesh.positions.length; v += 3)
    expect(Math.hypot(...mesh.positions.subarray(v, v + 3))).toBeCloseTo(1, 5);
  expect(faults(mesh, (x, y, z) => [x, y, z])).toMatchObject({ open: 0, euler: 2, turned: 0 });
});

test('new points of a ball lie on the ball, those of a plane on the plane, a border stays where it is', () => {
  const ball = refine(body('ball', 10), along(body('ball', 10).positions), {
    edge: 0.06,
    inside: everywhere,
    most: 1e6,
  }).mesh;
  for (let v = 0; v < ball.positions.length; v += 3)
    expect(Math.hypot(...ball.positions.subarray(v, v + 3))).toBeGreaterThan(0.985);
  const flat = refine(plane(6, 2), along(plane(6, 2).positions), { edge: 0.1, inside: everywhere, most: 1e6 }).mesh;
  for (let v = 0; v < flat.positions.length; v += 3) expect(flat.positions[v + 2]).toBeCloseTo(0, 9);
  expect(Math.max(...flat.positions)).toBe(1);
  expect(Math.min(...flat.positions)).toBe(-1);
  expect(faults(flat, () => [0, 0, 1])).toMatchObject({ euler: 1, turned: 0 });
});

test('what goes along is split and joined with it', () => {
  const raw = plane(8, 2);
  const lifted = { positions: raw.positions.map((c, i) => (i % 3 === 2 ? c + 5 : c)), triangles: raw.triangles };
  const { mesh, along: went } = refine(lifted, along(raw.positions), {
    edge: 0.08,
    inside: near([0.2, 0.1, 5], 0.5),
    most: 1e6,
  });
  const stood = went.places[0];
  expect(stood).toHaveLength(mesh.positions.length);
  for (let v = 0; v < stood.length; v += 3) {
    expect(mesh.positions[v]).toBeCloseTo(stood[v], 5);
    expect(mesh.positions[v + 2] - stood[v + 2]).toBeCloseTo(5, 5);
  }
});

test('a limit of triangles is kept', () => {
  const raw = body('ball', 8);
  const { mesh } = refine(raw, along(raw.positions), { edge: 0.001, inside: everywhere, most: 20_000 });
  expect(mesh.triangles.length / 3).toBeLessThanOrEqual(20_000);
});

test('1000 random strokes never make a hole, turn a face over or lose a point', () => {
  const random = seeded(5);
  let mesh = body('ball', 6);
  for (let n = 0; n < 1000; n++) {
    const d = [random() - 0.5, random() - 0.5, random() - 0.5];
    const length = Math.hypot(...d) || 1;
    const centre = d.map((c) => c / length) as [number, number, number];
    mesh = refine(mesh, along(mesh.positions), {
      edge: 0.16 + random() * 0.3,
      inside: near(centre, 0.1 + random() * 0.5),
      most: 6000,
    }).mesh;
    // Clay that was moved, as strokes do, in and out of the ball's surface.
    const push = (random() - 0.5) * 0.04;
    for (let v = 0; v < mesh.positions.length; v += 3) {
      const away = Math.hypot(...[0, 1, 2].map((k) => mesh.positions[v + k] - centre[k]));
      const weight = away < 0.4 ? (1 - (away / 0.4) ** 2) ** 2 : 0;
      for (let k = 0; k < 3; k++) mesh.positions[v + k] *= 1 + push * weight;
    }
    const found = faults(mesh, (x, y, z) => [x, y, z]);
    expect([n, found.open, found.euler, found.turned, found.used]).toEqual([n, 0, 2, 0, mesh.positions.length / 3]);
  }
  expect(() => buildMesh(mesh)).not.toThrow();
});
