/**
 * Picks a thing out of a busy picture. Strokes say what is inside and what outside; the rest is found on a reduced
 * copy, and its edge is then looked for at full size, where a guided filter makes the matte follow the picture hair by
 * hair. Where nothing was said to be outside, the picture's sides are.
 */
import { components, distanceFrom, guidance, resize } from '#core/filter';
import type { Picture, Raster } from '#core/picture';
import type { PickStroke } from '#core/settings';
import { INSIDE, LIKELY_INSIDE, LIKELY_OUTSIDE, OUTSIDE, type Segment, type SegmentJob } from './segment';

/** Longer side of the copy that is cut: an answer within two seconds. */
const REDUCED = 420;
/** Of the longer side: the sides that are outside when nothing else is said to be. */
const SIDES = 0.015;
/** Colours that a pixel is compared with, of each side. */
const SAMPLES = 48;
const BLOCK = 2;
/** How much nearness to a stroke counts beside likeness in colour. */
const NEARNESS = 0.25;
/** Differences of tone below the root of this are no edge. */
const SMOOTH = 2e-4;
/** Of the filtered matte: below it is outside, above one less it is inside. */
const HAZE = 0.12;

export interface PickOutOptions {
  strokes: readonly PickStroke[];
  /** How far from the found edge the matte may change, of the longer side. */
  edge: number;
  segment: Segment;
}

/** 0 outside, 1 inside, soft between. Throws where no stroke is inside. */
export function pickMatte(from: Raster, { strokes, edge, segment }: PickOutOptions): Picture {
  const job = segmentJob(from, strokes);
  const mask = onlyMeant(segment(job), job);
  return refined(from, { width: job.width, height: job.height, data: Float32Array.from(mask) }, job.known, edge);
}

/** What is cut: the reduced picture, with what the strokes say and what follows from them. */
export function segmentJob(from: Raster, strokes: readonly PickStroke[]): SegmentJob {
  const share = Math.min(1, REDUCED / Math.max(from.width, from.height));
  const width = Math.max(1, Math.round(from.width * share));
  const height = Math.max(1, Math.round(from.height * share));
  const planes = [0, 1, 2].map((k) => {
    const data = from.planes[Math.min(k, from.planes.length - 1)];
    return share === 1 ? data : resize({ width: from.width, height: from.height, data }, width, height).data;
  });
  const rgb = new Uint8Array(width * height * 3);
  for (let i = 0; i < width * height; i++)
    for (let k = 0; k < 3; k++) rgb[i * 3 + k] = Math.round(Math.max(0, Math.min(1, planes[k][i])) * 255);
  const known = new Uint8Array(width * height).fill(LIKELY_OUTSIDE);
  for (const stroke of strokes) drawStroke(known, width, height, stroke);
  if (!strokes.some(({ inside }) => !inside)) sidesOutside(known, width, height);
  guess(known, rgb, width, height);
  return { width, height, rgb, known };
}

function drawStroke(known: Uint8Array, width: number, height: number, { inside, size, points }: PickStroke): void {
  const longer = Math.max(width, height);
  const r = Math.max(0.75, (size / 100) * longer);
  for (let k = 0; k < points.length; k += 2) {
    const [x1, y1] = [points[k] * longer, points[k + 1] * longer];
    const [x0, y0] = k === 0 ? [x1, y1] : [points[k - 2] * longer, points[k - 1] * longer];
    const steps = Math.max(1, Math.ceil(Math.hypot(x1 - x0, y1 - y0) / (r / 2)));
    for (let n = 0; n <= steps; n++)
      drawDisc(known, width, height, x0 + ((x1 - x0) * n) / steps, y0 + ((y1 - y0) * n) / steps, r, inside);
  }
}

function drawDisc(
  known: Uint8Array,
  width: number,
  height: number,
  x: number,
  y: number,
  r: number,
  inside: boolean,
): void {
  for (let j = Math.max(0, Math.floor(y - r)); j <= Math.min(height - 1, Math.ceil(y + r)); j++)
    for (let i = Math.max(0, Math.floor(x - r)); i <= Math.min(width - 1, Math.ceil(x + r)); i++)
      if (Math.hypot(i + 0.5 - x, j + 0.5 - y) <= r) known[j * width + i] = inside ? INSIDE : OUTSIDE;
}

function sidesOutside(known: Uint8Array, width: number, height: number): void {
  const rim = Math.max(1, Math.round(SIDES * Math.max(width, height)));
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const near = Math.min(i, j, width - 1 - i, height - 1 - j) < rim;
      if (near && known[j * width + i] !== INSIDE) known[j * width + i] = OUTSIDE;
    }
}

