import { absorbUnder, mixed } from './pigment';
import { putTexel, texel } from './texel';

@inline function cellAt(u: f32, v: f32, side: i32): usize {
  const x = <i32>((u + 1) * 0.5 * <f32>side);
  const y = <i32>((v + 1) * 0.5 * <f32>side);
  return <usize>(max(0, min(side - 1, y)) * side + max(0, min(side - 1, x)));
}

// Adds what lies under a dab to its cells, and how many texels each has of it. `words` is 0 where all is clear.
export function takeUp(count: i32, texels: usize, index: usize, us: usize, vs: usize, words: usize, side: i32, taken: usize, weights: usize): void {
  for (let i: usize = 0, end = <usize>count; i < end; i++) {
    const cell = cellAt(load<f32>(us + (i << 2)), load<f32>(vs + (i << 2)), side);
    const weight = weights + (cell << 2);
    store<f32>(weight, load<f32>(weight) + 1);
    if (!words) continue;
    const at = <usize>load<u16>(texels + (<usize>load<u32>(index + (i << 2)) << 1));
    const to = taken + (cell << 4);
    v128.store(to, f32x4.add(v128.load(to), texel(words + (at << 3))));
  }
}

// Makes means of what was taken up, with as much of what was carried as is kept. `before` is 0 at the first dab.
export function settle(cells: i32, taken: usize, weights: usize, before: usize, kept: f32): void {
  const fresh = f32x4.splat(1 - kept);
  const keeps = f32x4.splat(kept);
  for (let i: usize = 0, end = <usize>cells; i < end; i++) {
    const at = taken + (i << 4);
    const weight = load<f32>(weights + (i << 2));
    const was = before ? v128.load(before + (i << 4)) : f32x4.splat(0);
    if (weight > 0) v128.store(at, f32x4.add(f32x4.mul(was, keeps), f32x4.mul(f32x4.mul(v128.load(at), f32x4.splat(1 / weight)), fresh)));
    else v128.store(at, was);
  }
}

// Lays down what is carried.
export function smear(count: i32, texels: usize, index: usize, us: usize, vs: usize, amount: usize, strength: f32, side: i32, cells: usize, words: usize, locked: bool, pigment: usize): void {
  const last = <f32>(side - 1);
  const row = <usize>side << 4;
  for (let i: usize = 0, end = <usize>count; i < end; i++) {
    const share = load<f32>(amount + (i << 2)) * strength;
    if (!(share > 0)) continue;
    const to = words + (<usize>load<u16>(texels + (<usize>load<u32>(index + (i << 2)) << 1)) << 3);
    const x = max<f32>(0, min<f32>(last, (load<f32>(us + (i << 2)) + 1) * 0.5 * <f32>side - 0.5));
    const y = max<f32>(0, min<f32>(last, (load<f32>(vs + (i << 2)) + 1) * 0.5 * <f32>side - 0.5));
    const column = floor(x);
    const line = floor(y);
    const one = cells + <usize>line * row + (<usize>column << 4);
    const right: usize = column < last ? 16 : 0;
    const down = line < last ? row : 0;
    const fx = f32x4.splat(x - column);
    const upper = v128.load(one);
    const lower = v128.load(one + down);
    const top = f32x4.add(upper, f32x4.mul(f32x4.sub(v128.load(one + right), upper), fx));
    const bottom = f32x4.add(lower, f32x4.mul(f32x4.sub(v128.load(one + down + right), lower), fx));
    const carried = f32x4.add(top, f32x4.mul(f32x4.sub(bottom, top), f32x4.splat(y - line)));
    const old = texel(to);
    const base = f32x4.extract_lane(old, 3);
    const a = f32x4.extract_lane(carried, 3);
    const alpha = locked ? base : base + (a - base) * share;
    if (pigment && base > 0 && a > 0 && alpha > 0) {
      absorbUnder(pigment, f32x4.div(old, f32x4.splat(base)));
      const weight = (a * share) / (a * share + base * (1 - share));
      const light = mixed(pigment, f32x4.replace_lane(f32x4.div(carried, f32x4.splat(a)), 3, 0), weight);
      putTexel(to, f32x4.replace_lane(f32x4.mul(light, f32x4.splat(alpha)), 3, alpha));
      continue;
    }
    // What is clear has no colour to give.
    if (locked && a == 0) continue;
    const from = locked ? f32x4.mul(carried, f32x4.splat(base / a)) : carried;
    const out = f32x4.add(old, f32x4.mul(f32x4.sub(from, old), f32x4.splat(share)));
    putTexel(to, f32x4.replace_lane(out, 3, alpha));
  }
}
