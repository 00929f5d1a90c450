/** Reads a binary body, refusing it as soon as it grows too large. */
import type { IncomingMessage } from 'node:http';
import { Problem } from './problem';

export async function readBytes(request: IncomingMessage, limit: number): Promise<Uint8Array> {
  const announced = Number(request.headers['content-length'] ?? NaN);
  if (announced > limit) throw tooLarge(limit);
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of request as AsyncIterable<Buffer>) {
    size += part.length;
    if (size > limit) throw tooLarge(limit);
    parts.push(part);
  }
  if (size !== announced && !Number.isNaN(announced)) throw new Problem(400, 'cut-short', `Only ${size} of ${announced} bytes arrived.`);
  return Buffer.concat(parts);
}

function tooLarge(limit: number): Problem {
  return new Problem(413, 'too-large', `At most ${limit >> 20} MiB can be stored at once.`, { limit });
}
