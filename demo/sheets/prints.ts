/**
 * A scanned page of sponge and bristle prints: ink on paper with grain, uneven light, dust and hairs, so that cleaning
 * has something to do.
 */
import { smoothstep } from '#core/filter';
import { newPicture, type Picture, type Raster } from '#core/picture';
import { layeredNoise, noise2, seeded, type Random } from '#core/random';

export interface PrintsOptions {
  width: number;
  height: number;
  seed: number;
  columns: number;
  rows: number;
  /** Dust specks and hairs. */
  dust: number;
  hairs: number;
  /** Share by which the light falls off towards one corner. */
  shade: number;
  /** Height of the paper's grain. */
  grain: number;
  /** Share of places that stay bare, and of places whose mark touches the next. */
  bare?: number;
  touching?: number;
}

export interface Prints {
  /** Red, green and blue. */
  raster: Raster;
  /** What was printed, in pixels; marks that touch are one. */
  boxes: { left: number; top: number; right: number; bottom: number }[];
}

export function drawPrints(o: PrintsOptions): Prints {
  const random = seeded(o.seed, 21);
  const ink = newPicture(o.width, o.height);
  const boxes: Prints['boxes'] = [];
  const cellW = o.width / o.columns;
  const cellH = o.height / o.rows;
  const half = Math.min(cellW, cellH) / 2;
  for (let r = 0; r < o.rows; r++) {
    for (let c = 0; c < o.columns; c++) {
      if (random() < (o.bare ?? 0)) continue;
      const x = (c + 0.5 + (random() - 0.5) * 0.14) * cellW;
      const y = (r + 0.5 + (random() - 0.5) * 0.14) * cellH;
      const radius = half * (0.5 + 0.22 * random());
      const box = { left: o.width, top: o.height, right: 0, bottom: 0 };
      printOne(ink, (r * o.columns + c) % PRINTS.length, x, y, radius, random, box);
      if (random() < (o.touching ?? 0)) printOne(ink, 0, x + radius * 0.9, y, radius * 0.4, random, box);
      if (box.right > box.left) boxes.push(box);
    }
  }
  for (let n = 0; n < o.dust; n++)
    speck(ink, random() * o.width, random() * o.height, half * (0.008 + 0.014 * random()), 0.4 + 0.5 * random());
  for (let n = 0; n < o.hairs; n++) hair(ink, o, random, half);
  return { raster: onPaper(ink, o), boxes };
}

/** Ink thinner than this isn't counted to a mark's box. */
const SEEN = 0.2;

type Print = (u: number, v: number, seed: number) => number;

/** Density of ink over a print's own square, −1 to 1; the kinds of mark on the page. */
const PRINTS: readonly Print[] = [
  // Sponge: a ragged blot full of holes.
  (u, v, s) => {
    const edge = smoothstep(0, 0.3, 0.92 + 0.16 * layeredNoise(u * 2.5, v * 2.5, s, 3) - Math.hypot(u, v));
    return (
      edge *
      smoothstep(-0.18, 0.22, layeredNoise(u * 5, v * 5, s + 1, 4) + 0.12) *
      (0.72 + 0.28 * noise2(u * 14, v * 14, s + 2))
    );
  },
  // Dry bristle: a swipe of parallel streaks, running out at one end.
  (u, v, s) => {
    const bow = v + 0.25 * u * u - 0.1;
    const wide = smoothstep(0, 0.1, 0.42 - Math.abs(bow));
    const streak = smoothstep(-0.25, 0.2, layeredNoise(u * 0.9, bow * 24, s, 3) + 0.28 - 0.3 * u);
    return wide * smoothstep(0, 0.2, 0.95 - Math.abs(u)) * streak * (0.8 + 0.2 * noise2(u * 20, v * 40, s + 1));
  },
  // Ring: the rim of a cork, pressed unevenly.
  (u, v, s) => {
    const rho = Math.hypot(u, v);
    const band = smoothstep(0, 0.12, 0.85 - rho) * smoothstep(0, 0.14, rho - 0.48);
    return band * smoothstep(-0.3, 0.15, layeredNoise(u * 4, v * 4, s, 4) + 0.2);
  },
  // Bristle tips, dabbed: a cluster of dots.
  (u, v, s) =>
    smoothstep(0, 0.25, 0.9 - Math.hypot(u, v)) *
    smoothstep(0.02, 0.3, noise2(u * 9, v * 9, s) + 0.3 * noise2(u * 3, v * 3, s + 5) + 0.12),
  // Cloth: a weave taken off by rolling.
  (u, v, s) => {
    const patch = smoothstep(0, 0.16, 0.8 + 0.1 * noise2(u * 3, v * 3, s) - Math.max(Math.abs(u), Math.abs(v)));
    return (
      patch *
      smoothstep(
        -0.1,
        0.55,
        Math.sin(u * 34 + noise2(u * 4, v * 4, s)) * Math.sin(v * 34) * 0.5 + 0.34 + 0.3 * noise2(u * 5, v * 5, s + 3),
      )
    );
  },
];

