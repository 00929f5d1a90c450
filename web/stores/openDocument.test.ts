/**
 * One open document under every order of events: what a hand typed is shown, kept as a draft or saved, and nothing of
 * others is overwritten.
 */
import 'fake-indexeddb/auto';
import { createPinia, setActivePinia } from 'pinia';
import { seeded } from '#core/random';
import { newGrow, PatternSchema, SOURCE_VERSION, type Pattern } from '#core/settings';
import * as api from '../api/client';
import { sourceDrafts, type DraftBox } from '../api/drafts';
import { useConnection } from './connection';
import { useOpenDocument } from './openDocument';

interface Stored {
  doc: Pattern;
  revision: number;
}

/** A server with patterns on it: it takes its time, can be away, and lets another window save. */
function server(random: () => number) {
  const stored = new Map<string, Stored>();
  /** What was written, in order: nobody's save may vanish without a revision of its own. */
  const log: string[] = [];
  const now = { away: false };
  const answer = (body: unknown, status = 200): Response => new Response(JSON.stringify(body), { status });
  const about = ({ doc, revision }: Stored): object => ({ doc, revision, base: false, updatedAt: '' });
  const no = (status: number, code: string): Response =>
    answer({ error: { code, message: 'No.', details: {} } }, status);
  function put(id: string, doc: Pattern, on: number | null, by: string): Response {
    const there = stored.get(id);
    if ((there?.revision ?? null) !== on) return no(409, there ? 'changed-elsewhere' : 'deleted-elsewhere');
    stored.set(id, { doc, revision: (on ?? 0) + 1 });
    log.push(`${by} ${doc.card.notes}`);
    return answer(about(stored.get(id)!));
  }
  globalThis.fetch = (async (path: string, init: RequestInit = {}) => {
    await pause(random() * 4);
    if (now.away) throw new TypeError('refused');
    const [, , collection, id = ''] = path.split(/[/?]/);
    let said: Response;
    if (collection === 'health') said = answer({ ok: true });
    else if (collection === 'belt') said = answer({ ids: [] });
    else if (init.method === 'PUT') {
      const { doc, revision } = JSON.parse(String(init.body)) as { doc: Pattern; revision: number | null };
      said = put(id, doc, revision, 'here');
    } else if (collection === 'sources' && /^[0-9a-f-]{36}$/.test(id))
      said = stored.has(id) ? answer(about(stored.get(id)!)) : no(404, 'not-found');
    else said = answer({ items: [], skipped: [], next: null });
    await pause(random() * 4);
    // Away before the answer was out: it was written all the same.
    if (now.away) throw new TypeError('cut off');
    return said;
  }) as typeof fetch;
  return { stored, log, now, put };
}

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
const { fetch: realFetch, setTimeout: realTimeout } = globalThis;
/** After this time the page knocks at an absent server again; here it does so at once. */
const KNOCK_MS = 2000;
let knocks = 0;
beforeAll(() => {
  globalThis.setTimeout = ((act: () => void, ms = 0, ...more: []) => {
    if (ms !== KNOCK_MS) return realTimeout(act, ms, ...more);
    knocks++;
    return realTimeout(() => {
      knocks--;
      act();
    }, 5);
  }) as unknown as typeof setTimeout;
});
afterAll(() => {
  Object.assign(globalThis, { fetch: realFetch, setTimeout: realTimeout });
});

let ids = 0;
const pattern = (name: string): Pattern =>
  PatternSchema.parse({
    version: SOURCE_VERSION,
    kind: 'pattern',
    id: `00000000-0000-4000-8000-${String(++ids).padStart(12, '0')}`,
    card: { name },
    grow: newGrow('dots'),
  });

function bench() {
  return useOpenDocument<'sources', Pattern>({
    collection: 'sources',
    what: () => 'pattern',
    drafts: sourceDrafts as unknown as DraftBox<Pattern>,
    draftMs: 3,
    send: (doc, on) => api.save('sources', doc, on),
  });
}

