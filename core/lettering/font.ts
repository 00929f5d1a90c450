/** Font files: TTF, OTF and WOFF, read by opentype.js. Curves are flattened once for each glyph and size. */
import opentype, { type Font } from 'opentype.js';

export type LetterFont = Font;

/** A font file of more bytes is refused. */
export const MOST_FONT_BYTES = 24 * 2 ** 20;

/** Throws a sentence that names the file and what would be accepted. */
export function readFont(bytes: ArrayBuffer, name: string): LetterFont {
  const accepted = 'TTF, OTF and WOFF files can be opened.';
  if (bytes.byteLength === 0) throw new Error(`${name} is empty. ${accepted}`);
  if (bytes.byteLength > MOST_FONT_BYTES)
    throw new Error(`${name} is larger than ${MOST_FONT_BYTES >> 20} MB, too large for a font.`);
  const head = new TextDecoder('latin1').decode(bytes.slice(0, 4));
  if (head === 'wOF2') throw new Error(`${name} is a WOFF2 font, packed in a way that can’t be read here. ${accepted}`);
  if (!['\x00\x01\x00\x00', 'true', 'OTTO', 'wOFF'].includes(head))
    throw new Error(`${name} isn’t a font. ${accepted}`);
  try {
    const font = opentype.parse(bytes);
    if (!(font.unitsPerEm > 0) || font.glyphs.length < 1) throw new Error('no glyphs');
    return font;
  } catch {
    throw new Error(`${name} can’t be read as a font: it is broken or cut short. ${accepted}`);
  }
}

/** Outlines of a glyph as x, y pairs, y downwards from the baseline, for an em of `em` pixels. */
export function glyphOutlines(font: LetterFont, index: number, em: number): number[][] {
  const path = font.glyphs.get(index).getPath(0, 0, em);
  const out: number[][] = [];
  let at: number[] = [];
  let x = 0;
  let y = 0;
  for (const c of path.commands) {
    switch (c.type) {
      case 'M':
        if (at.length >= 6) out.push(at);
        at = [c.x, c.y];
        break;
      case 'L':
        at.push(c.x, c.y);
        break;
      case 'Q':
        curve(at, [x, y, c.x1, c.y1, c.x, c.y]);
        break;
      case 'C':
        curve(at, [x, y, c.x1, c.y1, c.x2, c.y2, c.x, c.y]);
        break;
      case 'Z':
        continue;
    }
    x = c.x;
    y = c.y;
  }
  if (at.length >= 6) out.push(at);
  return out;
}

/** Adds points of a quadratic or cubic Bézier, close enough that no corner is seen. */
function curve(out: number[], p: readonly number[]): void {
  const order = p.length / 2 - 1;
  let length = 0;
  for (let k = 0; k < order; k++) length += Math.hypot(p[2 * k + 2] - p[2 * k], p[2 * k + 3] - p[2 * k + 1]);
  const steps = Math.max(2, Math.min(48, Math.ceil(Math.sqrt(length) * 1.2)));
  for (let n = 1; n <= steps; n++) {
    const t = n / steps;
    const s = 1 - t;
    const w = order === 2 ? [s * s, 2 * s * t, t * t] : [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
    let x = 0;
    let y = 0;
    for (let k = 0; k <= order; k++) {
      x += w[k] * p[2 * k];
      y += w[k] * p[2 * k + 1];
    }
    out.push(x, y);
  }
}
