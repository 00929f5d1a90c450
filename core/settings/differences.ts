/** Every setting that differs between two states of a source, an alpha or a part, with its value in both. */
import { z } from 'zod';
import { counted } from '#core/words';
import { said } from './changes';
import { FOLLOWS, wordFor } from './sections';
import type { SettingMeta } from './setting';

export interface SettingDifference {
  path: string;
  /** The section as benches call it, then the setting. */
  label: string;
  /** With units; '' where it is data: it is seen in the pictures. */
  before: string;
  after: string;
}

type Fields = Record<string, unknown>;
const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** `schema` is that of both; labels, units and ranges come from it. */
export function settingsThatDiffer(schema: z.ZodType, before: object, after: object): SettingDifference[] {
  const out: SettingDifference[] = [];
  const [a, b] = [before, after] as Fields[];
  for (const key of keysOf(a, b)) {
    if (FOLLOWS.includes(key)) continue;
    const section = wordFor(key, b);
    walk(fieldOf(schema, b, key), a[key], b[key], [key], (path, names, meta, values) => {
      const label = capital([section, ...names].join(', '));
      out.push({ path: path.join('.'), label, before: text(values[0], meta), after: text(values[1], meta) });
    });
  }
  return out;
}

type Told = (path: string[], names: string[], meta: SettingMeta | null, values: [unknown, unknown]) => void;

function walk(
  schema: z.ZodType | null,
  a: unknown,
  b: unknown,
  path: string[],
  tell: Told,
  names: string[] = [],
): void {
  if (JSON.stringify(a) === JSON.stringify(b)) return;
  if (isFields(a) && isFields(b)) {
    for (const key of keysOf(a, b)) {
      if (key === 'id') continue;
      const field = fieldOf(schema, b, key);
      const name = metaOf(field)?.label.toLowerCase() ?? inWords(key);
      walk(field, a[key], b[key], [...path, key], tell, [...names, name]);
    }
  } else if (areNamed(a) && areNamed(b)) {
    const item = elementOf(schema);
    const ids = [...new Set([...b, ...a].map(({ id }) => id))];
    for (const id of ids) {
      const [i, j] = [a.findIndex((one) => one.id === id), b.findIndex((one) => one.id === id)];
      const name = titleOf(b[j] ?? a[i], j < 0 ? i : j);
      walk(item, a[i], b[j], [...path, String(id)], tell, [...names, name]);
    }
    const order = (of: Named[], other: Named[]): string[] =>
      of.map(({ id }) => String(id)).filter((id) => other.some((one) => one.id === id));
    if (order(a, b).join() !== order(b, a).join())
      tell([...path, 'order'], [...names, 'order'], null, ['as it was', 'another']);
  } else tell(path, names, metaOf(schema), [a, b]);
}

type Named = Fields & { id: unknown };
/** Each has an id: it is told of by that, wherever it stands. */
const areNamed = (value: unknown): value is Named[] =>
  Array.isArray(value) && value.every((one) => isFields(one) && 'id' in one);
const keysOf = (a: Fields, b: Fields): string[] => [...new Set([...Object.keys(b), ...Object.keys(a)])];
const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
/** “setForms” as “set forms”. */
const inWords = (key: string): string => key.replace(/[A-Z]/g, (big) => ` ${big.toLowerCase()}`);
const titleOf = (one: Fields, i: number): string =>
  [one['kind'] ?? one['name'] ?? '', i + 1].filter((word) => word !== '').join(' ');

function text(value: unknown, meta: SettingMeta | null): string {
  if (value === undefined || value === null) return 'none';
  if (Array.isArray(value)) {
    const words = value.every((one) => typeof one === 'string');
    return words ? value.join(', ') : isFields(value[0]) ? counted(value.length, 'point', 'points') : 'other points';
  }
  if (isFields(value)) return 'there';
  if (typeof value === 'number' && !meta) return `${Number(value.toFixed(3))}`;
  // A hash names bytes.
  return typeof value === 'string' && /^[0-9a-f]{64}$/.test(value) ? '' : said(value, meta);
}

/** Through what wraps it, and of a union the kind that `value` is of. */
function bare(schema: z.ZodType | null, value: unknown): z.ZodType | null {
  let at: unknown = schema;
  while (
    at instanceof z.ZodDefault ||
    at instanceof z.ZodPrefault ||
    at instanceof z.ZodNullable ||
    at instanceof z.ZodOptional
  )
    at = at.unwrap();
  if (!(at instanceof z.ZodDiscriminatedUnion)) return at as z.ZodType | null;
  const { discriminator, options } = at.def as unknown as { discriminator: string; options: z.ZodObject[] };
  const kind = (value as Fields)[discriminator];
  return options.find((one) => (one.shape[discriminator] as z.ZodType).safeParse(kind).success) ?? null;
}

function fieldOf(schema: z.ZodType | null, of: Fields, key: string): z.ZodType | null {
  const at = bare(schema, of);
  return at instanceof z.ZodObject ? ((at.shape as Record<string, z.ZodType>)[key] ?? null) : null;
}

function elementOf(schema: z.ZodType | null): z.ZodType | null {
  const at = bare(schema, null);
  return at instanceof z.ZodArray ? (at.element as z.ZodType) : null;
}

function metaOf(schema: z.ZodType | null): SettingMeta | null {
  return (schema?.meta() as { setting?: SettingMeta } | undefined)?.setting ?? null;
}
