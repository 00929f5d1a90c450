/** Looks over a sheet: its paper, its marks, and the recipe of each mark that is cast. */
import * as Comlink from 'comlink';
import { findMarks, findPaper, inkOf, markBase, markRecipe, wholeSheet, type FoundMarks } from '#core/marks';
import { toGrey, type Raster } from '#core/picture';
import { FIND_SIDE, type Find, type Mark, type Paper, type Recipe, type Sheet } from '#core/settings';
import { getPixels } from '../api/client';

export interface SheetFound extends FoundMarks {
  paper: Paper;
  dark: boolean;
}

let copy: { blob: string; raster: Raster } | null = null;
/** A mark's levels are found on a copy of it this fine. */
const LEVELS_SIDE = 768;

const api = {
  async find(file: Sheet['file'], find: Find): Promise<SheetFound> {
    if (copy?.blob !== file.blob)
      copy = {
        blob: file.blob,
        raster: await getPixels(file.blob, { x: 0, y: 0, width: file.width, height: file.height }, FIND_SIDE),
      };
    const { raster } = copy;
    const { paper, dark } = find.polarity === 'auto' ? findPaper(raster) : findPaper(raster, find.polarity === 'dark');
    const ink = toGrey(inkOf(raster, { paper, dark }, wholeSheet(raster)));
    return { ...findMarks(ink, find), paper, dark };
  },

  async recipe(sheet: Pick<Sheet, 'file' | 'paper' | 'dark' | 'cut'>, mark: Mark): Promise<Recipe> {
    const base = markBase(sheet, mark);
    const pixels = await getPixels(base.blob, base, LEVELS_SIDE);
    return markRecipe(base, mark, sheet.cut, pixels, () => crypto.randomUUID());
  },
};

export type SheetWorker = typeof api;
Comlink.expose(api);
