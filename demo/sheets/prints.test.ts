import { findMarks, findPaper, inkOf, wholeSheet } from '#core/marks';
import { toGrey } from '#core/picture';
import { FindSchema } from '#core/settings';
import { boundsOf } from '#core/marks';
import { drawPrints } from './prints';
import { scoreMarks } from './score';

test('the same seed prints the same page', () => {
  const options = {
    width: 200,
    height: 160,
    seed: 5,
    columns: 3,
    rows: 2,
    dust: 8,
    hairs: 2,
    shade: 0.25,
    grain: 0.04,
  };
  const red = (seed: number): Buffer =>
    Buffer.from(drawPrints({ ...options, seed }).raster.planes[0].buffer as ArrayBuffer);
  expect(red(5).equals(red(5))).toBe(true);
  expect(red(5).equals(red(6))).toBe(false);
});

test('marks of generated sheets are found, dust and hairs are not', () => {
  let found = 0;
  let right = 0;
  let wanted = 0;
  for (let seed = 1; seed <= 3; seed++) {
    const score = scoreMarks(seed);
    found += score.found;
    right += score.right;
    wanted += score.wanted;
  }
  expect(wanted).toBeGreaterThan(17);
  expect(right / found).toBeGreaterThan(0.95);
  expect(right / wanted).toBeGreaterThan(0.95);
});

test('every outline lies about its own mark', () => {
  const { raster, boxes } = drawPrints({
    width: 500,
    height: 380,
    seed: 9,
    columns: 4,
    rows: 3,
    dust: 0,
    hairs: 0,
    shade: 0.3,
    grain: 0.04,
  });
  const { marks } = findMarks(
    toGrey(inkOf(raster, findPaper(raster), wholeSheet(raster))),
    FindSchema.parse({ join: 1.6, smallest: 3 }),
  );
  expect(marks).toHaveLength(boxes.length);
  for (const mark of marks) {
    const b = boundsOf(mark.outlines);
    expect(boxes.some((t) => Math.abs(t.left / 500 - b.x0) < 0.04 && Math.abs(t.bottom / 380 - b.y1) < 0.04)).toBe(
      true,
    );
  }
});
