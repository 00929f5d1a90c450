import { newBrush, sectionsThatDiffer, SlabSchema, SOURCE_VERSION } from './index';

const slab = (more: object = {}) =>
  SlabSchema.parse({
    version: SOURCE_VERSION,
    kind: 'slab',
    id: '00000000-0000-4000-8000-000000000001',
    card: { name: 'Crust' },
    cells: 256,
    blob: null,
    ...more,
  });

test('sections are named as the benches name them; what follows from the rest isn’t told', () => {
  expect(sectionsThatDiffer(slab(), slab())).toEqual([]);
  expect(sectionsThatDiffer(slab(), slab({ blob: 'a'.repeat(64), history: 'b'.repeat(64) }))).toEqual(['clay']);
  expect(sectionsThatDiffer(slab(), slab({ card: { name: 'Rings' }, cells: 512, cast: { size: 2048 } }))).toEqual([
    'name and notes',
    'density',
    'frame and casting',
  ]);
});

test('what only one of them has differs', () => {
  const brush = newBrush('00000000-0000-4000-8000-000000000001', 'a');
  expect(sectionsThatDiffer({ size: 1 }, { size: 1, relief: 0.1 })).toEqual(['depth']);
  expect(sectionsThatDiffer(brush, { ...brush, card: { ...brush.card, name: 'b' } })).toEqual(['name and notes']);
});
