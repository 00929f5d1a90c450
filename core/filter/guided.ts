/**
 * The guided filter (He, Sun and Tang, 2013): a matte is made a local linear function of a picture's planes, so that
 * its edges fall where the picture's are, hair by hair. The coefficients are found on a reduced copy (He and Sun,
 * "Fast guided filter", 2015) and laid over the whole picture. O(pixels), whatever the radius.
 */
import type { Picture, Raster } from '#core/picture';
import { resize } from './resize';

export interface GuidedOptions {
  /** Pixels of the guide at full size. */
  radiusPx: number;
  /** Differences of tone below its root are smoothed over. */
  smooth: number;
}

/** Longer side of the copy that the coefficients are found on. */
const REDUCED = 1024;

/** What a matte is made of the guide's planes by: for each place a factor for each plane, and a constant. */
export interface Guidance {
  width: number;
  height: number;
  /** Of the first, second and third plane, and the constant. */
  factors: readonly Float32Array[];
}

/** `matte` is of the guide's shape, of any size. The answer is for the guide's whole, read between its places. */
export function guidance(matte: Picture, guide: Raster, { radiusPx, smooth }: GuidedOptions): Guidance {
  const { width, height } = guide;
  const share = Math.min(1, REDUCED / Math.max(width, height));
  const w = Math.max(1, Math.round(width * share));
  const h = Math.max(1, Math.round(height * share));
  const small = (p: Picture): Float32Array => (p.width === w && p.height === h ? p.data : resize(p, w, h).data);
  const radius = Math.max(1, Math.round(radiusPx * share));
  const planes = guide.planes.map((data) => small({ width, height, data }));
  const three = [0, 1, 2].map((k) => planes[Math.min(k, planes.length - 1)]);
  return { width: w, height: h, factors: coefficients(small(matte), three, { w, h, radius, smooth }) };
}

interface Reduced {
  w: number;
  h: number;
  radius: number;
  smooth: number;
}

/** Of the three planes, and the constant; each the mean over the windows that a pixel lies in. */
function coefficients(
  p: Float32Array,
  planes: readonly Float32Array[],
  { w, h, radius, smooth }: Reduced,
): Float32Array[] {
  const mean = (data: Float32Array): Float32Array => boxMean(data, w, h, radius);
  const product = (a: Float32Array, b: Float32Array): Float32Array => mean(a.map((v, i) => v * b[i]));
  const [r, g, b] = planes;
  const [mr, mg, mb, mp] = [r, g, b, p].map(mean);
  const [rr, rg, rb, gg, gb, bb] = [
    product(r, r),
    product(r, g),
    product(r, b),
    product(g, g),
    product(g, b),
    product(b, b),
  ];
  const [pr, pg, pb] = [product(r, p), product(g, p), product(b, p)];
  const out = [0, 1, 2, 3].map(() => new Float32Array(w * h));
  for (let i = 0; i < w * h; i++) {
    // The planes' covariance with `smooth` on its diagonal, and theirs with the matte.
    const xx = rr[i] - mr[i] * mr[i] + smooth;
    const xy = rg[i] - mr[i] * mg[i];
    const xz = rb[i] - mr[i] * mb[i];
    const yy = gg[i] - mg[i] * mg[i] + smooth;
    const yz = gb[i] - mg[i] * mb[i];
    const zz = bb[i] - mb[i] * mb[i] + smooth;
    const [cx, cy, cz] = [pr[i] - mr[i] * mp[i], pg[i] - mg[i] * mp[i], pb[i] - mb[i] * mp[i]];
    const [ax, ay, az] = [yy * zz - yz * yz, xz * yz - xy * zz, xy * yz - xz * yy];
    const [by, bz, dz] = [xx * zz - xz * xz, xy * xz - xx * yz, xx * yy - xy * xy];
    const whole = xx * ax + xy * ay + xz * az;
    out[0][i] = (ax * cx + ay * cy + az * cz) / whole;
    out[1][i] = (ay * cx + by * cy + bz * cz) / whole;
    out[2][i] = (az * cx + bz * cy + dz * cz) / whole;
    out[3][i] = mp[i] - out[0][i] * mr[i] - out[1][i] * mg[i] - out[2][i] * mb[i];
  }
  return out.map(mean);
}

/** Mean over a square of 2 · radius + 1 pixels a side, less of it where it reaches beyond the picture. */
function boxMean(data: Float32Array, w: number, h: number, radius: number): Float32Array {
  const across = new Float32Array(w * h);
  for (let j = 0; j < h; j++) {
    let sum = 0;
    const row = j * w;
    for (let i = 0; i < Math.min(radius, w); i++) sum += data[row + i];
    for (let i = 0; i < w; i++) {
      if (i + radius < w) sum += data[row + i + radius];
      if (i - radius > 0) sum -= data[row + i - radius - 1];
      across[row + i] = sum / (Math.min(w - 1, i + radius) - Math.max(0, i - radius) + 1);
    }
  }
  const out = new Float32Array(w * h);
  const sums = new Float64Array(w);
  for (let j = 0; j < Math.min(radius, h); j++) for (let i = 0; i < w; i++) sums[i] += across[j * w + i];
  for (let j = 0; j < h; j++) {
    const into = j + radius < h ? (j + radius) * w : -1;
    const from = j - radius > 0 ? (j - radius - 1) * w : -1;
    const count = Math.min(h - 1, j + radius) - Math.max(0, j - radius) + 1;
    for (let i = 0; i < w; i++) {
      if (into >= 0) sums[i] += across[into + i];
      if (from >= 0) sums[i] -= across[from + i];
      out[j * w + i] = sums[i] / count;
    }
  }
  return out;
}
