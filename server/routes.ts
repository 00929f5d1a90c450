/** What the server answers, as a table of small functions. */
import { createHash } from 'node:crypto';
import Router from '@koa/router';
import type { Context } from 'koa';
import { z } from 'zod';
import { alphasOf, BlobHashSchema, blobsOf, type Alpha, type Brush } from '#core/settings';
import { readBytes } from './body';
import { COLLECTIONS, readStored, SINGULAR, type Collection, type Documents } from './collections';
import type { Database } from './database';
import { alphaExr, alphaPicture, alphaPng, alphaTiff, brushPicture, brushPictureWith, sourcePicture } from './pictures';
import { Problem } from './problem';
import { getBelt, putBelt } from './queries/belt';
import { getBlob, hasBlob, putBlob } from './queries/blobs';
import { keepDecoded, decodePicture, MOST_WINDOW_SIDE, previewOf, readWindow, sheetOf } from './sheets';
import { deleteDocument, getDocument, getPicture, listDocuments, restoreDocument, saveDocument } from './queries/documents';

/** A vector alpha of 4096² and some room. */
const LARGEST_BLOB = 208 * 1024 * 1024;

const ALPHA_FILES = [['png', 'image/png', alphaPng], ['tiff', 'image/tiff', alphaTiff], ['exr', 'image/x-exr', alphaExr]] as const;

const SaveBody = z.object({ doc: z.unknown(), revision: z.number().int().positive().nullable() });
const place = z.coerce.number('A window is given in numbers.').min(-1e6).max(1e6);
const WindowQuery = z.object({ x: place, y: place, width: place.min(1), height: place.min(1), side: z.coerce.number().int().min(8).max(MOST_WINDOW_SIDE), name: z.string().max(200).default('The sheet') });
const FileQuery = z.object({ name: z.string().max(200).default('The picture') });
const BeltBody = z.object({ ids: z.array(z.uuid()).max(200, 'The belt holds at most 200 brushes.') });

export function routes(db: Database, version: string): Router {
  const router = new Router({ prefix: '/api' });

  router.get('/health', async (ctx) => {
    await db.query('SELECT 1');
    ctx.body = { ok: true, name: 'Mold Stamp', version };
  });

  for (const collection of COLLECTIONS) addCollection(router, db, collection);

  for (const [ending, type, write] of ALPHA_FILES) {
    router.get(`/alphas/:id/${ending}`, async (ctx) => {
      const { doc } = await getDocument(db, 'alphas', idOf(ctx));
      ctx.attachment(`${doc.card.name.replace(/[^\p{L}\p{N} _-]/gu, '_')}.${ending}`);
      ctx.type = type;
      const bytes = await write(db, doc);
      ctx.body = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length);
    });
  }

  router.get('/blobs/:hash', async (ctx) => {
    const bytes = await getBlob(db, BlobHashSchema.parse(ctx.params['hash']));
    ctx.type = 'application/octet-stream';
    ctx.set('Cache-Control', 'private, max-age=31536000, immutable');
    ctx.body = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length);
  });
  router.put('/blobs/:hash', async (ctx) => {
    const hash = BlobHashSchema.parse(ctx.params['hash']);
    if (!(await hasBlob(db, hash))) await putBlob(db, hash, await readBytes(ctx.req, LARGEST_BLOB));
    ctx.body = { hash };
  });

  router.post('/sheets', async (ctx) => {
    const { name } = FileQuery.parse(ctx.query);
    const bytes = await readBytes(ctx.req, LARGEST_BLOB);
    const hash = createHash('sha256').update(bytes).digest('hex');
    const decoded = await keepDecoded(hash, decodePicture(bytes, name));
    await putBlob(db, hash, bytes);
    const { width, height, what } = decoded;
    ctx.body = { blob: hash, name, width, height, what };
  });
  router.get('/sheets/:hash/preview', async (ctx) => {
    ctx.type = 'image/jpeg';
    ctx.set('Cache-Control', 'private, max-age=31536000, immutable');
    ctx.body = await previewOf(await sheetOf(db, BlobHashSchema.parse(ctx.params['hash']), 'The sheet'), 2048);
  });
  router.get('/sheets/:hash/pixels', async (ctx) => {
    const { name, ...window } = WindowQuery.parse(ctx.query);
    const { width, height, channels, data } = await readWindow(await sheetOf(db, BlobHashSchema.parse(ctx.params['hash']), name), window);
    ctx.type = 'application/octet-stream';
    ctx.set({ 'X-Width': String(width), 'X-Height': String(height), 'X-Channels': String(channels), 'X-Depth': data instanceof Float32Array ? 'float' : 'ushort' });
    ctx.body = Buffer.from(data.buffer, data.byteOffset, data.byteLength);
  });

  router.get('/belt', async (ctx) => {
    ctx.body = { ids: await getBelt(db) };
  });
  router.put('/belt', async (ctx) => {
    ctx.body = { ids: await putBelt(db, BeltBody.parse(ctx.request.body).ids) };
  });
  return router;
}

