// Twin of core/colour/pigment.ts, in rows of twelve bands of which ten count. `pigment` holds the spectra of white,
// cyan, magenta, yellow, red, green and blue, what red, green and blue have of each band, and room to reckon in.
const ROW: usize = 48;
const RESPONSE: usize = 7 * ROW;
// Ratios and rest of the paint and of what lies below, and the paint that they are of.
const PAINT: usize = 10 * ROW;
const PAINT_REST: usize = 11 * ROW;
const PAINT_LAST: usize = 11 * ROW + 16;
const UNDER: usize = 12 * ROW;
const UNDER_REST: usize = 13 * ROW;
const LEAST: f32 = 0.03;

@inline function band(white: v128, both: v128, one: v128, pigment: usize, pair: usize, single: usize, k: usize): v128 {
  const sum = f32x4.add(
    f32x4.add(f32x4.mul(v128.load(pigment + k), white), f32x4.mul(v128.load(pigment + pair + k), both)),
    f32x4.mul(v128.load(pigment + single + k), one),
  );
  return f32x4.min(f32x4.max(sum, f32x4.splat(LEAST)), f32x4.splat(1));
}

@inline function sum(value: v128): f32 {
  const two = f32x4.add(value, v128.shuffle<f32>(value, value, 2, 3, 0, 1));
  return f32x4.extract_lane(two, 0) + f32x4.extract_lane(two, 1);
}

@inline function colourOf(pigment: usize, a: v128, b: v128, c: v128): v128 {
  const q = pigment + RESPONSE;
  const red = f32x4.add(f32x4.add(f32x4.mul(a, v128.load(q)), f32x4.mul(b, v128.load(q, 16))), f32x4.mul(c, v128.load(q, 32)));
  const green = f32x4.add(f32x4.add(f32x4.mul(a, v128.load(q, 48)), f32x4.mul(b, v128.load(q, 64))), f32x4.mul(c, v128.load(q, 80)));
  const blue = f32x4.add(f32x4.add(f32x4.mul(a, v128.load(q, 96)), f32x4.mul(b, v128.load(q, 112))), f32x4.mul(c, v128.load(q, 128)));
  return f32x4(sum(red), sum(green), sum(blue), 0);
}

@inline function ratio(r: v128): v128 {
  const less = f32x4.sub(f32x4.splat(1), r);
  return f32x4.div(f32x4.mul(less, less), f32x4.add(r, r));
}

// Writes the ratios of a colour and what it has beyond its spectrum.
function absorb(pigment: usize, colour: v128, ratios: usize, rest: usize): void {
  const r = f32x4.extract_lane(colour, 0);
  const g = f32x4.extract_lane(colour, 1);
  const b = f32x4.extract_lane(colour, 2);
  const white = min(min(r, g), b);
  let pair: usize = ROW;
  let single: usize = 6 * ROW;
  let both: f32;
  let one: f32;
  if (white == r) {
    both = min(g, b) - r;
    one = abs(b - g);
    single = g <= b ? 6 * ROW : 5 * ROW;
  } else if (white == g) {
    pair = 2 * ROW;
    both = min(r, b) - g;
    one = abs(b - r);
    single = r <= b ? 6 * ROW : 4 * ROW;
  } else {
    pair = 3 * ROW;
    both = min(r, g) - b;
    one = abs(g - r);
    single = r <= g ? 5 * ROW : 4 * ROW;
  }
  const w = f32x4.splat(white);
  const two = f32x4.splat(both);
  const own = f32x4.splat(one);
  const first = band(w, two, own, pigment, pair, single, 0);
  const second = band(w, two, own, pigment, pair, single, 16);
  const third = band(w, two, own, pigment, pair, single, 32);
  v128.store(pigment + rest, f32x4.sub(f32x4.replace_lane(colour, 3, 0), colourOf(pigment, first, second, third)));
  v128.store(pigment + ratios, ratio(first));
  v128.store(pigment + ratios, ratio(second), 16);
  v128.store(pigment + ratios, ratio(third), 32);
}

// Of what lies below, until the next.
@inline export function absorbUnder(pigment: usize, colour: v128): void { absorb(pigment, colour, UNDER, UNDER_REST); }

@inline function mix(pigment: usize, k: usize, share: v128, less: v128): v128 {
  const q = f32x4.add(f32x4.mul(v128.load(pigment + UNDER + k), less), f32x4.mul(v128.load(pigment + PAINT + k), share));
  const root = f32x4.sqrt(f32x4.mul(q, f32x4.add(q, f32x4.splat(2))));
  return f32x4.div(f32x4.splat(1), f32x4.add(f32x4.add(q, f32x4.splat(1)), root));
}

// So much of the paint, 0–1, in what was absorbed last.
export function mixed(pigment: usize, paint: v128, part: f32): v128 {
  if (v128.any_true(v128.xor(v128.load(pigment + PAINT_LAST), paint))) {
    absorb(pigment, paint, PAINT, PAINT_REST);
    v128.store(pigment + PAINT_LAST, paint);
  }
  const share = f32x4.splat(part);
  const less = f32x4.splat(1 - part);
  const light = colourOf(pigment, mix(pigment, 0, share, less), mix(pigment, 16, share, less), mix(pigment, 32, share, less));
  const rest = f32x4.add(f32x4.mul(v128.load(pigment + UNDER_REST), less), f32x4.mul(v128.load(pigment + PAINT_REST), share));
  return f32x4.min(f32x4.max(f32x4.add(light, rest), f32x4.splat(0)), f32x4.splat(1));
}
