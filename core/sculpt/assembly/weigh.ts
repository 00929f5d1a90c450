// Twin of core/sculpt/plain/weigh.ts; four vertices at a time.
import { amountOf, maskOf, touchedOf, uOf, vOf } from './surface';

const STEPS: f32 = 4096;

@inline function firsts(a: v128, b: v128, c: v128, d: v128): v128 {
  return v128.shuffle<f32>(v128.shuffle<f32>(a, b, 0, 4, 0, 4), v128.shuffle<f32>(c, d, 0, 4, 0, 4), 0, 1, 4, 5);
}

@inline function seconds(a: v128, b: v128, c: v128, d: v128): v128 {
  return v128.shuffle<f32>(v128.shuffle<f32>(a, b, 1, 5, 1, 5), v128.shuffle<f32>(c, d, 1, 5, 1, 5), 0, 1, 4, 5);
}

// Linear between the float at each index and the one behind it.
@inline function read(base: usize, at: v128, share: v128): v128 {
  const a = v128.load64_zero(base + (<usize>i32x4.extract_lane(at, 0) << 2));
  const b = v128.load64_zero(base + (<usize>i32x4.extract_lane(at, 1) << 2));
  const c = v128.load64_zero(base + (<usize>i32x4.extract_lane(at, 2) << 2));
  const d = v128.load64_zero(base + (<usize>i32x4.extract_lane(at, 3) << 2));
  const first = firsts(a, b, c, d);
  return f32x4.add(first, f32x4.mul(f32x4.sub(seconds(a, b, c, d), first), share));
}

@inline function maskOfFour(mask: usize, ids: usize): v128 {
  let out = v128.load32_zero(mask + (<usize>load<u32>(ids) << 2));
  out = v128.load32_lane(mask + (<usize>load<u32>(ids, 4) << 2), out, 1);
  out = v128.load32_lane(mask + (<usize>load<u32>(ids, 8) << 2), out, 2);
  return v128.load32_lane(mask + (<usize>load<u32>(ids, 12) << 2), out, 3);
}

/** `picture` 0 stands for a form of 1 everywhere. Lists have room for three more than `count`. */
export function weigh(s: usize, count: u32, table: usize, square: bool, picture: usize, width: i32, height: i32, fit: f64, ground: f64, masked: bool): void {
  const touched = touchedOf(s);
  const us = uOf(s);
  const vs = vOf(s);
  const mask = maskOf(s);
  const out = amountOf(s);
  const end = <usize>count << 2;
  for (let at = end; at & 12; at += 4) {
    store<u32>(touched + at, 0);
    store<f32>(us + at, 0);
    store<f32>(vs + at, 0);
  }
  const one = f32x4.splat(1);
  const half = f32x4.splat(0.5);
  const zero = f32x4.splat(0);
  const fits = f32x4.splat(<f32>fit);
  const grounds = f32x4.splat(<f32>ground);
  const wide = f32x4.splat(<f32>width);
  const high = f32x4.splat(<f32>height);
  const right = f32x4.splat(<f32>(width - 1));
  const bottom = f32x4.splat(<f32>(height - 1));
  const lastRow = i32x4.splat(height - 1);
  const row = i32x4.splat(width);
  const steps = f32x4.splat(STEPS);
  for (let at: usize = 0; at < end; at += 16) {
    const u = v128.load(us + at);
    const v = v128.load(vs + at);
    const rho = square ? f32x4.max(f32x4.abs(u), f32x4.abs(v)) : f32x4.sqrt(f32x4.add(f32x4.mul(u, u), f32x4.mul(v, v)));
    const x = f32x4.mul(f32x4.min(rho, one), steps);
    const i = i32x4.trunc_sat_f32x4_s(x);
    let weight = read(table, i, f32x4.sub(x, f32x4.convert_i32x4_s(i)));
    if (picture != 0) {
      const px = f32x4.mul(u, fits);
      const py = f32x4.mul(v, fits);
      const inside = v128.and(f32x4.le(f32x4.abs(px), one), f32x4.le(f32x4.abs(py), one));
      const sx = f32x4.min(f32x4.max(f32x4.sub(f32x4.mul(f32x4.mul(f32x4.add(px, one), half), wide), half), zero), right);
      const sy = f32x4.min(f32x4.max(f32x4.sub(f32x4.mul(f32x4.mul(f32x4.sub(one, py), half), high), half), zero), bottom);
      const ix = i32x4.trunc_sat_f32x4_s(sx);
      const iy = i32x4.trunc_sat_f32x4_s(sy);
      const fx = f32x4.sub(sx, f32x4.convert_i32x4_s(ix));
      const fy = f32x4.sub(sy, f32x4.convert_i32x4_s(iy));
      const upper = i32x4.add(i32x4.mul(iy, row), ix);
      // On the last row there is none below; its share is 0.
      const lower = i32x4.add(upper, v128.and(row, i32x4.lt_s(iy, lastRow)));
      const top = read(picture, upper, fx);
      const h = f32x4.add(top, f32x4.mul(f32x4.sub(read(picture, lower, fx), top), fy));
      weight = v128.and(f32x4.mul(f32x4.sub(h, grounds), weight), inside);
    }
    if (masked) {
      const free = f32x4.sub(one, maskOfFour(mask, touched + at));
      weight = f32x4.mul(weight, free);
    }
    v128.store(out + at, weight);
  }
}
