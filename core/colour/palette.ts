/**
 * Palettes in open forms: design tokens (W3C Design Tokens Format), CSS custom properties, and a strip of one square a
 * colour. Text from outside is read with a limit on its length and on its colours.
 */
import { hexOf, srgbOfHex, type Srgb } from './spaces';

export interface PaletteColour {
  name: string;
  colour: Srgb;
  /** Of the palette’s groups; not given in what has none. */
  group?: string;
}

export interface Palette {
  name: string;
  colours: readonly PaletteColour[];
}

export const MOST_COLOURS = 512;
const MOST_CHARACTERS = 1_000_000;
const LONGEST_NAME = 80;
/** A group in a group, and so on. */
const DEEPEST = 16;

function limited(colours: readonly PaletteColour[]): readonly PaletteColour[] {
  if (colours.length === 0) throw new Error('There is no colour in it. A palette needs at least one.');
  if (colours.length > MOST_COLOURS)
    throw new Error(`It holds ${colours.length} colours; a palette takes ${MOST_COLOURS} at most.`);
  return colours;
}

function checkLength(text: string): void {
  if (text.length > MOST_CHARACTERS) throw new Error('The file is too long for a palette: over a million characters.');
}

/** Names of tokens may hold neither braces nor dots, nor begin with a dollar. */
const tokenName = (name: string): string => name.replace(/[{}.]/g, ' ').replace(/^\$+/, '').trim() || 'colour';

/** Different where names are the same. */
function apart(names: readonly string[]): string[] {
  const used = new Set<string>();
  return names.map((name) => {
    let free = name;
    for (let n = 2; used.has(free); n++) free = `${name} ${n}`;
    used.add(free);
    return free;
  });
}

/** By group, in the order in which the groups come. */
function grouped(colours: readonly PaletteColour[]): Map<string, PaletteColour[]> {
  const out = new Map<string, PaletteColour[]>();
  for (const one of colours) {
    const group = one.group ?? '';
    out.set(group, [...(out.get(group) ?? []), one]);
  }
  return out;
}

const inGroup = (one: PaletteColour, group: string): PaletteColour =>
  group ? { ...one, group: group.slice(0, LONGEST_NAME) } : one;

export function tokensOf({ name, colours }: Palette): string {
  const token = ({ colour }: PaletteColour): unknown => ({
    $value: { colorSpace: 'srgb', components: colour.map((c) => Number(c.toFixed(6))), hex: hexOf(colour) },
  });
  const groups = grouped(colours);
  // Colours in no group stand beside the groups, so they share their names.
  const loose = groups.get('') ?? [];
  const named = [...groups].filter(([group]) => group);
  const names = apart([...named.map(([group]) => tokenName(group)), ...loose.map((one) => tokenName(one.name))]);
  const inner = named.map(([, own], g) => {
    const tokens = apart(own.map((one) => tokenName(one.name))).map((one, i) => [one, token(own[i])]);
    return [names[g], Object.fromEntries(tokens)];
  });
  const outer = loose.map((one, i) => [names[named.length + i], token(one)]);
  const all = Object.fromEntries([...outer, ...inner]) as object;
  return `${JSON.stringify({ [tokenName(name)]: { $type: 'color', ...all } }, null, 2)}\n`;
}

/** Every colour in it, in whatever group; the newer form and the older one of “#rrggbb”. Throws a sentence. */
export function readTokens(text: string): Palette {
  checkLength(text);
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    throw new Error('This isn’t JSON, so it can’t be read as design tokens.');
  }
  const colours: PaletteColour[] = [];
  let whole: string | null = null;
  const visit = (of: unknown, path: readonly string[], isColour: boolean): void => {
    const depth = path.length;
    if (typeof of !== 'object' || of === null || Array.isArray(of) || depth > DEEPEST) return;
    const here =
      (of as { $type?: unknown }).$type === undefined ? isColour : (of as { $type: unknown }).$type === 'color';
    const value = (of as { $value?: unknown }).$value;
    const colour = here && value !== undefined ? colourOfToken(value) : null;
    // The first of the path is the palette, what lies between it and the colour the group.
    if (colour)
      colours.push(inGroup({ name: (path.at(-1) ?? '').slice(0, LONGEST_NAME), colour }, path.slice(1, -1).join(' ')));
    if (colours.length > MOST_COLOURS) return;
    for (const [key, inside] of Object.entries(of)) {
      if (key.startsWith('$')) continue;
      if (depth === 0) whole ??= key;
      visit(inside, [...path, key], here);
    }
  };
  visit(parsed, [], false);
  return { name: (whole ?? 'Palette').slice(0, LONGEST_NAME), colours: limited(colours) };
}

