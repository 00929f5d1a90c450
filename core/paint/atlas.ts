/** Where a mesh’s triangles lie in a texture: their corners in texels, and which of them lie in each tile. */
import type { Mesh } from '#core/mesh';
import { TILE } from './texture';

export interface Atlas {
  mesh: Mesh;
  /** Texels a side. */
  size: number;
  /** x, y of each corner of each triangle, texels from the upper left; six numbers a triangle. */
  corners: Float32Array;
  /** Triangles of tile i: triangles[starts[i] … starts[i + 1]). */
  starts: Uint32Array;
  triangles: Uint32Array;
}

/**
 * Throws a sentence where the mesh has no coordinates, or has some outside the square. v runs up, as in every format
 * but the picture itself. O(triangles).
 */
export function atlas(mesh: Mesh, size: number): Atlas {
  const coordinates = mesh.carried?.coordinates;
  if (!coordinates) throw new Error('This body has no texture coordinates, so there is nothing to paint on.');
  const corners = new Float32Array(coordinates.length);
  let outside = 0;
  for (let i = 0; i < coordinates.length; i += 2) {
    const [u, v] = [coordinates[i], coordinates[i + 1]];
    if (!(u >= 0 && u <= 1 && v >= 0 && v <= 1)) outside++;
    corners[i] = u * size;
    corners[i + 1] = (1 - v) * size;
  }
  if (outside > 0)
    throw new Error(
      `${outside} corners of faces have coordinates outside the texture’s square; they can’t be painted.`,
    );
  return { mesh, size, corners, ...byTile(corners, size) };
}

function byTile(corners: Float32Array, size: number): Pick<Atlas, 'starts' | 'triangles'> {
  const across = size / TILE;
  const count = corners.length / 6;
  const starts = new Uint32Array(across * across + 1);
  const each = (t: number, visit: (tile: number) => void): void => {
    const [left, top, right, bottom] = boundsOf(corners, t);
    const last = across - 1;
    for (let j = Math.max(0, top >> 6); j <= Math.min(last, bottom >> 6); j++)
      for (let i = Math.max(0, left >> 6); i <= Math.min(last, right >> 6); i++) visit(j * across + i);
  };
  for (let t = 0; t < count; t++) each(t, (tile) => starts[tile + 1]++);
  for (let i = 1; i < starts.length; i++) starts[i] += starts[i - 1];
  const triangles = new Uint32Array(starts[starts.length - 1]);
  const at = starts.slice();
  for (let t = 0; t < count; t++) each(t, (tile) => (triangles[at[tile]++] = t));
  return { starts, triangles };
}

/** First and last column and row whose texels’ middles it may hold. */
export function boundsOf(corners: Float32Array, t: number): readonly [number, number, number, number] {
  const c = t * 6;
  const [ax, ay, bx, by] = [corners[c], corners[c + 1], corners[c + 2], corners[c + 3]];
  const [dx, dy] = [corners[c + 4], corners[c + 5]];
  return [
    Math.floor(Math.min(ax, bx, dx) - 0.5),
    Math.floor(Math.min(ay, by, dy) - 0.5),
    Math.ceil(Math.max(ax, bx, dx) - 0.5),
    Math.ceil(Math.max(ay, by, dy) - 0.5),
  ];
}
