/**
 * Colours mixed as paints are: what each takes up and scatters of the light adds up, wavelength by wavelength, so that
 * blue and yellow make green.
 *
 * Sources: P. Kubelka and F. Munk, "Ein Beitrag zur Optik der Farbanstriche", 1931 (an opaque layer: K/S from its
 * reflectance and back); B. Smits, "An RGB to spectrum conversion for reflectances", 1999 (reflectance of a colour in
 * ten bands from 380 to 720 nm); C. Wyman, P. Sloan, P. Shirley, "Simple analytic approximations to the CIE XYZ color
 * matching functions", 2013 (from the bands back to a colour). What a colour loses there and back is added again, so
 * that each colour alone is itself.
 */
import type { Linear } from './spaces';

const BANDS = 10;
const FIRST_NM = 380;
const BAND_NM = 34;
/** The surface of any paint throws back so much light before it goes in (J. Saunderson, 1942: about 4 %). */
const LEAST = 0.03;

const WHITE = [1, 1, 0.9999, 0.9993, 0.9992, 0.9998, 1, 1, 1, 1];
const CYAN = [0.971, 0.9426, 1.0007, 1.0007, 1.0007, 1.0007, 0.1564, 0, 0, 0];
const MAGENTA = [1, 1, 0.9685, 0.2229, 0, 0.0458, 0.8369, 1, 1, 0.9959];
const YELLOW = [0.0001, 0, 0.1088, 0.6651, 1, 1, 0.9996, 0.9586, 0.9685, 0.984];
const RED = [0.1012, 0.0515, 0, 0, 0, 0, 0.8325, 1.0149, 1.0149, 1.0149];
const GREEN = [0, 0, 0.0273, 0.7937, 1, 0.9418, 0.1719, 0, 0, 0.0025];
const BLUE = [1, 1, 0.8916, 0.3323, 0, 0, 0.0003, 0.0369, 0.0483, 0.0496];

/** Of a paint: what it takes up over what it scatters, band by band, and what its colour has beyond that. */
export interface Pigment {
  ratios: Float64Array;
  rest: Linear;
}

export function pigmentOf(colour: Linear): Pigment {
  const reflectance = new Float64Array(BANDS);
  const back = new Float64Array(3);
  fillSpectrum(...colour, reflectance);
  fillColour(reflectance, back);
  return {
    ratios: reflectance.map((r) => ((1 - r) * (1 - r)) / (2 * r)),
    rest: [colour[0] - back[0], colour[1] - back[1], colour[2] - back[2]],
  };
}

/** So much of the second in the first, 0–1; in linear light. */
export function mixedPigments(a: Pigment, b: Pigment, share: number): Linear {
  const reflectance = new Float64Array(BANDS);
  for (let i = 0; i < BANDS; i++) {
    const q = a.ratios[i] + (b.ratios[i] - a.ratios[i]) * share;
    reflectance[i] = 1 + q - Math.sqrt(q * q + 2 * q);
  }
  const mixed = new Float64Array(3);
  fillColour(reflectance, mixed);
  const out = (k: 0 | 1 | 2): number => {
    const c = mixed[k] + a.rest[k] + (b.rest[k] - a.rest[k]) * share;
    return c < 0 ? 0 : c > 1 ? 1 : c;
  };
  return [out(0), out(1), out(2)];
}

/** Mixes many colours with few, with nothing made anew for each. */
export class PigmentMixer {
  private readonly out = new Float64Array(3);
  private readonly bands = new Float64Array(BANDS);
  private readonly ratios = new Float64Array(BANDS);
  private readonly rest = new Float64Array(3);
  private readonly last = new Float64Array([-1, -1, -1]);
  /** Of the colour that was mixed into last: its ratios, and what it has beyond its spectrum. */
  private readonly under = new Float64Array(BANDS);
  private readonly underRest = new Float64Array(3);
  private readonly lastUnder = new Float64Array([-1, -1, -1]);

  /** The paint that is mixed in from now on, in linear light. */
  paint(r: number, g: number, b: number): void {
    const { last, ratios, rest } = this;
    if (last[0] === r && last[1] === g && last[2] === b) return;
    last[0] = r;
    last[1] = g;
    last[2] = b;
    this.absorb(r, g, b, ratios, rest);
  }

  /** Fills in the ratios of a colour, and what it has beyond its spectrum. */
  private absorb(r: number, g: number, b: number, ratios: Float64Array, rest: Float64Array): void {
    const { out } = this;
    fillSpectrum(r, g, b, ratios);
    fillColour(ratios, out);
    rest[0] = r - out[0];
    rest[1] = g - out[1];
    rest[2] = b - out[2];
    for (let i = 0; i < BANDS; i++) ratios[i] = ((1 - ratios[i]) * (1 - ratios[i])) / (2 * ratios[i]);
  }

