/** Keeps other sites' pages out: requests must name this machine as Host, and changes must come from our own page. */
import type { Middleware } from 'koa';
import { Problem } from './problem';

const LOCAL = new Set(['localhost', '127.0.0.1', '[::1]']);

export function guard(): Middleware {
  return async (ctx, next) => {
    const host = ctx.request.headers.host ?? '';
    if (!LOCAL.has(host.replace(/:\d+$/, ''))) {
      throw new Problem(403, 'foreign-host', 'This server answers on the local machine alone.', { host });
    }
    const { origin } = ctx.request.headers;
    const reads = ctx.method === 'GET' || ctx.method === 'HEAD';
    if (!reads && origin !== undefined && origin !== `http://${host}`) {
      throw new Problem(403, 'foreign-origin', 'Changes are taken from Mold Stamp’s own page alone.', { origin });
    }
    await next();
  };
}
