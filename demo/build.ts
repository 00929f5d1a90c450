/** Builds the demo data folder that a first start copies: `npm run build` runs it. */
import { createHash } from 'node:crypto';
import { mkdir, rename, rm } from 'node:fs/promises';
import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { gzipSync } from 'node:zlib';
import sharp from 'sharp';
import type { Raster } from '#core/picture';
import type { Brush } from '#core/settings';
import { headOf } from '#core/stored';
import { judged } from '../server/reading/judged';
import { seedBaseBrushes } from '../server/seed';
import { openPglite } from '../server/store/pglite/open';
import { newRecently, type Desk } from '../server/studio/desk';
import { fontOf } from '../server/studio/fonts';
import { alphaPicture, brushPicture, partPicture, sourcePicture } from '../server/studio/pictures';
import { scannedPage } from './sheets/scannedPage';
import { AUTHOR, tidewrack } from './tidewrack';

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
await mkdir(dirname(out), { recursive: true });
const work = `${out}-work`;
await rm(work, { recursive: true, force: true });
const store = await openPglite({ folder: work });
const desk: Desk = { blobs: (hash) => store.blobs.read(hash), recent: newRecently() };
const set = await tidewrack({ hash, scan, fontOf: (block) => fontOf(desk, block), gzip: (bytes) => gzipSync(bytes) });
const alphas = new Map([...set.alphas, ...set.scan.alphas].map(({ doc }) => [doc.id, doc]));
const heads = new Map(set.parts.map(({ doc }) => [doc.id, headOf('parts', doc)]));
const formsOf = ({ form, tooth, parts }: Brush) => ({
  form: alphas.get(form.alphaId ?? '') ?? null,
  tooth: alphas.get(tooth.alphaId ?? '') ?? null,
  part: heads.get(parts.entries[0]?.partId ?? '') ?? null,
});
for (const { doc, bytes } of set.slabs) {
  await store.blobs.put(bytes);
  await store.save(judged('sources', doc), { revision: null, picture: await sourcePicture(desk, doc) });
}
const scanned = await scannedPage('d0000000-0000-4000-8000-000000000009', AUTHOR, hash);
for (const { bytes } of [set.page, scanned]) await store.blobs.put(bytes);
await store.blobs.put(set.scan.bytes);
for (const { base } of set.scan.alphas) await store.blobs.put(base);
for (const doc of [set.page.doc, scanned.doc, set.scan.doc, set.lettering, ...set.patterns])
  await store.save(judged('sources', doc), { revision: null, picture: await sourcePicture(desk, doc) });
for (const { doc, bytes } of [...set.alphas, ...set.scan.alphas]) {
  await store.blobs.put(bytes);
  await store.save(judged('alphas', doc), { revision: null, picture: await alphaPicture(desk, doc) });
}
for (const { doc, bytes } of set.parts) {
  for (const one of bytes) await store.blobs.put(one);
  await store.save(judged('parts', doc), { revision: null, picture: await partPicture(desk, headOf('parts', doc)) });
}
for (const { doc, bytes } of set.bodies) {
  for (const one of bytes) await store.blobs.put(one);
  await store.save(judged('bodies', doc), { revision: null });
}
await store.save(judged('palettes', set.palette), { revision: null });
for (const doc of set.brushes)
  await store.save(judged('brushes', doc), { revision: null, picture: await brushPicture(desk, doc, formsOf(doc)) });
for (const doc of set.packs) await store.save(judged('packs', doc), { revision: null });
await store.putBelt(set.brushes.map((b) => b.id));
await seedBaseBrushes(store, (brush) => brushPicture(desk, brush, formsOf(brush)));
await store.clean();
await store.close();
await rm(out, { recursive: true, force: true });
await rename(work, out);
console.log(
  `Demo data built in ${((performance.now() - began) / 1000).toFixed(1)} s: ${set.slabs.length} slabs, 2 sheets, a scan, lettering, ${set.patterns.length} patterns, ${alphas.size} alphas, ${set.parts.length} parts, ${set.bodies.length} bodies, a palette, ${set.brushes.length} brushes in ${set.packs.length} packs.`,
);
