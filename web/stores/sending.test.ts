import { createPinia, setActivePinia } from 'pinia';
import { listedOf, type StoredDocument } from '#core/stored';
import { TRIAL_VERSION, trialSets, type OwnTrial } from '#core/trial';
import type { Outbox, PendingTrial } from '../api/outbox';
import { ServerAway } from '../api/client';
import { useConnection } from './connection';
import { useSending } from './sending';

const { strokes } = trialSets()[0];
const waits = (id: string, name: string): PendingTrial => ({
  id: `00000000-0000-4000-8000-00000000000${id}`,
  name,
  body: 'ball',
  strokes,
  addedAt: Number(id),
});

/** A server that keeps sets, and can be away, full, or lose its answer. */
function server(now: { away?: boolean; refuses?: string; refusesOnly?: string; losesAnswer?: boolean } = {}) {
  const docs = new Map<string, OwnTrial>();
  const deleted = new Map<string, OwnTrial>();
  const answer = (body: unknown, status = 200): Response =>
    new Response(body === null ? null : JSON.stringify(body), { status });
  const no = (status: number, code: string, message: string): Response =>
    answer({ error: { code, message, details: {} } }, status);
  const stored = (doc: OwnTrial): StoredDocument<'trials'> => ({ doc, revision: 1, base: false, updatedAt: '' });
  globalThis.fetch = ((path: string, init: RequestInit = {}) => {
    if (now.away) return Promise.reject(new TypeError('refused'));
    const [, , , id = '', restore] = path.split('/');
    const said = ((): Response => {
      switch (init.method ?? 'GET') {
        case 'PUT': {
          const { doc } = JSON.parse(String(init.body)) as { doc: OwnTrial };
          if (now.refuses && (!now.refusesOnly || now.refusesOnly === id)) return no(507, 'full', now.refuses);
          if (docs.has(id)) return no(409, 'changed-elsewhere', 'It was changed.');
          if ([...docs.values()].some((d) => d.card.name === doc.card.name))
            return no(409, 'name-taken', 'There is one already.');
          docs.set(id, doc);
          return answer(stored(doc));
        }
        case 'DELETE': {
          deleted.set(id, docs.get(id)!);
          docs.delete(id);
          return answer(null, 204);
        }
        case 'POST': {
          if (restore !== 'restore') return no(404, 'no-route', '');
          docs.set(id, deleted.get(id)!);
          return answer(stored(docs.get(id)!));
        }
        default:
          return answer(
            path.endsWith('/health')
              ? { ok: true }
              : { items: [...docs.values()].map((doc) => listedOf('trials', stored(doc))), skipped: [], next: null },
          );
      }
    })();
    if (now.losesAnswer && init.method === 'PUT') {
      now.losesAnswer = false;
      return Promise.reject(new TypeError('cut off'));
    }
    return Promise.resolve(said);
  }) as typeof fetch;
  return { now, docs };
}

function box(full = false): Outbox<PendingTrial> & { held: Map<string, PendingTrial> } {
  const held = new Map<string, PendingTrial>();
  return {
    held,
    keep: (one) =>
      full
        ? Promise.reject(new DOMException('full', 'QuotaExceededError'))
        : Promise.resolve(void held.set(one.id, one)),
    one: (id) => Promise.resolve(held.get(id) ?? null),
    all: () => Promise.resolve([...held.values()].sort((a, b) => a.addedAt - b.addedAt)),
    drop: (id) => Promise.resolve(void held.delete(id)),
  };
}

function sending(from: Outbox<PendingTrial>) {
  return useSending<'trials', PendingTrial, { id: string; name: string }>({
    collection: 'trials',
    box: from,
    what: 'set',
    documentOf: (one, name) =>
      Promise.resolve({
        version: TRIAL_VERSION,
        id: one.id,
        card: { name, author: '', tags: [], notes: '' },
        body: one.body,
        strokes: one.strokes,
      }),
    rowOf: ({ id, name }) => ({ id, name }),
    rowOfStored: ({ id, card }) => ({ id, name: card.name }),
  });
}

/** Until everything that was begun has been answered. */
async function quiet(): Promise<void> {
  for (let i = 0; i < 20; i++) await new Promise((done) => setImmediate(done));
}

const { fetch: realFetch, setTimeout: realTimeout } = globalThis;
/** What was put off, run by hand. */
let later: (() => void)[] = [];
beforeEach(() => {
  later = [];
  setActivePinia(createPinia());
  globalThis.setTimeout = ((act: () => void) => later.push(act)) as unknown as typeof setTimeout;
});
afterEach(() => {
  globalThis.setTimeout = realTimeout;
  globalThis.fetch = realFetch;
});
/** The time passes after which the page knocks at an absent server again. */
async function passes(): Promise<void> {
  for (const act of later.splice(0)) act();
  await quiet();
}

test('what is kept is in the list at once, reaches the server and leaves the browser', async () => {
  const there = server();
  const here = box();
  const sets = sending(here);
  const row = await sets.keep(waits('1', ' Mine '));
  expect(sets.own.value).toEqual([row]);
  expect(row.name).toBe('Mine');
  await quiet();
  expect([...there.docs.values()].map((d) => d.card.name)).toEqual(['Mine']);
  expect(here.held.size).toBe(0);
  expect(sets.own.value).toEqual([row]);
});

