/** What pages ask of scanners on the network. */
import type Router from '@koa/router';
import type { Context } from 'koa';
import { z } from 'zod';
import { LEAST_DPI, MOST_DPI } from './escl';
import type { Scans } from './scans';

const yes = z
  .enum(['yes', 'no'])
  .default('no')
  .transform((word) => word === 'yes');
const Address = z.object({
  address: z.string('An address is needed.').min(1, 'An address is needed.').max(300),
  outside: yes,
});
const mm = z.coerce.number().min(0).max(2000);
const Order = Address.extend({
  dpi: z.coerce
    .number('A resolution is a number.')
    .int()
    .min(LEAST_DPI, `At least ${LEAST_DPI} dpi.`)
    .max(MOST_DPI, `At most ${MOST_DPI} dpi.`),
  colour: z.enum(['colour', 'grey']).default('colour'),
  x: mm.optional(),
  y: mm.optional(),
  width: z.coerce.number().min(5, 'An area is at least 5 mm wide.').max(2000).optional(),
  height: z.coerce.number().min(5, 'An area is at least 5 mm high.').max(2000).optional(),
});

export function addScanners(router: Router, scans: Scans): void {
  router.get('/scanners', async (ctx) => {
    const { address, outside } = Address.parse(ctx.query);
    ctx.body = await scans.capabilities(address, outside);
  });
  router.post('/scans', async (ctx) => {
    const { x, y, width, height, ...order } = Order.parse(ctx.query);
    const area = width !== undefined && height !== undefined ? { x: x ?? 0, y: y ?? 0, width, height } : null;
    ctx.body = { id: await scans.begin({ ...order, area }) };
  });
  router.get('/scans/:id', (ctx) => {
    ctx.body = scans.state(idOf(ctx));
  });
  router.delete('/scans/:id', (ctx) => {
    scans.cancel(idOf(ctx));
    ctx.status = 204;
  });
}

function idOf(ctx: Context): string {
  return z.uuid('That isn’t an id.').parse(ctx['params'].id);
}
