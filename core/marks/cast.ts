/**
 * A mark of a sheet as the recipe of an alpha: cut out, cleaned of paper, upright if wished, square, centred, with
 * margin.
 */
import { percentiles, toGrey, type Picture, type Raster } from '#core/picture';
import { StepSchema, type Base, type Mark, type Recipe, type Sheet, type Step } from '#core/settings';
import { cut } from '#core/filter';
import { boundsOf } from './hands';
import { inkOf } from './paper';

type SheetBase = Extract<Base, { kind: 'sheet' }>;

/** The window round a mark, with paper to spare on each side. */
export function markBase(sheet: Pick<Sheet, 'file' | 'paper' | 'dark'>, mark: Mark): SheetBase {
  const { width: sheetWidth, height: sheetHeight, blob } = sheet.file;
  const { x0, y0, x1, y1 } = boundsOf(mark.outlines);
  const pad = Math.max((x1 - x0) * sheetWidth, (y1 - y0) * sheetHeight) * 0.04;
  const left = Math.floor(x0 * sheetWidth - pad);
  const top = Math.floor(y0 * sheetHeight - pad);
  return {
    kind: 'sheet',
    blob,
    x: left,
    y: top,
    width: Math.ceil(x1 * sheetWidth + pad) - left,
    height: Math.ceil(y1 * sheetHeight + pad) - top,
    sheetWidth,
    sheetHeight,
    paper: sheet.paper,
    dark: sheet.dark,
  };
}

/** The whole picture as it is: no paper is divided out. */
export function wholeBase({ blob, width, height }: Pick<Sheet['file'], 'blob' | 'width' | 'height'>): SheetBase {
  return {
    kind: 'sheet',
    blob,
    x: 0,
    y: 0,
    width,
    height,
    sheetWidth: width,
    sheetHeight: height,
    paper: null,
    dark: false,
  };
}

/** The largest square in the picture's middle: what a surface that fills it is taken from. */
export function middleBase(file: Pick<Sheet['file'], 'blob' | 'width' | 'height'>): SheetBase {
  const side = Math.min(file.width, file.height);
  return { ...wholeBase(file), x: (file.width - side) >> 1, y: (file.height - side) >> 1, width: side, height: side };
}

/** Outlines of the sheet as outlines of the window. */
function withinWindow(base: SheetBase, mark: Mark): number[][] {
  return mark.outlines.map((o) =>
    o.map((v, k) =>
      k % 2 === 0
        ? Number(((v * base.sheetWidth - base.x) / base.width).toFixed(5))
        : Number(((v * base.sheetHeight - base.y) / base.height).toFixed(5)),
    ),
  );
}

/** `pixels` is the window as it was read from the sheet, at any size; `id` gives a new id for each step. */
export function markRecipe(
  base: SheetBase,
  mark: Mark,
  cutting: Sheet['cut'],
  pixels: Raster,
  id: () => string,
): Recipe {
  const ink = toGrey(base.paper ? inkOf(pixels, { paper: base.paper, dark: base.dark }, base) : pixels);
  const outlines = withinWindow(base, mark);
  const alone = cut(ink, outlines, Math.max(1, ink.width * 0.004));
  const { black, white } = markLevels(ink, alone);
  const step = (given: object): Step => StepSchema.parse({ id: id(), ...given });
  const steps = [step({ kind: 'cut', outlines }), step({ kind: 'levels', black, white })];
  if (cutting.straighten) steps.push(step({ kind: 'straighten', turn: uprightTurn(alone) }));
  steps.push(step({ kind: 'pad', margin: cutting.margin }));
  return { base, steps };
}

/** Black over the grain of the paper round the mark, white at the mark's densest but for a few stray pixels. */
function markLevels(ink: Picture, alone: Picture): { black: number; white: number } {
  const paper: number[] = [];
  for (let i = 0; i < ink.data.length; i++)
    if (alone.data[i] < ink.data[i] * 0.02 || alone.data[i] === 0) paper.push(ink.data[i]);
  paper.sort((a, b) => a - b);
  const grain = paper[Math.floor(paper.length * 0.98)] ?? 0;
  const [, top] = percentiles(alone, [0.5, 0.998]) as [number, number];
  const black = Number(Math.min(0.4, grain).toFixed(3));
  return { black, white: Number(Math.max(black + 0.05, top).toFixed(3)) };
}

/** Degrees, anticlockwise, that bring the longer axis of the ink upright, within ±90; 0 when it has none. */
export function uprightTurn({ width, height, data }: Picture): number {
  let sum = 0;
  let mx = 0;
  let my = 0;
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const v = data[j * width + i];
      sum += v;
      mx += v * i;
      my += v * j;
    }
  if (sum <= 0) return 0;
  mx /= sum;
  my /= sum;
  let xx = 0;
  let yy = 0;
  let xy = 0;
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const v = data[j * width + i];
      xx += v * (i - mx) ** 2;
      yy += v * (j - my) ** 2;
      xy += v * (i - mx) * (j - my);
    }
  const spread = Math.hypot(xx - yy, 2 * xy);
  if (spread < 0.05 * (xx + yy)) return 0;
  // Direction of the longer axis with y downwards; upright is 90°.
  const axis = (0.5 * Math.atan2(2 * xy, xx - yy) * 180) / Math.PI;
  const turn = axis > 0 ? axis - 90 : axis + 90;
  return Number(turn.toFixed(1));
}
