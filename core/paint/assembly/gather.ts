// What a dab covers. A tile's places lie one after the other: x, y and z of all, where each lies in the tile, the
// normals' x, y and z, and what the mask leaves.
//
// `f` holds the dab: its middle; along, across and up over the radius; then the square of the farthest, one over a
// texel's width, how far up and down it reaches, the normal for facing and what is taken off it.

@inline function at(f: usize, k: usize): v128 { return v128.load32_splat(f + (k << 2)); }

@inline function bytes(from: usize): v128 { return f32x4.convert_i32x4_s(i32x4.extend_low_i16x8_s(i16x8.extend_low_i8x16_s(v128.load32_zero(from)))); }
@inline function unsignedBytes(from: usize): v128 { return f32x4.convert_i32x4_s(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(from)))); }

@inline function along(dx: v128, dy: v128, dz: v128, f: usize, k: usize): v128 {
  return f32x4.add(f32x4.add(f32x4.mul(dx, at(f, k)), f32x4.mul(dy, at(f, k + 1))), f32x4.mul(dz, at(f, k + 2)));
}

// Answers how many are covered. `four` is room for four words of 16 bytes.
export function gather(count: i32, places: usize, f: usize, table: usize, steps: f32, square: bool, index: usize, us: usize, vs: usize, amount: usize, four: usize): i32 {
  const n = <usize>count;
  const x = places;
  const y = x + (n << 2);
  const z = y + (n << 2);
  const normals = z + (n << 2) + (n << 1);
  const free = normals + n * 3;
  const one = f32x4.splat(1);
  const none = f32x4.splat(0);
  const scale = f32x4.splat(steps);
  let found = 0;
  for (let i = 0; i < count; i += 4) {
    const from = <usize>i << 2;
    const dx = f32x4.sub(v128.load(x + from), at(f, 0));
    const dy = f32x4.sub(v128.load(y + from), at(f, 1));
    const dz = f32x4.sub(v128.load(z + from), at(f, 2));
    const u = along(dx, dy, dz, f, 3);
    const v = along(dx, dy, dz, f, 6);
    const far = f32x4.add(f32x4.mul(u, u), f32x4.mul(v, v));
    const w = along(dx, dy, dz, f, 9);
    let covered = v128.and(f32x4.le(far, at(f, 12)), f32x4.le(f32x4.abs(w), at(f, 14)));
    if (!v128.any_true(covered)) continue;
    const facing = f32x4.sub(along(bytes(normals + i), bytes(normals + n + i), bytes(normals + 2 * n + i), f, 15), at(f, 18));
    const rho = square ? f32x4.max(f32x4.abs(u), f32x4.abs(v)) : f32x4.sqrt(far);
    const rim = f32x4.add(f32x4.mul(f32x4.sub(one, rho), at(f, 13)), f32x4.splat(0.5));
    covered = v128.and(covered, v128.and(f32x4.gt(facing, none), f32x4.gt(rim, none)));
    let mask = i32x4.bitmask(covered);
    if (i + 4 > count) mask &= (1 << (count - i)) - 1;
    if (mask == 0) continue;
    const step = f32x4.mul(f32x4.min(rho, one), scale);
    const whole = i32x4.trunc_sat_f32x4_s(step);
    const k0 = table + (<usize>i32x4.extract_lane(whole, 0) << 2);
    const k1 = table + (<usize>i32x4.extract_lane(whole, 1) << 2);
    const k2 = table + (<usize>i32x4.extract_lane(whole, 2) << 2);
    const k3 = table + (<usize>i32x4.extract_lane(whole, 3) << 2);
    const low = f32x4(load<f32>(k0), load<f32>(k1), load<f32>(k2), load<f32>(k3));
    const high = f32x4(load<f32>(k0, 4), load<f32>(k1, 4), load<f32>(k2, 4), load<f32>(k3, 4));
    const falls = f32x4.add(low, f32x4.mul(f32x4.sub(high, low), f32x4.sub(step, f32x4.convert_i32x4_s(whole))));
    const left = f32x4.mul(unsignedBytes(free + i), f32x4.splat(1.0 / 255.0));
    const part = f32x4.mul(f32x4.mul(falls, f32x4.min(rim, one)), f32x4.mul(f32x4.min(facing, one), left));
    const to = <usize>found << 2;
    if (mask == 15) {
      v128.store(us + to, u);
      v128.store(vs + to, v);
      v128.store(amount + to, part);
      v128.store(index + to, i32x4.add(i32x4.splat(i), i32x4(0, 1, 2, 3)));
      found += 4;
      continue;
    }
    v128.store(four, u);
    v128.store(four, v, 16);
    v128.store(four, part, 32);
    for (let lane = 0; lane < 4; lane++) {
      if (!(mask & (1 << lane))) continue;
      const next = <usize>found << 2;
      const kept = four + (<usize>lane << 2);
      store<f32>(us + next, load<f32>(kept));
      store<f32>(vs + next, load<f32>(kept, 16));
      store<f32>(amount + next, load<f32>(kept, 32));
      store<u32>(index + next, <u32>(i + lane));
      found++;
    }
  }
  return found;
}

export function strongest(count: i32, amount: usize): f32 {
  let most: f32 = 0;
  for (let i = 0; i < count; i++) {
    const a = load<f32>(amount + (<usize>i << 2));
    if (a > most) most = a;
  }
  return most;
}
