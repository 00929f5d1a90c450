/** Work that isn't saved yet, kept in the browser so that it survives a reload, a crash or an absent server. */
import * as Comlink from 'comlink';
import { createStore, entries, get, keys, promisifyRequest } from 'idb-keyval';
import { readStored, type Collection, type Documents } from '#core/stored';
import type { Alpha, Brush, Lettering, Part, Pattern, Scan, Sheet, Slab } from '#core/settings';
import type { ClayBytes } from '#core/slab';
import { committed } from './committed';
import type { DraftWorker } from './draft.worker';
import { plain } from './plain';
import { readStashed, stash, stashedNames, stashedText, unstash } from './stash';

const store = createStore('mold-stamp', 'drafts');

/** Writes to the store; what was stashed of it before is older, and goes when this is written. */
async function write(name: string, change: (drafts: IDBObjectStore) => void): Promise<void> {
  const before = stashedText(name);
  await store('readwrite', (drafts) => {
    change(drafts);
    return committed(drafts);
  });
  unstash(name, before);
}

const put = (name: string, draft: unknown): Promise<void> => write(name, (drafts) => drafts.put(draft, name));
const drop = (name: string): Promise<void> => write(name, (drafts) => drafts.delete(name));

/** Takes into the store what pages stashed as they were closed. */
async function takeStashed(): Promise<void> {
  await Promise.all(stashedNames().map(takeOne));
}

async function takeOne(name: string): Promise<void> {
  let text: string | null = null;
  await store('readwrite', async (drafts) => {
    const there = (await promisifyRequest(drafts.get(name))) as Draft<unknown> | undefined;
    // As it is now: it may have gone while this waited its turn.
    text = stashedText(name);
    const left = text === null ? null : readStashed<Draft<unknown>>(text);
    // Another window may have written a later one.
    if (!left || (there && there.keptAt > left.keptAt)) return;
    if (left.draft) drafts.put(left.draft, name);
    else drafts.delete(name);
    await committed(drafts);
  });
  unstash(name, text);
}

export interface Draft<T> {
  doc: T;
  /** The revision the change was made on; null for what was never saved. */
  revision: number | null;
  keptAt: number;
  /** Saved while the server was away; to be sent when it is back. */
  pending: boolean;
}

/** Drafts of one kind. One that can't be read is no draft. */
export interface DraftBox<T, D extends Draft<T> = Draft<T>> {
  read(id: string): Promise<D | undefined>;
  /** Oldest first. */
  all(): Promise<D[]>;
  keep(draft: D): Promise<void>;
  drop(id: string): Promise<void>;
  /**
   * The page may be gone next: a draft that is small, or null where nothing is unsaved any more, is kept in the same
   * breath. Answers whether it is.
   */
  stash(id: string, draft: D | null): boolean;
  /**
   * A save came through of what is no longer open here. A draft of the same is done with; one with later changes was
   * made on what is stored now.
   */
  saved(id: string, sent: T, revision: number): Promise<void>;
}

/** As an older version may have written it: `pending` was called `waiting`, and before that there was neither. */
type Stored<D> = D & { waiting?: boolean };

interface Kind<C extends Collection, T, D> {
  /** Before the id, in the name of what is kept. */
  key: string;
  collection: C;
  isOne: (doc: Documents[C]) => boolean;
  keep?: (draft: D) => Promise<void>;
  type?: T;
}

function box<C extends Collection, T extends Documents[C], D extends Draft<T> = Draft<T>>({
  key,
  collection,
  isOne,
  keep,
}: Kind<C, T, D>): DraftBox<T, D> {
  const named = (id: string): string => `${key}:${id}`;
  const readable = (draft: Stored<D> | undefined): D | undefined => {
    const read = draft && readStored(collection, draft.doc);
    return read?.ok && isOne(read.value)
      ? { ...draft!, pending: draft!.pending ?? draft!.waiting ?? false, doc: read.value as T }
      : undefined;
  };
  return {
    async read(id) {
      await takeStashed();
      return readable(await get<D>(named(id), store));
    },
    async all() {
      await takeStashed();
      const all = await entries<string, D>(store);
      return all
        .filter(([name]) => String(name).startsWith(`${key}:`))
        .map(([, draft]) => readable(draft))
        .filter((draft) => draft !== undefined)
        .sort((a, b) => a.keptAt - b.keptAt);
    },
    keep: keep ?? ((draft) => put(named(draft.doc.id), plain(draft))),
    drop: (id) => drop(named(id)),
    stash: (id, draft) => stash(named(id), { keptAt: draft?.keptAt ?? Date.now(), draft }),
    async saved(id, sent, revision) {
      await takeStashed();
      const draft = await get<D>(named(id), store);
      if (!draft) return;
      if (JSON.stringify(draft.doc) === JSON.stringify(sent)) await drop(named(id));
      else await put(named(id), { ...draft, revision });
    },
  };
}

export type BrushDraft = Draft<Brush>;

export interface SlabDraft extends Draft<Slab> {
  clay: ClayBytes;
}

export const brushDrafts = box<'brushes', Brush>({ key: 'brush', collection: 'brushes', isOne: () => true });
export const alphaDrafts = box<'alphas', Alpha>({ key: 'alpha', collection: 'alphas', isOne: () => true });
export const partDrafts = box<'parts', Part>({ key: 'part', collection: 'parts', isOne: () => true });
export const sourceDrafts = box<'sources', Sheet | Scan | Lettering | Pattern>({
  key: 'source',
  collection: 'sources',
  isOne: ({ kind }) => kind !== 'slab',
});
/** Slabs are kept by a worker of the box's own, which takes the clay's bytes away: they are large. */
export function slabDrafts(): DraftBox<Slab, SlabDraft> {
  let worker: Comlink.Remote<DraftWorker> | null = null;
  return box<'sources', Slab, SlabDraft>({
    key: 'slab',
    collection: 'sources',
    isOne: ({ kind }) => kind === 'slab',
    async keep(draft) {
      worker ??= Comlink.wrap<DraftWorker>(
        new Worker(new URL('./draft.worker.ts', import.meta.url), { type: 'module' }),
      );
      const { places, mask, history } = draft.clay;
      await worker.keep(
        draft.doc.id,
        Comlink.transfer(draft, [places, ...(mask ? [mask] : []), ...(history ? [history] : [])]),
      );
    },
  });
}

/** Whether there is work on it in this browser that isn’t saved; reads none of it. */
export async function hasDraft(id: string): Promise<boolean> {
  await takeStashed();
  return (await keys<string>(store)).some((key) => String(key).endsWith(`:${id}`));
}

/** Every blob that a draft in this browser names. */
export async function blobsOfDrafts(): Promise<string[]> {
  await takeStashed();
  const all = await entries<string, { doc?: unknown }>(store);
  const named = all.flatMap(([, draft]) => JSON.stringify(draft.doc ?? null).match(/\b[0-9a-f]{64}\b/g) ?? []);
  return [...new Set(named)];
}
