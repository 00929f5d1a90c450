/**
 * The yardstick: the same Lift dab in plain loops over typed arrays, as one would first write it. It is told which
 * vertices it touches, keeps no undo and no boxes, and recomputes the normals of every touched vertex and of those
 * round it from their triangles' corners.
 */
import { sample, type Picture } from '#core/picture';
import type { Mesh } from '#core/mesh';

export interface PlainDab {
  x: number;
  y: number;
  radius: number;
  scale: number;
  picture: Picture;
}

/** Triangles round each vertex. */
export interface Fans {
  starts: Uint32Array;
  faces: Uint32Array;
}

export function fansOf(mesh: Mesh): Fans {
  const { triangles, vertexCount } = mesh;
  const starts = new Uint32Array(vertexCount + 1);
  for (let i = 0; i < triangles.length; i++) starts[triangles[i] + 1]++;
  for (let v = 0; v < vertexCount; v++) starts[v + 1] += starts[v];
  const next = starts.slice(0, vertexCount);
  const faces = new Uint32Array(triangles.length);
  for (let i = 0; i < triangles.length; i++) faces[next[triangles[i]]++] = (i / 3) | 0;
  return { starts, faces };
}

export function plainDab(mesh: Mesh, around: Fans, touched: Uint32Array, dab: PlainDab): void {
  const { positions: p, normals, triangles } = mesh;
  const { starts: fanStarts, faces: fans } = around;
  for (const v of touched) {
    const u = (p[v * 3] - dab.x) / dab.radius;
    const w = (p[v * 3 + 1] - dab.y) / dab.radius;
    const f = Math.sqrt(Math.max(0, 1 - u * u - w * w));
    p[v * 3 + 2] += dab.scale * sample(dab.picture, (u + 1) / 2, (1 - w) / 2) * f;
  }
  const round = new Set<number>();
  for (const v of touched) {
    for (let k = fanStarts[v]; k < fanStarts[v + 1]; k++)
      for (let c = 0; c < 3; c++) round.add(triangles[fans[k] * 3 + c]);
  }
  for (const v of round) {
    let x = 0;
    let y = 0;
    let z = 0;
    for (let k = fanStarts[v]; k < fanStarts[v + 1]; k++) {
      const t = fans[k] * 3;
      const a = triangles[t] * 3;
      const b = triangles[t + 1] * 3;
      const c = triangles[t + 2] * 3;
      const e = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]] as const;
      const g = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]] as const;
      x += e[1] * g[2] - e[2] * g[1];
      y += e[2] * g[0] - e[0] * g[2];
      z += e[0] * g[1] - e[1] * g[0];
    }
    const length = Math.hypot(x, y, z);
    normals[v * 3] = x / length;
    normals[v * 3 + 1] = y / length;
    normals[v * 3 + 2] = z / length;
  }
}
