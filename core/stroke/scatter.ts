/** Scatter: each dab lands evenly somewhere in a disc round its place on the path, back on the surface. Seeded. */
import { cross, type Vec3 } from '#core/brush';
import { faceNormal, pick, type Hit, type Mesh } from '#core/mesh';
import type { Random } from '#core/random';

/** `reach` is the disc's radius in body units; null when the dab falls off the body. */
export function scattered(mesh: Mesh, hit: Hit, reach: number, random: Random): Hit | null {
  const distance = Math.sqrt(random()) * reach;
  const angle = random() * 2 * Math.PI;
  if (reach <= 0) return hit;
  const n = unit(faceNormal(mesh, hit.triangle));
  const across: Vec3 = Math.abs(n[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0];
  const a = unit(cross(n, across));
  const b = cross(n, a);
  const c = Math.cos(angle) * distance;
  const s = Math.sin(angle) * distance;
  return pick(mesh, {
    origin: [hit.x + a[0] * c + b[0] * s + n[0] * reach, hit.y + a[1] * c + b[1] * s + n[1] * reach, hit.z + a[2] * c + b[2] * s + n[2] * reach],
    direction: [-n[0], -n[1], -n[2]],
  });
}

function unit(v: Vec3): Vec3 {
  const length = Math.hypot(v[0], v[1], v[2]);
  return length > 0 ? [v[0] / length, v[1] / length, v[2] / length] : [0, 0, 1];
}
