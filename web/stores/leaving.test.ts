/** Whatever a hand does, and whenever its page closes: the next page finds the work as it was. */
import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { createPinia, setActivePinia } from 'pinia';
import { newGrow, PatternSchema, SOURCE_VERSION, type Pattern } from '#core/settings';
import { useOpenDocument } from './openDocument';
import { useUnkept } from './unkept';
import * as api from '../api/client';
import { blobsOfDrafts, hasDraft, sourceDrafts, type DraftBox } from '../api/drafts';
import { stash, stashedNames } from '../api/stash';

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
const { fetch: realFetch } = globalThis;
const { transaction } = IDBDatabase.prototype;
const { commit } = IDBTransaction.prototype;

/** The database of a page: what hasn’t ended when the page closes is undone, committed or not. */
const database = {
  closed: false,
  open: new Set<IDBTransaction>(),
  begin(this: IDBDatabase, ...args: Parameters<IDBDatabase['transaction']>): IDBTransaction {
    const one = transaction.apply(this, args);
    const ended = (): void => void database.open.delete(one);
    for (const how of ['complete', 'abort']) one.addEventListener(how, ended);
    database.open.add(one);
    if (database.closed) undo(one);
    return one;
  },
  close(): void {
    database.closed = true;
    for (const one of database.open) undo(one);
  },
};

function undo(one: IDBTransaction): void {
  try {
    one.abort();
  } catch {
    // It has just ended.
  }
}

/** The browser’s storage, which can be full. */
const storage = {
  kept: new Map<string, string>(),
  full: false,
  get length(): number {
    return storage.kept.size;
  },
  key: (i: number) => [...storage.kept.keys()][i] ?? null,
  getItem: (key: string) => storage.kept.get(key) ?? null,
  removeItem: (key: string) => void storage.kept.delete(key),
  setItem(key: string, value: string): void {
    if (storage.full) throw new Error('Full.');
    storage.kept.set(key, value);
  },
};

let stored: Pattern;
let ids = 0;
const SAVED = 'as saved';

function pattern(notes: string): Pattern {
  return PatternSchema.parse({
    version: SOURCE_VERSION,
    kind: 'pattern',
    id: `57a50000-0000-4000-8000-${String(++ids).padStart(12, '0')}`,
    card: { name: 'Left in haste', notes },
    grow: newGrow('dots'),
  });
}

beforeAll(() => {
  IDBDatabase.prototype.transaction = database.begin;
  // It ends by itself a moment later; ended by this it couldn’t be undone.
  IDBTransaction.prototype.commit = () => undefined;
  Object.assign(globalThis, { localStorage: storage });
  globalThis.fetch = ((path: string) => {
    const one = path.includes(stored.id);
    const body = one
      ? { doc: stored, revision: 1, base: false, updatedAt: '' }
      : { items: [], skipped: [], next: null, ids: [] };
    return Promise.resolve(new Response(JSON.stringify(body)));
  }) as typeof fetch;
});
afterAll(() => {
  IDBDatabase.prototype.transaction = transaction;
  IDBTransaction.prototype.commit = commit;
  globalThis.fetch = realFetch;
  Reflect.deleteProperty(globalThis, 'localStorage');
});
beforeEach(() => {
  storage.kept.clear();
  storage.full = false;
});

/** A page with the pattern on its bench. */
async function page() {
  setActivePinia(createPinia());
  const unkept = useUnkept();
  const own = useOpenDocument<'sources', Pattern>({
    collection: 'sources',
    what: () => 'pattern',
    drafts: sourceDrafts as unknown as DraftBox<Pattern>,
    draftMs: 3,
    send: (doc, on) => api.save('sources', doc, on),
  });
  await own.open(stored.id);
  expect(own.problem.value).toBeNull();
  return {
    own,
    unkept,
    type(notes: string): void {
      own.doc.value = { ...own.doc.value!, card: { ...own.doc.value!.card, notes } };
      own.touched();
    },
    /** Answers whether the browser would have asked. */
    async close(): Promise<boolean> {
      unkept.keepAll();
      const asks = unkept.anyAtRisk();
      database.close();
      await pause(6);
      database.closed = false;
      return asks;
    },
  };
}

