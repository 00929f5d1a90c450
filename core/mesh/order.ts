/**
 * An order in which vertices near in space are near in memory: along a Morton (Z-order) curve.
 * Source: G. M. Morton, "A computer oriented geodetic data base", IBM, 1966. O(n).
 */

/** Vertex numbers along the curve; ties keep their order. */
export function mortonOrder(positions: Float32Array): Uint32Array {
  const count = positions.length / 3;
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < positions.length; i++) {
    const axis = i % 3;
    const x = positions[i];
    if (x < low[axis]) low[axis] = x;
    if (x > high[axis]) high[axis] = x;
  }
  const span = Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2], 1e-20);
  const scale = 1023 / span;
  const codes = new Uint32Array(count);
  for (let i = 0; i < count; i++) {
    codes[i] =
      spread((positions[i * 3] - low[0]) * scale) |
      (spread((positions[i * 3 + 1] - low[1]) * scale) << 1) |
      (spread((positions[i * 3 + 2] - low[2]) * scale) << 2);
  }
  return radixOrder(codes, 30);
}

/** Stable order of small unsigned keys, least digit first. */
export function radixOrder(keys: Uint32Array, bits: number): Uint32Array {
  let order = new Uint32Array(keys.length);
  for (let i = 0; i < order.length; i++) order[i] = i;
  let next = new Uint32Array(keys.length);
  const digit = 11;
  const counts = new Uint32Array(1 << digit);
  for (let shift = 0; shift < bits; shift += digit) {
    counts.fill(0);
    for (let i = 0; i < keys.length; i++) counts[(keys[i] >>> shift) & 2047]++;
    for (let sum = 0, d = 0; d < counts.length; d++) {
      const c = counts[d];
      counts[d] = sum;
      sum += c;
    }
    for (let i = 0; i < order.length; i++) {
      const v = order[i];
      next[counts[(keys[v] >>> shift) & 2047]++] = v;
    }
    [order, next] = [next, order];
  }
  return order;
}

/** Puts two zero bits between the ten bits of x. */
function spread(x: number): number {
  let v = x & 1023;
  v = (v | (v << 16)) & 0x030000ff;
  v = (v | (v << 8)) & 0x0300f00f;
  v = (v | (v << 4)) & 0x030c30c3;
  return (v | (v << 2)) & 0x09249249;
}
