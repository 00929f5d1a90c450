/**
 * A document that is open on a bench: found as it is saved or as the draft of it, kept as a draft whenever it changes,
 * saved one save at a time, sent when the server is back, kept apart from what other windows did, put back, or kept as
 * a copy. Only the last opening counts, and whatever ends after another document was opened is still about its own.
 */
import { computed, ref, shallowRef, type Ref } from 'vue';
import { SCHEMAS, type Documents, type StoredDocument } from '#core/stored';
import { explain, NameSchema } from '#core/settings';
import * as api from '../api/client';
import type { Draft } from '../api/drafts';
import { sentence, useConnection } from './connection';
import { DraftKeeper } from './draftKeeper';
import { useLibrary, type Shelf } from './library';
import { oneAtATime } from './oneAtATime';
import type { Found, OpenOptions } from './openOptions';
import { plain } from '../api/plain';
import { useUnkept } from './unkept';
import { useWork } from './work';

/** Neither stored nor a draft: its sentence says all. */
class NothingThere extends Error {}

export function useOpenDocument<C extends Shelf, T extends Documents[C], D extends Draft<T> = Draft<T>>(
  options: OpenOptions<C, T, D>,
) {
  const library = useLibrary();
  const connection = useConnection();
  const doc = ref(null) as Ref<T | null>;
  const saved = shallowRef<(Omit<StoredDocument<C>, 'doc'> & { doc: T }) | null>(null);
  /** The revision that the work was begun on; null for what was never saved. */
  const revision = ref<number | null>(null);
  const keptAt = ref<number | null>(null);
  const opening = ref(false);
  const saving = ref(false);
  const problem = ref<string | null>(null);
  const nameProblem = ref<string | null>(null);
  /** Saved while the server was away. */
  const pending = ref(false);
  /** The stored one is newer than the one this work began on. */
  const conflict = ref(false);
  /** There is no stored one any more. */
  const deleted = ref(false);
  const mark = (): unknown => (options.mark ? options.mark() : JSON.stringify(doc.value));
  const savedMark = shallowRef<unknown>(null);
  const unsaved = computed(() => doc.value !== null && mark() !== savedMark.value);
  let openings = 0;
  const drafts = new DraftKeeper({
    restMs: options.draftMs,
    write: writeDraft,
    ...(options.draftOf ? {} : { stash: stashDraft }),
    failed: (error) => {
      if (!options.isCancel?.(error)) problem.value = `The draft can’t be kept. ${sentence(error)}`;
    },
  });

  useUnkept().watch(drafts);

  async function fetchSaved(id: string): Promise<StoredDocument<C> | null> {
    if (options.fetch) return options.fetch(id);
    return api.get(options.collection, id).catch((error: unknown) => {
      // Deleted in another window: the work that is here is shown all the same.
      if (api.isMissing(error)) return null;
      throw error;
    });
  }

  /** `check` says why what was found can't be opened here; `begin` runs when it is shown. */
  async function open(
    id: string,
    check?: (found: T) => string | null,
    begin?: () => void | Promise<void>,
  ): Promise<void> {
    const mine = ++openings;
    opening.value = true;
    await finish(mine);
    if (mine !== openings) return;
    try {
      await library.ready();
      const draft = await options.drafts.read(id);
      // What was never saved isn't asked for, unless another window saved it.
      const never = draft?.revision === null && !library.has(options.collection, id);
      const stored = never ? null : await fetchSaved(id);
      if (mine !== openings) return;
      if (!draft && !stored)
        throw new NothingThere(
          options.gone?.() ?? `The ${options.what(doc.value as T | null)} isn’t here; it may have been deleted.`,
        );
      const found = { doc: plain(draft ? draft.doc : (stored!.doc as T)), draft, stored };
      const fault = check?.(found.doc);
      if (fault) throw new Error(fault);
      const ready = await options.prepare?.(found);
      if (mine !== openings) return ready?.drop?.();
      show(found);
      ready?.show();
      if (options.mark) savedMark.value = draft ? null : mark();
      if (pending.value && !options.sendsPending && !connection.away) void save();
      await begin?.();
    } catch (error) {
      if (mine !== openings) return;
      connection.noticed(error);
      problem.value =
        options.gone || error instanceof NothingThere
          ? sentence(error)
          : `The ${options.what(doc.value as T | null)} can’t be opened. ${sentence(error)}`;
    } finally {
      if (mine === openings) opening.value = false;
    }
  }

  function show({ doc: found, draft, stored }: Found<C, T, D>): void {
    saved.value = stored ? { ...stored, doc: plain(stored.doc) as T } : null;
    savedMark.value = stored ? JSON.stringify(stored.doc) : null;
    doc.value = found;
    revision.value = draft ? draft.revision : stored!.revision;
    keptAt.value = draft?.keptAt ?? null;
    deleted.value =
      draft !== undefined && draft.revision !== null && stored === null && !connection.away && library.failed === null;
    // One that is sent by its owner hears then what became of it.
    const sent = draft?.pending === true && options.sendsPending === true;
    conflict.value =
      deleted.value || (draft !== undefined && stored !== null && draft.revision !== stored.revision && !sent);
    pending.value = draft?.pending === true && !conflict.value;
  }

  function close(): Promise<void> {
    const mine = ++openings;
    opening.value = false;
    return finish(mine);
  }

  /** Writes down what is still on its way and lets go; another opening lets go by itself. */
  async function finish(mine: number): Promise<void> {
    if (options.savesFirst) await savingNow;
    // What is changed while it is written down is written down too.
    do await drafts.flush();
    while (drafts.pending);
    if (mine === openings) reset();
  }

  function reset(): void {
    options.closed?.();
    for (const value of [doc, saved, revision, keptAt, problem, nameProblem]) value.value = null;
    for (const value of [pending, conflict, deleted]) value.value = false;
  }

  /** Shows another document, of which there is a draft alone. */
  function replace(next: T): void {
    reset();
    savedMark.value = null;
    doc.value = next;
  }

  /** It was changed: a draft is kept when the hand rests. */
  function touched(): void {
    problem.value = null;
    nameProblem.value = null;
    pending.value = false;
    drafts.later();
  }

  /** Null where nothing is unsaved. */
  function draftNow(open: T): Draft<T> | null {
    if (!unsaved.value) return null;
    return { doc: plain(open) as T, revision: revision.value, keptAt: Date.now(), pending: pending.value };
  }

  async function writeDraft(): Promise<void> {
    if (!doc.value) return;
    const { id } = doc.value;
    const draft = draftNow(doc.value);
    if (!draft) {
      keptAt.value = null;
      await options.drafts.drop(id);
    } else {
      const whole = options.draftOf ? await options.draftOf(draft) : (draft as D);
      if (!whole) return;
      await options.drafts.keep(whole);
      if (doc.value?.id === id) keptAt.value = draft.keptAt;
    }
    await options.draftsChanged?.();
  }

  function stashDraft(): boolean {
    return doc.value !== null && options.drafts.stash(doc.value.id, draftNow(doc.value) as D | null);
  }

  /** The draft is done with: also the one that is just being written. */
  async function dropDraft(id: string): Promise<void> {
    // That of another document is no reason to forget what is on its way of the open one.
    if (doc.value?.id === id) drafts.cancel();
    await drafts.written();
    await options.drafts.drop(id);
    await options.draftsChanged?.();
  }

  let savingNow: Promise<unknown> = Promise.resolve();
  const saveOnce = oneAtATime(saveNow, () => doc.value?.id);

  function save(): Promise<boolean> {
    const done = saveOnce();
    savingNow = done.catch(() => undefined);
    return done;
  }

  async function saveNow(): Promise<boolean> {
    if (!doc.value || options.blocked?.()) return false;
    if (!unsaved.value) return true;
    const name = NameSchema.safeParse(doc.value.card.name);
    if (!name.success) {
      (options.namesAtField ? nameProblem : problem).value = name.error.issues[0].message;
      return false;
    }
    const checked = SCHEMAS[options.collection].safeParse(doc.value);
    if (!checked.success) {
      problem.value = explain(checked.error);
      return false;
    }
    saving.value = true;
    problem.value = null;
    const sent = plain(doc.value) as T;
    const on = revision.value;
    const sentMark = mark();
    try {
      await accepted(await options.send(sent, on), sent, sentMark);
      return true;
    } catch (error) {
      if (options.isCancel?.(error)) return false;
      await failed(error, sent, on);
      return false;
    } finally {
      saving.value = false;
    }
  }

  /** The server has it: of what is open, or of what was. */
  async function accepted(stored: StoredDocument<C>, sent: T, sentMark: unknown): Promise<void> {
    put(stored);
    if (doc.value?.id !== stored.doc.id) {
      await options.drafts.saved(stored.doc.id, sent, stored.revision);
      await options.draftsChanged?.();
      await options.saved?.(stored);
      return;
    }
    const same = mark() === sentMark;
    saved.value = { ...stored, doc: plain(stored.doc) as T };
    revision.value = stored.revision;
    pending.value = false;
    conflict.value = false;
    deleted.value = false;
    if (options.adopt) options.adopt(plain(stored.doc) as T);
    // What was sent may hold spaces that the server trimmed; what was typed meanwhile stays.
    else if (same) doc.value = plain(stored.doc) as T;
    savedMark.value = options.mark ? sentMark : JSON.stringify(stored.doc);
    await drafts.now();
    await options.saved?.(stored);
  }

  async function failed(error: unknown, sent: T, on: number | null): Promise<void> {
    const away = connection.noticed(error);
    if (doc.value?.id !== sent.id) return failedBehind(away, sent, on, error);
    const by = api.conflictOf(error);
    if (by) {
      deleted.value = by === 'deleted';
      conflict.value = true;
    } else if (options.namesAtField && error instanceof api.Refused && error.code === 'name-taken')
      nameProblem.value = error.message;
    else if (!away) problem.value = `The ${options.what(doc.value as T | null)} wasn’t saved. ${sentence(error)}`;
    pending.value = away;
    await drafts.now();
  }

  /** Of what isn't open any more: it waits as a draft, or a sentence says why it wasn't taken. */
  async function failedBehind(away: boolean, sent: T, on: number | null, error: unknown): Promise<void> {
    const draft =
      (await options.drafts.read(sent.id)) ??
      (options.draftOf ? null : ({ doc: sent, revision: on, keptAt: Date.now(), pending: false } as D));
    if (draft) await options.drafts.keep({ ...draft, pending: away });
    await options.draftsChanged?.();
    if (!away)
      useWork().say(`“${sent.card.name}” wasn’t saved. ${sentence(error)} Its changes are kept here as a draft.`, true);
  }

  function put(stored: StoredDocument<C>): void {
    library.putStored(options.collection, stored);
  }

  /** Back to the saved one. */
  async function revert(reopen: (id: string) => Promise<void> = open): Promise<void> {
    if (!doc.value) return;
    const { id } = doc.value;
    await dropDraft(id);
    await reopen(id);
  }

  /** Keeps this work beside the other as one of its own; answers its id, or null when it can't be kept. */
  async function keepAsCopy(): Promise<string | null> {
    if (!doc.value || saving.value || options.blocked?.()) return null;
    const { id } = doc.value;
    const copy = { ...plain(doc.value), id: crypto.randomUUID() } as T;
    copy.card.name = library.freeName(options.collection, `${copy.card.name} copy`);
    problem.value = null;
    saving.value = true;
    try {
      put(await options.send(copy, null));
      await dropDraft(id);
      return copy.id;
    } catch (error) {
      if (options.isCancel?.(error)) return null;
      connection.noticed(error);
      problem.value = `The copy wasn’t kept. ${sentence(error)}`;
      return null;
    } finally {
      saving.value = false;
    }
  }

  connection.whenBack(async () => {
    if (pending.value && !options.sendsPending) await save();
  });
  return {
    doc,
    saved,
    revision,
    keptAt,
    opening,
    saving,
    problem,
    nameProblem,
    pending,
    conflict,
    deleted,
    unsaved,
    open,
    close,
    replace,
    touched,
    flush: () => drafts.flush(),
    keepDraft: () => drafts.now(),
    dropDraft,
    save,
    accepted,
    revert,
    keepAsCopy,
    mark,
  };
}
