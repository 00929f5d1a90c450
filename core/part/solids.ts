/** Solids of known measure. */
import type { RawMesh } from '#core/mesh';
import type { Vec3 } from '#core/vector';

/** A block of these sides about a place, its corners in the order of their bits; faces outward. */
export function block([x, y, z]: Vec3, [ox, oy, oz]: Vec3 = [0, 0, 0]): RawMesh {
  const positions = Float32Array.from(
    [0, 1, 2, 3, 4, 5, 6, 7].flatMap((n) => [
      ox + (n & 1 ? x : -x) / 2,
      oy + (n & 2 ? y : -y) / 2,
      oz + (n & 4 ? z : -z) / 2,
    ]),
  );
  const sides = [
    [0, 2, 3, 1],
    [4, 5, 7, 6],
    [0, 1, 5, 4],
    [2, 6, 7, 3],
    [0, 4, 6, 2],
    [1, 3, 7, 5],
  ];
  return { positions, triangles: Uint32Array.from(sides.flatMap(([a, b, c, d]) => [a, b, c, a, c, d])) };
}

/** A ball with lumps by a seed: closed, with triangles of many sizes. */
export function lump(mesh: RawMesh, random: () => number): RawMesh {
  const waves = Array.from({ length: 4 }, () => [0, 1, 2].map(() => (random() - 0.5) * 7) as unknown as Vec3);
  const positions = mesh.positions.slice();
  for (let v = 0; v < positions.length; v += 3) {
    const [x, y, z] = positions.subarray(v, v + 3);
    const by = waves.reduce((sum, [a, b, c]) => sum + 0.09 * Math.sin(a * x! + b * y! + c * z!), 1);
    for (let k = 0; k < 3; k++) positions[v + k]! *= by;
  }
  return { positions, triangles: mesh.triangles };
}
