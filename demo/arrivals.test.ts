import { blur, resize } from '#core/filter';
import { growPattern, surprises } from '#core/pattern';
import { newPicture, rasterOf, type Picture, type Raster } from '#core/picture';
import { layeredNoise, seeded, type Random } from '#core/random';
import { newGrow } from '#core/settings';
import { drawPrints } from './sheets/prints';
import { guessArrival, type Arrival, type ArrivedPicture } from '#core/arrive';

const clamp = (v: number): number => Math.max(0, Math.min(1, v));
/** As 8 bits would have it. */
const coarse = (p: Picture): Picture => ({ ...p, data: p.data.map((v) => Math.round(clamp(v) * 255) / 255) });

/** Planes of a tint, with noise in each. */
function tinted(
  { width, height, data }: Picture,
  tint: readonly [number, number, number],
  noise: number,
  random: Random,
): Raster {
  return {
    width,
    height,
    planes: tint.map((t) => Float32Array.from(data, (v) => clamp(v * t + (random() - 0.5) * noise))),
  };
}

/** Heights on a bare ground, as a cast or a download has them. */
function readyHeights(n: number): ArrivedPicture {
  const random = seeded(n, 3);
  const size = [96, 128, 160, 201, 240][n % 5];
  const grow = surprises(null, 50 + n, false)[n % 16];
  const { data } = growPattern(grow, size);
  const low = n % 3 === 0 ? 0.5 : 0;
  const reach = 0.3 + random() * 0.14;
  const out = newPicture(size);
  for (let j = 0; j < size; j++) {
    for (let i = 0; i < size; i++) {
      const r = Math.hypot(i / size - 0.5, j / size - 0.5) + 0.03 * layeredNoise(i / 20, j / 20, n, 3);
      const soft = clamp((reach - r) / 0.06);
      out.data[j * size + i] = low + (1 - low) * soft * (0.3 + 0.7 * data[j * size + i]);
    }
  }
  const inverted = n % 7 === 5 ? { ...out, data: out.data.map((v) => 1 - v) } : out;
  const deep = n % 2 === 0;
  // Some programs write grey as three equal planes.
  const picture = deep ? inverted : coarse(inverted);
  return {
    raster:
      n % 4 === 1
        ? { width: size, height: size, planes: [picture.data, picture.data, picture.data] }
        : rasterOf(picture),
    deep,
    says: false,
  };
}

function sheetOfMarks(n: number): ArrivedPicture {
  const { raster } = drawPrints({
    width: n % 2 ? 620 : 460,
    height: n % 3 ? 460 : 620,
    seed: 400 + n,
    columns: 2 + (n % 4),
    rows: 2 + (n % 3),
    dust: 20,
    hairs: 2,
    shade: 0.1 + 0.2 * ((n % 5) / 5),
    grain: 0.02 + 0.01 * (n % 4),
    bare: 0.1,
  });
  return { raster, deep: n % 5 === 0, says: false };
}

/** A thing lit from one side, on a ground whose light falls off. */
function photograph(n: number): ArrivedPicture {
  const random = seeded(n, 7);
  const [width, height] = n % 2 ? [320, 240] : [240, 320];
  const grey = newPicture(width, height);
  const [cx, cy] = [0.42 + random() * 0.16, 0.42 + random() * 0.16];
  const dark = n % 3 === 0;
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const [u, v] = [i / width - cx, j / height - cy];
      const r = Math.hypot(u * 1.1, v) + 0.05 * layeredNoise(Math.atan2(v, u) * 2, r0(u, v), n, 3);
      const on = clamp((0.28 - r) / 0.015);
      const light = 0.5 - 0.8 * u - 0.6 * v;
      const thing = (dark ? 0.75 : 0.3) * (0.7 + 0.5 * light) * (0.8 + 0.3 * layeredNoise(i / 9, j / 9, n, 4));
      const ground = (dark ? 0.2 : 0.85) - 0.25 * Math.hypot(u, v) + 0.05 * u;
      grey.data[j * width + i] = clamp(thing * on + ground * (1 - on));
    }
  }
  return {
    raster: tinted(blur(grey, 0.8), n % 4 === 0 ? [1, 1, 1] : [1, 0.92, 0.78], 0.03, random),
    deep: false,
    says: false,
  };
}
const r0 = (u: number, v: number): number => Math.hypot(u, v) * 3;

/** A wall, a weave, a bark: all over, with uneven light. */
function surfaceAllOver(n: number): ArrivedPicture {
  const random = seeded(n, 9);
  const forms = ['cells', 'weave', 'cracks', 'pebbles', 'fibres', 'ridges', 'scales', 'ripple'] as const;
  const made = growPattern(newGrow(forms[n % forms.length], n + 1), 280);
  const [width, height] = n % 3 === 0 ? [280, 280] : n % 3 === 1 ? [280, 200] : [200, 280];
  const picture = resize(made, width, height);
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const at = j * width + i;
      picture.data[at] = clamp(
        (0.25 + 0.5 * picture.data[at]) * (1.1 - (0.3 * i) / width) + 0.06 * layeredNoise(i / 5, j / 5, n, 4),
      );
    }
  }
  return { raster: tinted(picture, n % 2 ? [1, 0.9, 0.75] : [0.95, 1, 0.98], 0.04, random), deep: false, says: false };
}

const MAKERS: Record<Arrival, (n: number) => ArrivedPicture> = {
  alpha: readyHeights,
  sheet: sheetOfMarks,
  photo: photograph,
  surface: surfaceAllOver,
};

test('of 20 made pictures of the four kinds at least 19 are known for what they are', () => {
  const wrong: string[] = [];
  for (const kind of ['alpha', 'sheet', 'photo', 'surface'] as const) {
    for (let n = 0; n < 5; n++) {
      const guess = guessArrival(MAKERS[kind](n));
      if (guess.kind !== kind) wrong.push(`${kind} ${n}: ${guess.kind}, ${guess.why}`);
    }
  }
  // Named where there are too many.
  expect(wrong.length > 20 - 19 ? wrong : []).toEqual([]);
});

test('what the file says counts, and so does depth where there is no border', () => {
  const surface = surfaceAllOver(0).raster;
  const grey: Raster = { width: surface.width, height: surface.height, planes: [surface.planes[0]] };
  expect(guessArrival({ raster: grey, deep: true, says: false }).kind).toBe('alpha');
  expect(guessArrival({ raster: surface, deep: true, says: true }).kind).toBe('alpha');
  expect(guessArrival({ raster: grey, deep: false, says: false }).kind).toBe('surface');
});

test('an even picture, and one of a few pixels, are guessed without a fault', () => {
  expect(guessArrival({ raster: rasterOf(newPicture(64, 64, 0.5)), deep: false, says: false }).kind).toBe('alpha');
  for (const [width, height] of [
    [1, 1],
    [3, 9],
    [1, 400],
  ] as const)
    expect(guessArrival({ raster: rasterOf(newPicture(width, height, 0.3)), deep: false, says: false }).why).not.toBe(
      '',
    );
});
