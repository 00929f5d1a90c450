/** How well marks are found on a generated sheet: each mark printed against the box that overlaps it most. */
import { boundsOf, findMarks, findPaper, inkOf, wholeSheet } from '#core/marks';
import { toGrey } from '#core/picture';
import { seeded } from '#core/random';
import { FindSchema } from '#core/settings';
import { drawPrints } from './prints';

export interface MarkScore {
  found: number;
  right: number;
  wanted: number;
}

/** Shared area ÷ joined area from which a box counts as the mark's own. */
const ALIKE = 0.5;

/** A sheet with its own number of marks, grain, light, dust, hairs and marks that touch, all from the seed. */
export function scoreMarks(seed: number): MarkScore {
  const random = seeded(seed, 23);
  const width = 460 + Math.round(120 * random());
  const height = 340 + Math.round(100 * random());
  const { raster, boxes } = drawPrints({
    width,
    height,
    seed,
    columns: 3 + Math.floor(random() * 3),
    rows: 2 + Math.floor(random() * 2),
    dust: Math.floor(random() * 40),
    hairs: Math.floor(random() * 4),
    shade: 0.45 * random(),
    grain: 0.01 + 0.06 * random(),
    bare: 0.1,
    touching: 0.15,
  });
  const ink = toGrey(inkOf(raster, findPaper(raster), wholeSheet(raster)));
  const { marks } = findMarks(ink, FindSchema.parse({ join: 1.6, smallest: 4 }));
  const found = marks.map((m) => {
    const { x0, y0, x1, y1 } = boundsOf(m.outlines);
    return { left: x0 * width, top: y0 * height, right: x1 * width, bottom: y1 * height };
  });
  const right = boxes.filter((b) => found.some((f) => likeness(b, f) >= ALIKE)).length;
  return { found: found.length, right, wanted: boxes.length };
}

type Box = { left: number; top: number; right: number; bottom: number };

function likeness(a: Box, b: Box): number {
  const w = Math.min(a.right, b.right) - Math.max(a.left, b.left);
  const h = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
  if (w <= 0 || h <= 0) return 0;
  const size = (x: Box): number => (x.right - x.left) * (x.bottom - x.top);
  return (w * h) / (size(a) + size(b) - w * h);
}