test('names stay apart, are never empty and leave room for a number', async () => {
  server();
  const sets = sending(box());
  const names = [];
  for (const [i, name] of ['Ring', 'ring', '', 'x'.repeat(200)].entries())
    names.push((await sets.keep(waits(String(i + 1), name))).name);
  expect(names).toEqual(['Ring', 'ring 2', 'Set', 'x'.repeat(74)]);
  await quiet();
});

test('without a server it waits, outlives the page, and is sent when the server is back', async () => {
  const there = server({ away: true });
  const here = box();
  await sending(here).keep(waits('1', 'Mine'));
  await quiet();
  expect(here.held.size).toBe(1);
  setActivePinia(createPinia());
  const again = sending(here);
  await again.load();
  expect(again.own.value.map((o) => o.name)).toEqual(['Mine']);
  await again.keep(waits('2', 'Mine'));
  expect(useConnection().away).toBe(true);
  there.now.away = false;
  await passes();
  expect([...there.docs.values()].map((d) => d.card.name)).toEqual(['Mine', 'Mine 2']);
  expect(here.held.size).toBe(0);
  expect(again.own.value.map((o) => o.name)).toEqual(['Mine', 'Mine 2']);
});

test('an answer that was lost doesn’t make two of one', async () => {
  const there = server({ losesAnswer: true });
  const here = box();
  const sets = sending(here);
  await sets.keep(waits('1', 'Mine'));
  await quiet();
  expect(here.held.size).toBe(1);
  await passes();
  expect(there.docs.size).toBe(1);
  expect(here.held.size).toBe(0);
  expect(sets.own.value).toHaveLength(1);
});

test('sent by another window meanwhile: it is known and no longer waits', async () => {
  const there = server();
  const [here, other] = [box(), box()];
  const sets = sending(here);
  await sending(other).keep(waits('1', 'Mine'));
  await quiet();
  await sets.keep(waits('1', 'Mine'));
  await quiet();
  expect(there.docs.size).toBe(1);
  expect(here.held.size).toBe(0);
  expect(sets.own.value).toHaveLength(1);
  expect(sets.problem.value).toBeNull();
});

test('a server that would not take it says why; it goes on waiting and is sent later', async () => {
  const there = server({ refuses: 'The disk is full.' });
  const here = box();
  const sets = sending(here);
  await sets.keep(waits('1', 'Mine'));
  await quiet();
  expect(sets.problem.value).toContain('The disk is full.');
  expect(here.held.size).toBe(1);
  delete there.now.refuses;
  await sets.load();
  await quiet();
  expect(sets.problem.value).toBeNull();
  expect(here.held.size).toBe(0);
  expect(there.docs.size).toBe(1);
});

test('a full browser: the server takes it at once; where neither can, a sentence says so and nothing is in the list', async () => {
  const there = server();
  const sets = sending(box(true));
  await sets.keep(waits('1', 'Mine'));
  expect(there.docs.size).toBe(1);
  there.now.away = true;
  await expect(sets.keep(waits('2', 'More'))).rejects.toThrow(
    'no room for “More”: the browser is full, and the server can’t be reached',
  );
  expect(sets.own.value.map((o) => o.name)).toEqual(['Mine']);
});

test('taken off the list and taken back, whether it was sent or waits', async () => {
  const there = server();
  const here = box();
  const sets = sending(here);
  await sets.keep(waits('1', 'Sent'));
  await quiet();
  there.now.away = true;
  await sets.keep(waits('2', 'Waits'));
  await quiet();
  const unwait = await sets.forget(waits('2', '').id);
  expect(here.held.size).toBe(0);
  await unwait();
  expect(here.held.size).toBe(1);
  there.now.away = false;
  const unsend = await sets.forget(waits('1', '').id);
  expect(there.docs.has(waits('1', '').id)).toBe(false);
  expect(sets.own.value.some((o) => o.name === 'Sent')).toBe(false);
  await unsend();
  expect(sets.own.value.map((o) => o.name).sort()).toEqual(['Sent', 'Waits']);
});

test('one that the server refuses goes on waiting, and those behind it are sent', async () => {
  setActivePinia(createPinia());
  const first = waits('1', 'First');
  const { docs, now } = server({ refuses: 'It is not wanted.', refusesOnly: first.id });
  const held = box();
  for (const one of [first, waits('2', 'Second'), waits('3', 'Third')]) held.held.set(one.id, one);
  const own = sending(held);
  await own.load();
  await quiet();
  expect([...docs.values()].map((d) => d.card.name)).toEqual(['Second', 'Third']);
  expect([...held.held.keys()]).toEqual([first.id]);
  expect(own.problem.value).toContain('“First”: It is not wanted.');
  delete now.refuses;
  await own.load();
  await quiet();
  expect([held.held.size, own.problem.value]).toEqual([0, null]);
});

test('when the server is back everyone hears of it, also after one who fails', async () => {
  const there = server({ away: true });
  const heard: string[] = [];
  const { reportError: report } = globalThis;
  Object.assign(globalThis, { reportError: () => heard.push('told') });
  try {
    const connection = useConnection();
    connection.whenBack(() => Promise.reject(new Error('broken')));
    connection.whenBack(() => Promise.resolve(void heard.push('second')));
    connection.noticed(new ServerAway());
    there.now.away = false;
    later.shift()!();
    await quiet();
    expect(heard.sort()).toEqual(['second', 'told']);
    expect(connection.away).toBe(false);
  } finally {
    Object.assign(globalThis, { reportError: report });
  }
});
