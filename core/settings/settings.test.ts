import { z } from 'zod';
import {
  BRUSH_MIGRATIONS,
  BRUSH_VERSION,
  BrushSchema,
  changeOf,
  changesOf,
  newBrush,
  numberAt,
  putNumber,
  readDocument,
  settingAt,
} from './index';

const ID = '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e';

test('a new brush is filled from the defaults of its settings', () => {
  const brush = newBrush(ID, 'Crust');
  expect(brush.form.depth).toBe(settingAt(BrushSchema, 'form.depth').fallback);
  expect(brush.touch.falloff.kind).toBe('dome');
  expect(brush.stroke.type).toBe('trail');
});

test('every numeric setting has a default inside its range and a step', () => {
  const brush = newBrush(ID, 'Crust');
  let seen = 0;
  for (const [group, values] of Object.entries(brush)) {
    if (typeof values !== 'object' || group === 'card') continue;
    for (const [key, value] of Object.entries(values)) {
      if (typeof value !== 'number') continue;
      const meta = settingAt(BrushSchema, `${group}.${key}`);
      expect(meta.min).toBeLessThanOrEqual(meta.fallback);
      expect(meta.fallback).toBeLessThanOrEqual(meta.max);
      expect(meta.step).toBeGreaterThan(0);
      expect(meta.help.length).toBeGreaterThan(5);
      seen++;
    }
  }
  expect(seen).toBeGreaterThanOrEqual(11);
});

test('a value out of range is refused with the setting’s name and limit', () => {
  const result = BrushSchema.safeParse({ ...newBrush(ID, 'Crust'), form: { depth: 900 } });
  expect(result.success).toBe(false);
  expect(result.error!.issues[0].message).toBe('Depth must be at most 400 %.');
});

test.each([NaN, Infinity, '3', null])('%p is no depth', (depth) => {
  expect(BrushSchema.safeParse({ ...newBrush(ID, 'Crust'), form: { depth } }).success).toBe(false);
});

test('settingAt refuses a path that is not there', () => {
  expect(() => settingAt(BrushSchema, 'form.sparkle')).toThrow('"sparkle" is not in the schema');
  expect(() => settingAt(BrushSchema, 'form.footprint')).toThrow('not a numeric setting');
});

describe('reading documents', () => {
  const Schema = z.object({ version: z.literal(3), name: z.string() });

  test('older versions are migrated step by step', () => {
    const result = readDocument(
      'thing',
      Schema,
      3,
      { version: 1, title: 'a' },
      {
        1: (d) => ({ ...d, label: d['title'] }),
        2: (d) => ({ ...d, name: d['label'] }),
      },
    );
    expect(result).toEqual({ ok: true, value: { version: 3, name: 'a' } });
  });

  test('newer and broken ones are refused with a sentence', () => {
    const newer = readDocument('brush', BrushSchema, BRUSH_VERSION, { version: 99 });
    expect(newer).toEqual({ ok: false, reason: expect.stringContaining('version 99') });
    const broken = readDocument('brush', BrushSchema, BRUSH_VERSION, { ...newBrush(ID, 'a'), stroke: { size: -1 } });
    expect(broken).toEqual({ ok: false, reason: 'The brush is broken: Size must be at least 0.005 body.' });
    expect(readDocument('brush', BrushSchema, BRUSH_VERSION, 'x').ok).toBe(false);
  });
});

describe('what changed between two states of a brush', () => {
  const brush = newBrush(ID, 'a');
  test.each([
    [(b: typeof brush) => (b.touch.strength = 40), 'Strength', '40 %'],
    [(b: typeof brush) => (b.form.turn = -30), 'Turn', '-30°'],
    [(b: typeof brush) => (b.stroke.size = 0.125), 'Size', '0.125'],
    [(b: typeof brush) => (b.stroke.type = 'pull'), 'Stroke type', 'pull'],
    [(b: typeof brush) => (b.form.alphaId = ID), 'Alpha', ''],
    [(b: typeof brush) => (b.tooth.invert = true), 'Tooth inverted', 'on'],
    [(b: typeof brush) => (b.pen.pressureSize.curve[1].y = 0.5), 'Pen curve', ''],
    [(b: typeof brush) => (b.pen.speedStrength.high = 20), 'Fast strength', '20 %'],
  ])('case %#', (change, label, value) => {
    const after = structuredClone(brush);
    change(after);
    expect(changeOf(brush, after)).toMatchObject({ label, value });
  });

  test('all of it, in the order of the settings', () => {
    const after = structuredClone(brush);
    after.card.name = 'Another';
    after.stroke.size = 0.3;
    after.form.fit = 2;
    expect(changesOf(brush, after).map(({ label }) => label)).toEqual(['Fit', 'Size', 'Name']);
  });

  test('nothing when they are alike', () => {
    expect(changesOf(brush, structuredClone(brush))).toEqual([]);
    expect(changeOf(brush, structuredClone(brush))).toBeNull();
  });
});

describe('brushes of older versions', () => {
  test('version 2: scatter is drift both ways, the pen’s lower limits stay, what had no overlaps adds up', () => {
    const old = {
      version: 2,
      id: ID,
      card: { name: 'Old' },
      touch: { action: 'lift', strength: 70 },
      stroke: { type: 'trail', size: 0.2, scatter: 45 },
      pen: { sizeLow: 30, strengthLow: 60 },
    };
    const read = readDocument('brush', BrushSchema, BRUSH_VERSION, old, BRUSH_MIGRATIONS);
    if (!read.ok) throw new Error(read.reason);
    expect(read.value.drift).toMatchObject({ along: 45, across: 45, size: 0 });
    expect(read.value.pen.pressureSize).toMatchObject({ low: 30, high: 100 });
    expect(read.value.pen.pressureStrength.low).toBe(60);
    expect(read.value.touch.overlaps).toBe('add');
    expect(read.value.stroke).not.toHaveProperty('scatter');
  });

  test('version 1 comes all the way', () => {
    const read = readDocument(
      'brush',
      BrushSchema,
      BRUSH_VERSION,
      { version: 1, id: ID, card: { name: 'First' } },
      BRUSH_MIGRATIONS,
    );
    expect(read.ok && read.value.stroke.type).toBe('trail');
  });
});

describe('numbers by their paths', () => {
  test('are read and put; a path that holds none is refused', () => {
    const brush = newBrush(ID, 'a');
    putNumber(brush, 'pen.pressureSize.low', 12);
    expect(numberAt(brush, 'pen.pressureSize.low')).toBe(12);
    expect(() => putNumber(brush, 'pen.nothing', 1)).toThrow('no number');
    expect(() => numberAt(brush, 'stroke.type')).toThrow('no number');
  });
});
