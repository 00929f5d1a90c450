/** What the page asks for while its program is read is what the program asks for first. */
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { list } from '../web/api/client';

test('the page asks ahead for the first pages of brushes and packs, under the very addresses of the program', async () => {
  const asked: string[] = [];
  const real = globalThis.fetch;
  globalThis.fetch = ((address: string) => {
    asked.push(address);
    return Promise.resolve(Response.json({ items: [], skipped: [], next: null }));
  }) as unknown as typeof fetch;
  try {
    await list('brushes');
    await list('packs');
  } finally {
    globalThis.fetch = real;
  }
  const page = readFileSync(resolve(import.meta.dirname, '../web/index.html'), 'utf8');
  const ahead = [...page.matchAll(/<link rel="preload" href="([^"]+)" as="fetch" crossorigin/g)].map(([, at]) => at);
  expect(ahead).toEqual(asked);
});
