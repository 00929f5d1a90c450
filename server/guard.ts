/**
 * Keeps other sites' pages out: requests must name this machine as Host, and what is asked of the program, read or
 * written, must come from our own page or from no page at all.
 */
import type { Middleware } from 'koa';
import { Problem } from './problem';

const LOCAL = new Set(['localhost', '127.0.0.1', '[::1]']);

export function guard(): Middleware {
  return async (ctx, next) => {
    const host = ctx.request.headers.host ?? '';
    if (!LOCAL.has(host.replace(/:\d+$/, ''))) {
      throw new Problem(403, 'foreign-host', 'This server answers on the local machine alone.', { host });
    }
    const { origin, 'sec-fetch-site': site } = ctx.request.headers;
    const reads = ctx.method === 'GET' || ctx.method === 'HEAD';
    const asksProgram = !reads || ctx.path.startsWith('/api/');
    const foreign =
      (origin !== undefined && origin !== `http://${host}`) ||
      (site !== undefined && site !== 'same-origin' && site !== 'none');
    if (asksProgram && foreign) {
      throw new Problem(403, 'foreign-origin', 'Mold Stamp answers its own page alone.', {
        origin: origin ?? null,
        site: site ?? null,
      });
    }
    readable(ctx.path);
    await next();
  };
}

/** Addresses that no file and no place has. */
function readable(path: string): void {
  let plain: string;
  try {
    plain = decodeURIComponent(path);
  } catch {
    throw new Problem(400, 'bad-address', 'This address can’t be read: it holds a character that isn’t allowed.');
  }
  if (plain.includes('\0') || plain.split(/[\\/]/).includes('..'))
    throw new Problem(404, 'no-route', 'There is nothing at this address.');
}
