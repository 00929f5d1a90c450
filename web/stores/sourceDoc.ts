/** A sheet, lettering or a pattern as it is worked on: opened with its draft, changed with undo, kept as a draft at once, saved. */
import { computed, ref, type Ref } from 'vue';
import { explain, SourceSchema, type Lettering, type Pattern, type Sheet } from '#core/settings';
import * as api from '../api/client';
import { dropSourceDraft, keepSourceDraft, sourceDraft } from '../api/drafts';
import { sentence, useConnection } from './connection';
import { useHistory } from './history';
import { useLibrary } from './library';
import { plain } from './plain';

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
  let drafting: ReturnType<typeof setTimeout> | undefined;

  const unsaved = computed(() => doc.value !== null && JSON.stringify(doc.value) !== JSON.stringify(saved.value));
  const casts = computed(() => library.alphas.filter((a) => a.doc.lineage.sourceId === doc.value?.id).reverse());
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
    opening.value = true;
    try {
      await library.ready();
      const kept = await api.get('sources', id);
      if (kept.doc.kind !== kind) throw new Error(`“${kept.doc.card.name}” is no ${kind}.`);
      const draft = await sourceDraft(id);
      const fresh = draft && draft.revision === kept.revision && draft.doc.kind === kind ? draft : null;
      saved.value = plain(kept.doc) as T;
      doc.value = plain(fresh ? fresh.doc : kept.doc) as T;
      revision.value = kept.revision;
      keptAt.value = fresh?.keptAt ?? null;
      await begin();
    } catch (error) {
      connection.noticed(error);
      problem.value = `It can’t be opened. ${sentence(error)}`;
    } finally {
      opening.value = false;
    }
  }

  function close(): void {
    if (drafting !== undefined) void keepDraft();
    for (const value of [doc, saved, revision, keptAt, problem]) value.value = null;
    history.clear();
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

  async function save(): Promise<boolean> {
    if (!doc.value) return false;
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
      if (doc.value?.id !== kept.doc.id) return true;
      saved.value = plain(kept.doc) as T;
      revision.value = kept.revision;
      if (JSON.stringify(doc.value) === sent) doc.value = plain(kept.doc) as T;
      await keepDraft();
      return true;
    } catch (error) {
      const away = connection.noticed(error);
      await keepDraft();
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

  return { doc, saved, revision, keptAt, opening, problem, unsaved, casts, history, open, close, keepDraft, save, revert };
}
