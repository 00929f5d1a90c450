/**
 * A document that is open on a bench: found as it is saved or as the draft of it, kept as a draft whenever it changes,
 * saved one save at a time, sent when the server is back, kept apart from what other windows did, put back, or kept as
 * a copy. Only the last opening counts, and whatever ends after another document was opened is still about its own.
 */
import { computed, ref, shallowRef, type Ref } from 'vue';
import { SCHEMAS, type Documents, type Kept } from '#core/kept';
import { explain, NameSchema } from '#core/settings';
import * as api from '../api/client';
import type { Draft, DraftBox } from '../api/drafts';
import { sentence, useConnection } from './connection';
import { useLibrary, type Shelf } from './library';
import { oneAtATime } from './oneAtATime';
import { plain } from './plain';
import { useWork } from './work';

export interface Found<C extends Shelf, T extends Documents[C], D extends Draft<T>> {
  /** What will be shown. */
  doc: T;
  draft: D | undefined;
  /** Null where the server has none. */
  kept: Kept<C> | null;
}

export interface OpenWays<C extends Shelf, T extends Documents[C], D extends Draft<T>> {
  collection: C;
  /** What it is called in a sentence. */
  what: (doc: T | null) => string;
  drafts: DraftBox<T, D>;
  /** From a change to its draft. */
  draftMs: number;
  /** As the server has it; null where it has none. */
  fetch?(id: string): Promise<Kept<C> | null>;
  /** Said where there is neither a saved one nor a draft. */
  gone?(): string;
  /**
   * Makes ready what the document is shown with, before it is; that is shown with it, or dropped when another was
   * opened.
   */
  prepare?(found: Found<C, T, D>): Promise<{ show(): void; drop?(): void } | undefined>;
  /** The draft as it is written: what is beside the document goes with it. Null when there is none to be written. */
  draftOf?(draft: Draft<T>): Promise<D | null>;
  draftsChanged?(): Promise<void>;
  /** Names what would be saved: the same, nothing to save. Without it the document alone counts. */
  mark?(): unknown;
  /** It can't be saved now, and that is seen elsewhere. */
  blocked?(): boolean;
  /** Saves, with all that it takes. */
  send(doc: T, revision: number | null): Promise<Kept<C>>;
  /** Takes over what a save made of the document, where more than the document may have changed meanwhile. */
  adopt?(saved: T): void;
  /** A save came through; of what isn't open any more too. */
  saved?(kept: Kept<C>): Promise<void> | void;
  /** An error that is none: it was cancelled. */
  isCancel?(error: unknown): boolean;
  /** A taken or missing name is said at the field of the name. */
  namesAtField?: boolean;
  /** A save that runs needs what is let go when it is left: it ends first. */
  savesFirst?: boolean;
  /** Saves that wait are sent by the owner, also of what isn't open. */
  sendsWaiting?: boolean;
  left?(): void;
}

/** What is said of an open document in the bar above it. */
export interface OpenState {
  unsaved: boolean;
  saving: boolean;
  waiting: boolean;
  keptAt: number | null;
  /** Null where it was never saved. */
  saved: unknown;
  base?: boolean;
  /** How far it is baked; null while it isn't. */
  share?: number | null;
  /** It can't be baked. */
  vector?: boolean;
}

/** What stands on a bench, as its frame sees it. */
export interface OpenOnBench extends OpenState {
  opening: boolean;
  problem: string | null;
  conflict: boolean;
  deleted: boolean;
  keepAsCopy(): Promise<string | null>;
  save(): Promise<boolean>;
  revert(): Promise<void>;
  cancel?(): void;
}

