/**
 * The first surface point along a ray.
 *
 * Source: T. Möller and B. Trumbore, "Fast, minimum storage ray/triangle intersection", 1997.
 * Visits only boxes nearer than the best hit, near child first.
 */
import type { MeshArrays } from './mesh';

export interface Ray {
  origin: readonly [number, number, number];
  /** Need not be of unit length. */
  direction: readonly [number, number, number];
}

export interface Hit {
  /** Distance in units of the ray's direction. */
  distance: number;
  x: number;
  y: number;
  z: number;
  triangle: number;
}

const STACK = new Uint32Array(128);
const STACK_NEAR = new Float64Array(128);

export function pick(mesh: MeshArrays, ray: Ray): Hit | null {
  const { boxes, leafBase, leafTriangles, triangles, positions: p } = mesh;
  const [ox, oy, oz] = ray.origin;
  const [dx, dy, dz] = ray.direction;
  const ix = 1 / dx;
  const iy = 1 / dy;
  const iz = 1 / dz;

  const enter = (node: number): number => {
    const b = node * 6;
    const ax = slab(boxes[b], ox, ix, dx);
    const bx = slab(boxes[b + 3], ox, ix, dx);
    const ay = slab(boxes[b + 1], oy, iy, dy);
    const by = slab(boxes[b + 4], oy, iy, dy);
    const az = slab(boxes[b + 2], oz, iz, dz);
    const bz = slab(boxes[b + 5], oz, iz, dz);
    const near = Math.max(Math.min(ax, bx), Math.min(ay, by), Math.min(az, bz), 0);
    const far = Math.min(Math.max(ax, bx), Math.max(ay, by), Math.max(az, bz));
    return near <= far ? near : Infinity;
  };

  let best = Infinity;
  let triangle = -1;
  let depth = 0;
  const first = enter(1);
  if (first < Infinity) {
    STACK[0] = 1;
    STACK_NEAR[0] = first;
    depth = 1;
  }
  while (depth > 0) {
    depth--;
    if (STACK_NEAR[depth] >= best) continue;
    const node = STACK[depth];
    if (node < leafBase) {
      const left = enter(node * 2);
      const right = enter(node * 2 + 1);
      const leftFirst = left <= right;
      const far = leftFirst ? right : left;
      const near = leftFirst ? left : right;
      if (far < best) {
        STACK[depth] = leftFirst ? node * 2 + 1 : node * 2;
        STACK_NEAR[depth++] = far;
      }
      if (near < best) {
        STACK[depth] = leftFirst ? node * 2 : node * 2 + 1;
        STACK_NEAR[depth++] = near;
      }
      continue;
    }
    const leaf = node - leafBase;
    for (let t = leafTriangles[leaf], end = leafTriangles[leaf + 1]; t < end; t++) {
      const a = triangles[t * 3] * 3;
      const b = triangles[t * 3 + 1] * 3;
      const c = triangles[t * 3 + 2] * 3;
      const ax = p[a];
      const ay = p[a + 1];
      const az = p[a + 2];
      const ux = p[b] - ax;
      const uy = p[b + 1] - ay;
      const uz = p[b + 2] - az;
      const vx = p[c] - ax;
      const vy = p[c + 1] - ay;
      const vz = p[c + 2] - az;
      const qx = dy * vz - dz * vy;
      const qy = dz * vx - dx * vz;
      const qz = dx * vy - dy * vx;
      const det = ux * qx + uy * qy + uz * qz;
      if (det === 0) continue;
      const inv = 1 / det;
      const sx = ox - ax;
      const sy = oy - ay;
      const sz = oz - az;
      const u = (sx * qx + sy * qy + sz * qz) * inv;
      // A hair of slack keeps a ray from slipping through a shared edge.
      if (u < -EDGE || u > 1 + EDGE) continue;
      const rx = sy * uz - sz * uy;
      const ry = sz * ux - sx * uz;
      const rz = sx * uy - sy * ux;
      const v = (dx * rx + dy * ry + dz * rz) * inv;
      if (v < -EDGE || u + v > 1 + EDGE) continue;
      const distance = (vx * rx + vy * ry + vz * rz) * inv;
      if (distance >= 0 && distance < best) {
        best = distance;
        triangle = t;
      }
    }
  }
  if (triangle < 0) return null;
  const inTheWay = mesh.hiddenBy && pick(mesh.hiddenBy, ray);
  if (inTheWay && inTheWay.distance < best) return null;
  return { distance: best, x: ox + dx * best, y: oy + dy * best, z: oz + dz * best, triangle };
}

const EDGE = 1e-7;

/** Distance to a box's plane; a ray that runs along the plane is inside it on both sides or on neither. */
function slab(plane: number, origin: number, inverse: number, direction: number): number {
  if (direction !== 0) return (plane - origin) * inverse;
  return plane >= origin ? Infinity : -Infinity;
}
