import { readMesh } from '#core/formats';
import { block, extentsOf, seatAlong, seatFields } from '#core/part';
import { PartSeatSchema } from '#core/settings';
import { besideEachOther } from './partRow';

test('parts of a set stand beside each other in their real sizes, on their seats', () => {
  const part = (name: string, size: [number, number, number], millimetres: number) => {
    const mesh = block(size, [5, 5, 5]);
    return {
      mesh,
      head: {
        card: { name },
        millimetres,
        seat: PartSeatSchema.parse(seatFields(seatAlong(mesh, [0, 0, 1], [0, 1, 0]))),
      },
    };
  };
  const row = besideEachOther([part('Peg', [1, 1, 2], 10), part('Plate', [2, 1, 1], 20), part('Pin', [1, 1, 1], 4)]);
  expect(row.map(({ name, up }) => [name, up])).toEqual([
    ['Peg', 'z'],
    ['Plate', 'z'],
    ['Pin', 'z'],
  ]);
  const spans = row.map(({ mesh, millimetres }) => {
    const { low, high } = extentsOf(readMesh(mesh).positions);
    expect(low[2]).toBeCloseTo(0, 5);
    return [low[0] * millimetres, high[0] * millimetres] as const;
  });
  const wide = spans.map(([from, to]) => to - from);
  [10, 40, 4].forEach((mm, i) => expect(wide[i]).toBeCloseTo(mm, 4));
  spans
    .slice(1)
    .forEach(([from], i) => expect(from - spans[i]![1]).toBeCloseTo(Math.max(wide[i]!, wide[i + 1]!) / 4, 4));
});
