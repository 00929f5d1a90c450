import {
  ALPHA_VERSION,
  AlphaSchema,
  BODY_VERSION,
  LetteringSchema,
  newBrush,
  newGrow,
  OwnBodySchema,
  type OwnBody,
  PatternSchema,
  SheetSchema,
  SlabSchema,
  SOURCE_VERSION,
  StepSchema,
  type Source,
} from '#core/settings';
import { OwnTrialSchema, TRIAL_VERSION, trialSets } from '#core/trial';
import { HEAD_SCHEMAS, headOf, listedOf, readStored, referencesOf, type Collection, type Documents } from './index';

const id = '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e';
const hash = 'a'.repeat(64);
const notes = 'n'.repeat(4000);
const card = { name: 'One', author: 'Someone', tags: ['tag'], notes };
const source = { version: SOURCE_VERSION, id, card };
const brush = { ...newBrush(id, 'One'), card };
brush.form.alphaId = '00000000-0000-4000-8000-000000000001';
const alpha = AlphaSchema.parse({
  version: ALPHA_VERSION,
  id,
  card,
  size: 64,
  relief: 0.1,
  ground: 0.2,
  blob: hash,
  lineage: { sourceId: id, sourceRevision: 3, floor: 0, crown: 0.1 },
  report: { marginPx: 1, ringLoss: 0, usedRange: 1 },
  recipe: {
    base: { kind: 'cast', blob: hash, format: 'grey16', size: 64 },
    steps: [StepSchema.parse({ kind: 'retouch', id, marks: [] })],
  },
});
const trial = OwnTrialSchema.parse({
  version: TRIAL_VERSION,
  id,
  card,
  body: 'ball',
  strokes: trialSets()[0].strokes,
});
const sources: [Source, object][] = [
  [SlabSchema.parse({ ...source, kind: 'slab', cells: 256, blob: hash }), { cells: 256 }],
  [
    SheetSchema.parse({
      ...source,
      kind: 'sheet',
      file: { blob: hash, name: 'a.png', width: 30, height: 20, what: 'PNG' },
    }),
    { width: 30, height: 20, marks: null },
  ],
  [
    SheetSchema.parse({
      ...source,
      kind: 'sheet',
      file: { blob: hash, name: 'a.png', width: 30, height: 20, what: 'PNG' },
      marks: [],
    }),
    { marks: 0 },
  ],
  [LetteringSchema.parse({ ...source, kind: 'lettering', blocks: [{ id }, { id }] }), { blocks: 2 }],
  [PatternSchema.parse({ ...source, kind: 'pattern', grow: newGrow('weave') }), { form: 'weave' }],
];
const documents: [Collection, Documents[Collection]][] = [
  ['brushes', brush],
  ['alphas', alpha],
  ['trials', trial],
  [
    'bodies',
    OwnBodySchema.parse({
      version: BODY_VERSION,
      id,
      card,
      mesh: hash,
      triangles: 12,
      report: { merged: 0, dropped: 0, open: 0, components: 1 },
    }),
  ],
  ...sources.map(([doc]): [Collection, Source] => ['sources', doc]),
];

test.each(documents)(
  '%s: the head reads as itself again, and leaves notes, version and what is long to the document',
  (collection, doc) => {
    const head = headOf(collection, doc as never);
    expect(HEAD_SCHEMAS[collection].parse(JSON.parse(JSON.stringify(head)))).toEqual(head);
    expect(head).toMatchObject({ id, card: { name: 'One', tags: ['tag'] } });
    for (const left of ['version', 'recipe', 'notes']) expect(JSON.stringify(head)).not.toContain(`"${left}":`);
    expect(JSON.stringify(head).length).toBeLessThan(600);
  },
);

test.each(sources)('a source’s head says what stands under its name', (doc, facts) => {
  expect(headOf('sources', doc)).toMatchObject({ kind: doc.kind, ...facts });
});

