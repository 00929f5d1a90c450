/** Turns what was thrown into the one shape every error has: { error: { code, message, details } }. */
import type { Middleware } from 'koa';
import { asProblem, Problem } from './problem';
import { log } from './log';

export function failures(): Middleware {
  return async (ctx, next) => {
    try {
      await next();
      if (ctx.status === 404 && ctx.body === undefined && ctx.path.startsWith('/api/')) {
        throw new Problem(404, 'no-route', `There is nothing at ${ctx.method} ${ctx.path}.`);
      }
    } catch (error) {
      const problem = asProblem(error);
      if (problem.status >= 500 && !(error instanceof Problem)) log.error(error, 'A request failed');
      ctx.status = problem.status;
      // What is left of a body that was refused would be taken for the next request.
      if (problem.status === 413) ctx.set('Connection', 'close');
      ctx.body = { error: { code: problem.code, message: problem.message, details: problem.details } };
    }
  };
}
