/**
 * One numeric setting: its range, default, step, unit and label, held in the schema itself, so that
 * slider, typed entry, validation, storage and documents all read the same place.
 */
import { z } from 'zod';

// Zod's compiled validators need `new Function`, which the content security policy rightly forbids.
z.config({ jitless: true });

export type Unit = '%' | '°' | 'body' | 'r' | 'px' | 'grey' | 'steps' | 'dabs/s' | 'body/s' | 'mm' | 'MB' | '';

export interface SettingMeta {
  label: string;
  unit: Unit;
  min: number;
  max: number;
  step: number;
  fallback: number;
  help: string;
  /** Log sliders give small values as much room as large ones (sizes). */
  scale: 'linear' | 'log';
}

type SettingInput = Omit<SettingMeta, 'scale'> & { scale?: SettingMeta['scale'] };

export function setting(input: SettingInput) {
  const meta: SettingMeta = { scale: 'linear', ...input };
  return z
    .number(`${meta.label} must be a number.`)
    .min(meta.min, `${meta.label} must be at least ${meta.min}${spaced(meta.unit)}.`)
    .max(meta.max, `${meta.label} must be at most ${meta.max}${spaced(meta.unit)}.`)
    .default(meta.fallback)
    .meta({ setting: meta });
}

/**
 * The meta of the setting at a dotted path of an object schema, e.g. `settingAt(BrushSchema, 'form.fit')`.
 * Throws when the path names no numeric setting.
 */
export function settingAt(schema: z.ZodType, path: string): SettingMeta {
  let at: z.ZodType = schema;
  for (const key of path.split('.')) {
    const shape = shapeOf(at);
    const next = shape?.[key];
    if (!next) throw new Error(`No setting "${path}": "${key}" is not in the schema.`);
    at = next;
  }
  const meta = (at.meta() as { setting?: SettingMeta } | undefined)?.setting;
  if (!meta) throw new Error(`"${path}" is not a numeric setting.`);
  return meta;
}

/** Every numeric setting of an object schema's own level, in its order. */
export function settingsIn(schema: z.ZodType): [key: string, meta: SettingMeta][] {
  return Object.entries(shapeOf(schema) ?? {}).flatMap(([key, at]) => {
    const meta = (at.meta() as { setting?: SettingMeta } | undefined)?.setting;
    return meta ? [[key, meta] as [string, SettingMeta]] : [];
  });
}

/** The number at a dotted path of a document. */
export function numberAt(doc: object, path: string): number {
  let at: unknown = doc;
  for (const key of path.split('.')) at = (at as Record<string, unknown> | undefined)?.[key];
  if (typeof at !== 'number') throw new Error(`"${path}" is no number of this document.`);
  return at;
}

/** Puts a number at a dotted path of a document that holds one there. */
export function putNumber(doc: object, path: string, value: number): void {
  numberAt(doc, path);
  const keys = path.split('.');
  const last = keys.pop()!;
  let at = doc as Record<string, unknown>;
  for (const key of keys) at = at[key] as Record<string, unknown>;
  at[last] = value;
}

function shapeOf(schema: z.ZodType): Record<string, z.ZodType> | undefined {
  let at: unknown = schema;
  while (at instanceof z.ZodDefault || at instanceof z.ZodPrefault) at = at.unwrap();
  return at instanceof z.ZodObject ? at.shape : undefined;
}

function spaced(unit: Unit): string {
  return unit === '' ? '' : ` ${unit}`;
}