const DOINGS = fc.array(fc.constantFrom('type', 'back', 'rest', 'moment', 'hide', 'drop', 'close'), { maxLength: 14 });

test('what was typed last is there again, and what was taken back stays away', async () => {
  await fc.assert(
    fc.asyncProperty(DOINGS, async (doings) => {
      stored = pattern(SAVED);
      let here = await page();
      let last = SAVED;
      for (const [n, doing] of [...doings, 'close'].entries()) {
        if (doing === 'type') here.type((last = `typed ${n}`));
        else if (doing === 'back') here.type((last = SAVED));
        else if (doing === 'hide') here.unkept.keepAll();
        else if (doing === 'drop') {
          await here.own.revert();
          last = SAVED;
        } else if (doing !== 'close') await pause(doing === 'rest' ? 5 : 0);
        else {
          expect(await here.close()).toBe(false);
          here = await page();
          expect(here.own.doc.value!.card.notes).toBe(last);
          expect(here.own.unsaved.value).toBe(last !== SAVED);
        }
      }
      await here.own.flush();
      expect(await hasDraft(stored.id)).toBe(last !== SAVED);
      // The database has it: nothing waits beside it.
      expect(stashedNames()).toEqual([]);
    }),
    { numRuns: 60 },
  );
});

test('without room for it the browser asks, if it would be lost', async () => {
  stored = pattern(SAVED);
  storage.full = true;
  const here = await page();
  here.type('no room');
  expect(await here.close()).toBe(true);
  expect((await page()).own.doc.value!.card.notes).toBe(SAVED);
});

test('a later draft of another window isn’t overwritten by what an earlier page stashed', async () => {
  stored = pattern(SAVED);
  const draft = { doc: pattern('here'), revision: 1, keptAt: 10, pending: false };
  const { id } = draft.doc;
  await sourceDrafts.keep({ ...draft, doc: { ...draft.doc, card: { ...draft.doc.card, notes: 'later' } }, keptAt: 20 });
  sourceDrafts.stash(id, draft);
  expect((await sourceDrafts.read(id))?.doc.card.notes).toBe('later');
  expect(stashedNames()).toEqual([]);
});

test('what is stashed counts as a draft: in lists, and by the blobs that it names', async () => {
  const draft = { doc: pattern('ab'.repeat(32)), revision: null, keptAt: 10, pending: false };
  sourceDrafts.stash(draft.doc.id, draft);
  expect(await blobsOfDrafts()).toContain('ab'.repeat(32));
  expect((await sourceDrafts.all()).map(({ doc }) => doc.id)).toContain(draft.doc.id);
});

test('what is stashed and can’t be read is no draft, and goes', async () => {
  const doc = pattern('');
  storage.kept.set(`draft-stash:source:${doc.id}`, '{ half');
  expect(await sourceDrafts.read(doc.id)).toBeUndefined();
  expect(stashedNames()).toEqual([]);
  // It takes nothing with it.
  await sourceDrafts.keep({ doc, revision: 1, keptAt: 1, pending: false });
  for (const text of ['null', '{}', '7', '{"keptAt":9}', '{"draft":null}']) {
    storage.kept.set(`draft-stash:source:${doc.id}`, text);
    expect((await sourceDrafts.read(doc.id))?.doc.id).toBe(doc.id);
    expect(stashedNames()).toEqual([]);
  }
  // Of something else than a document.
  stash(`source:${doc.id}`, { keptAt: 1, draft: { doc: 7 } });
  expect(await sourceDrafts.read(doc.id)).toBeUndefined();
});
