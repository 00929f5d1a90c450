/**
 * A server that closes while it is asked for everything at once: it ends, says nothing wrong, and has what it
 * acknowledged.
 */
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import sharp from 'sharp';
import { seeded } from '#core/random';
import { newBrush } from '#core/settings';
import { start, type Running } from './start';
import { seededTemplate } from './testTemplate';

const SECONDS = 10;
let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const open = async (name: string): Promise<Running> =>
  start({
    folder: join(folder, name),
    template: await seededTemplate(),
    page: resolve(import.meta.dirname, '../web'),
    port: 0,
    version: 'test',
  });

test.each([30, 400])(
  'closed %s ms after saves, pictures, sheets, lists and large documents were asked for',
  async (ms) => {
    const { error } = console;
    const logged: unknown[] = [];
    console.error = (...of: unknown[]) => void logged.push(of);
    try {
      const server = await open(`after ${ms}`);
      const random = seeded(ms);
      const png = new Uint8Array(
        await sharp({ create: { width: 400, height: 300, channels: 3, background: '#776655' } })
          .png()
          .toBuffer(),
      );
      const { items } = (await (await fetch(`${server.address}/api/brushes`)).json()) as { items: { id: string }[] };
      const acknowledged: string[] = [];
      const save = async (notes: string): Promise<void> => {
        const doc = newBrush(crypto.randomUUID(), `Saved ${random()}`);
        const body = JSON.stringify({ doc: { ...doc, unknown: notes }, revision: null });
        const answer = await fetch(`${server.address}/api/brushes/${doc.id}`, {
          method: 'PUT',
          headers: { 'Content-Type': 'application/json' },
          body,
        });
        if (answer.ok) acknowledged.push(doc.id);
        else expect([answer.status, (await answer.json()).error.code]).toEqual([503, 'closing']);
      };
      const acts = [
        () => save(''),
        () => save('x'.repeat(200_000)),
        () =>
          fetch(`${server.address}/api/brushes/${items[Math.floor(random() * items.length)].id}/picture`).then((a) =>
            a.arrayBuffer(),
          ),
        () =>
          fetch(`${server.address}/api/sheets?name=a.png`, { method: 'POST', body: png }).then((a) => a.arrayBuffer()),
        () => fetch(`${server.address}/api/brushes`).then((a) => a.arrayBuffer()),
        () => fetch(`${server.address}/api/storage`).then((a) => a.arrayBuffer()),
      ];
      const asked = Promise.allSettled(Array.from({ length: 18 }, (_, n) => acts[n % acts.length]()));
      await new Promise((done) => setTimeout(done, ms));
      const began = performance.now();
      await server.close();
      expect(performance.now() - began).toBeLessThan(SECONDS * 1000);
      // What had not come to the server any more was refused; nothing waits for ever.
      for (const answer of await asked)
        if (answer.status === 'rejected') expect(String(answer.reason)).toMatch(/fetch failed|terminated/);
      expect(logged).toEqual([]);
      const again = await open(`after ${ms}`);
      for (const id of acknowledged) expect((await fetch(`${again.address}/api/brushes/${id}`)).status).toBe(200);
      await again.close();
    } finally {
      console.error = error;
    }
  },
  60_000,
);
