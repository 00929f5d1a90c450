/** What the server answers, as a table of small functions. */
import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import Router from '@koa/router';
import type { Context } from 'koa';
import { z } from 'zod';
import { COLLECTIONS, type Collection } from '#core/kept';
import { BlobHashSchema } from '#core/settings';
import type { Database } from './database';
import type { Pictures } from './pictures';
import { Problem } from './problem';
import { getBelt, putBelt } from './queries/belt';
import { hasBlob, keepBlob, renewBlobs, sizeOfBlob } from './queries/blobs';
import {
  deleteDocument,
  getHead,
  getStored,
  listDocuments,
  restoreDocument,
  stateOf,
  type Stored,
} from './queries/documents';
import { saveJudged } from './queries/save';
import { putHolds } from './queries/holds';
import type { Judged } from './reading/judged';
import type { Reader } from './reading/reader';
import type { Arrived, BlobFiles } from './store/blobFiles';
import { usersOf } from './queries/references';
import type { Studio } from './studio/studio';
import { MOST_WINDOW_SIDE } from './studio/window';
import { cleanUp, sizesOf } from './upkeep';

/** A vector alpha of 4096² and some room. */
const LARGEST_BLOB = 208 * 1024 * 1024;
const LARGE_TEXT = 64 * 1024;
const LARGEST_FONT = 24 * 1024 * 1024;

const ALPHA_FILES = [
  ['png', 'image/png'],
  ['tiff', 'image/tiff'],
  ['exr', 'image/x-exr'],
] as const;
const FOREVER = 'private, max-age=31536000, immutable';

const number = (what: string) => z.coerce.number(`${what} must be a number.`);
const place = number('A window’s place')
  .min(-1e6, 'A window lies at most a million pixels away.')
  .max(1e6, 'A window lies at most a million pixels away.');
const length = place.min(1, 'A window is at least a pixel wide and high.');
const name = z
  .string()
  .max(200, 'A file’s name may have at most 200 characters.')
  .transform((text) => text.replaceAll('\0', ''));
const WindowQuery = z.object({
  x: place,
  y: place,
  width: length,
  height: length,
  name: name.default('The sheet'),
  side: number('The side')
    .int('The side is in whole pixels.')
    .min(8, 'The side is at least 8 pixels.')
    .max(MOST_WINDOW_SIDE, `The side is at most ${MOST_WINDOW_SIDE} pixels.`),
});
const PreviewQuery = z.object({
  side: number('The side')
    .int('The side is in whole pixels.')
    .min(16, 'The side is at least 16 pixels.')
    .max(2048, 'The side is at most 2048 pixels.')
    .default(2048),
});
const FileQuery = z.object({ name: name.default('The file') });
const PageQuery = z.object({
  after: z.string().max(80, 'A list goes on from the place that the page before it named.').nullable().default(null),
  limit: number('The limit')
    .int('The limit is a whole number.')
    .min(1, 'A page has at least one entry.')
    .max(500, 'A page has at most 500 entries.')
    .default(100),
});
export interface RouteOptions {
  db: Database;
  files: BlobFiles;
  studio: Studio;
  reader: Reader;
  pictures: Pictures;
  /** Folder of the PostgreSQL data. */
  databaseFolder: string;
  version: string;
}

