// Twin of core/colour/blend.ts: modes by their place in BLEND_MODES, colours as displayed.

@inline function hardLight(b: f32, s: f32): f32 { return s <= 0.5 ? b * 2 * s : b + (2 * s - 1) - b * (2 * s - 1); }

@inline function ofOne(mode: i32, b: f32, s: f32): f32 {
  switch (mode) {
    case 1: return b * s;
    case 2: return b + s - b * s;
    case 3: return hardLight(s, b);
    case 4: return min(b, s);
    case 5: return max(b, s);
    case 6: return b == 0 ? 0 : s >= 1 ? 1 : min<f32>(1, b / (1 - s));
    case 7: return b >= 1 ? 1 : s <= 0 ? 0 : 1 - min<f32>(1, (1 - b) / s);
    case 8: return hardLight(b, s);
    case 9: {
      if (s <= 0.5) return b - (1 - 2 * s) * b * (1 - b);
      const d: f32 = b <= 0.25 ? ((16 * b - 12) * b + 4) * b : sqrt(b);
      return b + (2 * s - 1) * (d - b);
    }
    case 10: return abs(b - s);
    case 11: return b + s - 2 * b * s;
    default: return s;
  }
}

@inline function lum(c: v128): f32 { return 0.3 * f32x4.extract_lane(c, 0) + 0.59 * f32x4.extract_lane(c, 1) + 0.11 * f32x4.extract_lane(c, 2); }
@inline function least(c: v128): f32 { return min(min(f32x4.extract_lane(c, 0), f32x4.extract_lane(c, 1)), f32x4.extract_lane(c, 2)); }
@inline function most(c: v128): f32 { return max(max(f32x4.extract_lane(c, 0), f32x4.extract_lane(c, 1)), f32x4.extract_lane(c, 2)); }

function withLum(c: v128, l: f32): v128 {
  const moved = f32x4.add(c, f32x4.splat(l - lum(c)));
  const low = least(moved);
  const high = most(moved);
  const grey = f32x4.splat(l);
  let out = moved;
  if (low < 0) out = f32x4.add(grey, f32x4.mul(f32x4.sub(out, grey), f32x4.splat(l / (l - low))));
  if (high > 1) out = f32x4.add(grey, f32x4.mul(f32x4.sub(out, grey), f32x4.splat((1 - l) / (high - l))));
  return out;
}

function withSat(c: v128, s: f32): v128 {
  const low = least(c);
  const high = most(c);
  return high > low ? f32x4.mul(f32x4.sub(c, f32x4.splat(low)), f32x4.splat(s / (high - low))) : f32x4.splat(0);
}

export function blended(mode: i32, below: v128, above: v128): v128 {
  switch (mode) {
    case 12: return withLum(withSat(above, most(below) - least(below)), lum(below));
    case 13: return withLum(withSat(below, most(above) - least(above)), lum(below));
    case 14: return withLum(above, lum(below));
    case 15: return withLum(below, lum(above));
    default: return f32x4(
      ofOne(mode, f32x4.extract_lane(below, 0), f32x4.extract_lane(above, 0)),
      ofOne(mode, f32x4.extract_lane(below, 1), f32x4.extract_lane(above, 1)),
      ofOne(mode, f32x4.extract_lane(below, 2), f32x4.extract_lane(above, 2)),
      0,
    );
  }
}
