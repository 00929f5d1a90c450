/** What pages ask of backups. */
import type Router from '@koa/router';
import type { Context } from 'koa';
import { z } from 'zod';
import { arriving } from '../arriving';
import type { Reader } from '../reading/reader';
import type { Store } from '../store/port';
import type { Backups } from './backups';

const LARGEST_BACKUP = 256 * 2 ** 30;
const FileQuery = z.object({
  name: z.string().max(200, 'A file’s name may have at most 200 characters.').default('The backup'),
});
const RestoreQuery = z.object({
  others: z.enum(['keep', 'trash'], 'What came since stays, or goes to the trash.').default('keep'),
});

export interface BackupRoutes {
  store: Store;
  reader: Reader;
  backups: Backups;
}

export function addBackups(router: Router, { store, reader, backups }: BackupRoutes): void {
  router.get('/backups', async (ctx) => {
    ctx.body = await backups.view();
  });
  router.post('/backups', async (ctx) => {
    ctx.body = await backups.make('by hand');
  });
  router.put('/backups/plan', async (ctx) => {
    await backups.putPlan(await reader.body<'backupPlan'>(ctx, { kind: 'backupPlan' }));
    ctx.body = await backups.view();
  });
  router.delete('/backups/going', (ctx) => {
    backups.cancel();
    ctx.status = 204;
  });
  router.post('/backups/files', async (ctx) => {
    const { name } = FileQuery.parse(ctx.query);
    ctx.body = await backups.bring(await arriving(ctx, store.blobs, LARGEST_BACKUP), name.replaceAll('\0', ''));
  });
  router.get('/backups/files/:name', async (ctx) => {
    const name = nameOf(ctx);
    const { bytes, stream } = await backups.file(name);
    ctx.attachment(`Mold Stamp ${name}`);
    ctx.type = 'application/zip';
    ctx.length = bytes;
    ctx.body = stream;
  });
  router.delete('/backups/files/:name', async (ctx) => {
    await backups.remove(nameOf(ctx));
    ctx.status = 204;
  });
  router.post('/backups/files/:name/restore', async (ctx) => {
    ctx.body = await backups.restore(nameOf(ctx), RestoreQuery.parse(ctx.query).others);
  });
}

const nameOf = (ctx: Context): string => String(ctx['params'].name);