export function routes(options: RouteOptions): Router {
  const { db, files, studio, reader, version } = options;
  const router = new Router({ prefix: '/api' });

  // Says that the server runs; it waits for nothing.
  router.get('/health', (ctx) => {
    ctx.body = { ok: true, name: 'Mold Stamp', version };
  });

  for (const collection of COLLECTIONS) addCollection(router, options, collection);

  for (const [ending, type] of ALPHA_FILES) {
    router.get(`/alphas/:id/${ending}`, async (ctx) => {
      const { head } = await getHead(db, 'alphas', idOf(ctx));
      ctx.attachment(`${head.card.name.replace(/[^\p{L}\p{N} _-]/gu, '_')}.${ending}`);
      ctx.type = type;
      ctx.body = Buffer.from(await studio.file(head, ending));
    });
  }

  router.get('/blobs/:hash', async (ctx) => {
    const hash = hashOf(ctx);
    ctx.length = await sizeOfBlob(db, hash);
    ctx.type = 'application/octet-stream';
    ctx.set('Cache-Control', FOREVER);
    ctx.body = files.stream(hash);
  });
  router.put('/blobs/:hash', async (ctx) => {
    const hash = hashOf(ctx);
    // Sent again it is wanted again.
    if ((await renewBlobs(db, [hash])).length === 0) {
      await receive(ctx, files, LARGEST_BLOB, async (arrived) => {
        if (arrived.hash !== hash) {
          throw new Problem(
            422,
            'blob-hash',
            'The data arrived changed: its SHA-256 is not the one it was sent under. Send it again.',
            { expected: hash, found: arrived.hash },
          );
        }
        await keepBlob(db, files, arrived);
      });
    }
    ctx.body = { hash };
  });
  router.put('/holds/:id', async (ctx) => {
    ctx.body = { missing: await putHolds(db, idOf(ctx), (await reader.body<'holds'>(ctx, { kind: 'holds' })).hashes) };
  });

  router.post('/sheets', async (ctx) => {
    const { name } = FileQuery.parse(ctx.query);
    await receive(ctx, files, LARGEST_BLOB, async (arrived) => {
      const { width, height, what } = await studio.lookAt(arrived, name);
      await keepBlob(db, files, arrived);
      ctx.body = { blob: arrived.hash, name, width, height, what };
    });
  });
  // Looked at, guessed what it is, and kept.
  router.post('/arrivals', async (ctx) => {
    const { name } = FileQuery.parse(ctx.query);
    await receive(ctx, files, LARGEST_BLOB, async (arrived) => {
      const { width, height, what, guess } = await studio.arrival(arrived, name);
      await keepBlob(db, files, arrived);
      ctx.body = { blob: arrived.hash, name, width, height, what, guess };
    });
  });
  // The heights that a kept picture holds, as an alpha has them.
  router.post('/sheets/:hash/heights', async (ctx) => {
    const { name } = FileQuery.parse(ctx.query);
    const { arrived, ...alpha } = await studio.heights(hashOf(ctx), name);
    await keepBlob(db, files, arrived);
    ctx.body = { ...alpha, blob: arrived.hash };
  });
  router.get('/sheets/:hash/preview', async (ctx) => {
    ctx.type = 'image/jpeg';
    ctx.set('Cache-Control', FOREVER);
    ctx.body = Buffer.from(await studio.preview(hashOf(ctx), 'The sheet', PreviewQuery.parse(ctx.query).side));
  });
  router.get('/sheets/:hash/pixels', async (ctx) => {
    const { name, ...window } = WindowQuery.parse(ctx.query);
    const { width, height, channels, data } = await studio.window(hashOf(ctx), name, window);
    ctx.type = 'application/octet-stream';
    ctx.set({
      'X-Width': String(width),
      'X-Height': String(height),
      'X-Channels': String(channels),
      'X-Depth': data instanceof Float32Array ? 'float' : 'ushort',
    });
    ctx.body = Buffer.from(data.buffer, data.byteOffset, data.byteLength);
  });

  router.post('/fonts', async (ctx) => {
    const { name } = FileQuery.parse(ctx.query);
    await receive(ctx, files, LARGEST_FONT, async (arrived) => {
      await studio.tryFont(arrived, name);
      await keepBlob(db, files, arrived);
      ctx.body = { blob: arrived.hash, name };
    });
  });

  router.get('/belt', async (ctx) => {
    ctx.body = { ids: await getBelt(db) };
  });
  router.put('/belt', async (ctx) => {
    ctx.body = { ids: await putBelt(db, (await reader.body<'belt'>(ctx, { kind: 'belt' })).ids) };
  });

  router.get('/storage', async (ctx) => {
    ctx.body = await sizesOf(db, options.databaseFolder);
  });
  router.post('/storage/clean', async (ctx) => {
    const cleaned = await cleanUp(db, files);
    ctx.body = { cleaned, sizes: await sizesOf(db, options.databaseFolder) };
  });
  return router;
}

