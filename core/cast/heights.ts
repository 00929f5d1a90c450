/**
 * Casts a surface straight down its z axis into a square height picture.
 *
 * Orthographic; the highest surface in each pixel; height interpolated (barycentric) at the sample centre;
 * pixels outside the mesh are NaN. With 4 samples a pixel holds the mean of a 2 × 2 grid inside it.
 * Heights in body units. O(triangles + covered pixels) a sample.
 */
import type { Frame } from '#core/settings';
import { newPicture, type Picture } from '#core/picture';
import type { RawMesh } from '#core/mesh';
import { frameMap } from './frameMap';

export interface CastOptions {
  frame: Frame;
  /** Pixels per side. */
  size: number;
  samples: 1 | 4;
  /** Told the share done now and then; returning false abandons the cast. */
  onProgress?: (share: number) => boolean;
}

export class CastCancelled extends Error {
  constructor() {
    super('The cast was cancelled.');
  }
}

export function castHeights(mesh: RawMesh, options: CastOptions): Picture {
  const { size, samples } = options;
  const offsets: readonly (readonly [number, number])[] =
    samples === 1
      ? [[0, 0]]
      : [
          [-0.25, -0.25],
          [0.25, -0.25],
          [-0.25, 0.25],
          [0.25, 0.25],
        ];
  const flat = projected(mesh, options.frame, size);
  const out = newPicture(size, size, -Infinity);
  const report = options.onProgress ?? (() => true);

  if (offsets.length === 1) {
    rasterise(mesh, flat, 0, 0, out, (share) => report(share));
    for (let i = 0; i < out.data.length; i++) if (out.data[i] === -Infinity) out.data[i] = NaN;
    return out;
  }

  const sum = new Float32Array(size * size);
  const hits = new Uint8Array(size * size);
  offsets.forEach(([dx, dy], pass) => {
    out.data.fill(-Infinity);
    rasterise(mesh, flat, dx, dy, out, (share) => report((pass + share) / offsets.length));
    for (let i = 0; i < sum.length; i++) {
      const h = out.data[i];
      if (h === -Infinity) continue;
      sum[i] = sum[i] + h;
      hits[i]++;
    }
  });
  for (let i = 0; i < sum.length; i++) out.data[i] = hits[i] === 0 ? NaN : sum[i] / hits[i];
  return out;
}

/** Column and row of every vertex. */
function projected(mesh: RawMesh, frame: Frame, size: number): Float64Array {
  const { positions: p } = mesh;
  const vertexCount = p.length / 3;
  const { across, down, cos, sin } = frameMap(frame, size);
  const flat = new Float64Array(vertexCount * 2);
  for (let v = 0; v < vertexCount; v++) {
    const x = p[v * 3];
    const y = p[v * 3 + 1];
    flat[v * 2] = across + x * cos + y * sin;
    flat[v * 2 + 1] = down + x * sin - y * cos;
  }
  return flat;
}

/** Slack on shared edges, so that no sample falls between two triangles. */
const EDGE = -1e-7;
const REPORT_EVERY = 1 << 17;

function rasterise(
  mesh: RawMesh,
  flat: Float64Array,
  dx: number,
  dy: number,
  out: Picture,
  report: (share: number) => boolean,
): void {
  const { triangles, positions } = mesh;
  const triangleCount = triangles.length / 3;
  const { width: size, data } = out;
  const last = size - 1;
  for (let t = 0; t < triangleCount; t++) {
    if (t % REPORT_EVERY === 0 && !report(t / triangleCount)) throw new CastCancelled();
    const a = triangles[t * 3];
    const b = triangles[t * 3 + 1];
    const c = triangles[t * 3 + 2];
    const ax = flat[a * 2] - dx;
    const ay = flat[a * 2 + 1] - dy;
    const bx = flat[b * 2] - dx;
    const by = flat[b * 2 + 1] - dy;
    const cx = flat[c * 2] - dx;
    const cy = flat[c * 2 + 1] - dy;

    const i0 = Math.max(0, Math.ceil(ax < bx ? (ax < cx ? ax : cx) : bx < cx ? bx : cx));
    const i1 = Math.min(last, Math.floor(ax > bx ? (ax > cx ? ax : cx) : bx > cx ? bx : cx));
    if (i0 > i1) continue;
    const j0 = Math.max(0, Math.ceil(ay < by ? (ay < cy ? ay : cy) : by < cy ? by : cy));
    const j1 = Math.min(last, Math.floor(ay > by ? (ay > cy ? ay : cy) : by > cy ? by : cy));
    if (j0 > j1) continue;

    const area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
    if (area === 0) continue;
    const inv = 1 / area;
    const za = positions[a * 3 + 2];
    const zb = positions[b * 3 + 2] - za;
    const zc = positions[c * 3 + 2] - za;
    // Weights of b and c at (i, j), and their change from pixel to pixel.
    const bdx = (cy - ay) * inv;
    const bdy = -(cx - ax) * inv;
    const cdx = -(by - ay) * inv;
    const cdy = (bx - ax) * inv;
    for (let j = j0; j <= j1; j++) {
      let wb = (i0 - ax) * bdx + (j - ay) * bdy;
      let wc = (i0 - ax) * cdx + (j - ay) * cdy;
      for (let i = i0, at = j * size + i0; i <= i1; i++, at++) {
        if (wb >= EDGE && wc >= EDGE && wb + wc <= 1 - EDGE) {
          const h = za + wb * zb + wc * zc;
          if (h > data[at]) data[at] = h;
        }
        wb += bdx;
        wc += cdx;
      }
    }
  }
}
