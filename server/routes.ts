/** What the server answers, as a table of small functions. */
import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import Router from '@koa/router';
import type { Context } from 'koa';
import { z } from 'zod';
import { COLLECTIONS, type Collection } from '#core/stored';
import { BlobHashSchema } from '#core/settings';
import type { Pictures } from './pictures';
import type { Inbox } from './inbox/inbox';
import { addInbox } from './inbox/routes';
import { addScanners } from './scanner/routes';
import type { Scans } from './scanner/scans';
import { receive } from './arriving';
import { tryFiles } from './namedFiles';
import type { Exports } from './packs/exports';
import type { Imports } from './packs/imports';
import { addPacks } from './packs/routes';
import type { Backups } from './backups/backups';
import { addBackups } from './backups/routes';
import { Problem } from './problem';
import type { Reader } from './reading/reader';
import type { Range, Store, Stored } from './store/port';
import type { Studio } from './studio/studio';
import { MOST_WINDOW_SIDE } from './studio/window';

/** A vector alpha of 4096² and some room. */
const LARGEST_BLOB = 208 * 1024 * 1024;
const LARGE_TEXT = 64 * 1024;
const LARGEST_FONT = 24 * 1024 * 1024;

const ALPHA_FILES = [
  ['png', 'image/png'],
  ['tiff', 'image/tiff'],
  ['exr', 'image/x-exr'],
  ['colours', 'image/png'],
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
const RevisionParams = z.object({
  revision: number('A revision')
    .int('A revision is a whole number.')
    .min(1)
    .max(2 ** 31 - 1),
});

export interface RouteOptions {
  store: Store;
  studio: Studio;
  reader: Reader;
  pictures: Pictures;
  inbox: Inbox;
  scans: Scans;
  imports: Imports;
  backups: Backups;
  exports: Exports;
  version: string;
}

export function routes(options: RouteOptions): Router {
  const { store, studio, reader, version } = options;
  const { blobs } = store;
  const router = new Router({ prefix: '/api', sensitive: true });

  // Says that the server runs; it waits for nothing.
  router.get('/health', (ctx) => {
    ctx.body = { ok: true, name: 'Mold Stamp', version };
  });

  for (const collection of COLLECTIONS) addCollection(router, options, collection);

  for (const [ending, type] of ALPHA_FILES) {
    router.get(`/alphas/:id/${ending}`, async (ctx) => {
      const { head } = await store.head('alphas', idOf(ctx));
      ctx.attachment(
        `${head.card.name.replace(/[^\p{L}\p{N} _-]/gu, '_')}${ending === 'colours' ? ' colours.png' : `.${ending}`}`,
      );
      ctx.type = type;
      ctx.body = Buffer.from(await studio.file(head, ending));
    });
  }

  router.get('/blobs/:hash', async (ctx) => {
    const hash = hashOf(ctx);
    const size = await blobs.size(hash);
    const range = rangeOf(ctx, size);
    ctx.type = 'application/octet-stream';
    ctx.set({ 'Cache-Control': FOREVER, 'Accept-Ranges': 'bytes' });
    if (range) {
      ctx.status = 206;
      ctx.set('Content-Range', `bytes ${range.start}-${range.end}/${size}`);
    }
    ctx.length = range ? range.end - range.start + 1 : size;
    ctx.body = blobs.stream(hash, range);
  });
  router.put('/blobs/:hash', async (ctx) => {
    const hash = hashOf(ctx);
    // Sent again it is wanted again.
    if ((await blobs.renew([hash])).length === 0) {
      await receive(ctx, blobs, LARGEST_BLOB, async (arrived) => {
        if (arrived.hash !== hash) {
          throw new Problem(
            422,
            'blob-hash',
            'The data arrived changed: its SHA-256 is not the one it was sent under. Send it again.',
            { expected: hash, found: arrived.hash },
          );
        }
        await blobs.keep(arrived);
      });
    }
    ctx.body = { hash };
  });
  router.put('/holds/:id', async (ctx) => {
    ctx.body = {
      missing: await store.putHolds(idOf(ctx), (await reader.body<'holds'>(ctx, { kind: 'holds' })).hashes),
    };
  });

  router.post('/sheets', async (ctx) => {
    const { name } = FileQuery.parse(ctx.query);
    await receive(ctx, blobs, LARGEST_BLOB, async (arrived) => {
      const { width, height, what } = await studio.lookAt(arrived, name);
      await blobs.keep(arrived);
      ctx.body = { blob: arrived.hash, name, width, height, what };
    });
  });
  // Looked at, guessed what it is, and kept.
  router.post('/arrivals', async (ctx) => {
    const { name } = FileQuery.parse(ctx.query);
    await receive(ctx, blobs, LARGEST_BLOB, async (arrived) => {
      const { width, height, what, guess } = await studio.arrival(arrived, name);
      await blobs.keep(arrived);
      ctx.body = { blob: arrived.hash, name, width, height, what, guess };
    });
  });
  // The heights that a kept picture holds, as an alpha has them.
  router.post('/sheets/:hash/heights', async (ctx) => {
    const { name } = FileQuery.parse(ctx.query);
    const { arrived, ...alpha } = await studio.heights(hashOf(ctx), name);
    await blobs.keep(arrived);
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
    await receive(ctx, blobs, LARGEST_FONT, async (arrived) => {
      await studio.tryFont(arrived, name);
      await blobs.keep(arrived);
      ctx.body = { blob: arrived.hash, name };
    });
  });

  router.get('/belt', async (ctx) => {
    ctx.body = { ids: await store.belt() };
  });
  // All of them whole: pages keep them for when the server is away.
  router.get('/belt/brushes', async (ctx) => {
    ctx.type = 'application/json';
    ctx.body = Readable.from(beltBrushes(store, reader), { objectMode: false });
  });
  router.put('/belt', async (ctx) => {
    ctx.body = { ids: await store.putBelt((await reader.body<'belt'>(ctx, { kind: 'belt' })).ids) };
  });

  addInbox(router, options.inbox);
  addScanners(router, options.scans);
  addBackups(router, options);
  addPacks(router, options);

  router.get('/trash', async (ctx) => {
    ctx.body = { deleted: await store.trash() };
  });
  router.get('/storage', async (ctx) => {
    ctx.body = await store.sizes();
  });
  router.post('/storage/clean', async (ctx) => {
    const cleaned = await store.clean();
    ctx.body = { cleaned, sizes: await store.sizes() };
  });
  return router;
}

function addCollection(
  router: Router,
  { store, pictures, studio, reader }: RouteOptions,
  collection: Collection,
): void {
  async function answerStored(ctx: Context): Promise<void> {
    const { name, text, ...about } = await store.stored(collection, idOf(ctx));
    answer(ctx, await reader.stored(collection, name, text), about);
  }
  router.get(`/${collection}`, async (ctx) => {
    const page = PageQuery.parse(ctx.query);
    ctx.etag = store.stateOf(collection);
    ctx.set('Cache-Control', 'no-cache');
    ctx.status = 200;
    if (ctx.fresh) {
      ctx.status = 304;
      return;
    }
    const { items, ...rest } = await store.listAsText(collection, page);
    ctx.type = 'application/json';
    ctx.body = `{"items":${items},${JSON.stringify(rest).slice(1)}`;
  });
  router.get(`/${collection}/:id`, async (ctx) => {
    await answerStored(ctx);
  });
  router.put(`/${collection}/:id`, async (ctx) => {
    const save = await reader.body<'save'>(ctx, { kind: 'save', collection, id: idOf(ctx) });
    await tryFiles(store, studio, save);
    const revision = await store.save(save, { revision: save.revision });
    answer(ctx, save.text, { revision, base: false, updatedAt: new Date().toISOString() });
  });
  router.delete(`/${collection}/:id`, async (ctx) => {
    await store.remove(collection, idOf(ctx));
    ctx.status = 204;
  });
  // Who names it: what would break without it, and what was made of it.
  router.get(`/${collection}/:id/users`, async (ctx) => {
    ctx.body = { users: await store.usersOf(collection, idOf(ctx)) };
  });
  // What it was before: the saves that this one replaced, the last first, and one of them.
  router.get(`/${collection}/:id/revisions`, async (ctx) => {
    ctx.body = { revisions: await store.revisions(collection, idOf(ctx)) };
  });
  router.get(`/${collection}/:id/revisions/:revision`, async (ctx) => {
    const { revision } = RevisionParams.parse(ctx['params']);
    const { name } = await store.stored(collection, idOf(ctx));
    const text = await store.revision(collection, idOf(ctx), revision);
    ctx.type = 'application/json';
    ctx.body = Buffer.from(await reader.stored(collection, name, text));
  });
  router.get(`/${collection}/:id/revisions/:revision/picture`, async (ctx) => {
    const { revision } = RevisionParams.parse(ctx['params']);
    const { name } = await store.stored(collection, idOf(ctx));
    const text = await store.revision(collection, idOf(ctx), revision);
    ctx.type = 'image/png';
    ctx.set('Cache-Control', FOREVER);
    ctx.body = Buffer.from(await pictures.ofRevision(collection, await reader.stored(collection, name, text)));
  });
  router.put(`/${collection}/:id/revisions/:revision`, async (ctx) => {
    const { revision } = RevisionParams.parse(ctx['params']);
    const { name } = await reader.body<'revisionName'>(ctx, { kind: 'revisionName' });
    await store.nameRevision(collection, idOf(ctx), revision, name);
    ctx.body = { name };
  });
  router.post(`/${collection}/:id/restore`, async (ctx) => {
    await store.restore(collection, idOf(ctx));
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

/** One after the other, as JSON; what is gone or can’t be read is left out. */
async function* beltBrushes(store: Store, reader: Reader): AsyncGenerator<Uint8Array> {
  let before = '{"items":[';
  for (const id of await store.belt()) {
    try {
      const { name, text, ...about } = await store.stored('brushes', id);
      yield Buffer.concat([Buffer.from(before), ...withText(await reader.stored('brushes', name, text), about)]);
      before = ',';
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
    }
  }
  yield Buffer.from(before === ',' ? ']}' : `${before}]}`);
}

/** A kept document: its text is JSON already. */
function withText(text: Uint8Array, about: Pick<Stored, 'revision' | 'base' | 'updatedAt'>): Uint8Array[] {
  return [Buffer.from('{"doc":'), text, Buffer.from(`,${JSON.stringify(about).slice(1)}`)];
}

function answer(ctx: Context, text: Uint8Array, about: Pick<Stored, 'revision' | 'base' | 'updatedAt'>): void {
  ctx.type = 'application/json';
  const parts = withText(text, about);
  ctx.length = parts.reduce((sum, part) => sum + part.length, 0);
  // Large texts are not copied once more.
  ctx.body = ctx.length > LARGE_TEXT ? Readable.from(parts, { objectMode: false }) : Buffer.concat(parts);
}

/** One range of bytes that was asked for, or none: several at once are answered by the whole. */
function rangeOf(ctx: Context, size: number): Range | undefined {
  const found = /^bytes=(\d*)-(\d*)$/.exec(ctx.get('range'));
  if (!found || (found[1] === '' && found[2] === '')) return undefined;
  const [first, last] = [found[1], found[2]];
  // Without a first byte it is so many of the last.
  const start = first === '' ? Math.max(0, size - Number(last)) : Number(first);
  const end = first === '' || last === '' ? size - 1 : Math.min(size - 1, Number(last));
  if (start > end)
    throw new Problem(416, 'range', `There are ${size} bytes; bytes ${first}-${last} aren’t among them.`, { size });
  return { start, end };
}

function hashOf(ctx: Context): string {
  return BlobHashSchema.parse(ctx['params'].hash);
}

function idOf(ctx: Context): string {
  return z.uuid('That isn’t an id.').parse(ctx['params'].id);
}
