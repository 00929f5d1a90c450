import { cover } from '#core/filter';
import { newPicture, rasterOf, toGrey, type Picture, type Raster } from '#core/picture';
import { seeded } from '#core/random';
import { FindSchema, MarkSchema, type Find, type Sheet } from '#core/settings';
import {
  areaOf,
  boundsOf,
  findMarks,
  findPaper,
  inkOf,
  isInside,
  joinOutlines,
  lassoOutline,
  markBase,
  markRecipe,
  splitOutlines,
  uprightTurn,
  wholeSheet,
} from './index';

const find = (change: Partial<Find> = {}): Find => FindSchema.parse(change);

/** Ink on paper that gets darker to the right, with grain; `draw` answers ink 0–1. */
function sheet(width: number, height: number, draw: (i: number, j: number) => number, grain = 0.02): Raster {
  const random = seeded(4);
  const p = newPicture(width, height);
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const paper = (0.92 + grain * (random() - 0.5)) * (1 - 0.25 * (i / width));
      p.data[j * width + i] = paper * (1 - 0.85 * draw(i, j));
    }
  return rasterOf(p);
}

function inkFrom(raster: Raster): Picture {
  return toGrey(inkOf(raster, findPaper(raster), wholeSheet(raster)));
}

const disc =
  (x: number, y: number, r: number) =>
  (i: number, j: number): number =>
    Math.hypot(i - x, j - y) < r ? 1 : 0;
const three = (i: number, j: number): number =>
  Math.max(disc(60, 60, 30)(i, j), disc(200, 80, 26)(i, j), disc(120, 170, 34)(i, j));

test('paper and polarity are found, and the ink of bare paper is next to nothing', () => {
  const dark = sheet(300, 220, three);
  const found = findPaper(dark);
  expect(found.dark).toBe(true);
  const ink = toGrey(inkOf(dark, found, wholeSheet(dark)));
  for (const [i, j] of [
    [5, 5],
    [290, 5],
    [5, 210],
    [290, 210],
    [150, 20],
  ])
    expect(ink.data[j * 300 + i]).toBeLessThan(0.04);
  expect(ink.data[60 * 300 + 60]).toBeCloseTo(0.85, 1);
  const light = { ...dark, planes: [dark.planes[0].map((v) => 1 - v)] };
  expect(findPaper(light).dark).toBe(false);
  expect(toGrey(inkOf(light, findPaper(light), wholeSheet(light))).data[60 * 300 + 60]).toBeGreaterThan(0.6);
});

test('a window of the sheet gives the ink it has in the whole', () => {
  const whole = sheet(300, 220, three, 0);
  const found = findPaper(whole);
  const all = toGrey(inkOf(whole, found, wholeSheet(whole)));
  const part = newPicture(80, 60);
  for (let j = 0; j < 60; j++)
    for (let i = 0; i < 80; i++) part.data[j * 80 + i] = whole.planes[0][(j + 40) * 300 + i + 150];
  const own = toGrey(
    inkOf(rasterOf(part), found, { x: 150, y: 40, width: 80, height: 60, sheetWidth: 300, sheetHeight: 220 }),
  );
  for (let j = 0; j < 60; j += 7)
    for (let i = 0; i < 80; i += 7) expect(own.data[j * 80 + i]).toBeCloseTo(all.data[(j + 40) * 300 + i + 150], 5);
});

test('three marks are outlined, a speck and a hair are told from them', () => {
  const found = findMarks(
    inkFrom(
      sheet(300, 220, (i, j) =>
        Math.max(
          three(i, j),
          disc(250, 180, 1.6)(i, j),
          Math.abs(j - 20 - i * 0.1) < 0.8 && i > 180 && i < 280 ? 0.7 : 0,
        ),
      ),
    ),
    find({ smallest: 3 }),
  );
  expect([found.marks.length, found.specks, found.hairs]).toEqual([3, 1, 1]);
  const box = boundsOf(found.marks[0].outlines);
  expect(box.x0 * 300).toBeGreaterThan(22);
  expect(box.x0 * 300).toBeLessThan(30.5);
  expect(isInside(found.marks[0].outlines, 60 / 300, 60 / 220)).toBe(true);
  expect(isInside(found.marks[0].outlines, 150 / 300, 60 / 220)).toBe(false);
});

test('a clean drawing without any grain has its marks found too', () => {
  const clean = rasterOf(newPicture(300, 220, 0.93));
  for (let j = 0; j < 220; j++) for (let i = 0; i < 300; i++) if (three(i, j)) clean.planes[0][j * 300 + i] = 0;
  expect(findMarks(inkFrom(clean), find()).marks).toHaveLength(3);
});

test('near specks of ink are joined by the slider, and by nothing else', () => {
  const ink = inkFrom(sheet(300, 220, (i, j) => Math.max(disc(80, 100, 20)(i, j), disc(126, 100, 20)(i, j))));
  expect(findMarks(ink, find({ join: 0.3 })).marks).toHaveLength(2);
  expect(findMarks(ink, find({ join: 3 })).marks).toHaveLength(1);
});

