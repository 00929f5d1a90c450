/**
 * What a picture that arrives is: heights that are ready as they are, a sheet of marks, a photograph of one thing, or a
 * surface that fills it.
 *
 * Looked at: colour, whether its border is even, how its cells differ from each other, and how much of it is marks on
 * one paper. Ready heights have no colour, are square, and their border is even to the last tone, which no scan's is;
 * deep ones (16 bit or float) need no border. A surface is as busy in every cell as in any other.
 */
import { blur, resize } from '#core/filter';
import { findMarks, findPaper, inkOf, wholeSheet } from '#core/marks';
import { eachPlane, percentiles, toGrey, type Picture, type Raster } from '#core/picture';
import { FindSchema } from '#core/settings';

export const ARRIVALS = ['alpha', 'sheet', 'photo', 'surface'] as const;
export type Arrival = (typeof ARRIVALS)[number];

export interface Guess {
  kind: Arrival;
  /** Why, as a half sentence. */
  why: string;
}

export interface ArrivedPicture {
  /** 0–1, at any size; what is looked at is reduced. */
  raster: Raster;
  /** 16 bits or float. */
  deep: boolean;
  /** The file says that it holds heights: it came from a cast. */
  says: boolean;
}

const LOOKED_AT = 384;
const CELLS_SIDE = 168;
const CELLS = 6;
/** Tones differ by less than this on an even border; one step of 8 bits is 0.004. */
const EVEN = 0.0045;
/** Pixels between the places that are compared. */
const STEP = 3;
const EVEN_SHARE = 0.94;
const COLOURED = 0.035;

export function guessArrival({ raster: whole, deep, says }: ArrivedPicture): Guess {
  const square = Math.abs(whole.width - whole.height) <= 1;
  const raster = reduced(whole);
  const coloured = colourOf(raster) > COLOURED;
  if (says && square) return { kind: 'alpha', why: 'the file says that it holds heights' };
  const ring = ringOf(whole);
  if (square && !coloured && ring >= EVEN_SHARE)
    return { kind: 'alpha', why: 'square, without colour, with an even border' };
  if (square && !coloured && deep) return { kind: 'alpha', why: 'square, without colour, deeper than 8 bits' };
  // Small and soft, so that grain and noise count for little.
  const cells = cellsOf(blur(toGrey(reduced(raster, CELLS_SIDE)), 0.9));
  if (cells.busy >= 0.94) return { kind: 'surface', why: 'it is as busy at its sides as in its middle' };
  const marks = marksOf(raster);
  if (marks >= 2) return { kind: 'sheet', why: `about ${marks} marks on one paper` };
  return { kind: 'photo', why: 'one thing on its ground' };
}

function reduced(raster: Raster, side = LOOKED_AT): Raster {
  const scale = side / Math.max(raster.width, raster.height);
  if (scale >= 1) return raster;
  return eachPlane(raster, (p) =>
    resize(p, Math.max(8, Math.round(p.width * scale)), Math.max(8, Math.round(p.height * scale))),
  );
}

/** Mean distance of the planes from each other. */
function colourOf({ planes, width, height }: Raster): number {
  if (planes.length < 3) return 0;
  const [r, g, b] = planes as [Float32Array, Float32Array, Float32Array];
  let sum = 0;
  for (let i = 0; i < width * height; i++) sum += Math.max(r[i], g[i], b[i]) - Math.min(r[i], g[i], b[i]);
  return sum / (width * height);
}

/** Share of the outermost rows and columns whose tone is the border's own. */
function ringOf(raster: Raster): number {
  const { width, height, data } = toGrey(raster);
  const deep = Math.max(1, Math.round(Math.min(width, height) * 0.01));
  const tones: number[] = [];
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      if (i < deep || j < deep || i >= width - deep || j >= height - deep) tones.push(data[j * width + i]);
    }
  }
  const sorted = tones.slice().sort((a, b) => a - b);
  const middle = sorted[sorted.length >> 1];
  return tones.filter((t) => Math.abs(t - middle) <= EVEN).length / tones.length;
}

/** Share of the cells that are about as busy as the busy ones: their own spread, slow changes of light left out. */
function cellsOf(picture: Picture): { busy: number } {
  const { width, height, data } = picture;
  const spreads: number[] = [];
  for (let r = 0; r < CELLS; r++) {
    for (let c = 0; c < CELLS; c++) {
      const [x0, x1] = [Math.floor((c * width) / CELLS), Math.floor(((c + 1) * width) / CELLS)];
      const [y0, y1] = [Math.floor((r * height) / CELLS), Math.floor(((r + 1) * height) / CELLS)];
      let sum = 0;
      let count = 0;
      for (let j = y0; j + STEP < y1; j++) {
        for (let i = x0; i + STEP < x1; i++) {
          const v = data[j * width + i];
          sum += Math.abs(v - data[j * width + i + STEP]) + Math.abs(v - data[(j + STEP) * width + i]);
          count += 2;
        }
      }
      spreads.push(count ? sum / count : 0);
    }
  }
  const strong = spreads.slice().sort((a, b) => a - b)[Math.floor(spreads.length * 0.7)];
  return { busy: strong < 0.004 ? 0 : spreads.filter((s) => s > strong * 0.42).length / spreads.length };
}

/** Marks of some size on the picture's own paper. */
function marksOf(raster: Raster): number {
  const found = findPaper(raster);
  const ink = toGrey(inkOf(raster, found, wholeSheet(raster)));
  // Paper that isn't paper for the most part is none.
  const [most] = percentiles(ink, [0.6]) as [number];
  if (most > 0.25) return 0;
  try {
    const { marks } = findMarks(ink, FindSchema.parse({ join: 2, smallest: 4 }));
    const areas = marks.map((m) => m.area).sort((a, b) => b - a);
    // Crumbs beside one large thing are no marks.
    return areas.filter((a) => a > areas[0] * 0.08).length;
  } catch {
    return 300;
  }
}
