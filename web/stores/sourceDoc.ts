/** A sheet, lettering or a pattern as it is worked on: opened with its draft, changed with undo, kept as a draft at once, saved. */
import { computed, ref, type Ref } from 'vue';
import { explain, SourceSchema, type Lettering, type Pattern, type Sheet } from '#core/settings';
import * as api from '../api/client';
import { draftIsSaved, dropSourceDraft, keepSourceDraft, sourceDraft } from '../api/drafts';
import { sentence, useConnection } from './connection';
import { useHistory } from './history';
import { useLibrary } from './library';
import { oneAtATime } from './oneAtATime';
import { plain } from './plain';
import { useWork } from './work';

type Worked = Sheet | Lettering | Pattern;
const DRAFT_DELAY_MS = 350;

export interface SourceDocOptions {
  togetherMs: number;
  /** Something changed: by an edit, undo or redo. */
  onChange?: () => void;
}

export function useSourceDoc<T extends Worked>({ togetherMs, onChange }: SourceDocOptions) {
  const library = useLibrary();
  const connection = useConnection();
  const doc = ref(null) as Ref<T | null>;
  const saved = ref(null) as Ref<T | null>;
  const revision = ref<number | null>(null);
  const keptAt = ref<number | null>(null);
  const opening = ref(false);
  const problem = ref<string | null>(null);
  /** The stored one is newer than the one this work began on. */
  const conflict = ref(false);
  /** There is no stored one any more. */
  const deleted = ref(false);
  /** Only the last opening counts. */
  let wanted = '';
  let drafting: ReturnType<typeof setTimeout> | undefined;

  const unsaved = computed(() => doc.value !== null && JSON.stringify(doc.value) !== JSON.stringify(saved.value));
  const casts = computed(() => library.alphas.filter((a) => a.lineage.sourceId === doc.value?.id).reverse());
  const history = useHistory<T>(doc, {
    togetherMs, put: (next) => {
      doc.value = next;
      problem.value = null;
      clearTimeout(drafting);
      drafting = setTimeout(() => void keepDraft(), DRAFT_DELAY_MS);
      onChange?.();
    },
  });

  /** `begin` runs when it is there. */
  async function open(id: string, kind: T['kind'], begin: () => void | Promise<void>): Promise<void> {
    wanted = id;
    opening.value = true;
    try {
      await library.ready();
      const draft = await sourceDraft(id);
      const own = draft?.doc.kind === kind ? draft : null;
      const kept = await api.get('sources', id).catch((error: unknown) => {
        // Deleted in another window: the work that is here is shown all the same.
        if (own && api.isMissing(error)) return null;
        throw error;
      });
      if (kept && kept.doc.kind !== kind) throw new Error(`“${kept.doc.card.name}” is no ${kind}.`);
      if (wanted !== id) return;
      saved.value = kept ? (plain(kept.doc) as T) : null;
      doc.value = plain(own ? own.doc : kept!.doc) as T;
      revision.value = own ? own.revision : kept!.revision;
      keptAt.value = own?.keptAt ?? null;
      deleted.value = kept === null;
      conflict.value = own !== null && own.revision !== kept?.revision;
      history.resume();
      await begin();
    } catch (error) {
      if (wanted !== id) return;
      connection.noticed(error);
      problem.value = `It can’t be opened. ${sentence(error)}`;
    } finally {
      if (wanted === id) opening.value = false;
    }
  }

  function close(): void {
    if (drafting !== undefined) void keepDraft();
    history.leave();
    for (const value of [doc, saved, revision, keptAt, problem]) value.value = null;
    deleted.value = false;
    conflict.value = false;
    opening.value = false;
    wanted = '';
  }

  async function keepDraft(): Promise<void> {
    clearTimeout(drafting);
    drafting = undefined;
    if (!doc.value || revision.value === null) return;
    if (!unsaved.value) {
      keptAt.value = null;
      return dropSourceDraft(doc.value.id);
    }
    keptAt.value = Date.now();
    await keepSourceDraft({ doc: plain(doc.value), revision: revision.value, keptAt: keptAt.value });
  }

  const save = oneAtATime(saveNow, () => doc.value?.id);

  async function saveNow(): Promise<boolean> {
    if (!doc.value) return false;
    if (!unsaved.value) return true;
    const checked = SourceSchema.safeParse(doc.value);
    if (!checked.success) {
      problem.value = explain(checked.error);
      return false;
    }
    problem.value = null;
    const sent = JSON.stringify(doc.value);
    try {
      const kept = await api.save('sources', checked.data, revision.value);
      library.putSource(kept);
      if (doc.value?.id !== kept.doc.id) {
        await draftIsSaved('source', kept.doc.id, JSON.parse(sent), kept.revision);
        return true;
      }
      saved.value = plain(kept.doc) as T;
      revision.value = kept.revision;
      deleted.value = false;
    conflict.value = false;
      if (JSON.stringify(doc.value) === sent) doc.value = plain(kept.doc) as T;
      await keepDraft();
      return true;
    } catch (error) {
      const away = connection.noticed(error);
      if (doc.value?.id !== checked.data.id) {
        useWork().say(`“${checked.data.card.name}” wasn’t saved. ${sentence(error)} Its changes are kept here as a draft.`, true);
        return false;
      }
      await keepDraft();
      const by = api.conflictOf(error);
      if (by) {
        deleted.value = by === 'deleted';
        conflict.value = true;
        return false;
      }
      problem.value = `${sentence(error)}${away ? ' It is kept here as a draft; save it when the server is back.' : ''}`;
      return false;
    }
  }

  /** Back to the saved one; `reopen` opens it again. */
  async function revert(reopen: (id: string) => Promise<void>): Promise<void> {
    if (!doc.value) return;
    const { id } = doc.value;
    clearTimeout(drafting);
    drafting = undefined;
    await dropSourceDraft(id);
    doc.value = null;
    await reopen(id);
  }

  /** Keeps this work beside the other as a source of its own; answers its id, or null when it can't be kept. */
  async function keepAsCopy(): Promise<string | null> {
    if (!doc.value) return null;
    const { id } = doc.value;
    const copy = { ...plain(doc.value), id: crypto.randomUUID() };
    copy.card.name = library.freeName('sources', `${copy.card.name} copy`);
    try {
      library.putSource(await api.save('sources', copy, null));
    } catch (error) {
      connection.noticed(error);
      problem.value = `The copy wasn’t kept. ${sentence(error)}`;
      return null;
    }
    clearTimeout(drafting);
    drafting = undefined;
    await dropSourceDraft(id);
    return copy.id;
  }

  return { doc, saved, revision, keptAt, opening, problem, conflict, deleted, unsaved, casts, history, open, close, keepDraft, save, revert, keepAsCopy };
}
