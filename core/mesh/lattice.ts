/**
 * The welded surface of a box of nx × ny × nz cells, each lattice point mapped to a place by `map`.
 * Balls, tiles and turned bodies are all made of it: no poles, even quads, every edge shared.
 *
 * `map` is given coordinates from −1 to 1 on each axis. Vertex count 2(nx·ny + ny·nz + nz·nx) + 2.
 */
import type { RawMesh } from './mesh';

export type LatticeMap = (x: number, y: number, z: number) => readonly [number, number, number];

export function boxLattice(nx: number, ny: number, nz: number, map: LatticeMap): RawMesh {
  const cells = [nx, ny, nz] as const;
  const ids = new Map<number, number>();
  const vertexCount = 2 * (nx * ny + ny * nz + nz * nx) + 2;
  const positions = new Float32Array(vertexCount * 3);
  const triangles = new Uint32Array((nx * ny + ny * nz + nz * nx) * 12);
  let vertices = 0;
  let at = 0;

  const vertex = (point: readonly [number, number, number]): number => {
    const key = (point[0] * (ny + 1) + point[1]) * (nz + 1) + point[2];
    const known = ids.get(key);
    if (known !== undefined) return known;
    const place = map((2 * point[0] - nx) / nx, (2 * point[1] - ny) / ny, (2 * point[2] - nz) / nz);
    positions.set(place, vertices * 3);
    ids.set(key, vertices);
    return vertices++;
  };

  for (let axis = 0; axis < 3; axis++) {
    const u = (axis + 1) % 3;
    const v = (axis + 2) % 3;
    for (const end of [0, cells[axis]]) {
      const grid = new Uint32Array((cells[u] + 1) * (cells[v] + 1));
      const row = cells[u] + 1;
      for (let j = 0; j <= cells[v]; j++) {
        for (let i = 0; i <= cells[u]; i++) {
          const point: [number, number, number] = [0, 0, 0];
          point[axis] = end;
          point[u] = i;
          point[v] = j;
          grid[j * row + i] = vertex(point);
        }
      }
      for (let j = 0; j < cells[v]; j++) {
        for (let i = 0; i < cells[u]; i++, at += 6) {
          const a = grid[j * row + i];
          const b = grid[j * row + i + 1];
          const c = grid[(j + 1) * row + i + 1];
          const d = grid[(j + 1) * row + i];
          // The near side is seen from behind: turn its triangles over.
          triangles.set(end === 0 ? [a, c, b, a, d, c] : [a, b, c, a, c, d], at);
        }
      }
    }
  }
  return { positions, triangles };
}

/** Room between islands, of the texture's side. */
const GAP = 0.012;

/**
 * Texture coordinates of a box lattice's triangles, six numbers each: its six sides as six islands, in proportion to
 * their cells, those that face each other one over the other; none of them is mirrored.
 */
export function boxCoordinates(nx: number, ny: number, nz: number): Float32Array {
  const cells = [nx, ny, nz] as const;
  const out = new Float32Array((nx * ny + ny * nz + nz * nx) * 24);
  const scale = 1 / Math.max(nx + ny + nz, 2 * Math.max(nx, ny, nz));
  let at = 0;
  let left = 0;
  for (let axis = 0; axis < 3; axis++) {
    const [across, up] = [cells[(axis + 1) % 3], cells[(axis + 2) % 3]];
    for (const far of [false, true]) {
      const bottom = far ? up * scale : 0;
      const [wide, high] = [across * scale - GAP, up * scale - GAP];
      // The near side is seen from behind: it runs the other way, and so do its triangles.
      const begin = left + GAP / 2 + (far ? 0 : wide);
      const step = (far ? wide : -wide) / across;
      for (let j = 0; j < up; j++) {
        const [low, top] = [bottom + GAP / 2 + (j / up) * high, bottom + GAP / 2 + ((j + 1) / up) * high];
        for (let i = 0; i < across; i++, at += 12) {
          const [from, to] = [begin + i * step, begin + (i + 1) * step];
          out[at] = out[at + 6] = from;
          out[at + 1] = out[at + 7] = low;
          // Corners b, c and c, d; turned over c, b and d, c.
          const [second, third] = far ? [2, 4] : [4, 2];
          out[at + second] = to;
          out[at + second + 1] = low;
          out[at + third] = to;
          out[at + third + 1] = top;
          out[at + 6 + second] = to;
          out[at + 6 + second + 1] = top;
          out[at + 6 + third] = from;
          out[at + 6 + third + 1] = top;
        }
      }
    }
    left += across * scale;
  }
  return out;
}