function addCollection(router: Router, { db, pictures, studio, reader }: RouteOptions, collection: Collection): void {
  async function answerStored(ctx: Context): Promise<void> {
    const { name, text, ...about } = await getStored(db, collection, idOf(ctx));
    answer(ctx, await reader.stored(collection, name, text), about);
  }
  router.get(`/${collection}`, async (ctx) => {
    const page = PageQuery.parse(ctx.query);
    ctx.etag = stateOf(db, collection);
    ctx.set('Cache-Control', 'no-cache');
    ctx.status = 200;
    if (ctx.fresh) {
      ctx.status = 304;
      return;
    }
    ctx.body = await listDocuments(db, collection, page);
  });
  router.get(`/${collection}/:id`, async (ctx) => {
    await answerStored(ctx);
  });
  router.put(`/${collection}/:id`, async (ctx) => {
    const save = await reader.body<'save'>(ctx, { kind: 'save', collection, id: idOf(ctx) });
    await tryFiles(db, studio, save);
    const revision = await saveJudged(db, save, { revision: save.revision });
    pictures.soon();
    answer(ctx, save.text, { revision, base: false, updatedAt: new Date().toISOString() });
  });
  router.delete(`/${collection}/:id`, async (ctx) => {
    await deleteDocument(db, collection, idOf(ctx));
    ctx.status = 204;
  });
  // Who names it: what would break without it, and what was made of it.
  router.get(`/${collection}/:id/users`, async (ctx) => {
    ctx.body = { users: await usersOf(db, collection, idOf(ctx)) };
  });
  router.post(`/${collection}/:id/restore`, async (ctx) => {
    await restoreDocument(db, collection, idOf(ctx));
    await answerStored(ctx);
  });
  router.get(`/${collection}/:id/picture`, async (ctx) => {
    const picture = await pictures.of(collection, idOf(ctx));
    ctx.type = 'image/png';
    // A brush's picture changes with its alpha, so it is asked for again, and answered again when it is another.
    ctx.etag = createHash('sha256').update(picture).digest('base64url');
    ctx.set('Cache-Control', 'no-cache');
    ctx.status = 200;
    if (ctx.fresh) ctx.status = 304;
    else ctx.body = Buffer.from(picture);
  });
}

/** A kept document: its text is JSON already. */
function answer(ctx: Context, text: Uint8Array, about: Pick<Stored, 'revision' | 'base' | 'updatedAt'>): void {
  ctx.type = 'application/json';
  const parts = [Buffer.from('{"doc":'), text, Buffer.from(`,${JSON.stringify(about).slice(1)}`)];
  ctx.length = parts.reduce((sum, part) => sum + part.length, 0);
  // Large texts are not copied once more.
  ctx.body = ctx.length > LARGE_TEXT ? Readable.from(parts, { objectMode: false }) : Buffer.concat(parts);
}

/** Files that a document names were looked at when they came; one that came as bare bytes is looked at now. */
async function tryFiles(db: Database, studio: Studio, { collection, id, files }: Judged): Promise<void> {
  if (files.length === 0) return;
  const tried = new Set(await namedBefore(db, collection, id));
  for (const { kind, blob, name } of files) {
    if (tried.has(blob) || !(await hasBlob(db, blob))) continue;
    await (kind === 'picture' ? studio.sheet(blob, name) : studio.font(blob, name));
  }
}

async function namedBefore(db: Database, collection: Collection, id: string): Promise<string[]> {
  const { rows } = await db.query<{ target: string }>(
    "SELECT target FROM refs WHERE collection = $2 AND id = $1 AND kind = 'blob'",
    [id, collection],
  );
  return rows.map((r) => r.target);
}

/** Writes down the request's bytes, and lets go of them again unless `keep` gave them their name. */
async function receive(
  ctx: Context,
  files: BlobFiles,
  most: number,
  keep: (arrived: Arrived) => Promise<void>,
): Promise<void> {
  const announced = Number(ctx.req.headers['content-length'] ?? NaN);
  if (announced > most)
    throw new Problem(413, 'too-large', `At most ${most >> 20} MiB can be stored at once.`, { limit: most });
  const arrived = await files.receive(ctx.req as AsyncIterable<Uint8Array>, most);
  try {
    if (!Number.isNaN(announced) && arrived.bytes !== announced)
      throw new Problem(400, 'cut-short', `Only ${arrived.bytes} of ${announced} bytes arrived.`);
    await keep(arrived);
  } finally {
    await files.drop(arrived);
  }
}

function hashOf(ctx: Context): string {
  return BlobHashSchema.parse(ctx['params'].hash);
}

function idOf(ctx: Context): string {
  return z.uuid('That is no id.').parse(ctx['params'].id);
}
