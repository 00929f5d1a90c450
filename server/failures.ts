/** Turns what was thrown into the one shape every error has: { error: { code, message, details } }. */
import type { Middleware } from 'koa';
import { z } from 'zod';
import { explain } from '#core/settings';
import { Problem } from './problem';

export function failures(): Middleware {
  return async (ctx, next) => {
    try {
      await next();
      if (ctx.status === 404 && ctx.body === undefined && ctx.path.startsWith('/api/')) {
        throw new Problem(404, 'no-route', `There is nothing at ${ctx.method} ${ctx.path}.`);
      }
    } catch (error) {
      const problem = asProblem(error);
      if (problem.status >= 500 && !(error instanceof Problem)) console.error(error);
      ctx.status = problem.status;
      // What is left of a body that was refused would be taken for the next request.
      if (problem.status === 413) ctx.set('Connection', 'close');
      ctx.body = { error: { code: problem.code, message: problem.message, details: problem.details } };
    }
  };
}

function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof z.ZodError) return new Problem(422, 'invalid', explain(error), { issues: error.issues });
  const status = (error as { status?: unknown }).status;
  if (status === 413) return new Problem(413, 'too-large', 'The request is larger than this server takes.');
  if (status === 404) return new Problem(404, 'no-route', 'There is nothing at this address.');
  if (typeof status === 'number' && status >= 400 && status < 500) return new Problem(status, 'bad-request', 'The request could not be read.');
  // The other side went away in the middle of it.
  if ((error as { code?: unknown }).code === 'ECONNRESET') return new Problem(400, 'cut-short', 'The request was cut short.');
  return new Problem(500, 'failed', 'Something went wrong on the server; nothing was changed.');
}