describe('what a document names', () => {
  const hashes = (value: unknown): string[] =>
    [...new Set(JSON.stringify(value).match(/\b[0-9a-f]{64}\b/g) ?? [])].sort();
  let n = 0;
  const blob = (): string => (++n).toString(16).padStart(64, '0');
  const other = (): string => `00000000-0000-4000-8000-${String(++n).padStart(12, '0')}`;
  const recipe = (base: object, steps: object[] = []): unknown => ({
    base,
    steps: steps.map((s) => ({ id: other(), ...s })),
  });
  const [source2, combined] = [other(), other()];
  const full: [string, Collection, Documents[Collection]][] = [
    ['a brush with form and tooth', 'brushes', { ...brush, tooth: { ...brush.tooth, alphaId: combined } }],
    [
      'an alpha from a cast',
      'alphas',
      AlphaSchema.parse({
        ...alpha,
        blob: blob(),
        recipe: recipe({ kind: 'cast', blob: blob(), format: 'grey16', size: 32 }, [
          { kind: 'combine', alphaId: combined },
          { kind: 'combine', alphaId: combined },
        ]),
      }),
    ],
    [
      'an alpha from a pattern',
      'alphas',
      AlphaSchema.parse({
        ...alpha,
        blob: blob(),
        lineage: { ...alpha.lineage, sourceId: source2 },
        recipe: recipe({ kind: 'pattern', sourceId: source2 }),
      }),
    ],
    [
      'a slab with all it can have',
      'sources',
      SlabSchema.parse({
        ...source,
        kind: 'slab',
        cells: 64,
        blob: blob(),
        mask: blob(),
        history: blob(),
        upper: [{ cells: 128, fine: blob(), base: blob() }],
        references: [{ id: other(), name: 'r', blob: blob(), width: 4, height: 4 }],
        setForms: [{ id: other(), form: 'part', part: { name: 'p', mesh: blob(), heights: blob(), up: '+z' } }],
      }),
    ],
    [
      'a sheet',
      'sources',
      SheetSchema.parse({
        ...source,
        kind: 'sheet',
        file: { blob: blob(), name: 'a.png', width: 30, height: 20, what: 'PNG' },
      }),
    ],
    [
      'lettering in a font of one’s own',
      'sources',
      LetteringSchema.parse({
        ...source,
        kind: 'lettering',
        blocks: [{ id: other(), font: { kind: 'own', blob: blob(), name: 'a.ttf' } }],
      }),
    ],
    ...documents.map(([collection, doc], i): [string, Collection, Documents[Collection]] => [
      `${collection} ${i}`,
      collection,
      doc,
    ]),
  ];

  test.each(full)('%s: every stored file, each once', (_, collection, doc) => {
    expect(
      referencesOf(collection, doc)
        .blobs.map((b) => b.hash)
        .sort(),
    ).toEqual(hashes(doc));
  });

  test('alphas that a brush stamps with are needed; what an alpha was made from is not', () => {
    const [both, fromCast, fromPattern] = full.map(([, collection, doc]) => referencesOf(collection, doc).documents);
    expect(both).toEqual([
      { collection: 'alphas', id: brush.form.alphaId, needed: true },
      { collection: 'alphas', id: combined, needed: true },
    ]);
    expect(fromCast).toEqual([
      { collection: 'sources', id, needed: false },
      { collection: 'alphas', id: combined, needed: false },
    ]);
    expect(fromPattern).toEqual([{ collection: 'sources', id: source2, needed: false }]);
  });

  test('files whose size follows from the document have that size', () => {
    expect(referencesOf('alphas', alpha).blobs).toEqual([{ hash, bytes: 64 * 64 * 2 }]);
    expect(referencesOf('sources', sources[0][0]).blobs).toEqual([{ hash, bytes: 257 * 257 * 12 }]);
  });
});

test('a brush’s head names its alphas, an alpha’s is enough to stamp with, a set’s counts its strokes', () => {
  expect(headOf('brushes', brush)).toMatchObject({
    form: { alphaId: brush.form.alphaId },
    tooth: { alphaId: null },
    touch: { action: 'lift' },
    stroke: { type: 'trail' },
  });
  expect(headOf('alphas', alpha)).toMatchObject({
    blob: hash,
    size: 64,
    format: 'grey16',
    relief: 0.1,
    ground: 0.2,
    lineage: { sourceId: id, sourceRevision: 3 },
  });
  expect(headOf('trials', trial).strokes).toBe(trial.strokes.length);
  expect(listedOf('brushes', { doc: brush, revision: 4, base: false, updatedAt: 'then' })).toMatchObject({
    id,
    revision: 4,
    base: false,
    updatedAt: 'then',
  });
});

describe('documents of earlier versions', () => {
  test('set forms that were called pieces are read, and nothing else of the slab changes', () => {
    const slab = SlabSchema.parse({ ...source, kind: 'slab', cells: 64, blob: hash, setForms: [{ id, form: 'dome' }] });
    const { setForms, ...rest } = slab;
    expect(readStored('sources', { ...rest, version: 3, pieces: setForms })).toEqual({ ok: true, value: slab });
    expect(readStored('sources', { ...rest, version: 3 })).toEqual({ ok: true, value: { ...slab, setForms: [] } });
  });

  test('marks that were taken are included; those that were not stay out', () => {
    const mark = (more: object) => ({ id, outlines: [[0, 0, 1, 0, 1, 1]], byHand: true, ...more });
    const sheet = (version: number, marks: unknown) => ({ ...sources[1]![0], version, marks });
    const read = readStored('sources', sheet(3, [mark({ taken: true }), mark({ taken: false }), mark({})]));
    expect(read).toEqual({
      ok: true,
      value: sheet(
        SOURCE_VERSION,
        [true, false, true].map((included) => mark({ included })),
      ),
    });
    for (const broken of [[null], [3], 'x']) expect(readStored('sources', sheet(3, broken)).ok).toBe(false);
  });

  test('a body’s components were called pieces; a body without a report is refused in a sentence', () => {
    const body = documents.find(([collection]) => collection === 'bodies')![1] as OwnBody;
    const { report, ...rest } = body;
    const { components, ...counts } = report;
    expect(readStored('bodies', { ...rest, version: 1, report: { ...counts, pieces: components } })).toEqual({
      ok: true,
      value: body,
    });
    for (const broken of [undefined, null, 3, 'x'])
      expect(readStored('bodies', { ...rest, version: 1, report: broken })).toMatchObject({
        ok: false,
        reason: expect.stringContaining('report'),
      });
  });
});
