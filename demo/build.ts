/** Builds the demo data folder that a first start copies: `npm run build` runs it. */
import { createHash } from 'node:crypto';
import { mkdir, rename, rm } from 'node:fs/promises';
import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import type { Raster } from '#core/picture';
import type { Brush } from '#core/settings';
import { openDatabase } from '../server/database';
import { putBlob } from '../server/queries/blobs';
import { putBelt } from '../server/queries/belt';
import { saveDocument } from '../server/queries/save';
import { seedBaseBrushes } from '../server/seed';
import { fontOf } from '../server/studio/fonts';
import { alphaPicture, brushPicture, sourcePicture } from '../server/studio/pictures';
import { tidewrack } from './tidewrack';

const hash = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
const out = resolve(fileURLToPath(new URL('..', import.meta.url)), 'build/demo-data');

const began = performance.now();
const scan = (page: Raster): Promise<Buffer> => {
  const { width, height, planes } = page;
  const rgb = new Uint8Array(width * height * 3);
  planes.forEach((plane, k) => plane.forEach((v, i) => (rgb[i * 3 + k] = Math.round(v * 255))));
  return sharp(rgb, { raw: { width, height, channels: 3 } })
    .jpeg({ quality: 93 })
    .toBuffer();
};
const set = await tidewrack({ hash, scan, fontOf: (block) => fontOf(null, block) });
await mkdir(dirname(out), { recursive: true });
const work = `${out}-work`;
await rm(work, { recursive: true, force: true });
const { db, files, close } = await openDatabase({ folder: work });
const blobs = (hash: string): Promise<Uint8Array> => files.read(hash);
const alphas = new Map(set.alphas.map(({ doc }) => [doc.id, doc]));
const formsOf = ({ form, tooth }: Brush) => ({
  form: alphas.get(form.alphaId ?? '') ?? null,
  tooth: alphas.get(tooth.alphaId ?? '') ?? null,
});
for (const { doc, bytes } of set.slabs) {
  await putBlob(db, files, bytes);
  await saveDocument(db, 'sources', { doc, revision: null, picture: await sourcePicture(blobs, doc) });
}
await putBlob(db, files, set.page.bytes);
for (const doc of [set.page.doc, set.lettering, ...set.patterns])
  await saveDocument(db, 'sources', { doc, revision: null, picture: await sourcePicture(blobs, doc) });
for (const { doc, bytes } of set.alphas) {
  await putBlob(db, files, bytes);
  await saveDocument(db, 'alphas', { doc, revision: null, picture: await alphaPicture(blobs, doc) });
}
for (const doc of set.brushes)
  await saveDocument(db, 'brushes', { doc, revision: null, picture: await brushPicture(blobs, doc, formsOf(doc)) });
await putBelt(
  db,
  set.brushes.map((b) => b.id),
);
await seedBaseBrushes(db, (brush) => brushPicture(blobs, brush, formsOf(brush)));
await db.exec('CHECKPOINT');
await close();
await rm(out, { recursive: true, force: true });
await rename(work, out);
console.log(
  `Demo data built in ${((performance.now() - began) / 1000).toFixed(1)} s: ${set.slabs.length} slabs, a sheet, lettering, ${set.patterns.length} patterns, ${set.alphas.length} alphas, ${set.brushes.length} brushes.`,
);
