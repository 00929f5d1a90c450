/**
 * Undercut: what a height picture can't hold because something lies over it. A triangle is hidden when it looks down,
 * or when its middle lies under the height that was cast there. O(triangles).
 */
import type { Frame } from '#core/settings';
import type { RawMesh } from '#core/mesh';
import type { Picture } from '#core/picture';
import { frameMap } from './frameMap';

export interface Undercut {
  /** Hidden share of the surface area in the frame, 0–1. */
  share: number;
  /** 1 for each pixel under which something is hidden, row by row from the top. */
  pixels: Uint8Array;
}

/** A surface this many pixels under the cast height, or less, is the same surface. */
const SLACK_PX = 1.5;
/** Faces this near to upright, the cosine, are seen from their end: a step between two heights, which a picture has. */
const UPRIGHT = 0.02;

export function findUndercut(mesh: RawMesh, frame: Frame, heights: Picture): Undercut {
  const { positions: p, triangles } = mesh;
  const triangleCount = triangles.length / 3;
  const { width: size, data } = heights;
  const { across, down, cos, sin } = frameMap(frame, size);
  const slack = (frame.side / size) * SLACK_PX;
  const pixels = new Uint8Array(size * size);
  let all = 0;
  let hidden = 0;
  for (let t = 0; t < triangleCount; t++) {
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
    const x = ax + (ux + vx) / 3;
    const y = ay + (uy + vy) / 3;
    // Half a pixel more, so that cutting off rounds.
    const column = across + x * cos + y * sin + 0.5;
    const row = down + x * sin - y * cos + 0.5;
    if (!(column >= 0 && row >= 0 && column < size && row < size)) continue;
    const pixel = (row | 0) * size + (column | 0);
    const nz = ux * vy - uy * vx;
    const nx = uy * vz - uz * vy;
    const ny = uz * vx - ux * vz;
    const area = Math.sqrt(nx * nx + ny * ny + nz * nz);
    all += area;
    const z = az + (uz + vz) / 3;
    if (Math.abs(nz) <= UPRIGHT * area && uncovered(p, [a, b, c], data[pixel], slack)) continue;
    // On a slope the middle may lie lower than the pixel's own height by what a pixel climbs.
    const climb = nz > 0 ? slack * Math.min(20, area / nz) : 0;
    if (nz > 0 && z >= data[pixel] - climb) continue;
    hidden += area;
    pixels[pixel] = 1;
  }
  return { share: all > 0 ? hidden / all : 0, pixels };
}

/** Whether a wall reaches up to what is seen there: nothing lies over it. */
function uncovered(p: Float32Array, corners: readonly number[], seen: number, slack: number): boolean {
  return corners.some((corner) => p[corner + 2] >= seen - slack);
}
