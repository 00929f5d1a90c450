import { seeded } from '#core/random';
import { body, buildMesh, plane, subdivide, weld, type RawMesh } from './index';
import { edgesOf } from './edges';

/** A cube of six square sides, corners shared; `apart` gives every triangle corners of its own, as STL does. */
function cube(apart = false): RawMesh {
  const corners = [-1, 1].flatMap((z) => [-1, 1].flatMap((y) => [-1, 1].map((x) => [x, y, z])));
  const sides = [
    [0, 2, 3, 1],
    [4, 5, 7, 6],
    [0, 1, 5, 4],
    [2, 6, 7, 3],
    [0, 4, 6, 2],
    [1, 3, 7, 5],
  ];
  const triangles = sides.flatMap(([a, b, c, d]) => [a, b, c, a, c, d]);
  if (!apart) return { positions: Float32Array.from(corners.flat()), triangles: Uint32Array.from(triangles) };
  return {
    positions: Float32Array.from(triangles.flatMap((v) => corners[v])),
    triangles: Uint32Array.from(triangles, (_, i) => i),
  };
}

/** V − E + F. */
function euler(mesh: RawMesh): number {
  return (
    mesh.positions.length / 3 - edgesOf(mesh.triangles, mesh.positions.length / 3).count + mesh.triangles.length / 3
  );
}

describe('edges', () => {
  test('a cube has eighteen, each between two triangles', () => {
    const { count, uses } = edgesOf(cube().triangles, 8);
    expect(count).toBe(18);
    expect([...uses].every((n) => n === 2)).toBe(true);
  });

  test('a plane’s border is its outer edges', () => {
    const raw = plane(8, 2);
    const { uses } = edgesOf(raw.triangles, raw.positions.length / 3);
    expect(uses.filter((n) => n === 1)).toHaveLength(32);
  });
});

describe('subdivide', () => {
  test.each([
    ['ball', body('ball', 6)],
    ['plane', plane(6, 2)],
    ['cube', cube()],
  ] as const)('a %s gets four triangles for one and keeps its kind', (_, raw) => {
    const fine = subdivide(raw);
    expect(fine.triangles).toHaveLength(raw.triangles.length * 4);
    expect(euler(fine)).toBe(euler(raw));
    expect(() => buildMesh(fine)).not.toThrow();
  });

  test('a plane stays flat, as large and evenly divided', () => {
    const fine = subdivide(plane(4, 2));
    const p = fine.positions;
    for (let i = 0; i < p.length; i += 3) {
      expect(p[i + 2]).toBe(0);
      expect(Math.max(Math.abs(p[i]), Math.abs(p[i + 1]))).toBeLessThanOrEqual(1 + 1e-6);
    }
    expect(Math.max(...p)).toBeCloseTo(1, 6);
  });

  test('a coarse ball comes nearer to a ball', () => {
    const off = (raw: RawMesh): number => {
      const radii = Array.from({ length: raw.positions.length / 3 }, (_, v) =>
        Math.hypot(...raw.positions.subarray(v * 3, v * 3 + 3)),
      );
      const { triangles: t, positions: p } = raw;
      // How far faces' middles lie inside the mean radius.
      const mean = radii.reduce((a, b) => a + b, 0) / radii.length;
      let worst = 0;
      for (let i = 0; i < t.length; i += 3)
        worst = Math.max(
          worst,
          mean - Math.hypot(...[0, 1, 2].map((k) => (p[t[i] * 3 + k] + p[t[i + 1] * 3 + k] + p[t[i + 2] * 3 + k]) / 3)),
        );
      return worst;
    };
    const coarse = body('ball', 8);
    expect(off(subdivide(coarse))).toBeLessThan(off(coarse) / 2.5);
  });

  test('a cube keeps its corners, edges and sides', () => {
    let fine = cube();
    for (let i = 0; i < 3; i++) fine = subdivide(fine);
    const p = fine.positions;
    for (let i = 0; i < p.length; i += 3)
      expect(Math.max(Math.abs(p[i]), Math.abs(p[i + 1]), Math.abs(p[i + 2]))).toBeCloseTo(1, 6);
    expect([0, 1, 2, 3, 4, 5, 6, 7].every((v) => [0, 1, 2].every((k) => Math.abs(p[v * 3 + k]) === 1))).toBe(true);
  });
});

