/** What pages ask of pack files: one that is written, one that came. */
import type Router from '@koa/router';
import type { Context } from 'koa';
import { z } from 'zod';
import { packFileSchema } from '#core/packFile';
import { arriving } from '../arriving';
import type { Reader } from '../reading/reader';
import type { Store } from '../store/port';
import type { Exports } from './exports';
import type { Imports } from './imports';

const LARGEST_PACK = 32 * 2 ** 30;
const FileQuery = z.object({
  name: z
    .string()
    .max(200, 'A file’s name may have at most 200 characters.')
    .transform((text) => text.replaceAll('\0', ''))
    .default('The pack'),
});

export interface PackRoutes {
  store: Store;
  reader: Reader;
  imports: Imports;
  exports: Exports;
}

/** Whoever asks for the head alone gets it: nothing is begun, and what is being written goes on. */
function asksHead(ctx: Context): boolean {
  if (ctx.method !== 'HEAD') return false;
  ctx.status = 200;
  return true;
}

export function addPacks(router: Router, { store, reader, imports, exports }: PackRoutes): void {
  router.get('/pack.schema.json', (ctx) => {
    ctx.body = packFileSchema();
  });

  router.post('/pack-exports', async (ctx) => {
    ctx.body = await exports.plan(await reader.body<'packWish'>(ctx, { kind: 'packWish' }));
  });
  router.get('/pack-exports/:id', (ctx) => {
    ctx.body = exports.state(idOf(ctx));
  });
  router.get('/pack-exports/:id/file', (ctx) => {
    const id = idOf(ctx);
    ctx.attachment(`${exports.nameOf(id).replace(/[^\p{L}\p{N} _-]/gu, '_')}.pack.zip`);
    ctx.type = 'application/zip';
    if (asksHead(ctx)) return;
    ctx.body = exports.stream(id);
  });
  router.get('/pack-exports/:id/page', (ctx) => {
    const id = idOf(ctx);
    // It is saved, not shown: its scripts are for where it is opened.
    ctx.attachment(`${exports.nameOf(id).replace(/[^\p{L}\p{N} _-]/gu, '_')}.html`);
    ctx.type = 'text/html; charset=utf-8';
    if (asksHead(ctx)) return;
    ctx.body = exports.page(id);
  });
  router.delete('/pack-exports/:id', (ctx) => {
    exports.cancel(idOf(ctx));
    ctx.status = 204;
  });

  router.post('/pack-imports', async (ctx) => {
    const { name } = FileQuery.parse(ctx.query);
    ctx.body = await imports.look(await arriving(ctx, store.blobs, LARGEST_PACK), name);
  });
  router.get('/pack-imports/:id', async (ctx) => {
    ctx.body = await imports.view(idOf(ctx));
  });
  router.get('/pack-imports/:id/progress', (ctx) => {
    ctx.body = { progress: imports.progress(idOf(ctx)) };
  });
  router.get('/pack-imports/:id/pictures/:of', async (ctx) => {
    ctx.type = 'image/png';
    ctx.set('Cache-Control', 'private, max-age=3600');
    ctx.body = Buffer.from(await imports.picture(idOf(ctx), z.uuid().parse(ctx['params'].of)));
  });
  router.post('/pack-imports/:id/take', async (ctx) => {
    const { choices, rack } = await reader.body<'packChoices'>(ctx, { kind: 'packChoices' });
    ctx.body = await imports.take(idOf(ctx), choices, rack);
  });
  router.delete('/pack-imports/:id', async (ctx) => {
    await imports.drop(idOf(ctx));
    ctx.status = 204;
  });
}

function idOf(ctx: Context): string {
  return z.uuid('That isn’t an id.').parse(ctx['params'].id);
}
