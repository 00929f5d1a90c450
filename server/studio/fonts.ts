/** The open fonts that come with the program, from their packages. */
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { readFont, setBlocks, type LetterFont } from '#core/lettering';
import type { Picture } from '#core/picture';
import { SHIPPED_FONTS, type Block, type Lettering } from '#core/settings';
import type { Desk } from './desk';

const find = createRequire(import.meta.url);

const exact = (bytes: Uint8Array): ArrayBuffer =>
  bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;

export function fontKey({ font, weight }: Pick<Block, 'font' | 'weight'>): string {
  if (font.kind === 'own') return font.blob;
  const shipped = SHIPPED_FONTS.find((f) => f.key === font.key)!;
  return `${font.key}-latin-${weight === 'bold' && 'bold' in shipped ? 700 : 400}-normal.woff`;
}

export function fontOf({ blobs, recent }: Desk, block: Block): Promise<LetterFont> {
  const { font } = block;
  const key = fontKey(block);
  return recent.fonts.of(key, async () => {
    if (font.kind === 'own') return readFont(exact(await blobs(font.blob)), font.name);
    return readFont(exact(await readFile(find.resolve(`@fontsource/${font.key}/files/${key}`))), font.key);
  });
}

export async function letteringPicture(desk: Desk, lettering: Lettering, size: number): Promise<Picture> {
  const fonts = new Map<string, LetterFont>();
  for (const block of lettering.blocks) fonts.set(fontKey(block), await fontOf(desk, block));
  return setBlocks(lettering.blocks, (block) => fonts.get(fontKey(block))!, size).picture;
}
