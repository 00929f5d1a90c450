import { resolveBrush } from '#core/brush';
import { newBrush, type Brush } from '#core/settings';
import { aligned, rowOfSwatches, SHEET_HIGH, SHEET_WIDE, swatchClay, swatchSheet, type Swatch } from './index';

const brush = (change: (b: Brush) => void = () => undefined) => {
  const own = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Swatch');
  own.touch.action = 'paint';
  own.touch.falloff.kind = 'full';
  change(own);
  return resolveBrush(own, null);
};
const clay = swatchClay();
const COLOURS = ['#c02020', '#20a040', '#2040c0', '#e0c020'];

/** Where a colour stands in the picture, about: the middle of pixels that are near it; null where none is. */
function middleOf({ width, data }: { width: number; data: Uint8ClampedArray }, hex: string): [number, number] | null {
  const wanted = [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16));
  let [x, y, n] = [0, 0, 0];
  for (let i = 0; i < data.length; i += 4) {
    if (wanted.some((c, k) => Math.abs(data[i + k]! - c) > 24)) continue;
    x += (i / 4) % width;
    y += Math.floor(i / 4 / width);
    n++;
  }
  return n > 40 ? [x / n / width, y / n / width] : null;
}

test('a stroke a colour, in rows, each in its own colour; a setting that moves moves them all', () => {
  const sheet = swatchSheet(clay, brush(), rowOfSwatches(COLOURS), 480);
  expect([sheet.width, sheet.data.length]).toEqual([480, 480 * sheet.height * 4]);
  const places = COLOURS.map((colour) => middleOf(sheet, colour)!);
  expect(places.every((place) => place !== null)).toBe(true);
  for (let i = 1; i < places.length; i++) expect(places[i]![0] - places[i - 1]![0]).toBeCloseTo(1 / 4, 1);
  expect(swatchSheet(clay, brush(), rowOfSwatches(COLOURS), 480)).toEqual(sheet);
  const thin = swatchSheet(
    clay,
    brush((b) => (b.colour.flow = 10)),
    rowOfSwatches(COLOURS),
    480,
  );
  expect(COLOURS.map((colour) => middleOf(thin, colour))).toEqual([null, null, null, null]);
});

test('aligned, strokes of any kind stand evenly and keep their shapes; nothing is left on the next sheet', () => {
  const drawn: Swatch[] = [
    {
      colour: '#c02020',
      points: [
        { x: 3, y: -1, pressure: 1, time: 0 },
        { x: 3.6, y: -0.6, pressure: 1, time: 90 },
      ],
    },
    { colour: '#20a040', points: [{ x: -3, y: 1, pressure: 1, time: 0 }] },
    {
      colour: '#2040c0',
      points: [
        { x: 0, y: 0, pressure: 1, time: 0 },
        { x: 0.2, y: 0.9, pressure: 0.4, time: 60 },
      ],
    },
  ];
  const even = aligned(drawn);
  even.forEach(({ points }, i) => {
    const [first] = points;
    const by = [first!.x - drawn[i]!.points[0]!.x, first!.y - drawn[i]!.points[0]!.y] as const;
    for (const [k, p] of points.entries()) {
      expect(p.x - drawn[i]!.points[k]!.x).toBeCloseTo(by[0], 9);
      expect(p.y - drawn[i]!.points[k]!.y).toBeCloseTo(by[1], 9);
      expect(Math.abs(p.x) < SHEET_WIDE / 2 && Math.abs(p.y) < SHEET_HIGH / 2).toBe(true);
    }
  });
  const sides = even.map(
    ({ points }) => [Math.min(...points.map((p) => p.x)), Math.max(...points.map((p) => p.x))] as const,
  );
  expect(sides[1]![0] - sides[0]![1]).toBeCloseTo(sides[2]![0] - sides[1]![1], 6);
  // One as wide as the sheet stands in a row of its own, the others in rows over and under it.
  const wide: Swatch = {
    colour: '#000000',
    points: [
      { x: -3.4, y: 0, pressure: 1, time: 0 },
      { x: 3.4, y: 0, pressure: 1, time: 500 },
    ],
  };
  const rows = aligned([...drawn, wide]).map(({ points }) => points[0]!.y);
  expect(rows[3]).toBeLessThan(Math.min(...rows.slice(0, 3)) + 0.1);
  swatchSheet(clay, brush(), drawn, 320);
  const empty = swatchSheet(clay, brush(), [], 320);
  expect(new Set(Array.from({ length: 50 }, (_, i) => empty.data[i * 4 * 311])).size).toBe(1);
  expect(aligned([])).toEqual([]);
});
