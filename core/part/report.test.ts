import { partChecks } from '#core/checks';
import { ball, body, together, type RawMesh } from '#core/mesh';
import { crossings, partReport, seatAlong, seatOnFlattest } from './index';
import { block } from './solids';

const upright = (mesh: RawMesh) => seatAlong(mesh, [0, 0, 1], [0, 1, 0]);
const found = (mesh: RawMesh, seat = upright(mesh), spacing: number | null = null): string[] =>
  partChecks(partReport(mesh, seat), { spacing, real: (n) => `${n.toFixed(2)} mm` })
    .filter(({ ok }) => !ok)
    .map(({ name }) => name);

test('a sound block passes everything, and its size is told as it stands', () => {
  const mesh = block([2, 3, 4]);
  expect(found(mesh)).toEqual([]);
  const report = partReport(mesh, seatAlong(mesh, [1, 0, 0], [0, 1, 0]));
  expect(report.size).toEqual([expect.closeTo(4, 6), expect.closeTo(3, 6), expect.closeTo(2, 6)]);
  expect(report.thickness).toBeCloseTo(2, 3);
  expect(report.resting).toBeCloseTo(1, 6);
});

test('each fault is found, by its number', () => {
  const open = block([1, 1, 1]);
  expect(found({ ...open, triangles: open.triangles.slice(6) })).toEqual(['open']);
  const turned = { ...open, triangles: open.triangles.slice().reverse() };
  expect(found(turned)).toContain('inward');
  expect(found(together([block([1, 1, 1]), block([1, 1, 1], [0.5, 0.4, 0.3])]))).toEqual(['crossing']);
  expect(found(body('stone', 40))).toContain('weight');
  expect(found(ball(24), upright(ball(24)))).toContain('resting');
  const leaning = block([2, 2, 1]);
  expect(found(leaning, seatAlong(leaning, [0.1, 0, 1], [0, 1, 0]))).toEqual(['resting', 'off-axis']);
  expect(found(leaning, { ...upright(leaning), rest: [0, 0, 0] })).toEqual(['resting']);
  expect(found(block([1, 1, 0.02]), undefined, 0.05)).toEqual(['thin']);
});

test('a base is what it rests on: a rim, three points or a face', () => {
  // The upper half of a ball, open below.
  const round = ball(24);
  const { positions: p } = round;
  const upper: number[] = [];
  for (let t = 0; t < round.triangles.length; t += 3) {
    const corners = [...round.triangles.subarray(t, t + 3)];
    if (corners.every((v) => p[v * 3 + 2] >= -1e-6)) upper.push(...corners);
  }
  const shell = { positions: p, triangles: Uint32Array.from(upper) };
  const own = new Set(upper);
  const used = [...own];
  const number = new Map(used.map((v, i) => [v, i]));
  const half = {
    positions: Float32Array.from(used.flatMap((v) => [...p.subarray(v * 3, v * 3 + 3)])),
    triangles: shell.triangles.map((v) => number.get(v)!),
  };
  expect(partReport(half, upright(half)).resting).toBeGreaterThan(0.7);
  const stool = together([
    block([2, 2, 0.2], [0, 0, 1]),
    ...[0, 1, 2].map((i) => block([0.1, 0.1, 1], [0.8 * Math.cos(i * 2.1), 0.8 * Math.sin(i * 2.1), 0.4])),
  ]);
  expect(partReport(stool, upright(stool)).resting).toBeGreaterThan(0.15);
});

test('a mend of a leaning part is its flattest side', () => {
  const mesh = block([2, 2, 1]);
  expect(found(mesh, seatOnFlattest(mesh, [0, 1, 0]))).toEqual([]);
});

test('blocks that touch, or lie apart, don’t cross; one through another does', () => {
  expect(crossings(together([block([1, 1, 1]), block([1, 1, 1], [1, 0, 0])]))).toBe(0);
  expect(crossings(together([block([1, 1, 1]), block([1, 1, 1], [3, 0, 0])]))).toBe(0);
  expect(crossings(together([block([3, 0.5, 0.5]), block([0.3, 2, 0.3])]))).toBeGreaterThan(4);
});