export function useOpenDocument<C extends Shelf, T extends Documents[C], D extends Draft<T> = Draft<T>>(
  ways: OpenWays<C, T, D>,
) {
  const library = useLibrary();
  const connection = useConnection();
  const doc = ref(null) as Ref<T | null>;
  const saved = shallowRef<(Omit<Kept<C>, 'doc'> & { doc: T }) | null>(null);
  /** The revision that the work was begun on; null for what was never saved. */
  const revision = ref<number | null>(null);
  const keptAt = ref<number | null>(null);
  const opening = ref(false);
  const saving = ref(false);
  const problem = ref<string | null>(null);
  const nameProblem = ref<string | null>(null);
  /** Saved while the server was away. */
  const waiting = ref(false);
  /** The stored one is newer than the one this work began on. */
  const conflict = ref(false);
  /** There is no stored one any more. */
  const deleted = ref(false);
  const mark = (): unknown => (ways.mark ? ways.mark() : JSON.stringify(doc.value));
  const savedMark = shallowRef<unknown>(null);
  const unsaved = computed(() => doc.value !== null && mark() !== savedMark.value);
  let openings = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  /** Drafts are written one after the other. */
  let keeping: Promise<void> = Promise.resolve();

  async function fetchSaved(id: string): Promise<Kept<C> | null> {
    if (ways.fetch) return ways.fetch(id);
    return api.get(ways.collection, id).catch((error: unknown) => {
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
    await leave(mine);
    if (mine !== openings) return;
    try {
      await library.ready();
      const draft = await ways.drafts.read(id);
      // What was never saved isn't asked for, unless another window saved it.
      const never = draft?.revision === null && !library.has(ways.collection, id);
      const kept = never ? null : await fetchSaved(id);
      if (mine !== openings) return;
      if (!draft && !kept)
        throw new Error(
          ways.gone?.() ?? `The ${ways.what(doc.value as T | null)} isn’t here; it may have been deleted.`,
        );
      const found = { doc: plain(draft ? draft.doc : (kept!.doc as T)), draft, kept };
      const fault = check?.(found.doc);
      if (fault) throw new Error(fault);
      const ready = await ways.prepare?.(found);
      if (mine !== openings) return ready?.drop?.();
      show(found);
      ready?.show();
      if (ways.mark) savedMark.value = draft ? null : mark();
      if (waiting.value && !ways.sendsWaiting && !connection.away) void save();
      await begin?.();
    } catch (error) {
      if (mine !== openings) return;
      connection.noticed(error);
      problem.value = ways.gone
        ? sentence(error)
        : `The ${ways.what(doc.value as T | null)} can’t be opened. ${sentence(error)}`;
    } finally {
      if (mine === openings) opening.value = false;
    }
  }

  function show({ doc: found, draft, kept }: Found<C, T, D>): void {
    saved.value = kept ? { ...kept, doc: plain(kept.doc) as T } : null;
    savedMark.value = kept ? JSON.stringify(kept.doc) : null;
    doc.value = found;
    revision.value = draft ? draft.revision : kept!.revision;
    keptAt.value = draft?.keptAt ?? null;
    deleted.value =
      draft !== undefined && draft.revision !== null && kept === null && !connection.away && library.failed === null;
    // One that is sent by its owner hears then what became of it.
    const sent = draft?.waiting === true && ways.sendsWaiting === true;
    conflict.value =
      deleted.value || (draft !== undefined && kept !== null && draft.revision !== kept.revision && !sent);
    waiting.value = draft?.waiting === true && !conflict.value;
  }

  function close(): Promise<void> {
    const mine = ++openings;
    opening.value = false;
    return leave(mine);
  }

  /** Writes down what is still on its way and lets go; another opening lets go by itself. */
  async function leave(mine: number): Promise<void> {
    if (ways.savesFirst) await savingNow;
    // What is changed while it is written down is written down too.
    do await flush();
    while (timer !== undefined);
    if (mine === openings) reset();
  }

  function reset(): void {
    ways.left?.();
    for (const value of [doc, saved, revision, keptAt, problem, nameProblem]) value.value = null;
    for (const value of [waiting, conflict, deleted]) value.value = false;
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
    waiting.value = false;
    clearTimeout(timer);
    timer = setTimeout(() => void keepDraft(), ways.draftMs);
  }

  /** Writes down what is still on its way. */
  async function flush(): Promise<void> {
    if (timer !== undefined) void keepDraft();
    await keeping;
  }

  function keepDraft(): Promise<void> {
    cancelDraft();
    keeping = keeping.then(writeDraft).catch((error: unknown) => {
      if (!ways.isCancel?.(error)) problem.value = `The draft can’t be kept. ${sentence(error)}`;
    });
    return keeping;
  }

  function cancelDraft(): void {
    clearTimeout(timer);
    timer = undefined;
  }

  async function writeDraft(): Promise<void> {
    if (!doc.value) return;
    const { id } = doc.value;
    if (!unsaved.value) {
      keptAt.value = null;
      await ways.drafts.drop(id);
    } else {
      const draft = {
        doc: plain(doc.value) as T,
        revision: revision.value,
        keptAt: Date.now(),
        waiting: waiting.value,
      };
      const whole = ways.draftOf ? await ways.draftOf(draft) : (draft as D);
      if (!whole) return;
      await ways.drafts.keep(whole);
      if (doc.value?.id === id) keptAt.value = draft.keptAt;
    }
    await ways.draftsChanged?.();
  }

  /** The draft is done with: also the one that is just being written. */
  async function dropDraft(id: string): Promise<void> {
    // That of another document is no reason to forget what is on its way of the open one.
    if (doc.value?.id === id) cancelDraft();
    await keeping;
    await ways.drafts.drop(id);
    await ways.draftsChanged?.();
  }

  let savingNow: Promise<unknown> = Promise.resolve();
  const saveOnce = oneAtATime(saveNow, () => doc.value?.id);

  function save(): Promise<boolean> {
    const done = saveOnce();
    savingNow = done.catch(() => undefined);
    return done;
  }

  async function saveNow(): Promise<boolean> {
    if (!doc.value || ways.blocked?.()) return false;
    if (!unsaved.value) return true;
    const name = NameSchema.safeParse(doc.value.card.name);
    if (!name.success) {
      (ways.namesAtField ? nameProblem : problem).value = name.error.issues[0]!.message;
      return false;
    }
    const checked = SCHEMAS[ways.collection].safeParse(doc.value);
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
      await taken(await ways.send(sent, on), sent, sentMark);
      return true;
    } catch (error) {
      if (ways.isCancel?.(error)) return false;
      await failed(error, sent, on);
      return false;
    } finally {
      saving.value = false;
    }
  }

  /** The server has it: of what is open, or of what was. */
  async function taken(kept: Kept<C>, sent: T, sentMark: unknown): Promise<void> {
    put(kept);
    if (doc.value?.id !== kept.doc.id) {
      await ways.drafts.saved(kept.doc.id, sent, kept.revision);
      await ways.draftsChanged?.();
      await ways.saved?.(kept);
      return;
    }
    const same = mark() === sentMark;
    saved.value = { ...kept, doc: plain(kept.doc) as T };
    revision.value = kept.revision;
    waiting.value = false;
    conflict.value = false;
    deleted.value = false;
    if (ways.adopt) ways.adopt(plain(kept.doc) as T);
    // What was sent may hold spaces that the server trimmed; what was typed meanwhile stays.
    else if (same) doc.value = plain(kept.doc) as T;
    savedMark.value = ways.mark ? sentMark : JSON.stringify(kept.doc);
    await keepDraft();
    await ways.saved?.(kept);
  }

  async function failed(error: unknown, sent: T, on: number | null): Promise<void> {
    const away = connection.noticed(error);
    if (doc.value?.id !== sent.id) return failedBehind(away, sent, on, error);
    const by = api.conflictOf(error);
    if (by) {
      deleted.value = by === 'deleted';
      conflict.value = true;
    } else if (ways.namesAtField && error instanceof api.Refused && error.code === 'name-taken')
      nameProblem.value = error.message;
    else if (!away) problem.value = `The ${ways.what(doc.value as T | null)} wasn’t saved. ${sentence(error)}`;
    waiting.value = away;
    await keepDraft();
  }

  /** Of what isn't open any more: it waits as a draft, or a sentence says why it wasn't taken. */
  async function failedBehind(away: boolean, sent: T, on: number | null, error: unknown): Promise<void> {
    const draft =
      (await ways.drafts.read(sent.id)) ??
      (ways.draftOf ? null : ({ doc: sent, revision: on, keptAt: Date.now(), waiting: false } as D));
    if (draft) await ways.drafts.keep({ ...draft, waiting: away });
    await ways.draftsChanged?.();
    if (!away)
      useWork().say(`“${sent.card.name}” wasn’t saved. ${sentence(error)} Its changes are kept here as a draft.`, true);
  }

  function put(kept: Kept<C>): void {
    library.putKept(ways.collection, kept);
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
    if (!doc.value || saving.value || ways.blocked?.()) return null;
    const { id } = doc.value;
    const copy = { ...plain(doc.value), id: crypto.randomUUID() } as T;
    copy.card.name = library.freeName(ways.collection, `${copy.card.name} copy`);
    problem.value = null;
    saving.value = true;
    try {
      put(await ways.send(copy, null));
      await dropDraft(id);
      return copy.id;
    } catch (error) {
      if (ways.isCancel?.(error)) return null;
      connection.noticed(error);
      problem.value = `The copy wasn’t kept. ${sentence(error)}`;
      return null;
    } finally {
      saving.value = false;
    }
  }

  connection.whenBack(async () => {
    if (waiting.value && !ways.sendsWaiting) await save();
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
    waiting,
    conflict,
    deleted,
    unsaved,
    open,
    close,
    replace,
    touched,
    flush,
    keepDraft,
    dropDraft,
    save,
    taken,
    revert,
    keepAsCopy,
    mark,
  };
}
