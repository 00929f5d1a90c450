// Twin of core/colour/pigment.ts, in rows of twelve bands of which ten count. `pigment` holds the spectra of white,
// cyan, magenta, yellow, red, green and blue, what red, green and blue have of each band, and room to reckon in.
const ROW: usize = 48;
const RESPONSE: usize = 7 * ROW;
// Ratios and linear part of the paint and of what lies below, and the paint that they are of.
const PAINT: usize = 10 * ROW;
const PAINT_LINEAR: usize = 11 * ROW;
const PAINT_LAST: usize = 11 * ROW + 16;
const UNDER: usize = 12 * ROW;
const UNDER_LINEAR: usize = 13 * ROW;
const LEAST: f32 = 0.03;

@inline function band(white: v128, both: v128, one: v128, pigment: usize, pair: usize, single: usize, k: usize): v128 {
  const sum = f32x4.add(
    f32x4.add(f32x4.mul(v128.load(pigment + k), white), f32x4.mul(v128.load(pigment + pair + k), both)),
    f32x4.mul(v128.load(pigment + single + k), one),
  );
  return f32x4.min(f32x4.max(sum, f32x4.splat(LEAST)), f32x4.splat(1));
}

// What the lanes of each come to, in lanes of one.
@inline function sums(red: v128, green: v128, blue: v128): v128 {
  const none = f32x4.splat(0);
  const rg = f32x4.add(v128.shuffle<f32>(red, green, 0, 4, 1, 5), v128.shuffle<f32>(red, green, 2, 6, 3, 7));
  const b = f32x4.add(v128.shuffle<f32>(blue, none, 0, 4, 1, 5), v128.shuffle<f32>(blue, none, 2, 6, 3, 7));
  return f32x4.add(v128.shuffle<f32>(rg, b, 0, 1, 4, 5), v128.shuffle<f32>(rg, b, 2, 3, 6, 7));
}

@inline function colourOf(pigment: usize, a: v128, b: v128, c: v128): v128 {
  const q = pigment + RESPONSE;
  const red = f32x4.add(f32x4.add(f32x4.mul(a, v128.load(q)), f32x4.mul(b, v128.load(q, 16))), f32x4.mul(c, v128.load(q, 32)));
  const green = f32x4.add(f32x4.add(f32x4.mul(a, v128.load(q, 48)), f32x4.mul(b, v128.load(q, 64))), f32x4.mul(c, v128.load(q, 80)));
  const blue = f32x4.add(f32x4.add(f32x4.mul(a, v128.load(q, 96)), f32x4.mul(b, v128.load(q, 112))), f32x4.mul(c, v128.load(q, 128)));
  return sums(red, green, blue);
}

@inline function ratio(r: v128): v128 {
  const less = f32x4.sub(f32x4.splat(1), r);
  return f32x4.div(f32x4.mul(less, less), f32x4.add(r, r));
}

// One band's part of what doesn't change with the root.
@inline function plain(ratio: v128, r: v128): v128 { return f32x4.sub(f32x4.add(ratio, f32x4.splat(1)), r); }

// Writes the ratios of a colour, and its light without the roots: a band is 1 + q - sqrt(q * (q + 2)), of which the first
// two terms mix as they are, as does what a colour has beyond its spectrum.
function absorb(pigment: usize, colour: v128, ratios: usize, linear: usize): void {
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
  const p = ratio(first);
  const q = ratio(second);
  const s = ratio(third);
  const beyond = colourOf(pigment, plain(p, first), plain(q, second), plain(s, third));
  v128.store(pigment + linear, f32x4.add(f32x4.replace_lane(colour, 3, 0), beyond));
  v128.store(pigment + ratios, p);
  v128.store(pigment + ratios, q, 16);
  v128.store(pigment + ratios, s, 32);
}

// Of what lies below, until the next.
@inline export function absorbUnder(pigment: usize, colour: v128): void { absorb(pigment, colour, UNDER, UNDER_LINEAR); }

@inline function root(pigment: usize, k: usize, share: v128, less: v128): v128 {
  const q = f32x4.add(f32x4.mul(v128.load(pigment + UNDER + k), less), f32x4.mul(v128.load(pigment + PAINT + k), share));
  return f32x4.sqrt(f32x4.mul(q, f32x4.add(q, f32x4.splat(2))));
}

// So much of the paint, 0–1, in what was absorbed last.
export function mixed(pigment: usize, colour: v128, part: f32): v128 {
  // As fine as a texel holds it: what was laid in many dabs is off by a rounding from texel to texel.
  const paint = f32x4.mul(f32x4.nearest(f32x4.mul(colour, f32x4.splat(65536))), f32x4.splat(1 / 65536.0));
  if (v128.any_true(v128.xor(v128.load(pigment + PAINT_LAST), paint))) {
    absorb(pigment, paint, PAINT, PAINT_LINEAR);
    v128.store(pigment + PAINT_LAST, paint);
  }
  const share = f32x4.splat(part);
  const less = f32x4.splat(1 - part);
  const roots = colourOf(pigment, root(pigment, 0, share, less), root(pigment, 16, share, less), root(pigment, 32, share, less));
  const linear = f32x4.add(f32x4.mul(v128.load(pigment + UNDER_LINEAR), less), f32x4.mul(v128.load(pigment + PAINT_LINEAR), share));
  return f32x4.min(f32x4.max(f32x4.sub(linear, roots), f32x4.splat(0)), f32x4.splat(1));
}
