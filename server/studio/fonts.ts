/** The open fonts that come with the program, from their packages. */
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { readFont, setBlocks, type LetterFont } from '#core/lettering';
import type { Picture } from '#core/picture';
import { SHIPPED_FONTS, type Block, type Lettering } from '#core/settings';
import type { Blobs } from './blobs';

const find = createRequire(import.meta.url);
const read = new Map<string, Promise<LetterFont>>();

const exact = (bytes: Uint8Array): ArrayBuffer =>
  bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;

export function fontKey({ font, weight }: Pick<Block, 'font' | 'weight'>): string {
  if (font.kind === 'own') return font.blob;
  const shipped = SHIPPED_FONTS.find((f) => f.key === font.key)!;
  return `${font.key}-latin-${weight === 'bold' && 'bold' in shipped ? 700 : 400}-normal.woff`;
}

/** `blobs` are asked for fonts of the user's own alone. */
export function fontOf(blobs: Blobs | null, block: Block): Promise<LetterFont> {
  const key = fontKey(block);
  const known = read.get(key);
  if (known) return known;
  const { font } = block;
  const made =
    font.kind === 'own'
      ? blobs!(font.blob).then((bytes) => readFont(exact(bytes), font.name))
      : readFile(find.resolve(`@fontsource/${font.key}/files/${key}`)).then((bytes) =>
          readFont(exact(bytes), font.key),
        );
  made.catch(() => read.delete(key));
  read.set(key, made);
  return made;
}

export async function letteringPicture(blobs: Blobs, lettering: Lettering, size: number): Promise<Picture> {
  const fonts = new Map<string, LetterFont>();
  for (const block of lettering.blocks) fonts.set(fontKey(block), await fontOf(blobs, block));
  return setBlocks(lettering.blocks, (block) => fonts.get(fontKey(block))!, size).picture;
}
