/** Takes in a JSON body, up to a size. */
import type { Context } from 'koa';
import getRawBody from 'raw-body';
import { Problem } from '../problem';

const MOST_BYTES = 24 * 2 ** 20;

export async function jsonOf(ctx: Context): Promise<Uint8Array> {
  if (ctx.is('application/json') !== 'application/json')
    throw new Problem(415, 'no-json', 'This needs a body of JSON, sent as application/json.');
  return getRawBody(ctx.req, { limit: MOST_BYTES, length: ctx.req.headers['content-length'] ?? null }).catch(
    (error: unknown) => {
      throw asSaid(error);
    },
  );
}

function asSaid(error: unknown): unknown {
  switch ((error as getRawBody.RawBodyError).type) {
    case 'entity.too.large':
      return new Problem(413, 'too-large', `At most ${MOST_BYTES >> 20} MB of JSON are taken at once.`, {
        limit: MOST_BYTES,
      });
    case 'request.aborted':
    case 'request.size.invalid':
      return new Problem(400, 'cut-short', 'Not all of it arrived.');
    default:
      return error;
  }
}
