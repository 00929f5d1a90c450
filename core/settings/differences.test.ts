import fc from 'fast-check';
import {
  AlphaSchema,
  newStep,
  SlabSchema,
  SOURCE_VERSION,
  SourceSchema,
  settingsThatDiffer,
  type Alpha,
} from './index';
import { ALPHA_VERSION } from './alpha';

const id = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const slab = (more: object = {}) =>
  SlabSchema.parse({
    version: SOURCE_VERSION,
    kind: 'slab',
    id: id(1),
    card: { name: 'Crust' },
    cells: 256,
    blob: null,
    ...more,
  });
const alpha = (steps: object[], more: object = {}): Alpha =>
  AlphaSchema.parse({
    version: ALPHA_VERSION,
    id: id(2),
    card: { name: 'Ring' },
    size: 32,
    relief: 0.1,
    ground: 0,
    blob: 'a'.repeat(64),
    lineage: { sourceId: null, sourceRevision: null, floor: 0, crown: 0.1 },
    recipe: steps.length ? { base: { kind: 'cast', blob: 'b'.repeat(64), format: 'grey16', size: 32 }, steps } : null,
    report: { marginPx: 0, ringLoss: 0, usedRange: 1 },
    ...more,
  });
const told = (of: ReturnType<typeof settingsThatDiffer>): string[] =>
  of.map(({ label, before, after }) => `${label}: ${before} → ${after}`);

test('settings are told by section and name, with units, before and after', () => {
  const after = slab({ cells: 512, cast: { size: 2048, frame: { turn: 12 } }, card: { name: 'Crust', tags: ['sea'] } });
  expect(told(settingsThatDiffer(SourceSchema, slab(), after))).toEqual([
    'Name and notes, tags:  → sea',
    'Density: 256 → 512',
    'Frame and casting, frame, turn: 0° → 12°',
    'Frame and casting, size: 1024 px → 2048 px',
  ]);
});

test('data is named and has no value; what is counted from the rest isn’t told', () => {
  const after = slab({ blob: 'a'.repeat(64), history: 'b'.repeat(64) });
  expect(told(settingsThatDiffer(SourceSchema, slab(), after))).toEqual(['Clay: none → ']);
});

test('steps of a recipe are told by what they are, wherever they stand', () => {
  const [crop, turn] = [newStep('crop', id(3)), newStep('straighten', id(4))];
  const before = alpha([crop, turn]);
  const label = (steps: object[]): string[] => told(settingsThatDiffer(AlphaSchema, before, alpha(steps)));
  expect(label([{ ...crop, left: 5 }, turn])).toEqual(['Recipe, steps, crop 1, left: 0 % → 5 %']);
  expect(label([turn])).toEqual(['Recipe, steps, crop 1: there → none']);
  expect(label([turn, crop])).toEqual(['Recipe, steps, order: as it was → another']);
});

test('property: nothing is told of what is the same; something of every setting that was turned', () => {
  const sides = fc.record({ turn: fc.integer({ min: -180, max: 180 }), size: fc.integer({ min: 8, max: 4096 }) });
  fc.assert(
    fc.property(sides, sides, (a, b) => {
      const of = ({ turn, size }: typeof a) => slab({ cast: { size, frame: { turn } } });
      const paths = settingsThatDiffer(SourceSchema, of(a), of(b)).map(({ path }) => path);
      expect(paths.includes('cast.frame.turn')).toBe(a.turn !== b.turn);
      expect(paths.includes('cast.size')).toBe(a.size !== b.size);
    }),
    { seed: 1 },
  );
});
