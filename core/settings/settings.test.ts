import { z } from 'zod';
import { BRUSH_VERSION, BrushSchema, newBrush, readDocument, settingAt } from './index';

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
  expect(result.error!.issues[0]!.message).toBe('Depth must be at most 400 %.');
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
    const result = readDocument('thing', Schema, 3, { version: 1, title: 'a' }, {
      1: (d) => ({ ...d, label: d['title'] }),
      2: (d) => ({ ...d, name: d['label'] }),
    });
    expect(result).toEqual({ ok: true, value: { version: 3, name: 'a' } });
  });

  test('newer and broken ones are refused with a sentence', () => {
    const newer = readDocument('brush', BrushSchema, BRUSH_VERSION, { version: 99 });
    expect(newer).toEqual({ ok: false, reason: expect.stringContaining('version 99') });
    const broken = readDocument('brush', BrushSchema, BRUSH_VERSION, { ...newBrush(ID, 'a'), stroke: { size: -1 } });
    expect(broken).toEqual({ ok: false, reason: 'The brush is broken: stroke.size: Size must be at least 0.005 body.' });
    expect(readDocument('brush', BrushSchema, BRUSH_VERSION, 'x').ok).toBe(false);
  });
});