test('faint marks come with the sensitivity', () => {
  const ink = inkFrom(
    sheet(300, 220, (i, j) => Math.max(disc(80, 100, 30)(i, j), 0.22 * disc(200, 100, 30)(i, j)), 0.01),
  );
  expect(findMarks(ink, find({ sensitivity: 20 })).marks).toHaveLength(1);
  expect(findMarks(ink, find({ sensitivity: 90 })).marks).toHaveLength(2);
});

test('an empty sheet has no marks, and noise alone none either', () => {
  expect(findMarks(newPicture(200, 150), find()).marks).toEqual([]);
  expect(findMarks(inkFrom(sheet(300, 220, () => 0, 0.05)), find()).marks).toEqual([]);
});

describe('by hand', () => {
  const square = [0.2, 0.2, 0.6, 0.2, 0.6, 0.6, 0.2, 0.6];

  test('splitting keeps the area, a line that misses keeps all on one side', () => {
    const [a, b] = splitOutlines([square], 0.3, 0, 0.3, 1);
    const areas = [a, b].map((side) => Math.abs(side.reduce((s, o) => s + areaOf(o), 0))).sort();
    expect(areas[0]).toBeCloseTo(0.04, 8);
    expect(areas[1]).toBeCloseTo(0.12, 8);
    const [c, d] = splitOutlines([square], 0.9, 0, 0.9, 1);
    expect([c.length, d.length].sort()).toEqual([0, 1]);
  });

  test('joining overlapping outlines gives one, apart ones both', () => {
    expect(joinOutlines([[square], [[0.5, 0.5, 0.8, 0.5, 0.8, 0.8, 0.5, 0.8]]])).toHaveLength(1);
    expect(joinOutlines([[square], [[0.7, 0.7, 0.8, 0.7, 0.8, 0.8]]])).toHaveLength(2);
  });

  test('a lasso encloses what it goes round; a click encloses nothing', () => {
    const round = Array.from({ length: 80 }, (_, k): [number, number] => [
      0.5 + 0.2 * Math.cos((k / 40) * Math.PI),
      0.5 + 0.2 * Math.sin((k / 40) * Math.PI),
    ]);
    const outline = lassoOutline(round)!;
    expect(isInside([outline], 0.5, 0.5)).toBe(true);
    expect(Math.abs(areaOf(outline))).toBeCloseTo(Math.PI * 0.04, 2);
    expect(
      lassoOutline([
        [0.5, 0.5],
        [0.5001, 0.5],
      ]),
    ).toBeNull();
  });
});

test('a mark becomes a recipe that cuts it out, clears the paper and centres it', () => {
  const raster = sheet(300, 220, three);
  const { paper, dark } = findPaper(raster);
  const { marks } = findMarks(inkFrom(raster), find());
  const doc: Pick<Sheet, 'file' | 'paper' | 'dark'> = {
    file: { blob: 'a'.repeat(64), name: 'x.png', width: 600, height: 440, what: '' },
    paper,
    dark,
  };
  const mark = MarkSchema.parse({ id: crypto.randomUUID(), outlines: marks[1].outlines });
  const base = markBase(doc, mark);
  expect(base.width).toBeGreaterThan(2 * 52);
  expect(base.width).toBeLessThan(2 * 52 * 1.3);
  // The window at the sheet's size, read from the reduced copy twice as small.
  const window = newPicture(Math.round(base.width / 2), Math.round(base.height / 2));
  for (let j = 0; j < window.height; j++)
    for (let i = 0; i < window.width; i++)
      window.data[j * window.width + i] =
        raster.planes[0][(j + Math.round(base.y / 2)) * 300 + i + Math.round(base.x / 2)];
  let n = 0;
  const recipe = markRecipe(
    base,
    mark,
    { size: 128, margin: 6, straighten: true },
    rasterOf(window),
    () => `5f0c1d9e-3b41-4c8a-9f5e-${String(++n).padStart(12, '0')}`,
  );
  expect(recipe.steps.map((s) => s.kind)).toEqual(['cut', 'levels', 'straighten', 'pad']);
  const levels = recipe.steps[1];
  expect(levels.kind === 'levels' && levels.black).toBeGreaterThan(0);
  expect(levels.kind === 'levels' && levels.black).toBeLessThan(0.06);
  expect(levels.kind === 'levels' && levels.white).toBeGreaterThan(0.8);
});

test('the turn that brings a long mark upright', () => {
  for (const degrees of [0, 20, -35, 80]) {
    const a = ((90 - degrees) * Math.PI) / 180;
    const [c, s] = [Math.cos(a), -Math.sin(a)];
    const bar = cover(
      [
        [
          [-60, -10],
          [60, -10],
          [60, 10],
          [-60, 10],
        ].flatMap(([x, y]) => [100 + x * c - y * s, 100 + x * s + y * c]),
      ],
      200,
      200,
    );
    // A bar that leans clockwise by so much is turned anticlockwise by as much.
    expect(uprightTurn(bar)).toBeCloseTo(degrees, 0);
  }
  expect(
    uprightTurn(
      cover(
        [
          Array.from({ length: 60 }, (_, k) => [
            50 + 30 * Math.cos((k / 30) * Math.PI),
            50 + 30 * Math.sin((k / 30) * Math.PI),
          ]).flat(),
        ],
        100,
        100,
      ),
    ),
  ).toBe(0);
});