function addCollection<C extends Collection>(router: Router, db: Database, collection: C): void {
  router.get(`/${collection}`, async (ctx) => {
    ctx.body = await listDocuments(db, collection);
  });
  router.get(`/${collection}/:id`, async (ctx) => {
    ctx.body = await getDocument(db, collection, idOf(ctx));
  });
  router.put(`/${collection}/:id`, async (ctx) => {
    const body = SaveBody.parse(ctx.request.body);
    const read = readStored(collection, body.doc);
    if (!read.ok) throw new Problem(422, 'invalid', read.reason);
    if (read.value.id !== idOf(ctx)) throw new Problem(422, 'invalid', `The ${SINGULAR[collection]}’s id is not the one in the address.`);
    const picture = await pictureOf(db, collection, read.value);
    const followers = collection === 'alphas' && body.revision !== null ? await followersOf(db, read.value as Alpha) : [];
    const revision = await saveDocument(db, collection, { doc: read.value, revision: body.revision, picture, followers });
    ctx.body = { doc: read.value, revision, base: false, updatedAt: new Date().toISOString() };
  });
  router.delete(`/${collection}/:id`, async (ctx) => {
    await deleteDocument(db, collection, idOf(ctx));
    ctx.status = 204;
  });
  router.post(`/${collection}/:id/restore`, async (ctx) => {
    await restoreDocument(db, collection, idOf(ctx));
    ctx.body = await getDocument(db, collection, idOf(ctx));
  });
  router.get(`/${collection}/:id/picture`, async (ctx) => {
    ctx.type = 'image/png';
    ctx.set('Cache-Control', 'private, max-age=31536000, immutable');
    ctx.body = Buffer.from(await getPicture(db, collection, idOf(ctx)));
  });
}

/** Brushes whose form or tooth the alpha is, with the pictures they have from now on. */
async function followersOf(db: Database, alpha: Alpha): Promise<{ id: string; picture: Uint8Array }[]> {
  const { items } = await listDocuments(db, 'brushes');
  const out = [];
  for (const { doc } of items) {
    if (alphasOf(doc).includes(alpha.id)) out.push({ id: doc.id, picture: await brushPictureWith(db, doc, alpha) });
  }
  return out;
}

/** Renders the small picture where there is one; on the way finds out whether what the document names is there. */
async function pictureOf(db: Database, collection: Collection, doc: Documents[Collection]): Promise<Uint8Array | null> {
  switch (collection) {
    case 'brushes': return brushPicture(db, doc as Brush);
    case 'alphas': {
      const { recipe } = doc as Alpha;
      if (recipe && 'blob' in recipe.base) await needBlob(db, recipe.base.blob, 'alpha');
      return alphaPicture(db, doc as Alpha);
    }
    case 'sources': {
      for (const hash of blobsOf(doc as Documents['sources'])) {
        await needBlob(db, hash, (doc as Documents['sources']).kind);
      }
      return sourcePicture(db, doc as Documents['sources']);
    }
    case 'bodies': {
      await needBlob(db, (doc as Documents['bodies']).mesh, 'body');
      return null;
    }
    case 'trials': return null;
  }
}

async function needBlob(db: Database, hash: string, what: string): Promise<void> {
  if (!(await hasBlob(db, hash))) throw new Problem(404, 'blob-missing', `There is no stored data ${hash.slice(0, 12)}… that the ${what} names. Send it first.`, { hash });
}

function idOf(ctx: Context): string {
  return z.uuid('That is no id.').parse(ctx['params'].id);
}
