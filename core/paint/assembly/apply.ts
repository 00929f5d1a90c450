import { absorbUnder, mixed } from './pigment';
import { FULL, putTexel, texel } from './texel';

// How much darker a rim that pools in full is.
const POOLED: f32 = 0.75;
// What is rim of one dab gives way to what is inner of another, though both cover in full.
const RIM_YIELDS: f32 = 0.004;
const LOCKED = 1;
const ERASES = 2;

// Lays what a dab covers onto the stroke's own layer, and the layer over what was there. `was` is 0 where nothing was,
// `rim`, `own` and `pigment` where they don't count.
export function apply(
  count: i32, texels: usize, index: usize, amount: usize, rim: usize, own: usize, layer: usize, words: usize, was: usize, pigment: usize,
  colour: usize, pooling: f32, flow: f32, even: bool, opacity: f32, mode: i32,
): void {
  let paint = v128.load(colour);
  const whole = opacity * FULL;
  let absorbed: u64 = 0;
  for (let i: usize = 0, end = <usize>count; i < end; i++) {
    let alpha = load<f32>(amount + (i << 2)) * flow;
    let shade: f32 = 1;
    if (rim) {
      const edge = load<f32>(rim + (i << 2));
      shade -= POOLED * pooling * edge;
      alpha *= 1 - RIM_YIELDS * edge;
    }
    const at = <usize>load<u16>(texels + (<usize>load<u32>(index + (i << 2)) << 1));
    const on = layer + (at << 4);
    let laid = v128.load(on);
    if (alpha <= (even ? f32x4.extract_lane(laid, 3) : 0)) continue;
    if (own) paint = f32x4.replace_lane(v128.load(own + i * 12), 3, 1);
    const by = f32x4.replace_lane(f32x4.splat(alpha * shade), 3, alpha);
    laid = f32x4.add(f32x4.mul(laid, f32x4.splat(even ? 0 : 1 - alpha)), f32x4.mul(paint, by));
    v128.store(on, laid);
    const to = words + (at << 3);
    if (!was) {
      putTexel(to, f32x4.mul(laid, f32x4.splat(whole)));
      continue;
    }
    const old = texel(was + (at << 3));
    const cover = f32x4.extract_lane(laid, 3);
    const under = f32x4.splat(1 - cover * opacity);
    if (mode == ERASES) {
      putTexel(to, f32x4.mul(old, under));
      continue;
    }
    const base = f32x4.extract_lane(old, 3);
    let out = f32x4.add(f32x4.mul(old, under), f32x4.mul(laid, f32x4.splat(mode == LOCKED ? opacity * base : whole)));
    if (mode == LOCKED) out = f32x4.replace_lane(out, 3, base);
    if (pigment && base > 0 && cover > 0) {
      // Neighbours often have one colour.
      const raw = load<u64>(was + (at << 3));
      if (raw != absorbed) {
        absorbUnder(pigment, f32x4.div(old, f32x4.splat(base)));
        absorbed = raw;
      }
      const part = cover * opacity;
      const share = mode == LOCKED ? part : (part * FULL) / (part * FULL + base * (1 - part));
      const light = mixed(pigment, f32x4.replace_lane(f32x4.div(laid, f32x4.splat(cover)), 3, 0), share);
      const covers = f32x4.extract_lane(out, 3);
      out = f32x4.replace_lane(f32x4.mul(light, f32x4.splat(covers)), 3, covers);
    }
    putTexel(to, out);
  }
}
