/** The page of sponge and bristle prints with its marks found, and one of them cast. */
import { findMarks, findPaper, inkOf, markBase, markRecipe, wholeSheet } from '#core/marks';
import { eachPlane, toGrey, type Raster } from '#core/picture';
import { crop, resize } from '#core/filter';
import { FIND_SIDE, FindSchema, MarkSchema, SheetSchema, SOURCE_VERSION, type Alpha, type Sheet } from '#core/settings';
import { demoAlpha } from '../demoAlpha';
import type { DemoMachine } from '../tidewrack';
import { drawPrints } from './prints';

const WIDTH = 1800;
const HEIGHT = 1320;

export interface DemoPage {
  doc: Sheet;
  bytes: Uint8Array;
  cast(id: string, name: string): { doc: Alpha; bytes: Uint8Array };
}

export async function printsPage(
  id: string,
  author: string,
  { hash, scan }: Pick<DemoMachine, 'hash' | 'scan'>,
): Promise<DemoPage> {
  const { raster } = drawPrints({
    width: WIDTH,
    height: HEIGHT,
    seed: 31,
    columns: 5,
    rows: 4,
    dust: 90,
    hairs: 7,
    shade: 0.34,
    grain: 0.05,
  });
  const bytes = await scan(raster);
  const copy = eachPlane(raster, (p) => resize(p, FIND_SIDE, Math.round((HEIGHT * FIND_SIDE) / WIDTH)));
  const { paper, dark } = findPaper(copy);
  const find = FindSchema.parse({ join: 1.4, smallest: 3 });
  const { marks } = findMarks(toGrey(inkOf(copy, { paper, dark }, wholeSheet(copy))), find);
  const uuid = (n: number): string => `d0000000-0000-4000-8000-0000000003${String(n).padStart(2, '0')}`;
  const doc = SheetSchema.parse({
    version: SOURCE_VERSION,
    kind: 'sheet',
    id,
    card: { name: 'Sponge and bristle', author, tags: ['tidewrack'] },
    file: { blob: hash(bytes), name: 'sponge-and-bristle.jpg', width: WIDTH, height: HEIGHT, what: 'JPEG, 8 bit' },
    find,
    paper,
    dark,
    marks: marks.map(({ outlines }, n) => MarkSchema.parse({ id: uuid(n), outlines })),
  });
  return { doc, bytes, cast: (alphaId, name) => castFirst(doc, raster, alphaId, name, hash) };
}

function castFirst(
  doc: Sheet,
  raster: Raster,
  alphaId: string,
  name: string,
  hash: DemoMachine['hash'],
): { doc: Alpha; bytes: Uint8Array } {
  const mark = doc.marks![0];
  const base = markBase(doc, mark);
  const pixels = eachPlane(raster, (p) =>
    crop(p, { left: base.x, top: base.y, width: base.width, height: base.height }),
  );
  let n = 0;
  const recipe = markRecipe(
    base,
    mark,
    { ...doc.cut, size: 512 },
    pixels,
    () => `d0000000-0000-4000-8000-0000000014${String(n++).padStart(2, '0')}`,
  );
  return demoAlpha(
    { id: alphaId, name, author: doc.card.author, size: 512, relief: 0.1, sourceId: doc.id, recipe, hash },
    inkOf(pixels, { paper: doc.paper!, dark: doc.dark }, base),
  );
}
