import { seeded } from '#core/random';
import { faceCross } from './faceCross';
import {
  BODIES,
  body,
  buildMesh,
  faceNormal,
  leavesInSphere,
  LEAF,
  pick,
  plane,
  positionsIn,
  positionsOut,
  meanSpacing,
  RING_BREAK,
  ringsOf,
  type Mesh,
} from './index';

const makers = [['plane', () => plane(64, 2)], ...BODIES.map((name) => [name, () => body(name, 24)] as const)] as const;

describe('the cross of a face', () => {
  test('a right triangle of sides 2 and 3 gives 6, along the axis it faces, whichever corner comes first', () => {
    const p = new Float32Array([9, 9, 9, 1, 1, 5, 3, 1, 5, 1, 4, 5]);
    const n = new Float64Array(3);
    for (const [a, b, c] of [
      [1, 2, 3],
      [2, 3, 1],
      [3, 1, 2],
    ] as const) {
      faceCross(p, a, b, c, n);
      expect(Array.from(n)).toEqual([0, 0, 6]);
    }
    faceCross(p, 1, 3, 2, n);
    expect(Array.from(n)).toEqual([0, 0, -6]);
  });

  test('a face without area gives nothing', () => {
    const n = new Float64Array(3).fill(1);
    faceCross(new Float32Array([0, 0, 0, 1, 1, 1, 2, 2, 2]), 0, 1, 2, n);
    expect(Array.from(n)).toEqual([0, 0, 0]);
  });
});

describe.each(makers)('%s', (name, make) => {
  const raw = make();
  const mesh = buildMesh(raw);

  test('closed bodies have every edge twice, once each way', () => {
    const edges = new Set<number>();
    const key = (a: number, b: number) => a * mesh.vertexCount + b;
    let unmatched = 0;
    for (let pass = 0; pass < 2; pass++) {
      for (let t = 0; t < mesh.triangles.length; t += 3) {
        for (let k = 0; k < 3; k++) {
          const a = mesh.triangles[t + k];
          const b = mesh.triangles[t + ((k + 1) % 3)];
          if (pass === 0) edges.add(key(a, b));
          else if (!edges.has(key(b, a))) unmatched++;
        }
      }
    }
    expect(edges.size).toBe(mesh.triangles.length);
    expect(unmatched).toBe(name === 'plane' ? 4 * 64 : 0);
  });

  test('normals point outwards and are of unit length', () => {
    let worst = 0;
    for (let v = 0; v < mesh.vertexCount; v++) {
      const n = mesh.normals.subarray(v * 3, v * 3 + 3);
      worst = Math.max(worst, Math.abs(Math.hypot(n[0], n[1], n[2]) - 1));
    }
    expect(worst).toBeLessThan(1e-6);
    let volume = 0;
    for (let t = 0; t < mesh.triangles.length; t += 3) {
      const a = mesh.triangles[t] * 3;
      const p = mesh.positions;
      const n = faceNormal(mesh, t / 3);
      volume += p[a] * n[0] + p[a + 1] * n[1] + p[a + 2] * n[2];
    }
    if (name === 'plane') expect(mesh.normals[2]).toBe(1);
    else expect(volume / 6).toBeGreaterThan(0.5);
  });

  test('a stored order survives the way in and out', () => {
    expect(positionsOut(mesh)).toEqual(raw.positions);
    const other = buildMesh(make());
    other.positions.fill(0);
    positionsIn(other, raw.positions);
    expect(other.positions).toEqual(mesh.positions);
    expect(other.normals).toEqual(mesh.normals);
  });

  test('picking agrees with trying every triangle', () => {
    const random = seeded(3);
    for (let i = 0; i < 24; i++) {
      const at = (): [number, number, number] => [random() * 2 - 1, random() * 2 - 1, random() * 2 - 1];
      const origin = at().map((c) => c * 3) as [number, number, number];
      const aim = at().map((c) => c * 0.7);
      const ray = { origin, direction: aim.map((c, k) => c - origin[k]) as unknown as [number, number, number] };
      const hit = pick(mesh, ray);
      const brute = bruteDistance(mesh, ray.origin, ray.direction);
      if (brute === Infinity) expect(hit).toBeNull();
      else expect(hit!.distance).toBeCloseTo(brute, 9);
    }
  });

  test('a sphere query finds every leaf with a vertex inside', () => {
    const out = new Uint32Array(mesh.leafCount);
    const found = new Set(out.subarray(0, leavesInSphere(mesh, 0.6, 0.5, 0.2, 0.4, out)));
    let missed = 0;
    for (let v = 0; v < mesh.vertexCount; v++) {
      const p = mesh.positions;
      const inside = Math.hypot(p[v * 3] - 0.6, p[v * 3 + 1] - 0.5, p[v * 3 + 2] - 0.2) < 0.4;
      if (inside && !found.has(Math.floor(v / LEAF))) missed++;
    }
    expect(missed).toBe(0);
  });
});

