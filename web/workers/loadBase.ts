/**
 * What a recipe begins with, as pixels: a window of a sheet with its paper divided out, lettering, a pattern, or a
 * cast.
 */
import { alphaHeights } from '#core/brush';
import { resize } from '#core/filter';
import { readFont, setBlocks, type LetterFont, type Setting } from '#core/lettering';
import { inkOf } from '#core/marks';
import { growPattern } from '#core/pattern';
import { rasterOf, type Raster } from '#core/picture';
import { SHIPPED_FONTS, type Base, type Block, type Lettering, type Pattern } from '#core/settings';
import { getBlob, getPixels } from '../api/client';

const FILES = import.meta.glob<string>(
  '../../node_modules/@fontsource/{alfa-slab-one,saira-stencil-one,oswald,ibm-plex-sans,cinzel,pirata-one,special-elite,caveat}/files/*-latin-{400,700}-normal.woff',
  {
    query: '?url',
    import: 'default',
    eager: true,
  },
);
/** Fonts that were read, by their file. */
export type Fonts = Map<string, Promise<LetterFont>>;

function keyOf({ font, weight }: Pick<Block, 'font' | 'weight'>): string {
  if (font.kind === 'own') return font.blob;
  const shipped = SHIPPED_FONTS.find((f) => f.key === font.key)!;
  return `${font.key}-latin-${weight === 'bold' && 'bold' in shipped ? 700 : 400}-normal.woff`;
}

function fontOf(block: Block, fonts: Fonts): Promise<LetterFont> {
  const key = keyOf(block);
  const known = fonts.get(key);
  if (known) return known;
  const { font } = block;
  const made =
    font.kind === 'own'
      ? getBlob(font.blob).then((bytes) => readFont(bytes, font.name))
      : fetch(Object.entries(FILES).find(([path]) => path.endsWith(`/${key}`))![1]).then(async (answer) =>
          readFont(await answer.arrayBuffer(), font.key),
        );
  made.catch(() => fonts.delete(key));
  fonts.set(key, made);
  return made;
}

async function setLettering(blocks: readonly Block[], size: number, fonts: Fonts): Promise<Setting> {
  const ready = new Map<string, LetterFont>();
  for (const block of blocks) ready.set(keyOf(block), await fontOf(block, fonts));
  return setBlocks(blocks, (block) => ready.get(keyOf(block))!, size);
}

export interface LoadedBase {
  raster: Raster;
  /** Characters that the fonts of lettering lack. */
  missing: string[];
}

/** `side` is how many pixels the longer side has at most. `fonts` grows by those that lettering needs. */
export async function loadBase(
  base: Base,
  made: Lettering | Pattern | null,
  side: number,
  fonts: Fonts,
): Promise<LoadedBase> {
  if (base.kind !== 'lettering') return { raster: await rasterFrom(base, made, side), missing: [] };
  if (made?.kind !== 'lettering') throw new Error('The lettering that this alpha was made from has been deleted.');
  const { picture, missing } = await setLettering(made.blocks, side, fonts);
  return { raster: rasterOf(picture), missing: [...new Set([...missing.values()].flat())] };
}

async function rasterFrom(
  base: Exclude<Base, { kind: 'lettering' }>,
  made: Lettering | Pattern | null,
  side: number,
): Promise<Raster> {
  switch (base.kind) {
    case 'sheet': {
      const pixels = await getPixels(base.blob, base, side);
      return base.paper ? inkOf(pixels, { paper: base.paper, dark: base.dark }, base) : pixels;
    }
    case 'pattern':
      if (made?.kind !== 'pattern') throw new Error('The pattern that this alpha was made from has been deleted.');
      return rasterOf(growPattern(made.grow, side));
    case 'cast': {
      const picture = alphaHeights({ format: base.format, size: base.size, relief: 1 }, await getBlob(base.blob));
      return rasterOf(base.size > side ? resize(picture, side, side) : picture);
    }
  }
}
