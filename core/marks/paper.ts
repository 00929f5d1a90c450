/**
 * The paper of a sheet: its tone over a coarse grid, and whether marks are darker or lighter than it. And the ink: what
 * is left when the paper is divided out, 0 on bare paper, towards 1 where a mark is densest.
 */
import { gridAt, paperGrid, type Grid } from '#core/filter';
import { planeOf, toGrey, type Picture, type Raster } from '#core/picture';
import type { Paper } from '#core/settings';

/** Cells along the longer side: light changes slowly, marks are smaller. */
const CELLS = 14;

export interface PaperFound {
  paper: Paper;
  dark: boolean;
}

/**
 * `dark` is found when it isn't given: more tones lie far under paper that is bright, or far over paper that is dark.
 */
export function findPaper(sheet: Raster, dark = isBright(toGrey(sheet))): PaperFound {
  const grids = sheet.planes.map((_, k) =>
    paperGrid(planeOf(sheet, k), { cells: CELLS, way: dark ? 'bright' : 'dark' }),
  );
  const { columns, rows } = grids[0];
  return {
    paper: { columns, rows, planes: grids.map((g) => Array.from(g.values, (v) => Number(v.toFixed(4)))) },
    dark,
  };
}

/** The tone that most of the picture has, against the middle of its darkest and brightest. */
function isBright(grey: Picture): boolean {
  const bins = new Uint32Array(256);
  for (const v of grey.data) bins[Math.max(0, Math.min(255, Math.floor(v * 256)))]++;
  const at = (share: number): number => {
    let sum = 0;
    for (let b = 0; b < 256; b++) {
      sum += bins[b];
      if (sum >= grey.data.length * share) return b / 255;
    }
    return 1;
  };
  return at(0.5) > (at(0.002) + at(0.998)) / 2;
}

/** Where a raster lies on its sheet: window and sheet in the same unit. */
export interface Window {
  x: number;
  y: number;
  width: number;
  height: number;
  sheetWidth: number;
  sheetHeight: number;
}

export const wholeSheet = (sheet: Raster): Window => ({
  x: 0,
  y: 0,
  width: sheet.width,
  height: sheet.height,
  sheetWidth: sheet.width,
  sheetHeight: sheet.height,
});

/** The raster with its paper divided out. */
export function inkOf(raster: Raster, { paper, dark }: PaperFound, window: Window): Raster {
  const { width, height } = raster;
  const planes = raster.planes.map((data, k) => {
    const grid: Grid = {
      columns: paper.columns,
      rows: paper.rows,
      values: Float32Array.from(paper.planes[Math.min(k, paper.planes.length - 1)]),
    };
    const out = new Float32Array(data.length);
    for (let j = 0; j < height; j++) {
      const t = (window.y + ((j + 0.5) / height) * window.height) / window.sheetHeight;
      for (let i = 0; i < width; i++) {
        const tone = gridAt(grid, (window.x + ((i + 0.5) / width) * window.width) / window.sheetWidth, t);
        const at = j * width + i;
        const v = dark ? 1 - data[at] / Math.max(tone, 0.02) : (data[at] - tone) / Math.max(1 - tone, 0.02);
        out[at] = v < 0 ? 0 : v > 1 ? 1 : v;
      }
    }
    return out;
  });
  return { width, height, planes };
}
