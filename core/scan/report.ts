/** What is to be known of a scan before it is cast: its components, holes and faults. O(triangles). */
import { edgesOf, type Edges } from '#core/mesh';
import type { RawMesh } from '#core/mesh';
import { agree } from './agree';
import { holesOf } from './holes';
import { componentsOf } from './components';

export interface ScanReport {
  vertices: number;
  triangles: number;
  /** Extents in body units. */
  size: [number, number, number];
  components: number;
  /** Components that are small beside the largest, and their triangles. */
  loose: { components: number; triangles: number };
  /** Rims of what is missing; the rim of an open sheet is one too. */
  holes: { count: number; edges: number; largest: number };
  /** Edges that three or more triangles share. */
  nonManifold: number;
  /** Triangles that are turned the other way than those round them. */
  inward: number;
  /** Vertices that lie where another one does. */
  twins: number;
}

export function scanReport(mesh: RawMesh): ScanReport {
  const vertices = mesh.positions.length / 3;
  const edges = edgesOf(mesh.triangles, vertices);
  const components = componentsOf(mesh);
  const holes = holesOf(mesh, edges);
  return {
    vertices,
    triangles: mesh.triangles.length / 3,
    size: extents(mesh.positions),
    components: components.count,
    loose: components.loose,
    holes: {
      count: holes.length,
      edges: holes.reduce((sum, { rim }) => sum + rim.length, 0),
      largest: holes.reduce((most, { length }) => Math.max(most, length), 0),
    },
    nonManifold: manyUsed(edges),
    inward: agree(mesh, edges).turned,
    twins: twinsOf(mesh.positions),
  };
}

function extents(p: Float32Array): [number, number, number] {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < p.length; i += 3) {
    for (let k = 0; k < 3; k++) {
      const x = p[i + k];
      if (x < low[k]) low[k] = x;
      if (x > high[k]) high[k] = x;
    }
  }
  return [high[0] - low[0], high[1] - low[1], high[2] - low[2]];
}

function manyUsed({ count, uses }: Edges): number {
  let many = 0;
  for (let e = 0; e < count; e++) if (uses[e] > 2) many++;
  return many;
}

/** Vertices at the very place of another. */
function twinsOf(p: Float32Array): number {
  const bits = new Uint32Array(p.buffer, p.byteOffset, p.length);
  let slots = 1;
  while (slots < p.length / 2) slots *= 2;
  const table = new Int32Array(slots).fill(-1);
  let twins = 0;
  for (let i = 0; i < p.length; i += 3) {
    let at = (Math.imul(bits[i], 73856093) ^ Math.imul(bits[i + 1], 19349663) ^ Math.imul(bits[i + 2], 83492791)) >>> 0;
    at = (at ^ (at >>> 15)) & (slots - 1);
    for (; table[at] >= 0; at = (at + 1) & (slots - 1)) {
      const other = table[at];
      if (bits[other] === bits[i] && bits[other + 1] === bits[i + 1] && bits[other + 2] === bits[i + 2]) break;
    }
    if (table[at] >= 0) twins++;
    else table[at] = i;
  }
  return twins;
}
