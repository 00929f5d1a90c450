/** Where a mesh’s triangles lie in a texture: their corners in texels, and which of them lie in each tile. */
import type { MeshArrays } from '#core/mesh';
import { TILE } from './texture';

export interface Atlas {
  mesh: MeshArrays;
  /** Texels a side. */
  size: number;
  /** x, y of each corner of each triangle, texels from the upper left; six numbers a triangle. */
  corners: Float32Array;
  /** Triangles that lie in tile i, or within the padding beside it: triangles[starts[i] … starts[i + 1]). */
  starts: Uint32Array;
  triangles: Uint32Array;
  /** Tiles that the triangles of leaf i lie in: leafTiles[leafStarts[i] … leafStarts[i + 1]). */
  leafStarts: Uint32Array;
  leafTiles: Uint32Array;
}

/** Texels out from an island that take after its rim, so that a renderer that reads between texels finds no seam. */
export const PADDING = 4;

/**
 * Throws a sentence where the mesh has no coordinates, or has some outside the square. v runs up, as in every format
 * but the picture itself. O(triangles).
 */
export function atlas(mesh: MeshArrays, coordinates: Float32Array | null | undefined, size: number): Atlas {
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
  return { mesh, size, corners, ...byTile(corners, size), ...byLeaf(mesh, corners, size) };
}

/** Calls for each tile that the triangle lies in, or beside within the padding. */
function eachTile(corners: Float32Array, size: number, t: number, visit: (tile: number) => void): void {
  const last = size / TILE - 1;
  const [left, top, right, bottom] = boundsOf(corners, t);
  const [i0, j0] = [Math.max(0, (left - PADDING) >> 6), Math.max(0, (top - PADDING) >> 6)];
  const [i1, j1] = [Math.min(last, (right + PADDING) >> 6), Math.min(last, (bottom + PADDING) >> 6)];
  for (let j = j0; j <= j1; j++) for (let i = i0; i <= i1; i++) visit(j * (last + 1) + i);
}

function byTile(corners: Float32Array, size: number): Pick<Atlas, 'starts' | 'triangles'> {
  const across = size / TILE;
  const count = corners.length / 6;
  const starts = new Uint32Array(across * across + 1);
  for (let t = 0; t < count; t++) eachTile(corners, size, t, (tile) => starts[tile + 1]++);
  for (let i = 1; i < starts.length; i++) starts[i] += starts[i - 1];
  const triangles = new Uint32Array(starts[starts.length - 1]);
  const at = starts.slice();
  for (let t = 0; t < count; t++) eachTile(corners, size, t, (tile) => (triangles[at[tile]++] = t));
  return { starts, triangles };
}

function byLeaf(
  { leafTriangles, leafCount }: MeshArrays,
  corners: Float32Array,
  size: number,
): Pick<Atlas, 'leafStarts' | 'leafTiles'> {
  const seen = new Int32Array((size / TILE) ** 2).fill(-1);
  const leafStarts = new Uint32Array(leafCount + 1);
  const tiles: number[] = [];
  for (let leaf = 0; leaf < leafCount; leaf++) {
    for (let t = leafTriangles[leaf]; t < leafTriangles[leaf + 1]; t++)
      eachTile(corners, size, t, (tile) => {
        if (seen[tile] === leaf) return;
        seen[tile] = leaf;
        tiles.push(tile);
      });
    leafStarts[leaf + 1] = tiles.length;
  }
  return { leafStarts, leafTiles: Uint32Array.from(tiles) };
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

/** Width of a texel on a triangle, body units. `twice` is the triangle’s area on the body, doubled. */
export function texelWidth(corners: Float32Array, t: number, twice: number): number {
  const k = t * 6;
  const [ax, ay] = [corners[k], corners[k + 1]];
  const texels = Math.abs(
    (corners[k + 2] - ax) * (corners[k + 5] - ay) - (corners[k + 3] - ay) * (corners[k + 4] - ax),
  );
  return texels > 0 ? Math.sqrt(twice / texels) : 0;
}
