// A texel of a tile: red, green and blue in linear light times cover, and the cover, 16 bits each.
export const FULL: f32 = 65535;

@inline export function texel(at: usize): v128 { return f32x4.convert_i32x4_s(i32x4.extend_low_i16x8_u(v128.load64_zero(at))); }

// To the nearest whole number: added to 2²³ it is what the low bits hold.
@inline function whole(value: v128): v128 {
  return v128.and(f32x4.add(f32x4.pmin(f32x4.splat(FULL), value), f32x4.splat(8388608)), i32x4.splat(0xffff));
}

@inline export function asWords(a: v128, b: v128): v128 { return i16x8.narrow_i32x4_u(whole(a), whole(b)); }

@inline export function putTexel(at: usize, value: v128): void {
  store<u64>(at, <u64>i64x2.extract_lane(asWords(value, value), 0));
}

@inline export function alphas(value: v128): v128 { return v128.shuffle<f32>(value, value, 3, 3, 3, 3); }
