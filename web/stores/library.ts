/** Everything that is kept: brushes, alphas, sources, the belt, and drafts that aren't saved yet. */
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import type { Alpha, Brush, Source } from '#core/settings';
import * as api from '../api/client';
import { brushDrafts, dropBrushDraft, keepBrushDraft, type BrushDraft } from '../api/drafts';
import { useConnection } from './connection';
import { freeNameAmong } from './names';

/** The alphas that a brush names; null where it names none or they are gone. */
export interface BrushAlphas {
  form: Alpha | null;
  tooth: Alpha | null;
}

/** What has a place on the rack or among the sources. */
export type Shelf = 'brushes' | 'alphas' | 'sources';

export const useLibrary = defineStore('library', () => {
  const connection = useConnection();
  const brushes = ref<api.Kept<Brush>[]>([]);
  const alphas = ref<api.Kept<Alpha>[]>([]);
  const sources = ref<api.Kept<Source>[]>([]);
  const skipped = ref<(api.SkippedRow & { collection: Shelf })[]>([]);
  const drafts = ref<BrushDraft[]>([]);
  const beltIds = ref<string[]>([]);
  const loaded = ref(false);
  const failed = ref<string | null>(null);
  let loading: Promise<void> | null = null;

  async function load(): Promise<void> {
    try {
      const [b, a, s, belt] = await Promise.all([api.list('brushes'), api.list('alphas'), api.list('sources'), api.getBelt()]);
      brushes.value = b.items;
      alphas.value = a.items;
      sources.value = s.items;
      beltIds.value = belt;
      skipped.value = [
        ...b.skipped.map((row) => ({ ...row, collection: 'brushes' as const })),
        ...a.skipped.map((row) => ({ ...row, collection: 'alphas' as const })),
        ...s.skipped.map((row) => ({ ...row, collection: 'sources' as const })),
      ];
      failed.value = null;
    } catch (error) {
      if (!connection.noticed(error)) throw error;
      failed.value = 'The server can’t be reached. The rack is shown as soon as it is back.';
    }
    await loadDrafts();
    loaded.value = true;
  }

  /** Loads once; later calls wait for the first. */
  function ready(): Promise<void> {
    loading ??= load().catch((error: unknown) => {
      // Whoever asks next tries again.
      loading = null;
      throw error;
    });
    return loading;
  }

  async function loadDrafts(): Promise<void> {
    drafts.value = await brushDrafts();
  }

  /** The brush as it is worked on: its draft where there is one. */
  function brush(id: string): Brush | null {
    return drafts.value.find((d) => d.doc.id === id)?.doc ?? brushes.value.find((b) => b.doc.id === id)?.doc ?? null;
  }

  function alpha(id: string | null): Alpha | null {
    return id === null ? null : alphas.value.find((a) => a.doc.id === id)?.doc ?? null;
  }

  function put<T extends { id: string }>(list: api.Kept<T>[], kept: api.Kept<T>): void {
    const at = list.findIndex((k) => k.doc.id === kept.doc.id);
    if (at < 0) list.push(kept);
    else list[at] = kept;
  }

  function alphasOf(brush: Brush): BrushAlphas {
    return { form: alpha(brush.form.alphaId), tooth: alpha(brush.tooth.alphaId) };
  }

  function putBrush(kept: api.Kept<Brush>): void {
    put(brushes.value, kept);
  }

  function putAlpha(kept: api.Kept<Alpha>): void {
    put(alphas.value, kept);
  }

  function putSource(kept: api.Kept<Source>): void {
    put(sources.value, kept);
  }

  /** A name like the wanted one that nothing else has. */
  function freeName(collection: Shelf, wanted: string, exceptId = ''): string {
    const lists = { brushes: [...brushes.value, ...drafts.value], alphas: alphas.value, sources: sources.value };
    return freeNameAmong(lists[collection].filter((k) => k.doc.id !== exceptId).map((k) => k.doc.card.name), wanted);
  }

  /** A copy of a brush, as a draft that waits to be named and saved. */
  async function copyBrush(of: Brush, name = `${of.card.name} copy`): Promise<Brush> {
    const doc: Brush = JSON.parse(JSON.stringify(of));
    doc.id = crypto.randomUUID();
    doc.card.name = freeName('brushes', name);
    doc.card.tags = doc.card.tags.filter((tag) => tag !== 'base');
    if (of.card.tags.includes('base')) doc.card.author = '';
    await keepBrushDraft({ doc, revision: null, keptAt: Date.now(), waiting: false });
    await loadDrafts();
    return doc;
  }

  async function remove(collection: Shelf, id: string): Promise<void> {
    await api.remove(collection, id);
    const lists = { brushes, alphas, sources };
    const list = lists[collection] as typeof brushes;
    list.value = list.value.filter((k) => k.doc.id !== id);
    beltIds.value = beltIds.value.filter((b) => b !== id);
  }

  async function restore(collection: Shelf, id: string): Promise<void> {
    const kept = await api.restore(collection, id);
    const lists = { brushes, alphas, sources };
    put(lists[collection].value as api.Kept<{ id: string }>[], kept);
  }

  async function dropDraft(id: string): Promise<void> {
    await dropBrushDraft(id);
    await loadDrafts();
  }

  async function keepDraft(draft: BrushDraft): Promise<void> {
    await keepBrushDraft(draft);
    await loadDrafts();
  }

  async function setBelt(ids: readonly string[]): Promise<void> {
    beltIds.value = await api.putBelt(ids);
  }

  const belt = computed(() => beltIds.value.map((id) => brush(id)).filter((b) => b !== null));

  connection.whenBack(load);
  return {
    brushes, alphas, sources, skipped, drafts, beltIds, belt, loaded, failed,
    load, ready, loadDrafts, brush, alpha, alphasOf, putBrush, putAlpha, putSource, freeName, copyBrush, remove, restore, dropDraft, keepDraft, setBelt,
  };
});
