import { ball, body, edgesOf, type RawMesh } from '#core/mesh';
import { seeded } from '#core/random';
import { scanReport } from '#core/scan';
import { BUDGET_METHODS } from '#core/settings';
import { areaOf, cleaned, deviation, isClosed, reduced, volumeOf } from './index';
import { block, lump } from './solids';

const faces = (mesh: RawMesh): number => mesh.triangles.length / 3;

/** Shortest side over longest, of each face. */
function shapes({ positions: p, triangles }: RawMesh): number[] {
  return Array.from({ length: triangles.length / 3 }, (_, t) => {
    const sides = [0, 1, 2].map((k) => {
      const [a, b] = [triangles[t * 3 + k]! * 3, triangles[t * 3 + ((k + 1) % 3)]! * 3];
      return Math.hypot(p[a]! - p[b]!, p[a + 1]! - p[b + 1]!, p[a + 2]! - p[b + 2]!);
    });
    return Math.min(...sides) / Math.max(...sides);
  });
}

describe.each(BUDGET_METHODS)('%s', (way) => {
  test.each([1, 2, 3, 4, 5, 6])('a closed lump stays closed, outward and within its budget (seed %d)', async (seed) => {
    const random = seeded(seed);
    const mesh = lump(ball(20 + Math.floor(random() * 20)), random);
    const budget = Math.round(80 * 12 ** random());
    const made = await reduced(mesh, { way, faces: budget });
    expect(faces(made)).toBeLessThanOrEqual(budget);
    expect(faces(made)).toBeGreaterThan(budget * 0.7);
    expect(isClosed(made)).toBe(true);
    expect(scanReport(made).inward).toBe(0);
    // Corners lie on the surface, so coarse ones cut off a little.
    expect(volumeOf(made) / volumeOf(mesh)).toBeGreaterThan(0.85);
    expect(volumeOf(made) / volumeOf(mesh)).toBeLessThan(1.05);
  });

  test('a stone of 50 thousand faces at 500 lies within 3 % of its size, and every vertex is used', async () => {
    const mesh = body('stone', 66);
    const made = await reduced(mesh, { way, faces: 500 });
    expect(deviation(mesh, made).largest).toBeLessThan(3);
    expect(new Set(made.triangles).size).toBe(made.positions.length / 3);
  });

  test('a mesh that is lighter than its budget keeps its shape to the bit, or its size', async () => {
    const mesh = block([1, 2, 3]);
    const made = await reduced(mesh, { way, faces: 100 });
    expect(volumeOf(made)).toBeCloseTo(6, way === 'shape' ? 9 : 5);
    expect(areaOf(made)).toBeCloseTo(22, 5);
  });
});

test('even faces are near to equal sides; the shape kept is nearer to the shape', async () => {
  const mesh = body('bollard', 40);
  const [kept, even] = await Promise.all(BUDGET_METHODS.map((way) => reduced(mesh, { way, faces: 600 })));
  const mean = (of: number[]): number => of.reduce((sum, n) => sum + n, 0) / of.length;
  expect(mean(shapes(even!))).toBeGreaterThan(0.7);
  expect(mean(shapes(even!))).toBeGreaterThan(mean(shapes(kept!)) + 0.1);
  expect(deviation(mesh, kept!).mean).toBeLessThan(deviation(mesh, even!).mean);
});

test('a plank made of even faces keeps its sharp edges and its sides', async () => {
  const mesh = block([4, 2, 1]);
  const made = await reduced(mesh, { way: 'even', faces: 400 });
  expect(volumeOf(made)).toBeCloseTo(8, 4);
  const edges = edgesOf(made.triangles, made.positions.length / 3);
  expect(edges.uses.every((n) => n === 2)).toBe(true);
});

test('an open sheet is brought down, and keeps its border near', async () => {
  const cells = 60;
  const positions = new Float32Array((cells + 1) ** 2 * 3);
  const triangles: number[] = [];
  for (let j = 0; j <= cells; j++) {
    for (let i = 0; i <= cells; i++) {
      const v = j * (cells + 1) + i;
      positions.set([i / cells, j / cells, 0.1 * Math.sin((i / cells) * 6) * Math.sin((j / cells) * 5)], v * 3);
      if (i < cells && j < cells) triangles.push(v, v + 1, v + cells + 2, v, v + cells + 2, v + cells + 1);
    }
  }
  const mesh = { positions, triangles: Uint32Array.from(triangles) };
  const made = await reduced(mesh, { way: 'shape', faces: 300 });
  expect(faces(made)).toBeLessThanOrEqual(300);
  expect(deviation(mesh, made).largest).toBeLessThan(1.5);
});

test('meshes of one triangle, flat ones and ones without area', async () => {
  const one = { positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0), triangles: Uint32Array.of(0, 1, 2) };
  expect(faces(await reduced(one, { way: 'shape', faces: 12 }))).toBe(1);
  const none = { positions: Float32Array.of(0, 0, 0, 1, 0, 0, 2, 0, 0), triangles: Uint32Array.of(0, 1, 2) };
  await expect(reduced(none, { way: 'even', faces: 12 })).rejects.toThrow('no area');
});

test('triangles that lie back to back cancel out, others that share an edge stay', () => {
  const mesh = block([1, 1, 1]);
  const flap = [0, 1, 7, 1, 0, 7];
  const made = cleaned({ ...mesh, triangles: Uint32Array.from([...mesh.triangles, ...flap]) });
  expect(made.triangles.length).toBe(36);
  expect(isClosed(made)).toBe(true);
});
