import { ball as ballOf, buildMesh, merged, plane, type RawMesh } from '#core/mesh';
import { agreed, fillHoles, holesOf, scanReport, thinned, withoutLoose } from './index';

const ball = (): RawMesh => ballOf(24);

function joined(...meshes: RawMesh[]): RawMesh {
  const positions: number[] = [];
  const triangles: number[] = [];
  for (const mesh of meshes) {
    const first = positions.length / 3;
    for (const v of mesh.positions) positions.push(v);
    for (const t of mesh.triangles) triangles.push(t + first);
  }
  return { positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** Every triangle with vertices of its own, as some formats have it. */
function loose(mesh: RawMesh): RawMesh {
  const positions = new Float32Array(mesh.triangles.length * 3);
  mesh.triangles.forEach((v, i) => positions.set(mesh.positions.subarray(v * 3, v * 3 + 3), i * 3));
  return { positions, triangles: Uint32Array.from({ length: mesh.triangles.length }, (_, i) => i) };
}

const tiny = (at: number): RawMesh => ({
  positions: Float32Array.from([at, 3, 0, at + 0.01, 3, 0, at, 3.01, 0]),
  triangles: Uint32Array.of(0, 1, 2),
});

const without = (mesh: RawMesh, gone: (triangle: number) => boolean): RawMesh => ({
  ...mesh,
  triangles: mesh.triangles.filter((_, i) => !gone(Math.floor(i / 3))),
});

test('a sound ball: one component, no holes, nothing to mend', () => {
  expect(scanReport(ball())).toMatchObject({
    components: 1,
    loose: { components: 0, triangles: 0 },
    holes: { count: 0, edges: 0, largest: 0 },
    nonManifold: 0,
    inward: 0,
    twins: 0,
  });
});

test('twins are counted and welded', () => {
  const apart = loose(ball());
  const report = scanReport(apart);
  expect(report.twins).toBe(apart.positions.length / 3 - ball().positions.length / 3);
  expect(report.components).toBe(ball().triangles.length / 3);
  const { mesh } = merged(apart, 1e-6);
  expect(scanReport(mesh)).toMatchObject({ components: 1, twins: 0, holes: { count: 0 } });
});

test('loose bits are counted and dropped; what is left keeps its shape', () => {
  const bits = joined(ball(), tiny(0), tiny(1), tiny(2));
  expect(scanReport(bits)).toMatchObject({ components: 4, loose: { components: 3, triangles: 3 } });
  const mesh = withoutLoose(bits);
  expect(mesh.positions).toEqual(ball().positions);
  expect(scanReport(mesh).components).toBe(1);
});

test('inward faces are counted and turned, one by one and the whole', () => {
  const one = ball();
  const flipped = { ...one, triangles: one.triangles.slice() };
  for (const t of [3, 17, 90, 91]) {
    [flipped.triangles[t * 3], flipped.triangles[t * 3 + 1]] = [flipped.triangles[t * 3 + 1], flipped.triangles[t * 3]];
  }
  expect(scanReport(flipped).inward).toBe(4);
  expect(scanReport(agreed(flipped)).inward).toBe(0);
  const inside = { ...one, triangles: one.triangles.slice().reverse() };
  expect(scanReport(inside).inward).toBe(one.triangles.length / 3);
  const mended = buildMesh(agreed(inside));
  for (let i = 0; i < mended.positions.length; i += 300) {
    const out = [0, 1, 2].reduce((sum, k) => sum + mended.positions[i + k] * mended.normals[i + k], 0);
    expect(out).toBeGreaterThan(0);
  }
});

test('an open sheet keeps the side that most of it shows', () => {
  const sheet = plane(20, 2);
  for (const t of [5, 6, 7])
    [sheet.triangles[t * 3], sheet.triangles[t * 3 + 1]] = [sheet.triangles[t * 3 + 1], sheet.triangles[t * 3]];
  expect(scanReport(sheet).inward).toBe(3);
});

test('holes are found with their rims, and filled up to a size; the fill joins the rim and follows the ball', () => {
  const whole = ball();
  // Two holes: one triangle, and a wider one round the top.
  const high = (t: number): boolean =>
    [0, 1, 2].every((k) => whole.positions[whole.triangles[t * 3 + k] * 3 + 1] > 0.75);
  const low = whole.triangles.length / 3 - 5;
  const holed = without(whole, (t) => t === low || high(t));
  const holes = holesOf(holed);
  expect(holes.map(({ rim }) => rim.length).sort((a, b) => a - b)[0]).toBe(3);
  expect(scanReport(holed).holes.count).toBe(2);
  const small = fillHoles(holed, { longest: holes[1].length * 1.01 });
  expect(small.count).toBe(1);
  const { mesh, count } = fillHoles(holed, { longest: Infinity });
  expect(count).toBe(2);
  expect(scanReport(mesh)).toMatchObject({ holes: { count: 0 }, inward: 0, nonManifold: 0, components: 1 });
  // The fill is the membrane over the rim: inside the ball, and not far from it.
  for (let i = whole.positions.length; i < mesh.positions.length; i += 3) {
    const r = Math.hypot(mesh.positions[i], mesh.positions[i + 1], mesh.positions[i + 2]);
    expect(r).toBeGreaterThan(0.6);
    expect(r).toBeLessThan(1.001);
  }
});

test('an edge that three triangles share is told', () => {
  const fin: RawMesh = {
    positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0, 0, -1, 0, 0, 0, 1),
    triangles: Uint32Array.of(0, 1, 2, 1, 0, 3, 0, 1, 4),
  };
  expect(scanReport(fin).nonManifold).toBe(1);
});

test('thinned out: near the count that was asked for, near the shape, colours along', async () => {
  const whole = ballOf(64);
  const colours = new Uint8Array(whole.positions.length).map((_, i) => (i % 3 === 0 ? 200 : 40));
  const { mesh, error } = await thinned({ ...whole, colours }, 2000);
  const count = mesh.triangles.length / 3;
  expect(count).toBeLessThanOrEqual(2000);
  expect(count).toBeGreaterThan(1500);
  expect(error).toBeLessThan(0.02);
  expect(mesh.colours!.length).toBe(mesh.positions.length);
  for (let i = 0; i < mesh.positions.length; i += 3)
    expect(Math.hypot(mesh.positions[i], mesh.positions[i + 1], mesh.positions[i + 2])).toBeCloseTo(1, 3);
});

test('a hundred thousand loose bits are told and dropped in a moment', () => {
  const bits = 100_000;
  const one = ball();
  const positions = new Float32Array(one.positions.length + bits * 9);
  positions.set(one.positions);
  for (let i = 0; i < bits * 9; i++) positions[one.positions.length + i] = 2 + ((i * 7919) % 10007) / 1000;
  const triangles = new Uint32Array(one.triangles.length + bits * 3);
  triangles.set(one.triangles);
  for (let i = 0; i < bits * 3; i++) triangles[one.triangles.length + i] = one.positions.length / 3 + i;
  const report = scanReport({ positions, triangles });
  expect(report.loose.components).toBe(bits);
  expect(withoutLoose({ positions, triangles }).triangles.length).toBe(one.triangles.length);
});
