/** A page off the stand-in's glass, as it comes; its marks are looked for when it is opened. */
import sharp from 'sharp';
import { SheetSchema, SOURCE_VERSION, type Sheet } from '#core/settings';
import { GLASS, GlassPage } from '../devices/page';

const DPI = 200;

export async function scannedPage(
  id: string,
  author: string,
  hash: (bytes: Uint8Array) => string,
): Promise<{ doc: Sheet; bytes: Uint8Array }> {
  const bytes = await new GlassPage().scan({
    dpi: DPI,
    colour: true,
    area: { x: 0, y: 0, width: GLASS.widthMm, height: GLASS.heightMm },
    format: 'image/jpeg',
  });
  const { width, height } = await sharp(bytes).metadata();
  const doc = SheetSchema.parse({
    version: SOURCE_VERSION,
    kind: 'sheet',
    id,
    card: { name: 'Wharf prints', author, tags: ['tidewrack'], notes: `Scanned at ${DPI} dpi.` },
    file: { blob: hash(bytes), name: 'wharf-prints.jpg', width, height, what: 'JPEG, 8 bit' },
  });
  return { doc, bytes };
}
