/**
 * Keeps other sites' pages out: requests must name this machine as Host, and what is asked of the program, read or
 * written, must come from our own page or from no page at all.
 */
import type { Middleware } from 'koa';
import { Problem } from './problem';

const LOCAL = new Set(['localhost', '127.0.0.1', '[::1]']);

export function guard(): Middleware {
  return async (ctx, next) => {
    const path = readable(ctx.path);
    const host = ctx.request.headers.host ?? '';
    if (!LOCAL.has(host.replace(/:\d+$/, '').toLowerCase())) {
      throw new Problem(403, 'foreign-host', 'This server answers on the local machine alone.', { host });
    }
    const { origin, 'sec-fetch-site': site } = ctx.request.headers;
    const reads = ctx.method === 'GET' || ctx.method === 'HEAD';
    const asksProgram = !reads || asksApi(path);
    const foreign =
      (origin !== undefined && origin.toLowerCase() !== `http://${host.toLowerCase()}`) ||
      (site !== undefined && site !== 'same-origin' && site !== 'none');
    if (asksProgram && foreign) {
      throw new Problem(403, 'foreign-origin', 'Mold Stamp answers its own page alone.', {
        origin: origin ?? null,
        site: site ?? null,
      });
    }
    await next();
  };
}

/** However it is spelt: routes are exact, and what guards them is not the place to rely on it. */
function asksApi(path: string): boolean {
  return /^[\\/]*api([\\/]|$)/i.test(path);
}

/** The path decoded; addresses that no file and no place has are refused. */
function readable(path: string): string {
  let plain: string;
  try {
    plain = decodeURIComponent(path);
  } catch {
    throw new Problem(400, 'bad-address', 'This address can’t be read: it holds a character that isn’t allowed.');
  }
  if (plain.includes('\0') || plain.split(/[\\/]/).includes('..'))
    throw new Problem(404, 'no-route', 'There is nothing at this address.');
  return plain;
}
