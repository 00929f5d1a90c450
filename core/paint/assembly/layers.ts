import { blended } from './blend';
import { alphas, asWords, FULL, putTexel, texel } from './texel';

const TEXELS: usize = 4096;

// Normal layers without masks, one after the other from the lowest, over nothing; the words of each at `words`, what each
// is multiplied by at `shares`. As floats at `out`, or as a tile holds it at `to` where that isn't 0.
export function overAll(out: usize, to: usize, words: usize, shares: usize, count: usize): void {
  const one = f32x4.splat(1);
  const end = count << 2;
  const full = f32x4.splat(FULL);
  // Four texels at once: one alone would wait for itself from layer to layer.
  for (let i: usize = 0; i < TEXELS; i += 4) {
    let first = f32x4.splat(0);
    let second = f32x4.splat(0);
    let third = f32x4.splat(0);
    let fourth = f32x4.splat(0);
    let from = words + (i << 3);
    for (let k: usize = 0; k < end; k += 4) {
      const two = v128.load(from);
      const more = v128.load(from, 16);
      const share = v128.load32_splat(shares + k);
      const a = f32x4.mul(f32x4.convert_i32x4_s(i32x4.extend_low_i16x8_u(two)), share);
      const b = f32x4.mul(f32x4.convert_i32x4_s(i32x4.extend_high_i16x8_u(two)), share);
      const c = f32x4.mul(f32x4.convert_i32x4_s(i32x4.extend_low_i16x8_u(more)), share);
      const d = f32x4.mul(f32x4.convert_i32x4_s(i32x4.extend_high_i16x8_u(more)), share);
      first = f32x4.add(f32x4.mul(first, f32x4.sub(one, alphas(a))), a);
      second = f32x4.add(f32x4.mul(second, f32x4.sub(one, alphas(b))), b);
      third = f32x4.add(f32x4.mul(third, f32x4.sub(one, alphas(c))), c);
      fourth = f32x4.add(f32x4.mul(fourth, f32x4.sub(one, alphas(d))), d);
      from += TEXELS << 3;
    }
    if (to) {
      v128.store(to + (i << 3), asWords(f32x4.mul(first, full), f32x4.mul(second, full)));
      v128.store(to + (i << 3), asWords(f32x4.mul(third, full), f32x4.mul(fourth, full)), 16);
      continue;
    }
    v128.store(out + (i << 4), first);
    v128.store(out + (i << 4), second, 16);
    v128.store(out + (i << 4), third, 32);
    v128.store(out + (i << 4), fourth, 48);
  }
}

// One layer of a tile over what lies below. `hidden` is its mask and `base` what the last unclipped layer covers, 0 where
// there is none; `shown` and `light` are the tables between light and what is displayed, in `shownSteps` and
// `lightSteps` steps.
export function over(
  out: usize, words: usize, hidden: usize, base: usize, opacity: f32, clipped: bool, mode: i32,
  shown: usize, shownSteps: f32, light: usize, lightSteps: f32,
): void {
  const by = opacity / FULL;
  for (let i: usize = 0; i < TEXELS; i++) {
    let share = by;
    if (hidden) share *= 1 - <f32>load<u16>(hidden + (i << 3), 6) / FULL;
    if (clipped && base) share *= load<f32>(base + (i << 2));
    const above = texel(words + (i << 3));
    const alpha = f32x4.extract_lane(above, 3) * share;
    if (base && !clipped) store<f32>(base + (i << 2), alpha);
    if (alpha == 0) continue;
    const to = out + (i << 4);
    const below = v128.load(to);
    const under = f32x4.extract_lane(below, 3);
    if (mode == 0 || under == 0) {
      v128.store(to, f32x4.add(f32x4.mul(below, f32x4.splat(1 - alpha)), f32x4.mul(above, f32x4.splat(share))));
      continue;
    }
    const b = displayed(f32x4.div(below, f32x4.splat(under)), shown, shownSteps);
    const s = displayed(f32x4.div(above, alphas(above)), shown, shownSteps);
    const mixed = blended(mode, b, s);
    const whole = alpha + under * (1 - alpha);
    // W3C: αs·((1 − αb)·Cs + αb·B) + (1 − αs)·αb·Cb, of displayed colours.
    const source = f32x4.add(f32x4.mul(s, f32x4.splat(1 - under)), f32x4.mul(mixed, f32x4.splat(under)));
    const colour = f32x4.div(f32x4.add(f32x4.mul(source, f32x4.splat(alpha)), f32x4.mul(b, f32x4.splat((1 - alpha) * under))), f32x4.splat(whole));
    v128.store(to, f32x4.replace_lane(f32x4.mul(displayed(colour, light, lightSteps), f32x4.splat(whole)), 3, whole));
  }
}

@inline function between(table: usize, step: f32, whole: i32): f32 {
  const at = table + (<usize>whole << 2);
  const low = load<f32>(at);
  return low + (load<f32>(at, 4) - low) * (step - <f32>whole);
}

// Each of three values, 0–1, through a table.
@inline function displayed(value: v128, table: usize, steps: f32): v128 {
  const step = f32x4.mul(f32x4.min(f32x4.max(value, f32x4.splat(0)), f32x4.splat(1)), f32x4.splat(steps));
  const whole = i32x4.trunc_sat_f32x4_s(step);
  return f32x4(
    between(table, f32x4.extract_lane(step, 0), i32x4.extract_lane(whole, 0)),
    between(table, f32x4.extract_lane(step, 1), i32x4.extract_lane(whole, 1)),
    between(table, f32x4.extract_lane(step, 2), i32x4.extract_lane(whole, 2)),
    0,
  );
}

export function toWords(out: usize, words: usize): void {
  const full = f32x4.splat(FULL);
  for (let i: usize = 0; i < TEXELS; i++) putTexel(words + (i << 3), f32x4.mul(v128.load(out + (i << 4)), full));
}

// `shown` has the displayed byte of each step of light.
export function toBytes(out: usize, bytes: usize, shown: usize, steps: f32): void {
  for (let i: usize = 0; i < TEXELS; i++) {
    const value = v128.load(out + (i << 4));
    const alpha = f32x4.extract_lane(value, 3);
    const to = bytes + (i << 2);
    if (alpha == 0) {
      store<u32>(to, 0);
      continue;
    }
    const step = i32x4.trunc_sat_f32x4_s(f32x4.add(f32x4.mul(f32x4.min(value, f32x4.splat(1)), f32x4.splat(steps)), f32x4.splat(0.5)));
    store<u8>(to, load<u8>(shown + <usize>i32x4.extract_lane(step, 0)));
    store<u8>(to, load<u8>(shown + <usize>i32x4.extract_lane(step, 1)), 1);
    store<u8>(to, load<u8>(shown + <usize>i32x4.extract_lane(step, 2)), 2);
    store<u8>(to, <u8>(alpha * 255 + 0.5), 3);
  }
}
