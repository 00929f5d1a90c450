/**
 * SVG drawings: drawn at the size that is wanted, whatever their own says. What can't be bounded is refused: filters
 * cost by their radius, and pictures and pages inside a drawing are files of their own.
 */
import { Problem } from '../problem';

/** Of text, so that what is looked for in it costs little. */
const MOST_BYTES = 24 * 2 ** 20;

const REFUSED: readonly (readonly [RegExp, string])[] = [
  [/<(?:[\w-]+:)?filter[\s/>]|[\s;"'{]filter\s*[:=]/i, 'filters (blur, shadow and the like)'],
  [/<(?:[\w-]+:)?(?:image|feImage)[\s/>]/i, 'pictures inside the drawing'],
  [/<(?:[\w-]+:)?foreignObject[\s/>]/i, 'foreign objects'],
  [/<!ENTITY/i, 'entities'],
];

export function isDrawing(bytes: Uint8Array): boolean {
  return /^\s*(?:<\?xml|<!--|<!DOCTYPE\s+svg|<(?:[\w-]+:)?svg)/i.test(
    Buffer.from(bytes.subarray(0, 512))
      .toString('utf8')
      .replace(/^\uFEFF/, ''),
  );
}

/** The same drawing with its longer side `side` pixels. Throws a Problem with a sentence. */
export function boundedDrawing(bytes: Uint8Array, name: string, side: number): Uint8Array {
  if (bytes.length > MOST_BYTES)
    throw refuse(
      `${name} has ${Math.round(bytes.length / 2 ** 20)} MB; a drawing may have at most ${MOST_BYTES >> 20} MB.`,
    );
  const text = Buffer.from(bytes).toString('utf8');
  for (const [found, what] of REFUSED) {
    if (found.test(text))
      throw refuse(`${name} holds ${what}, which aren’t drawn here. Export it as PNG, or without them.`);
  }
  const root = /<(?:[\w-]+:)?svg\b[^>]*>/i.exec(text);
  if (!root) throw refuse(`${name} isn’t a drawing that can be read: it has no svg element.`);
  const attribute = (key: string): string | null =>
    new RegExp(`\\s${key}\\s*=\\s*(?:"([^"]*)"|'([^']*)')`, 'i')
      .exec(root[0])
      ?.slice(1)
      .find((v) => v !== undefined) ?? null;
  const box =
    attribute('viewBox')
      ?.trim()
      .split(/[\s,]+/)
      .map(Number) ?? null;
  const own = [lengthOf(attribute('width')), lengthOf(attribute('height'))] as const;
  const [width, height] = own[0] !== null && own[1] !== null ? [own[0], own[1]] : [box?.[2] ?? 300, box?.[3] ?? 150];
  if (!(width > 0 && height > 0 && Number.isFinite(width / height) && width / height < 1e4 && height / width < 1e4)) {
    throw refuse(`${name} says it is ${width} × ${height} large, which can’t be drawn.`);
  }
  const scale = side / Math.max(width, height);
  const sized = root[0]
    .replace(/\s(?:width|height)\s*=\s*(?:"[^"]*"|'[^']*')/gi, '')
    .replace(
      /\/?>$/,
      (end) =>
        `${box ? '' : ` viewBox="0 0 ${width} ${height}"`} width="${Math.max(1, Math.round(width * scale))}" height="${Math.max(1, Math.round(height * scale))}"${end}`,
    );
  return Buffer.from(text.slice(0, root.index) + sized + text.slice(root.index + root[0].length));
}

/** Pixels of a length; null where it says none of its own. */
function lengthOf(value: string | null): number | null {
  const found = value === null ? null : /^\s*([\d.]+(?:e[+-]?\d+)?)\s*(px|pt|pc|mm|cm|in)?\s*$/i.exec(value);
  if (!found) return null;
  const units: Record<string, number> = { px: 1, pt: 4 / 3, pc: 16, mm: 96 / 25.4, cm: 96 / 2.54, in: 96 };
  return Number(found[1]) * units[(found[2] ?? 'px').toLowerCase()];
}

const refuse = (sentence: string): Problem => new Problem(422, 'picture', sentence);
