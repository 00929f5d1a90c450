import { BODIES, body, boxUnwrap, paintableBody, type RawMesh } from './index';

/** Twice the area of each triangle in the texture, over 0 where it isn’t mirrored, and on the body. */
function areas({ positions: p, triangles }: RawMesh, c: Float32Array): { flat: number[]; solid: number[] } {
  const [flat, solid]: [number[], number[]] = [[], []];
  for (let t = 0; t < triangles.length / 3; t++) {
    const k = t * 6;
    flat.push((c[k + 2]! - c[k]!) * (c[k + 5]! - c[k + 1]!) - (c[k + 3]! - c[k + 1]!) * (c[k + 4]! - c[k]!));
    const [a, b, d] = [0, 1, 2].map((i) => triangles[t * 3 + i]! * 3) as [number, number, number];
    const e = [0, 1, 2].map((i) => p[b + i]! - p[a + i]!) as [number, number, number];
    const f = [0, 1, 2].map((i) => p[d + i]! - p[a + i]!) as [number, number, number];
    solid.push(Math.hypot(e[1] * f[2] - e[2] * f[1], e[2] * f[0] - e[0] * f[2], e[0] * f[1] - e[1] * f[0]));
  }
  return { flat, solid };
}

test.each(BODIES)('%s: unwrapped at once it lies inside the square, not mirrored, with little stretch', (name) => {
  const mesh = body(name, 20);
  const c = boxUnwrap(mesh);
  expect([Math.min(...c) >= 0, Math.max(...c) <= 1]).toEqual([true, true]);
  const { flat, solid } = areas(mesh, c);
  const [all, wide] = [flat, solid].map((of) => of.reduce((sum, x) => sum + x, 0)) as [number, number];
  const stretch = flat.map((area, i) => area / all / (solid[i]! / wide));
  expect(flat.filter((area) => area < 0).length / flat.length).toBeLessThan(0.02);
  // Half of all lies within a factor of two of the mean.
  expect(stretch.filter((x) => x > 0.5 && x < 2).length / flat.length).toBeGreaterThan(0.9);
  expect(all / 2).toBeGreaterThan(0.3);
});

test.each(BODIES)(
  '%s comes with coordinates by construction: inside the square, none mirrored, few stretched',
  (name) => {
    const mesh = paintableBody(name, 20);
    const c = mesh.carried!.coordinates!;
    expect([Math.min(...c) >= 0, Math.max(...c) <= 1]).toEqual([true, true]);
    const { flat, solid } = areas(mesh, c);
    expect(flat.filter((area) => area <= 0)).toEqual([]);
    const [all, wide] = [flat, solid].map((of) => of.reduce((sum, x) => sum + x, 0)) as [number, number];
    const stretch = flat.map((area, i) => area / all / (solid[i]! / wide));
    expect(stretch.filter((x) => x > 0.4 && x < 2.5).length / flat.length).toBeGreaterThan(0.85);
  },
);
