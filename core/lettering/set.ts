/**
 * Sets blocks of text on a square picture: white letters on black, each block at its own grey. Lines follow kerning,
 * spacing, alignment and, when asked, an arc; an outline keeps a band along the letters' edges alone.
 */
import { cover, distanceTransform } from '#core/filter';
import { newPicture, type Picture } from '#core/picture';
import type { Block } from '#core/settings';
import { glyphOutlines, type LetterFont } from './font';

export interface Setting {
  picture: Picture;
  /** Characters that a block's font doesn't have, by the block's id; they are left out. */
  missing: Map<string, string[]>;
}

/** `fontOf` answers each block's font. `size` is pixels a side. */
export function setBlocks(blocks: readonly Block[], fontOf: (block: Block) => LetterFont, size: number): Setting {
  const picture = newPicture(size);
  const missing = new Map<string, string[]>();
  for (const block of blocks) {
    const outlined = layOut(block, fontOf(block), size);
    if (outlined.missing.length > 0) missing.set(block.id, outlined.missing);
    if (outlined.outlines.length === 0) continue;
    const filled = cover(outlined.outlines, size, size);
    const shown = block.outline > 0 ? banded(filled, (block.outline / 100) * (block.size / 100) * size) : filled;
    for (let i = 0; i < picture.data.length; i++)
      picture.data[i] = Math.max(picture.data[i], shown.data[i] * block.grey);
  }
  return { picture, missing };
}

interface Placed {
  index: number;
  /** Middle of the glyph's advance along its line, from the line's start. */
  middle: number;
  advance: number;
}

function layOut(block: Block, font: LetterFont, size: number): { outlines: number[][]; missing: string[] } {
  const em = (block.size / 100) * size;
  const missing = new Set<string>();
  const lines = block.text.split('\n').map((text) => placeLine(text, font, em, (block.spacing / 100) * em, missing));
  const widest = Math.max(...lines.map((l) => l.width), 1e-6);
  const pitch = (block.lineHeight / 100) * em;
  // The block's middle lies halfway between the first line's top and the last line's foot.
  const rise = (font.ascender / font.unitsPerEm) * em * 0.72;
  const top = -(pitch * (lines.length - 1) - rise) / 2;
  const radius = block.arc === 0 ? 0 : widest / Math.abs((block.arc * Math.PI) / 180);
  const turn = (-block.turn * Math.PI) / 180;
  const cx = (block.x / 100) * size;
  const cy = (block.y / 100) * size;
  const outlines: number[][] = [];
  lines.forEach((line, n) => {
    const start =
      block.align === 'left' ? -widest / 2 : block.align === 'right' ? widest / 2 - line.width : -line.width / 2;
    const baseline = top + n * pitch;
    for (const glyph of line.glyphs) {
      const [x, y, lean] = bent(start + glyph.middle, baseline, radius, Math.sign(block.arc));
      for (const outline of glyphOutlines(font, glyph.index, em)) {
        const to = new Array<number>(outline.length);
        outlines.push(to);
        for (let k = 0; k < outline.length; k += 2) {
          const gx = outline[k] - glyph.advance / 2;
          const gy = outline[k + 1];
          const px = x + gx * Math.cos(lean) - gy * Math.sin(lean);
          const py = y + gx * Math.sin(lean) + gy * Math.cos(lean);
          to[k] = cx + px * Math.cos(turn) - py * Math.sin(turn);
          to[k + 1] = cy + px * Math.sin(turn) + py * Math.cos(turn);
        }
      }
    }
  });
  return { outlines, missing: [...missing] };
}

function placeLine(
  text: string,
  font: LetterFont,
  em: number,
  spacing: number,
  missing: Set<string>,
): { glyphs: Placed[]; width: number } {
  const scale = em / font.unitsPerEm;
  const glyphs: Placed[] = [];
  let x = 0;
  let last: ReturnType<LetterFont['charToGlyph']> | null = null;
  for (const character of text) {
    const glyph = font.charToGlyph(character);
    if (glyph.index === 0) {
      missing.add(character);
      continue;
    }
    if (last) x += font.getKerningValue(last, glyph) * scale + spacing;
    const advance = (glyph.advanceWidth ?? 0) * scale;
    glyphs.push({ index: glyph.index, middle: x + advance / 2, advance });
    x += advance;
    last = glyph;
  }
  return { glyphs, width: x };
}

/** A place along a line, bent round a circle whose middle lies under it (positive arc) or over it; and its lean. */
function bent(along: number, baseline: number, radius: number, side: number): [number, number, number] {
  if (radius === 0) return [along, baseline, 0];
  // The block's middle line keeps its length; lines farther out are stretched apart.
  const angle = along / radius;
  const r = radius - baseline * side;
  return [Math.sin(angle) * r, side * (radius - Math.cos(angle) * r), side * angle];
}

/** Keeps a band of `width` pixels along the edge of what is covered, inside it. */
function banded(filled: Picture, width: number): Picture {
  const { data } = filled;
  const seeds = new Float64Array(data.length);
  for (let i = 0; i < data.length; i++)
    seeds[i] = data[i] >= 0.999 ? Infinity : data[i] <= 0 ? 0 : Math.max(0, data[i] - 0.5) ** 2;
  const distance = distanceTransform(seeds, filled.width, filled.height);
  const out = new Float32Array(data.length);
  for (let i = 0; i < data.length; i++) out[i] = data[i] * Math.max(0, Math.min(1, width - distance[i] + 0.5));
  return { ...filled, data: out };
}