test.each(Array.from({ length: 20 }, (_, n) => n + 1))(
  'edits, saves, other windows, an absent server and other documents in any order, seed %s',
  async (seed) => {
    setActivePinia(createPinia());
    const random = seeded(seed);
    const there = server(random);
    const docs = [pattern(`First ${seed}`), pattern(`Second ${seed}`)];
    for (const doc of docs) there.put(doc.id, doc, null, 'before');
    const own = bench();
    const connection = useConnection();
    const typed = new Map<string, string>();
    let on = docs[0].id;
    await own.open(on);
    const asked: Promise<unknown>[] = [];
    for (let n = 0; n < 40; n++) {
      const act = random();
      if (act < 0.4) {
        if (own.doc.value) {
          const note = `${seed}.${n}`;
          own.doc.value = { ...own.doc.value, card: { ...own.doc.value.card, notes: note } };
          own.touched();
          typed.set(own.doc.value.id, note);
        }
      } else if (act < 0.65) asked.push(own.save());
      else if (act < 0.75) {
        // Another window saves what it just opened.
        const other = there.stored.get(on)!;
        there.put(on, { ...other.doc, card: { ...other.doc.card, author: `other ${n}` } }, other.revision, 'other');
      } else if (act < 0.85) there.now.away = !there.now.away;
      else {
        on = docs.find((d) => d.id !== on)!.id;
        asked.push(own.open(on));
      }
      await pause(random() * 6);
      if (own.doc.value === null || own.opening.value) continue;
      if (own.saved.value) expect(own.saved.value.doc.id).toBe(own.doc.value.id);
      // The bench shows what it was last asked for, as it was last typed, whatever comes back meanwhile.
      expect(own.doc.value.id).toBe(on);
      expect(own.doc.value.card.notes).toBe(typed.get(on) ?? '');
      // What isn't told of a conflict was begun on a revision of its own document.
      if (own.revision.value !== null) expect(own.revision.value).toBeLessThanOrEqual(there.stored.get(on)!.revision);
      if (!own.unsaved.value) expect(own.saved.value!.doc.card.notes).toBe(own.doc.value.card.notes);
    }
    there.now.away = false;
    await Promise.all(asked);
    // What began when the server came back has ended when nothing goes on for a while.
    for (let calm = 0; calm < 8; calm++) {
      await pause(5);
      if (knocks > 0 || own.saving.value || own.opening.value || connection.away) calm = 0;
    }
    await own.flush();
    // Whatever was typed last is on the bench, in a draft, or on the server.
    for (const [id, note] of typed) {
      const draft = await sourceDrafts.read(id);
      const places = [
        own.doc.value?.id === id ? own.doc.value.card.notes : null,
        draft?.doc.card.notes,
        there.stored.get(id)!.doc.card.notes,
      ];
      const saved = there.log.some((line) => line === `here ${note}`);
      expect(places.includes(note) || saved).toBe(true);
    }
    if (own.pending.value) expect(own.unsaved.value).toBe(true);
    expect(own.opening.value || own.saving.value).toBe(false);
    await own.close();
    expect(own.doc.value).toBeNull();
    // Opened once more it is what was left, and can be saved or is in conflict.
    for (const { id } of docs) {
      await own.open(id);
      const draft = await sourceDrafts.read(id);
      if (draft) expect(own.doc.value!.card.notes).toBe(draft.doc.card.notes);
      if (!own.conflict.value && own.unsaved.value) {
        expect(await own.save()).toBe(true);
        expect(there.stored.get(id)!.doc.card.notes).toBe(own.doc.value!.card.notes);
        expect(own.unsaved.value).toBe(false);
      }
    }
  },
);

test('the draft of another document is dropped: what is on its way of the open one is still written', async () => {
  setActivePinia(createPinia());
  const there = server(seeded(1));
  const [open, other] = [pattern('Stays open'), pattern('Done with')];
  for (const doc of [open, other]) there.put(doc.id, doc, null, 'before');
  const own = bench();
  await own.open(open.id);
  own.doc.value = { ...own.doc.value!, card: { ...own.doc.value!.card, notes: 'on its way' } };
  own.touched();
  await own.dropDraft(other.id);
  await pause(20);
  expect((await sourceDrafts.read(open.id))?.doc.card.notes).toBe('on its way');
  // Its own is dropped with what is on its way.
  own.touched();
  await own.dropDraft(open.id);
  await pause(20);
  expect(await sourceDrafts.read(open.id)).toBeUndefined();
  await own.close();
});