test('the ball lies on the unit sphere and its cells differ little', () => {
  const mesh = buildMesh(body('ball', 32));
  const radii = Array.from({ length: mesh.vertexCount }, (_, v) =>
    Math.hypot(...mesh.positions.subarray(v * 3, v * 3 + 3)),
  );
  expect(Math.min(...radii)).toBeCloseTo(1, 6);
  expect(Math.max(...radii)).toBeCloseTo(1, 6);
  expect(meanSpacing(mesh)).toBeCloseTo(Math.sqrt((4 * Math.PI) / mesh.vertexCount), 2);
});

test('the full bodies have over half a million vertices', () => {
  // Vertices grow with the square of the density; a fifth of it is quickly made.
  for (const name of BODIES) expect((body(name, 60).positions.length / 3) * 25).toBeGreaterThan(500_000);
});

test('the plane is its own mirror image, triangles and all', () => {
  const raw = plane(8, 2);
  const key = (flip: boolean, t: number) =>
    [0, 1, 2]
      .map((k) => {
        const v = raw.triangles[t + k] * 3;
        return `${flip ? -raw.positions[v] : raw.positions[v]},${raw.positions[v + 1]}`.replace(/-0(?=,|$)/g, '0');
      })
      .sort()
      .join(' ');
  const all = new Set<string>();
  for (let t = 0; t < raw.triangles.length; t += 3) all.add(key(false, t));
  for (let t = 0; t < raw.triangles.length; t += 3) expect(all).toContain(key(true, t));
});

test.each([
  [
    'a coordinate that is not a number',
    new Float32Array([0, 0, 0, 1, 0, 0, 0, NaN, 0]),
    new Uint32Array([0, 1, 2]),
    'Vertex 2 of 3 is not a number.',
  ],
  ['an index out of range', new Float32Array(9), new Uint32Array([0, 1, 3]), 'Triangle 0 names vertex 3 of 3.'],
  ['no triangles', new Float32Array(9), new Uint32Array(0), 'The mesh has no triangles.'],
])('%s is refused', (_, positions, triangles, message) => {
  expect(() => buildMesh({ positions, triangles })).toThrow(message);
});

test('stored positions of another size or with NaN change nothing', () => {
  const mesh = buildMesh(plane(8, 2));
  const before = mesh.positions.slice();
  expect(() => positionsIn(mesh, new Float32Array(12))).toThrow('Expected 81 vertices, found 4.');
  expect(() => positionsIn(mesh, new Float32Array(243).fill(NaN))).toThrow('Vertex 0 of 81 is not a number.');
  expect(mesh.positions).toEqual(before);
});

function bruteDistance(mesh: Mesh, o: readonly number[], d: readonly number[]): number {
  let best = Infinity;
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) =>
      Array.from(mesh.positions.subarray(mesh.triangles[t + k] * 3, mesh.triangles[t + k] * 3 + 3)),
    );
    const n = crossed(minus(b, a), minus(c, a));
    const distance = dotted(n, minus(a, o)) / dotted(n, d);
    if (!(distance >= 0)) continue;
    const p = o.map((x, k) => x + d[k] * distance);
    const inside = [
      [a, b],
      [b, c],
      [c, a],
    ].every(([p0, p1]) => dotted(crossed(minus(p1, p0), minus(p, p0)), n) >= -1e-12);
    if (inside) best = Math.min(best, distance);
  }
  return best;
}
const minus = (a: readonly number[], b: readonly number[]) => a.map((x, k) => x - b[k]);
const dotted = (a: readonly number[], b: readonly number[]) => a.reduce((sum, x, k) => sum + x * b[k], 0);
const crossed = (a: readonly number[], b: readonly number[]) => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

describe('rings', () => {
  const ringOf = (triangles: number[], vertex: number): number[] => {
    const { starts, rings } = ringsOf(Uint32Array.from(triangles), Math.max(...triangles) + 1);
    return Array.from(rings.subarray(starts[vertex], starts[vertex + 1]), (w) =>
      w >= RING_BREAK ? -(w - RING_BREAK) : w,
    );
  };

  test('a closed ring names its first neighbour again, an open one does not', () => {
    const fan = [0, 1, 2, 0, 2, 3, 0, 3, 4];
    expect(ringOf(fan, 0)).toEqual([1, 2, 3, 4]);
    expect(ringOf(fan, 2)).toEqual([3, 0, 1]);
    expect(ringOf([...fan, 0, 4, 1], 0)).toEqual([1, 2, 3, 4, 1]);
  });

  test('triangles in any order give a ring that goes round once', () => {
    const ring = ringOf([0, 3, 4, 0, 1, 2, 0, 5, 1, 0, 2, 3, 0, 4, 5], 0);
    expect(ring).toHaveLength(6);
    expect(ring[0]).toBe(ring[5]);
    for (let i = 0; i < 5; i++) expect((ring[i] % 5) + 1).toBe(ring[i + 1]);
  });

  test('two fans that meet in one point are two chains', () => {
    const ring = ringOf([0, 1, 2, 0, 3, 4], 0);
    expect(ring).toEqual([1, 2, -3, 4]);
  });

  test('many loose fans round one point are all kept', () => {
    const triangles = Array.from({ length: 40 }, (_, i) => [0, i * 2 + 1, i * 2 + 2]).flat();
    expect(ringOf(triangles, 0)).toHaveLength(80);
  });
});
