/** Bytes that come with a request. */
import type { Context } from 'koa';
import { Problem } from './problem';
import type { Arrived, Blobs } from './store/port';

/** Writes down the request’s bytes, and lets go of them again unless `keep` gave them their name. */
export async function receive(
  ctx: Context,
  blobs: Blobs,
  most: number,
  keep: (arrived: Arrived) => Promise<void>,
): Promise<void> {
  const arrived = await arriving(ctx, blobs, most);
  try {
    await keep(arrived);
  } finally {
    await blobs.drop(arrived);
  }
}

/** Writes down the request’s bytes; whoever asked keeps them or lets go of them. */
export async function arriving(ctx: Context, blobs: Blobs, most: number): Promise<Arrived> {
  const announced = Number(ctx.req.headers['content-length'] ?? NaN);
  if (announced > most)
    throw new Problem(
      413,
      'too-large',
      `At most ${most >= 2 ** 30 ? `${most / 2 ** 30} GiB` : `${most >> 20} MiB`} can be stored at once.`,
      { limit: most },
    );
  const arrived = await blobs.receive(ctx.req as AsyncIterable<Uint8Array>, most);
  if (Number.isNaN(announced) || arrived.bytes === announced) return arrived;
  await blobs.drop(arrived);
  throw new Problem(400, 'cut-short', `Only ${arrived.bytes} of ${announced} bytes arrived.`);
}
