/**
 * Reads a JSON body, judged as it comes: its size, how deep it nests and how many values it holds are known before
 * anything is made of it.
 */
import type { IncomingMessage } from 'node:http';
import type { Middleware } from 'koa';
import { Problem } from './problem';

const MOST_BYTES = 24 * 2 ** 20;
const MOST_DEPTH = 48;
const MOST_VALUES = 3_000_000;

export function jsonBody(): Middleware {
  return async (ctx, next) => {
    const { 'content-length': length, 'transfer-encoding': chunked } = ctx.req.headers;
    const has = chunked !== undefined || Number(length ?? 0) > 0;
    if (has && ctx.is('application/json') === 'application/json') (ctx.request as { body?: unknown }).body = await readJson(ctx.req);
    await next();
  };
}

async function readJson(request: IncomingMessage): Promise<unknown> {
  const judge = new Judge();
  const parts: Buffer[] = [];
  let bytes = 0;
  for await (const part of request as AsyncIterable<Buffer>) {
    bytes += part.length;
    if (bytes > MOST_BYTES) throw new Problem(413, 'too-large', `At most ${MOST_BYTES >> 20} MB of JSON are taken at once.`, { limit: MOST_BYTES });
    judge.look(part);
    parts.push(part);
  }
  const text = Buffer.concat(parts).toString('utf8');
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Problem(400, 'bad-request', 'The request could not be read: it is no valid JSON.');
  }
  if (/\\u(?:0000|d[89a-f][0-9a-f]{2})/i.test(text)) refuseUnstorable(value, []);
  return value;
}

/** Follows brackets and commas outside of strings, across parts. */
class Judge {
  private depth = 0;
  private values = 0;
  private inString = false;
  private escaped = false;

  look(part: Uint8Array): void {
    for (const byte of part) {
      if (this.escaped) this.escaped = false;
      else if (this.inString) {
        if (byte === 0x5c) this.escaped = true;
        else if (byte === 0x22) this.inString = false;
      } else if (byte === 0x22) this.inString = true;
      else if (byte === 0x5b || byte === 0x7b) {
        if (++this.depth > MOST_DEPTH) throw new Problem(422, 'invalid', `The request nests deeper than ${MOST_DEPTH} levels; nothing that is kept does.`);
      } else if (byte === 0x5d || byte === 0x7d) this.depth--;
      else if (byte === 0x2c && ++this.values > MOST_VALUES) throw new Problem(422, 'invalid', `The request holds more than ${MOST_VALUES / 1e6} million values; nothing that is kept does.`);
    }
  }
}

/** Text that no database takes: U+0000, and halves of a pair. */
function refuseUnstorable(value: unknown, path: readonly (string | number)[]): void {
  if (typeof value === 'string') {
    if (value.includes('\0') || !(value as string & { isWellFormed(): boolean }).isWellFormed()) {
      throw new Problem(422, 'invalid', `${path.length ? `“${path.join(' › ')}”` : 'The text'} holds a character that can’t be kept: a null, or half of one. Type it again.`);
    }
  } else if (Array.isArray(value)) value.forEach((v, i) => refuseUnstorable(v, [...path, i + 1]));
  else if (typeof value === 'object' && value !== null) {
    for (const [key, v] of Object.entries(value)) {
      refuseUnstorable(key, path);
      refuseUnstorable(v, [...path, key]);
    }
  }
}