function printOne(
  ink: Picture,
  kind: number,
  x: number,
  y: number,
  radius: number,
  random: Random,
  box: Prints['boxes'][number],
): void {
  const seed = Math.floor(random() * 1e6);
  const angle = random() * 2 * Math.PI;
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  const print = PRINTS[kind];
  const reach = radius * 1.45;
  for (let j = Math.max(0, Math.floor(y - reach)); j < Math.min(ink.height, y + reach); j++) {
    for (let i = Math.max(0, Math.floor(x - reach)); i < Math.min(ink.width, x + reach); i++) {
      const dx = (i + 0.5 - x) / radius;
      const dy = (j + 0.5 - y) / radius;
      const d = print(dx * c + dy * s, dy * c - dx * s, seed);
      const at = j * ink.width + i;
      if (d <= ink.data[at]) continue;
      ink.data[at] = d;
      if (d < SEEN) continue;
      box.left = Math.min(box.left, i);
      box.right = Math.max(box.right, i + 1);
      box.top = Math.min(box.top, j);
      box.bottom = Math.max(box.bottom, j + 1);
    }
  }
}

function speck(ink: Picture, x: number, y: number, radius: number, density: number): void {
  for (let j = Math.max(0, Math.floor(y - radius)); j <= Math.min(ink.height - 1, y + radius); j++) {
    for (let i = Math.max(0, Math.floor(x - radius)); i <= Math.min(ink.width - 1, x + radius); i++) {
      const d = density * smoothstep(0, 0.7, 1 - Math.hypot(i - x, j - y) / Math.max(0.7, radius));
      ink.data[j * ink.width + i] = Math.max(ink.data[j * ink.width + i], d);
    }
  }
}

function hair(ink: Picture, o: PrintsOptions, random: Random, half: number): void {
  let x = random() * o.width;
  let y = random() * o.height;
  let angle = random() * 2 * Math.PI;
  const bend = (random() - 0.5) * 0.06;
  const steps = Math.round(half * (0.5 + 0.7 * random()));
  for (let k = 0; k < steps; k++) {
    speck(ink, x, y, 0.8, 0.65);
    x += Math.cos(angle);
    y += Math.sin(angle);
    angle += bend;
  }
}

/** Warm paper, lit from the upper left. */
const PAPER = [0.93, 0.905, 0.86] as const;
const INK = [0.1, 0.1, 0.13] as const;

function onPaper(ink: Picture, o: PrintsOptions): Raster {
  const { width, height } = o;
  const planes = PAPER.map(() => new Float32Array(width * height));
  const random = seeded(o.seed, 22);
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const u = i / width;
      const v = j / height;
      const light = 1 - o.shade * (0.55 * u + 0.3 * v * v + 0.15 * u * v);
      const fibre = o.grain * (0.7 * noise2(i / 2.3, j / 1.7, o.seed + 9) + 0.5 * (random() - 0.5));
      const d = ink.data[j * width + i];
      for (let k = 0; k < 3; k++) {
        const tone = (PAPER[k] + fibre) * light;
        planes[k][j * width + i] = Math.max(0, Math.min(1, tone + (INK[k] * light - tone) * d));
      }
    }
  }
  return { width, height, planes };
}
