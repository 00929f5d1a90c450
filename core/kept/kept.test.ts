import {
  ALPHA_VERSION, AlphaSchema, BODY_VERSION, LetteringSchema, newBrush, newGrow, OwnBodySchema, PatternSchema, SheetSchema, SlabSchema, SOURCE_VERSION, StepSchema, type Source,
} from '#core/settings';
import { OwnTrialSchema, TRIAL_VERSION, trialSets } from '#core/trial';
import { HEAD_SCHEMAS, headOf, listedOf, type Collection, type Documents } from './index';

const id = '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e';
const hash = 'a'.repeat(64);
const notes = 'n'.repeat(4000);
const card = { name: 'One', author: 'Someone', tags: ['tag'], notes };
const source = { version: SOURCE_VERSION, id, card };
const brush = { ...newBrush(id, 'One'), card };
brush.form.alphaId = '00000000-0000-4000-8000-000000000001';
const alpha = AlphaSchema.parse({
  version: ALPHA_VERSION, id, card, size: 64, relief: 0.1, ground: 0.2, blob: hash, lineage: { sourceId: id, sourceRevision: 3, floor: 0, crown: 0.1 },
  report: { marginPx: 1, ringLoss: 0, usedRange: 1 },
  recipe: { base: { kind: 'cast', blob: hash, format: 'grey16', size: 64 }, steps: [StepSchema.parse({ kind: 'retouch', id, marks: [] })] },
});
const trial = OwnTrialSchema.parse({ version: TRIAL_VERSION, id, card, body: 'ball', strokes: trialSets()[0]!.strokes });
const sources: [Source, object][] = [
  [SlabSchema.parse({ ...source, kind: 'slab', cells: 256, blob: hash }), { cells: 256 }],
  [SheetSchema.parse({ ...source, kind: 'sheet', file: { blob: hash, name: 'a.png', width: 30, height: 20, what: 'PNG' } }), { width: 30, height: 20, marks: null }],
  [SheetSchema.parse({ ...source, kind: 'sheet', file: { blob: hash, name: 'a.png', width: 30, height: 20, what: 'PNG' }, marks: [] }), { marks: 0 }],
  [LetteringSchema.parse({ ...source, kind: 'lettering', blocks: [{ id }, { id }] }), { blocks: 2 }],
  [PatternSchema.parse({ ...source, kind: 'pattern', grow: newGrow('weave') }), { form: 'weave' }],
];
const documents: [Collection, Documents[Collection]][] = [
  ['brushes', brush], ['alphas', alpha], ['trials', trial],
  ['bodies', OwnBodySchema.parse({ version: BODY_VERSION, id, card, mesh: hash, triangles: 12, report: { merged: 0, dropped: 0, open: 0, pieces: 1 } })],
  ...sources.map(([doc]): [Collection, Source] => ['sources', doc]),
];

test.each(documents)('%s: the head reads as itself again, and leaves notes, version and what is long to the document', (collection, doc) => {
  const head = headOf(collection, doc as never);
  expect(HEAD_SCHEMAS[collection].parse(JSON.parse(JSON.stringify(head)))).toEqual(head);
  expect(head).toMatchObject({ id, card: { name: 'One', tags: ['tag'] } });
  for (const left of ['version', 'recipe', 'notes']) expect(JSON.stringify(head)).not.toContain(`"${left}":`);
  expect(JSON.stringify(head).length).toBeLessThan(600);
});

test.each(sources)('a source’s head says what stands under its name', (doc, facts) => {
  expect(headOf('sources', doc)).toMatchObject({ kind: doc.kind, ...facts });
});

test('a brush’s head names its alphas, an alpha’s is enough to stamp with, a set’s counts its strokes', () => {
  expect(headOf('brushes', brush)).toMatchObject({ form: { alphaId: brush.form.alphaId }, tooth: { alphaId: null }, touch: { action: 'lift' }, stroke: { type: 'trail' } });
  expect(headOf('alphas', alpha)).toMatchObject({ blob: hash, size: 64, format: 'grey16', relief: 0.1, ground: 0.2, lineage: { sourceId: id, sourceRevision: 3 } });
  expect(headOf('trials', trial).strokes).toBe(trial.strokes.length);
  expect(listedOf('brushes', { doc: brush, revision: 4, base: false, updatedAt: 'then' })).toMatchObject({ id, revision: 4, base: false, updatedAt: 'then' });
});
