/**
 * The page's stores against the real server, without a browser: requests go to a server of this process, what the
 * browser keeps lies in a stand-in for its database, and the server can be away.
 */
import 'fake-indexeddb/auto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { clear, createStore } from 'idb-keyval';
import { createPinia, setActivePinia } from 'pinia';
import { start, type Running } from '../server/start';
import { seededTemplate } from '../server/testTemplate';

/** After this time the page knocks at an absent server again; here it waits until `later` is called. */
const KNOCK_MS = 2000;

export interface World {
  /** While true no request is answered. */
  away: boolean;
  /** Another page of the same browser, or the same one loaded again. */
  load(): void;
  /** The time passes after which so many pages knock at the absent server. */
  later(pages?: number): Promise<void>;
  /** Asks the server past the stores. */
  ask(path: string, method?: string, body?: unknown): Promise<{ status: number; json: unknown }>;
  /** Forgets what the browser kept. */
  forget(): Promise<void>;
  close(): Promise<void>;
}

export async function world(): Promise<World> {
  const folder = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
  const server: Running = await start({
    folder: join(folder, 'data'),
    template: await seededTemplate(),
    page: folder,
    port: 0,
    version: 'test',
  });
  const { fetch: realFetch, setTimeout: realTimeout } = globalThis;
  let putOff: (() => void)[] = [];
  /** A page that had something unsent knocks on at a server that is gone: the process doesn’t stay for it. */
  const keepingNone = ((act: () => void, ms = 0, ...more: []) => {
    const timer = realTimeout(act, ms, ...more);
    return ms === KNOCK_MS ? timer.unref() : timer;
  }) as unknown as typeof setTimeout;
  const here: World = {
    away: false,
    load: () => setActivePinia(createPinia()),
    async later(pages = 1) {
      await until(() => putOff.length >= pages);
      const acts = putOff;
      putOff = [];
      for (const act of acts) act();
    },
    async ask(path, method = 'GET', body) {
      const init =
        body === undefined
          ? { method }
          : { method, headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) };
      const answer = await realFetch(`${server.address}/api${path}`, init);
      return { status: answer.status, json: answer.status === 204 ? null : await answer.json() };
    },
    forget: () => clear(createStore('mold-stamp', 'drafts')),
    async close() {
      Object.assign(globalThis, { fetch: realFetch, setTimeout: keepingNone });
      await server.close();
      await rm(folder, { recursive: true, force: true });
    },
  };
  globalThis.fetch = ((path: string, init?: RequestInit) =>
    here.away ? Promise.reject(new TypeError('refused')) : realFetch(server.address + path, init)) as typeof fetch;
  globalThis.setTimeout = ((act: () => void, ms = 0, ...more: []) =>
    ms === KNOCK_MS ? putOff.push(act) : realTimeout(act, ms, ...more)) as unknown as typeof setTimeout;
  return here;
}

/** Waits until it is so; what isn't so after a long while never will be. */
export async function until(so: () => boolean | Promise<boolean>): Promise<void> {
  for (let waited = 0; !(await so()); waited++) {
    if (waited > 4000) throw new Error(`It never came about: ${so}`);
    await new Promise((done) => setTimeout(done, 5));
  }
}