/** Each pixel of which nothing is said is likely on the side whose colours and strokes it is nearest to. */
function guess(known: Uint8Array, rgb: Uint8Array, width: number, height: number): void {
  const inside = samplesOf(known, INSIDE);
  const outside = samplesOf(known, OUTSIDE);
  const longer = Math.max(width, height);
  const far = (i: number, samples: readonly number[]): number => {
    let least = Infinity;
    for (const s of samples) {
      const colour =
        (rgb[i * 3] - rgb[s * 3]) ** 2 +
        (rgb[i * 3 + 1] - rgb[s * 3 + 1]) ** 2 +
        (rgb[i * 3 + 2] - rgb[s * 3 + 2]) ** 2;
      const place = ((i % width) - (s % width)) ** 2 + (Math.floor(i / width) - Math.floor(s / width)) ** 2;
      least = Math.min(least, colour / 255 ** 2 + NEARNESS * (place / longer ** 2));
    }
    return least;
  };
  // A block of pixels is alike enough to be guessed at once.
  for (let y = 0; y < height; y += BLOCK)
    for (let x = 0; x < width; x += BLOCK) {
      const middle = Math.min(height - 1, y + 1) * width + Math.min(width - 1, x + 1);
      if (far(middle, inside) >= far(middle, outside)) continue;
      for (let j = y; j < Math.min(height, y + BLOCK); j++)
        for (let i = x; i < Math.min(width, x + BLOCK); i++)
          if (known[j * width + i] === LIKELY_OUTSIDE) known[j * width + i] = LIKELY_INSIDE;
    }
}

function samplesOf(known: Uint8Array, what: number): number[] {
  const all: number[] = [];
  known.forEach((k, i) => k === what && all.push(i));
  const step = Math.max(1, all.length / SAMPLES);
  return Array.from({ length: Math.min(SAMPLES, all.length) }, (_, n) => all[Math.floor(n * step)]);
}

/** What is inside but hangs together with no stroke that is, isn't meant. */
function onlyMeant(mask: Uint8Array, { width, height, known }: SegmentJob): Uint8Array {
  const { labels, count } = components(mask, width, height);
  const meant = new Uint8Array(count + 1);
  for (let i = 0; i < mask.length; i++) if (known[i] === INSIDE) meant[labels[i]] = 1;
  return mask.map((v, i) => (v && meant[labels[i]] ? 1 : 0));
}

/** Within `edge` of the found edge the matte follows the picture; elsewhere, and where it was said, it is 0 or 1. */
function refined(from: Raster, mask: Picture, known: Uint8Array, edge: number): Picture {
  const { width, height } = from;
  const longer = Math.max(width, height);
  const coarse = longer / Math.max(mask.width, mask.height);
  // The found edge may lie a pixel and a half of the reduced copy off.
  const radiusPx = Math.max(edge * longer, 1.5 * coarse, 2);
  const near = resize(nearEdge(mask, known, radiusPx / coarse), width, height).data;
  const rough = resize(mask, width, height).data;
  const { factors, ...size } = guidance(mask, from, { radiusPx, smooth: SMOOTH });
  const [r, g, b] = [0, 1, 2].map((k) => from.planes[Math.min(k, from.planes.length - 1)]);
  const [ofRed, ofGreen, ofBlue, constant] = factors;
  const out = new Float32Array(width * height);
  const across = Array.from({ length: width }, (_, i) => placeOf(i, width, size.width));
  for (let j = 0; j < height; j++) {
    const down = placeOf(j, height, size.height);
    for (let i = 0; i < width; i++) {
      const at = j * width + i;
      let value = rough[at];
      if (near[at] > 0) {
        const soft =
          between(ofRed, size.width, across[i], down) * r[at] +
          between(ofGreen, size.width, across[i], down) * g[at] +
          between(ofBlue, size.width, across[i], down) * b[at] +
          between(constant, size.width, across[i], down);
        value += ((soft - HAZE) / (1 - 2 * HAZE) - value) * Math.min(1, near[at]);
      }
      out[at] = value < 0 ? 0 : value > 1 ? 1 : value;
    }
  }
  return { width, height, data: out };
}

/** Between which two pixels of a smaller picture a pixel lies, and how far from the first. */
type Place = readonly [first: number, second: number, share: number];

function placeOf(i: number, from: number, to: number): Place {
  const at = Math.max(0, Math.min(to - 1, ((i + 0.5) * to) / from - 0.5));
  const first = Math.floor(at);
  return [first, Math.min(to - 1, first + 1), at - first];
}

function between(data: Float32Array, width: number, [i0, i1, s]: Place, [j0, j1, t]: Place): number {
  const upper = data[j0 * width + i0] * (1 - s) + data[j0 * width + i1] * s;
  const lower = data[j1 * width + i0] * (1 - s) + data[j1 * width + i1] * s;
  return upper * (1 - t) + lower * t;
}

/**
 * 1 within `reach` of where the mask changes, falling to 0 over half as far again, 0 where nothing is open; in the
 * mask's pixels.
 */
function nearEdge({ width, height, data }: Picture, known: Uint8Array, reach: number): Picture {
  const edge = new Uint8Array(width * height);
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const at = j * width + i;
      if ((i + 1 < width && data[at] !== data[at + 1]) || (j + 1 < height && data[at] !== data[at + width]))
        edge[at] = 1;
    }
  const near = Float32Array.from(distanceFrom(edge, width, height), (d, i) =>
    known[i] === INSIDE || known[i] === OUTSIDE ? 0 : Math.max(0, Math.min(1, 3 - (2 * d) / reach)),
  );
  return { width, height, data: near };
}
