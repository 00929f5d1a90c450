/** What differs between two states of a brush, named as the bench names it, for the history of its settings. */
import { BrushSchema, type Brush } from './brush';
import { settingAt, type SettingMeta } from './setting';

export interface BrushChange {
  /** Dotted path of the first thing that differs, e.g. "touch.strength". */
  path: string;
  label: string;
  /** What it became, with its unit. */
  value: string;
}

const WORDS: Record<string, string> = {
  'form.alphaId': 'Alpha',
  'form.footprint': 'Footprint',
  'form.invert': 'Inverted',
  'form.mirrorAcross': 'Mirrored across',
  'form.mirrorDown': 'Mirrored down',
  'touch.action': 'Action',
  'touch.direction': 'Direction',
  'touch.overlaps': 'Overlaps',
  'touch.takes': 'Takes',
  'touch.falloff.kind': 'Falloff',
  'touch.falloff.nodes': 'Falloff curve',
  'stroke.type': 'Stroke type',
  'stroke.mapping': 'Mapping',
  'stroke.turnFrom': 'Turn from',
  'stroke.toEnds': 'Spaced to the ends',
  'drift.per': 'Varies',
  'colour.first': 'First colour',
  'colour.second': 'Second colour',
  'colour.too': 'Paints too',
  'colour.cover': 'Covers by',
  'colour.own': 'Own colours',
  'colour.per': 'Colour drift',
  'colour.mixing': 'Mixing',
  'colour.fills': 'Fills',
  'parts.entries': 'Parts',
  'parts.order': 'Order of the parts',
  'parts.ends': 'Part at the ends',
  'parts.corners': 'Part at corners',
  'tooth.alphaId': 'Tooth',
  'tooth.holds': 'Tooth held by',
  'tooth.scale': 'Tooth scale',
  'tooth.invert': 'Tooth inverted',
  'thumbnail.body': 'Picture on',
  'thumbnail.ground': 'Colour under it',
  'thumbnail.own': 'Own picture',
  'card.name': 'Name',
  'card.author': 'Author',
  'card.tags': 'Tags',
  'card.notes': 'Notes',
};

/** The first thing that differs; null when nothing does. */
export function changeOf(before: Brush, after: Brush): BrushChange | null {
  const [path] = differences(before, after);
  return path === undefined ? null : changeAt(path, after);
}

/** Everything that differs, in the order of the settings. */
export function changesOf(before: Brush, after: Brush): BrushChange[] {
  return Array.from(differences(before, after), (path) => changeAt(path, after));
}

function changeAt(path: string, after: Brush): BrushChange {
  const value = path.split('.').reduce<unknown>((at, key) => (at as Record<string, unknown>)[key], after);
  const meta = metaAt(path);
  return {
    path,
    label: meta?.label ?? WORDS[path] ?? (path.endsWith('.curve') ? 'Pen curve' : path),
    value: said(value, meta),
  };
}

function metaAt(path: string): SettingMeta | null {
  try {
    return settingAt(BrushSchema, path);
  } catch {
    return null;
  }
}

export function said(value: unknown, meta: SettingMeta | null): string {
  if (typeof value === 'number' && meta)
    return meta.unit === '°'
      ? `${value}°`
      : `${Number(value.toFixed(3))}${meta.unit === '' || meta.unit === 'grey' || meta.unit === 'body' ? '' : ` ${meta.unit}`}`;
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  if (typeof value === 'string' && !/^[0-9a-f-]{36}$/.test(value))
    return value.length > 24 ? `${value.slice(0, 24)}…` : value;
  return '';
}

function* differences(a: unknown, b: unknown, path = ''): Generator<string> {
  if (Object.is(a, b)) return;
  if (typeof a !== 'object' || typeof b !== 'object' || !a || !b || Array.isArray(a)) {
    if (JSON.stringify(a) !== JSON.stringify(b)) yield path;
    return;
  }
  for (const key of Object.keys(b))
    yield* differences(
      (a as Record<string, unknown>)[key],
      (b as Record<string, unknown>)[key],
      path === '' ? key : `${path}.${key}`,
    );
}
