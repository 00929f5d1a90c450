import { z } from 'zod';
import { explain } from '#core/settings';

/** The one error that may be shown: a status, a code for programs, a sentence for people and details. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly details: Record<string, unknown> = {},
  ) {
    super(message);
  }
}

/** So many of the things that are wrong with a value are listed. */
const MOST_ISSUES = 20;

/** What was thrown, as what may be shown of it. */
export function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof z.ZodError)
    return new Problem(422, 'invalid', explain(error), { issues: error.issues.slice(0, MOST_ISSUES) });
  const status = (error as { status?: unknown }).status;
  if (status === 413) return new Problem(413, 'too-large', 'The request is larger than this server takes.');
  if (status === 404) return new Problem(404, 'no-route', 'There is nothing at this address.');
  if (typeof status === 'number' && status >= 400 && status < 500)
    return new Problem(status, 'bad-request', 'The request could not be read.');
  // The other side went away in the middle of it.
  if ((error as { code?: unknown }).code === 'ECONNRESET')
    return new Problem(400, 'cut-short', 'The request was cut short.');
  return new Problem(500, 'failed', 'Something went wrong on the server; nothing was changed.');
}

/** Said to whoever waits, or asks, while the server closes. */
export function closing(): Problem {
  return new Problem(503, 'closing', 'The server is closing; nothing was changed.');
}
