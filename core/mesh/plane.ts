/**
 * A square plane in x and y facing +z: the clay of a slab.
 *
 * Vertices row by row from the lower left, (cells + 1)² of them. Diagonals run towards the middle in each
 * quarter, so that the mesh is its own mirror image in x and in y and a mirrored stroke stays mirrored.
 */
import type { RawMesh } from './mesh';

export function plane(cells: number, side: number): RawMesh {
  if (!Number.isInteger(cells) || cells < 2 || cells % 2 !== 0) {
    throw new Error(`A plane needs an even number of cells, not ${cells}.`);
  }
  const row = cells + 1;
  const positions = new Float32Array(row * row * 3);
  for (let j = 0, at = 0; j < row; j++) {
    for (let i = 0; i < row; i++, at += 3) {
      positions[at] = ((2 * i - cells) / cells) * (side / 2);
      positions[at + 1] = ((2 * j - cells) / cells) * (side / 2);
    }
  }
  const triangles = new Uint32Array(cells * cells * 6);
  const half = cells / 2;
  for (let j = 0, at = 0; j < cells; j++) {
    for (let i = 0; i < cells; i++, at += 6) {
      const a = j * row + i;
      const b = a + 1;
      const c = a + row + 1;
      const d = a + row;
      const rising = i < half === j < half;
      triangles[at] = a;
      triangles[at + 1] = b;
      triangles[at + 2] = rising ? c : d;
      triangles[at + 3] = rising ? a : b;
      triangles[at + 4] = c;
      triangles[at + 5] = d;
    }
  }
  return { positions, triangles };
}