describe('weld', () => {
  test('corners at one place become one; the cube is closed and of the plain ball’s size', () => {
    const { mesh, merged, dropped, open, components } = weld(cube(true));
    expect([mesh.positions.length / 3, merged, dropped, open, components]).toEqual([8, 28, 0, 0, 1]);
    expect(Math.max(...mesh.positions)).toBeCloseTo(1, 6);
    expect(euler(mesh)).toBe(2);
  });

  test('wherever it lies and whatever its size, it comes to the middle at size 2', () => {
    const random = seeded(2);
    for (let n = 0; n < 20; n++) {
      const raw = cube(true);
      const scale = 10 ** (random() * 6 - 3);
      const shift = [random() * 50, random() * 50, random() * 50].map((s) => s * scale);
      raw.positions = raw.positions.map((c, i) => c * scale + shift[i % 3]);
      const { mesh } = weld(raw);
      expect(mesh.positions).toHaveLength(24);
      for (let k = 0; k < 3; k++) expect(Math.max(...mesh.positions.filter((_, i) => i % 3 === k))).toBeCloseTo(1, 4);
    }
  });

  test('triangles without area and points that nothing names go; loose parts and holes are told', () => {
    const raw = cube();
    const triangles = [...raw.triangles.slice(3), 0, 0, 1, ...Uint32Array.from(raw.triangles, (v) => v + 9)];
    const far = Array.from(raw.positions, (c, i) => c + (i % 3 === 0 ? 5 : 0));
    const { dropped, open, components, mesh } = weld({
      positions: Float32Array.from([...raw.positions, 9, 9, 9, ...far]),
      triangles: Uint32Array.from(triangles),
    });
    expect([dropped, open, components, mesh.positions.length / 3]).toEqual([1, 3, 2, 16]);
  });

  test('corners a hair apart are one, on whichever side of a cell’s border they lie', () => {
    const whole = body('ball', 12);
    const apart = Float32Array.from(
      { length: whole.triangles.length * 3 },
      (_, i) => whole.positions[whole.triangles[Math.floor(i / 3)] * 3 + (i % 3)],
    );
    const random = seeded(6);
    const shaken = {
      positions: apart.map((x) => x + (random() - 0.5) * 4e-7),
      triangles: Uint32Array.from({ length: whole.triangles.length }, (_, i) => i),
    };
    const { mesh, open, components } = weld(shaken);
    expect([mesh.positions.length, open, components]).toEqual([whole.positions.length, 0, 1]);
  });

  test('vertices of triangles that vanish are no components, and aren’t kept', () => {
    const raw = cube();
    const orphans = [3, 3, 3, 3, 3, 3, 3, 3, 3.0000001];
    const { components, mesh, dropped } = weld({
      positions: Float32Array.from([...raw.positions, ...orphans]),
      triangles: Uint32Array.from([...raw.triangles, 8, 9, 10]),
    });
    expect([components, mesh.positions.length / 3, dropped]).toEqual([1, 8, 1]);
  });

  test('one triangle is a body; a point is none', () => {
    expect(
      weld({ positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0), triangles: Uint32Array.of(0, 1, 2) }).mesh
        .triangles,
    ).toHaveLength(3);
    expect(() => weld({ positions: new Float32Array(9), triangles: Uint32Array.of(0, 1, 2) })).toThrow('at one place');
    expect(() => weld({ positions: Float32Array.of(0, 0, 0, 1, 0, 0), triangles: Uint32Array.of(0, 1, 1) })).toThrow(
      'without area',
    );
  });
});
