/** Takes in a JSON body, up to a size. */
import type { Context } from 'koa';
import { Problem } from '../problem';

const MOST_BYTES = 24 * 2 ** 20;
const FIRST_BYTES = 64 * 1024;

export async function jsonOf(ctx: Context): Promise<Uint8Array> {
  if (ctx.is('application/json') !== 'application/json')
    throw new Problem(415, 'no-json', 'This needs a body of JSON, sent as application/json.');
  const announced = Number(ctx.req.headers['content-length'] ?? NaN);
  if (announced > MOST_BYTES) throw tooLarge();
  // Put together as it comes: to do so at the end would take the server as long as all of it at once.
  let body: Buffer = Buffer.allocUnsafeSlow(Number.isNaN(announced) ? FIRST_BYTES : announced);
  let bytes = 0;
  for await (const chunk of ctx.req as AsyncIterable<Buffer>) {
    if (bytes + chunk.length > MOST_BYTES) throw tooLarge();
    if (bytes + chunk.length > body.length) body = grown(body, bytes + chunk.length);
    chunk.copy(body, bytes);
    bytes += chunk.length;
  }
  return body.subarray(0, bytes);
}

function grown(body: Buffer, least: number): Buffer {
  const out = Buffer.allocUnsafeSlow(Math.max(least, 2 * body.length));
  body.copy(out);
  return out;
}

function tooLarge(): Problem {
  return new Problem(413, 'too-large', `At most ${MOST_BYTES >> 20} MB of JSON are taken at once.`, {
    limit: MOST_BYTES,
  });
}
