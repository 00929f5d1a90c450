/** What pages ask of the inbox: what lies there, one file for themselves, and what came of it. */
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import type Router from '@koa/router';
import type { Context } from 'koa';
import { z } from 'zod';
import { Problem } from '../problem';
import type { Inbox } from './inbox';

const Id = z.string().regex(/^[0-9a-f]{32}$/, 'That isn’t the id of a file in the inbox.');
const Why = z.object({ why: z.string().min(1).max(1000) });

export function addInbox(router: Router, inbox: Inbox): void {
  router.get('/inbox', (ctx) => {
    ctx.body = inbox.state();
  });
  router.post('/inbox/:id/claim', (ctx) => {
    ctx.body = inbox.claim(idOf(ctx));
  });
  router.get('/inbox/:id/file', async (ctx) => {
    const { path, bytes } = inbox.pathOf(idOf(ctx));
    const now = await stat(path).catch(() => null);
    if (now?.size !== bytes)
      throw new Problem(
        409,
        'inbox-changed',
        'This file has changed since it was looked at. It is taken when it is whole.',
      );
    ctx.type = 'application/octet-stream';
    ctx.length = bytes;
    // What is written behind it meanwhile is of the next version.
    ctx.body = createReadStream(path, { end: Math.max(0, bytes - 1) });
  });
  router.post('/inbox/:id/taken', async (ctx) => {
    await inbox.settle(idOf(ctx), { ok: true });
    ctx.status = 204;
  });
  router.post('/inbox/:id/refused', async (ctx) => {
    await inbox.settle(idOf(ctx), { ok: false, why: Why.parse(ctx.query).why });
    ctx.status = 204;
  });
}

function idOf(ctx: Context): string {
  return Id.parse(ctx['params'].id);
}