function colourOfToken(value: unknown): Srgb | null {
  if (typeof value === 'string') return srgbOfHex(value);
  if (typeof value !== 'object' || value === null) return null;
  const { colorSpace, components, hex } = value as { colorSpace?: unknown; components?: unknown; hex?: unknown };
  const own = Array.isArray(components) && components.length === 3 && components.every((c) => Number.isFinite(c));
  if (colorSpace === 'srgb' && own)
    return (components as number[]).map((c) => Math.min(1, Math.max(0, c))) as unknown as Srgb;
  return typeof hex === 'string' ? srgbOfHex(hex) : null;
}

const propertyName = (name: string): string =>
  name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '') || 'colour';

export function cssOf({ name, colours }: Palette): string {
  const names = apart(colours.map((one) => propertyName(one.name))).map((one) => one.replace(/ /g, '-'));
  const comment = (text: string): string => `/* ${text.replace(/\*\//g, '')} */`;
  const lines = colours.flatMap(({ colour, group = '' }, i) => {
    const begins = group !== (colours[i - 1]?.group ?? '');
    return [...(begins ? [`  ${comment(group)}`] : []), `  --${names[i]}: ${hexOf(colour)};`];
  });
  return `${comment(name)}\n:root {\n${lines.join('\n')}\n}\n`;
}

/**
 * Custom properties whose value is “#rrggbb” or “#rgb”, wherever they stand; a comment before them names their group.
 * Throws a sentence.
 */
export function readCss(text: string): Palette {
  checkLength(text);
  const [comment = '', title] = /^\s*\/\*\s*(.*?)\s*\*\//.exec(text) ?? [];
  const colours: PaletteColour[] = [];
  let group = '';
  for (const [, said, name, hex] of text
    .slice(comment.length)
    .matchAll(/\/\*([^*]{0,200})\*\/|--([\w-]+)\s*:\s*(#[0-9a-f]{6}|#[0-9a-f]{3})\b/gi)) {
    if (said !== undefined) group = said.trim();
    const colour = hex === undefined ? null : srgbOfHex(hex);
    if (colour) colours.push(inGroup({ name: name.replace(/-/g, ' ').slice(0, LONGEST_NAME), colour }, group));
    if (colours.length > MOST_COLOURS) break;
  }
  return { name: (title || 'Palette').slice(0, LONGEST_NAME), colours: limited(colours) };
}

/** Red, green and blue bytes, row by row from the top. */
export interface Strip {
  width: number;
  height: number;
  data: Uint8Array;
}

export function stripOf({ colours }: Palette, side: number): Strip {
  const width = side * colours.length;
  const data = new Uint8Array(width * side * 3);
  for (let y = 0; y < side; y++)
    colours.forEach(({ colour }, n) => {
      for (let x = 0; x < side; x++)
        colour.forEach((c, k) => (data[(y * width + n * side + x) * 3 + k] = Math.round(c * 255)));
    });
  return { width, height: side, data };
}

/** A square a colour, side by side; the colour in the middle of each. Throws a sentence where it is no such strip. */
export function readStrip({ width, height, data }: Strip): Palette {
  if (height === 0 || width % height !== 0)
    throw new Error('A palette strip is a row of squares: its width is a whole number of its height.');
  const count = width / height;
  if (count > MOST_COLOURS) limited(Array.from({ length: count }, () => ({ name: '', colour: [0, 0, 0] as const })));
  const middle = height >> 1;
  const colours = Array.from({ length: count }, (_, n): PaletteColour => {
    const at = (middle * width + n * height + middle) * 3;
    const colour = [data[at] / 255, data[at + 1] / 255, data[at + 2] / 255] as const;
    return { name: `Colour ${n + 1}`, colour };
  });
  return { name: 'Palette', colours: limited(colours) };
}
