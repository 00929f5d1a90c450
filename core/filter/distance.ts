/**
 * Exact Euclidean distance of every pixel from a set (Felzenszwalb and Huttenlocher, "Distance transforms of sampled
 * functions", Theory of Computing 8, 2012). O(pixels).
 */
const FAR = 1e20;

/**
 * `seeds` holds squared distances to begin with: 0 inside the set, Infinity outside, or a fraction where its edge runs
 * through a pixel. Changed in place.
 */
export function distanceTransform(seeds: Float64Array, width: number, height: number): Float64Array {
  const longest = Math.max(width, height);
  const f = new Float64Array(longest);
  const v = new Int32Array(longest);
  const z = new Float64Array(longest + 1);
  for (let i = 0; i < seeds.length; i++) if (seeds[i] === Infinity) seeds[i] = FAR;
  for (let i = 0; i < width; i++) {
    for (let j = 0; j < height; j++) f[j] = seeds[j * width + i];
    line(f, v, z, height);
    let k = 0;
    for (let j = 0; j < height; j++) {
      while (z[k + 1] < j) k++;
      seeds[j * width + i] = (j - v[k]) ** 2 + f[v[k]];
    }
  }
  for (let j = 0; j < height; j++) {
    const at = j * width;
    for (let i = 0; i < width; i++) f[i] = seeds[at + i];
    line(f, v, z, width);
    let k = 0;
    for (let i = 0; i < width; i++) {
      while (z[k + 1] < i) k++;
      seeds[at + i] = (i - v[k]) ** 2 + f[v[k]];
    }
  }
  for (let i = 0; i < seeds.length; i++) seeds[i] = Math.sqrt(seeds[i]);
  return seeds;
}

/** Lower envelope of the parabolas rooted at the samples of `f`. */
function line(f: Float64Array, v: Int32Array, z: Float64Array, n: number): void {
  let k = 0;
  v[0] = 0;
  z[0] = -Infinity;
  z[1] = Infinity;
  for (let q = 1; q < n; q++) {
    let s: number;
    do {
      const p = v[k];
      s = (f[q] + q * q - f[p] - p * p) / (2 * q - 2 * p);
    } while (s <= z[k] && --k > -1);
    k++;
    v[k] = q;
    z[k] = s;
    z[k + 1] = Infinity;
  }
}

/**
 * Distance in pixels of every pixel from the pixels where `inside` is set; 0 on them. Infinite when none is set: FAR's
 * root.
 */
export function distanceFrom(inside: Uint8Array, width: number, height: number): Float64Array {
  const seeds = new Float64Array(inside.length);
  for (let i = 0; i < seeds.length; i++) seeds[i] = inside[i] ? 0 : Infinity;
  return distanceTransform(seeds, width, height);
}
