/**
 * A mixture of Gaussians of colours to begin cutting with: clusters by k-means, their first middles chosen far apart by
 * chance (Arthur and Vassilvitskii, "k-means++", 2007). Seeded: the same colours give the same mixture.
 */
import { seeded } from '#core/random';

export const CLUSTERS = 5;
/** Colours that are looked at. */
const MOST = 6000;
const ROUNDS = 10;
/** Added to the variance of each plane, in bytes squared: no cluster is without any. */
const LEAST_VARIANCE = 1;

/** Of each cluster: 5 weights, then 5 middles of 3, then 5 covariances of 3 × 3. `chosen` are pixels of `rgb`. */
export function mixtureOf(rgb: Uint8Array, chosen: readonly number[]): Float64Array {
  const step = Math.max(1, chosen.length / MOST);
  const count = Math.min(MOST, chosen.length);
  const colours = new Float64Array(count * 3);
  for (let n = 0; n < count; n++)
    for (let k = 0; k < 3; k++) colours[n * 3 + k] = rgb[chosen[Math.floor(n * step)] * 3 + k];
  const of = clustered(colours, count);
  const out = new Float64Array(CLUSTERS * 13);
  const weights = out.subarray(0, CLUSTERS);
  const means = out.subarray(CLUSTERS, CLUSTERS * 4);
  const spreads = out.subarray(CLUSTERS * 4);
  for (let n = 0; n < count; n++) {
    weights[of[n]]++;
    for (let k = 0; k < 3; k++) means[of[n] * 3 + k] += colours[n * 3 + k];
  }
  for (let c = 0; c < CLUSTERS; c++) for (let k = 0; k < 3; k++) means[c * 3 + k] /= Math.max(1, weights[c]);
  for (let n = 0; n < count; n++) {
    const c = of[n];
    for (let a = 0; a < 3; a++)
      for (let b = 0; b < 3; b++)
        spreads[c * 9 + a * 3 + b] += (colours[n * 3 + a] - means[c * 3 + a]) * (colours[n * 3 + b] - means[c * 3 + b]);
  }
  for (let c = 0; c < CLUSTERS; c++) {
    for (let k = 0; k < 9; k++) spreads[c * 9 + k] /= Math.max(1, weights[c]);
    for (let k = 0; k < 3; k++) spreads[c * 9 + k * 4] += LEAST_VARIANCE;
    weights[c] /= count;
  }
  return out;
}

/** The cluster of each colour. */
function clustered(colours: Float64Array, count: number): Uint8Array {
  const middles = farApart(colours, count);
  const of = new Uint8Array(count);
  for (let round = 0; round < ROUNDS; round++) {
    const sums = new Float64Array(CLUSTERS * 4);
    for (let n = 0; n < count; n++) {
      let least = Infinity;
      for (let c = 0; c < CLUSTERS; c++) {
        const d = apart(colours, n, middles, c);
        if (d >= least) continue;
        least = d;
        of[n] = c;
      }
      for (let k = 0; k < 3; k++) sums[of[n] * 4 + k] += colours[n * 3 + k];
      sums[of[n] * 4 + 3]++;
    }
    for (let c = 0; c < CLUSTERS; c++)
      if (sums[c * 4 + 3] > 0) for (let k = 0; k < 3; k++) middles[c * 3 + k] = sums[c * 4 + k] / sums[c * 4 + 3];
  }
  return of;
}

function farApart(colours: Float64Array, count: number): Float64Array {
  const random = seeded(count, 17);
  const middles = new Float64Array(CLUSTERS * 3);
  const nearest = new Float64Array(count).fill(Infinity);
  let next = Math.floor(random() * count);
  for (let c = 0; c < CLUSTERS; c++) {
    for (let k = 0; k < 3; k++) middles[c * 3 + k] = colours[next * 3 + k];
    let whole = 0;
    for (let n = 0; n < count; n++) {
      nearest[n] = Math.min(nearest[n], apart(colours, n, middles, c));
      whole += nearest[n];
    }
    let rest = random() * whole;
    next = 0;
    while (next < count - 1 && rest > nearest[next]) rest -= nearest[next++];
  }
  return middles;
}

function apart(colours: Float64Array, n: number, middles: Float64Array, c: number): number {
  let sum = 0;
  for (let k = 0; k < 3; k++) sum += (colours[n * 3 + k] - middles[c * 3 + k]) ** 2;
  return sum;
}
