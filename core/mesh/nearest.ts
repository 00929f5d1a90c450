/**
 * The surface point nearest to a place. Visits only boxes nearer than the best found, the nearer child first.
 *
 * The nearest point of a triangle by the regions of its plane: C. Ericson, "Real-time collision detection", 2005,
 * 5.1.5.
 */
import { joinChildren } from './boxes';
import type { MeshArrays } from './mesh';

export interface Nearest {
  x: number;
  y: number;
  z: number;
  distance: number;
  triangle: number;
}

/** Null when nothing is nearer than `within`. */
export function nearest(
  mesh: Pick<MeshArrays, 'boxes' | 'leafBase' | 'leafTriangles' | 'triangles' | 'positions'>,
  x: number,
  y: number,
  z: number,
  within = Infinity,
): Nearest | null {
  const { boxes, leafBase, leafTriangles, triangles, positions } = mesh;
  let best = within * within;
  let triangle = -1;
  const at = new Float64Array(3);
  const found = new Float64Array(3);
  const visit = (node: number, far: number): void => {
    if (far >= best) return;
    if (node < leafBase) {
      const left = squareToBox(boxes, node * 2, x, y, z);
      const right = squareToBox(boxes, node * 2 + 1, x, y, z);
      if (left <= right) {
        visit(node * 2, left);
        visit(node * 2 + 1, right);
      } else {
        visit(node * 2 + 1, right);
        visit(node * 2, left);
      }
      return;
    }
    const leaf = node - leafBase;
    for (let t = leafTriangles[leaf]; t < leafTriangles[leaf + 1]; t++) {
      const square = nearestOnTriangle(positions, triangles, t, x, y, z, best, at);
      if (square >= best) continue;
      best = square;
      triangle = t;
      found.set(at);
    }
  };
  visit(1, squareToBox(boxes, 1, x, y, z));
  if (triangle < 0) return null;
  return { x: found[0], y: found[1], z: found[2], distance: Math.sqrt(best), triangle };
}

/** Triangles of a run: neighbours in memory, with a box of their own. */
const RUN = 8;

/**
 * The surface of a mesh that doesn't change, for many questions: a box tree over short runs of triangles. Triangles are
 * taken in their order, which is that of space in a mesh that was laid out.
 */
export function nearestOn({ positions, triangles }: Pick<MeshArrays, 'positions' | 'triangles'>) {
  const count = triangles.length / 3;
  const runs = Math.ceil(count / RUN);
  let base = 1;
  while (base < runs) base *= 2;
  const boxes = new Float32Array(base * 2 * 6);
  for (let node = 0; node < base * 2; node++) {
    boxes.fill(Infinity, node * 6, node * 6 + 3);
    boxes.fill(-Infinity, node * 6 + 3, node * 6 + 6);
  }
  for (let corner = 0; corner < triangles.length; corner++) {
    const b = (base + Math.floor(corner / (RUN * 3))) * 6;
    for (let k = 0; k < 3; k++) {
      const at = positions[triangles[corner] * 3 + k];
      if (at < boxes[b + k]) boxes[b + k] = at;
      if (at > boxes[b + 3 + k]) boxes[b + 3 + k] = at;
    }
  }
  for (let node = base - 1; node >= 1; node--) joinChildren(boxes, node);
  const leafTriangles = Uint32Array.from({ length: runs + 1 }, (_, run) => Math.min(run * RUN, count));
  const tree = { boxes, leafBase: base, leafTriangles, triangles, positions };
  return (x: number, y: number, z: number, within = Infinity): Nearest | null => nearest(tree, x, y, z, within);
}

function squareToBox(boxes: Float32Array, node: number, x: number, y: number, z: number): number {
  const b = node * 6;
  // Nodes without leaves are turned inside out.
  if (boxes[b] > boxes[b + 3]) return Infinity;
  const dx = Math.max(boxes[b] - x, 0, x - boxes[b + 3]);
  const dy = Math.max(boxes[b + 1] - y, 0, y - boxes[b + 4]);
  const dz = Math.max(boxes[b + 2] - z, 0, z - boxes[b + 5]);
  return dx * dx + dy * dy + dz * dz;
}

/** Writes the nearest point into `out`; answers its squared distance, or Infinity where it isn't under `best`. */
function nearestOnTriangle(
  p: Float32Array,
  triangles: Uint32Array,
  t: number,
  x: number,
  y: number,
  z: number,
  best: number,
  out: Float64Array,
): number {
  const a = triangles[t * 3] * 3;
  const b = triangles[t * 3 + 1] * 3;
  const c = triangles[t * 3 + 2] * 3;
  // Most triangles are told by their boxes.
  const fx = outside(x, p[a], p[b], p[c]);
  const fy = outside(y, p[a + 1], p[b + 1], p[c + 1]);
  const fz = outside(z, p[a + 2], p[b + 2], p[c + 2]);
  if (fx * fx + fy * fy + fz * fz >= best) return Infinity;
  const ax = p[a];
  const ay = p[a + 1];
  const az = p[a + 2];
  const ux = p[b] - ax;
  const uy = p[b + 1] - ay;
  const uz = p[b + 2] - az;
  const vx = p[c] - ax;
  const vy = p[c + 1] - ay;
  const vz = p[c + 2] - az;
  const px = x - ax;
  const py = y - ay;
  const pz = z - az;
  const uu = ux * ux + uy * uy + uz * uz;
  const uv = ux * vx + uy * vy + uz * vz;
  const vv = vx * vx + vy * vy + vz * vz;
  const pu = px * ux + py * uy + pz * uz;
  const pv = px * vx + py * vy + pz * vz;
  const area = uu * vv - uv * uv;
  let s = area > 0 ? (vv * pu - uv * pv) / area : -1;
  let r = area > 0 ? (uu * pv - uv * pu) / area : -1;
  if (s < 0 || r < 0 || s + r > 1) {
    // The nearest of the three edges.
    const onU = uu > 0 ? clamp(pu / uu) : 0;
    const onV = vv > 0 ? clamp(pv / vv) : 0;
    const ww = uu - 2 * uv + vv;
    const onW = ww > 0 ? clamp((pv - pu + uu - uv) / ww) : 0;
    const farU = (px - ux * onU) ** 2 + (py - uy * onU) ** 2 + (pz - uz * onU) ** 2;
    const farV = (px - vx * onV) ** 2 + (py - vy * onV) ** 2 + (pz - vz * onV) ** 2;
    s = 1 - onW;
    r = onW;
    const farW = (px - ux * s - vx * r) ** 2 + (py - uy * s - vy * r) ** 2 + (pz - uz * s - vz * r) ** 2;
    if (farU <= farV && farU <= farW) {
      s = onU;
      r = 0;
    } else if (farV <= farW) {
      s = 0;
      r = onV;
    }
  }
  const dx = x - (out[0] = ax + ux * s + vx * r);
  const dy = y - (out[1] = ay + uy * s + vy * r);
  const dz = z - (out[2] = az + uz * s + vz * r);
  return dx * dx + dy * dy + dz * dz;
}

/** How far a number lies outside of the range of three others. */
function outside(n: number, a: number, b: number, c: number): number {
  const low = a < b ? (a < c ? a : c) : b < c ? b : c;
  const high = a > b ? (a > c ? a : c) : b > c ? b : c;
  return n < low ? low - n : n > high ? n - high : 0;
}

const clamp = (n: number): number => (n < 0 ? 0 : n > 1 ? 1 : n);