  /** So much of the paint, 0–1, in a colour; the answer is good until the next. */
  over(r: number, g: number, b: number, share: number): Float64Array {
    const { bands, ratios, rest, out, under, underRest, lastUnder } = this;
    // Neighbours often have one colour.
    if (lastUnder[0] !== r || lastUnder[1] !== g || lastUnder[2] !== b) {
      lastUnder[0] = r;
      lastUnder[1] = g;
      lastUnder[2] = b;
      this.absorb(r, g, b, under, underRest);
    }
    const less = 1 - share;
    for (let i = 0; i < BANDS; i++) {
      const q = under[i] * less + ratios[i] * share;
      bands[i] = 1 + q - Math.sqrt(q * q + 2 * q);
    }
    fillColour(bands, out);
    out[0] = clamped(out[0] + underRest[0] * less + rest[0] * share);
    out[1] = clamped(out[1] + underRest[1] * less + rest[1] * share);
    out[2] = clamped(out[2] + underRest[2] * less + rest[2] * share);
    return out;
  }
}

const clamped = (c: number): number => (c < 0 ? 0 : c > 1 ? 1 : c);

/** The least of the three is white, what two have beyond it a mixed colour, and what one has beyond them its own. */
function fillSpectrum(r: number, g: number, b: number, out: Float64Array): void {
  const white = Math.min(r, g, b);
  let pair = CYAN;
  let [both, one] = [0, 0];
  let single = BLUE;
  if (white === r) {
    both = Math.min(g, b) - r;
    one = Math.abs(b - g);
    single = g <= b ? BLUE : GREEN;
  } else if (white === g) {
    pair = MAGENTA;
    both = Math.min(r, b) - g;
    one = Math.abs(b - r);
    single = r <= b ? BLUE : RED;
  } else {
    pair = YELLOW;
    both = Math.min(r, g) - b;
    one = Math.abs(g - r);
    single = r <= g ? GREEN : RED;
  }
  for (let i = 0; i < BANDS; i++) {
    const value = WHITE[i] * white + pair[i] * both + single[i] * one;
    out[i] = value < LEAST ? LEAST : value > 1 ? 1 : value;
  }
}

function fillColour(reflectance: Float64Array, out: Float64Array): void {
  let [r, g, b] = [0, 0, 0];
  for (let i = 0; i < BANDS; i++) {
    r += reflectance[i] * RESPONSE[i * 3];
    g += reflectance[i] * RESPONSE[i * 3 + 1];
    b += reflectance[i] * RESPONSE[i * 3 + 2];
  }
  out[0] = r;
  out[1] = g;
  out[2] = b;
}

/** What a band of full reflectance gives of red, green and blue; all of them together give white. */
const RESPONSE = responses();

function responses(): Float64Array {
  const out = new Float64Array(BANDS * 3);
  for (let i = 0; i < BANDS; i++)
    for (let nm = 0; nm < BAND_NM; nm++) {
      const [x, y, z] = matching(FIRST_NM + i * BAND_NM + nm + 0.5);
      out[i * 3] += 3.2404542 * x - 1.5371385 * y - 0.4985314 * z;
      out[i * 3 + 1] += -0.969266 * x + 1.8760108 * y + 0.041556 * z;
      out[i * 3 + 2] += 0.0556434 * x - 0.2040259 * y + 1.0572252 * z;
    }
  const white = [0, 1, 2].map((k) => out.reduce((sum, c, i) => sum + (i % 3 === k ? c : 0), 0));
  return out.map((c, i) => c / white[i % 3]);
}

/** Bands of a row for loops that take four at a time. */
const ROW = 12;

/**
 * For compiled loops, in rows of twelve bands of which ten count: the spectra of white, cyan, magenta, yellow, red,
 * green and blue, then what red, green and blue have of each band.
 */
export const PIGMENT_BANDS: Float32Array = (() => {
  const out = new Float32Array(ROW * 10);
  [WHITE, CYAN, MAGENTA, YELLOW, RED, GREEN, BLUE].forEach((spectrum, row) => out.set(spectrum, row * ROW));
  for (let k = 0; k < 3; k++) for (let i = 0; i < BANDS; i++) out[(7 + k) * ROW + i] = RESPONSE[i * 3 + k];
  return out;
})();

function matching(nm: number): readonly [number, number, number] {
  const lobe = (middle: number, below: number, above: number): number => {
    const t = (nm - middle) / (nm < middle ? below : above);
    return Math.exp(-0.5 * t * t);
  };
  return [
    1.056 * lobe(599.8, 37.9, 31) + 0.362 * lobe(442, 16, 26.7) - 0.065 * lobe(501.1, 20.4, 26.2),
    0.821 * lobe(568.8, 46.9, 40.5) + 0.286 * lobe(530.9, 16.3, 31.1),
    1.217 * lobe(437, 11.8, 36) + 0.681 * lobe(459, 26, 13.8),
  ];
}
