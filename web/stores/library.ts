/**
 * Everything that is kept, as lists have it: brushes, alphas, sources, the belt, and drafts that aren't saved yet. A
 * document is fetched when it is opened.
 */
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, type ShallowRef } from 'vue';
import { listedOf, type BrushAlphas, type BrushHead, type StoredDocument, type Listed } from '#core/stored';
import { alphasOf as idsOf, type Brush, type Naming } from '#core/settings';
import * as api from '../api/client';
import { brushDrafts, type BrushDraft } from '../api/drafts';
import { useConnection } from './connection';
import { freeNameAmong } from './names';
import { usePreferences } from './preferences';

/** What has a place on the rack or among the sources. */
export type Shelf = 'brushes' | 'alphas' | 'sources' | 'parts';

function indexOf<T extends { id: string }>(list: ShallowRef<readonly T[]>) {
  return computed(() => new Map(list.value.map((listed) => [listed.id, listed])));
}

export const useLibrary = defineStore('library', () => {
  const { author } = usePreferences();
  const connection = useConnection();
  // Thousands of entries: a list is replaced, never changed.
  const brushes = shallowRef<readonly Listed<'brushes'>[]>([]);
  const alphas = shallowRef<readonly Listed<'alphas'>[]>([]);
  const sources = shallowRef<readonly Listed<'sources'>[]>([]);
  const parts = shallowRef<readonly Listed<'parts'>[]>([]);
  const byId = { brushes: indexOf(brushes), alphas: indexOf(alphas), sources: indexOf(sources), parts: indexOf(parts) };
  const skipped = ref<(api.SkippedRow & { collection: Shelf })[]>([]);
  const drafts = shallowRef<BrushDraft[]>([]);
  const beltIds = ref<string[]>([]);
  const loaded = ref(false);
  const failed = ref<string | null>(null);
  /** As the server has it; changes that are on their way. */
  let storedBelt: string[] = [];
  let beltTurns = 0;
  let beltSent: Promise<unknown> = Promise.resolve();
  let loading: Promise<void> | null = null;
  /** Saved brushes as they were last fetched: while the server is away they can still be opened. */
  const fetched = new Map<string, StoredDocument<'brushes'>>();

  async function load(): Promise<void> {
    try {
      const [b, a, s, p, belt] = await Promise.all([
        // A long list is shown from its first page on.
        api.list('brushes', (first) => (brushes.value = loaded.value ? brushes.value : first)),
        api.list('alphas'),
        api.list('sources'),
        api.list('parts'),
        api.getBelt(),
      ]);
      brushes.value = b.items;
      alphas.value = a.items;
      sources.value = s.items;
      parts.value = p.items;
      beltIds.value = storedBelt = belt;
      skipped.value = [
        ...b.skipped.map((row) => ({ ...row, collection: 'brushes' as const })),
        ...a.skipped.map((row) => ({ ...row, collection: 'alphas' as const })),
        ...s.skipped.map((row) => ({ ...row, collection: 'sources' as const })),
        ...p.skipped.map((row) => ({ ...row, collection: 'parts' as const })),
      ];
      failed.value = null;
    } catch (error) {
      if (!connection.noticed(error)) throw error;
      failed.value = 'The server can’t be reached. The rack is shown as soon as it is back.';
    }
    await loadDrafts();
    loaded.value = true;
    void fetchBelt();
  }

  /** What is at hand stays at hand without the server. */
  async function fetchBelt(): Promise<void> {
    if (beltIds.value.every((id) => fetched.get(id)?.revision === listedBrush(id)?.revision)) return;
    // Whoever opens one asks for it.
    for (const stored of await api.beltBrushes().catch(() => [])) keepFetched(stored);
  }

  function keepFetched(stored: StoredDocument<'brushes'>): void {
    if ((fetched.get(stored.doc.id)?.revision ?? 0) <= stored.revision) fetched.set(stored.doc.id, stored);
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
    drafts.value = await brushDrafts.all();
  }

  /** What lists say of a brush as it is worked on: of its draft where there is one. */
  function brushHead(id: string): BrushHead | null {
    return draftOf(id) ?? listedBrush(id);
  }

  function listedBrush(id: string): Listed<'brushes'> | null {
    return byId.brushes.value.get(id) ?? null;
  }

  function has(collection: Shelf, id: string): boolean {
    return byId[collection].value.has(id);
  }

  function draftOf(id: string): Brush | null {
    return drafts.value.find((d) => d.doc.id === id)?.doc ?? null;
  }

  /**
   * The brush as it is worked on: its draft where there is one. Null where there is no such brush, or nobody to ask for
   * it.
   */
  async function brush(id: string): Promise<Brush | null> {
    return draftOf(id) ?? (await savedBrush(id))?.doc ?? null;
  }

  /** The saved brush, at once where it was fetched and the list knows no newer one. */
  async function savedBrush(id: string): Promise<StoredDocument<'brushes'> | null> {
    const known = fetched.get(id);
    return known && known.revision === listedBrush(id)?.revision ? known : freshBrush(id);
  }

  /** The brush as the server has it; while that is away, as it was last fetched. */
  async function freshBrush(id: string): Promise<StoredDocument<'brushes'> | null> {
    try {
      const stored = await api.get('brushes', id);
      putBrush(stored);
      return stored;
    } catch (error) {
      if (connection.noticed(error)) return fetched.get(id) ?? null;
      if (api.isMissing(error)) return null;
      throw error;
    }
  }

  function alpha(id: string | null): Listed<'alphas'> | null {
    return id === null ? null : (byId.alphas.value.get(id) ?? null);
  }

  function source(id: string | null): Listed<'sources'> | null {
    return id === null ? null : (byId.sources.value.get(id) ?? null);
  }

  function part(id: string | null): Listed<'parts'> | null {
    return id === null ? null : (byId.parts.value.get(id) ?? null);
  }

  /** Names of the brushes that read this alpha. */
  function followersOf(alphaId: string): string[] {
    return brushes.value.filter((b) => idsOf(b).includes(alphaId)).map((b) => b.card.name);
  }

  /** An answer that comes late does not take the place of a newer one. */
  function put<T extends { id: string; revision: number }>(list: ShallowRef<readonly T[]>, listed: T): void {
    const at = list.value.findIndex((k) => k.id === listed.id);
    if (at < 0) list.value = [...list.value, listed];
    else if (list.value[at].revision <= listed.revision) list.value = list.value.with(at, listed);
  }

  function alphasOf(brush: Naming): BrushAlphas {
    const ids = new Set(brush.parts?.entries.map(({ partId }) => partId));
    return {
      form: alpha(brush.form.alphaId),
      tooth: alpha(brush.tooth.alphaId),
      parts: [...ids].map((id) => part(id)).filter((head) => head !== null),
    };
  }

  function putBrush(stored: StoredDocument<'brushes'>): void {
    keepFetched(stored);
    put(brushes, listedOf('brushes', stored));
  }

  function putAlpha(stored: StoredDocument<'alphas'>): void {
    put(alphas, listedOf('alphas', stored));
  }

  function putSource(stored: StoredDocument<'sources'>): void {
    put(sources, listedOf('sources', stored));
  }

  function putPart(stored: StoredDocument<'parts'>): void {
    put(parts, listedOf('parts', stored));
  }

  function putStored<C extends Shelf>(collection: C, stored: StoredDocument<C>): void {
    if (collection === 'brushes') putBrush(stored as StoredDocument<'brushes'>);
    else if (collection === 'alphas') putAlpha(stored as StoredDocument<'alphas'>);
    else if (collection === 'parts') putPart(stored as StoredDocument<'parts'>);
    else putSource(stored as StoredDocument<'sources'>);
  }

  /** A name like the wanted one that nothing else has. */
  function freeName(collection: Shelf, wanted: string, exceptId = ''): string {
    const lists = {
      brushes: [...brushes.value, ...drafts.value.map((d) => d.doc)],
      alphas: alphas.value,
      sources: sources.value,
      parts: parts.value,
    };
    return freeNameAmong(
      lists[collection].filter((k) => k.id !== exceptId).map((k) => k.card.name),
      wanted,
    );
  }

  /** A copy of a brush, as a draft that waits to be named and saved. */
  async function copyBrush(of: Brush, name = `${of.card.name} copy`): Promise<Brush> {
    const doc: Brush = JSON.parse(JSON.stringify(of));
    doc.id = crypto.randomUUID();
    doc.card.name = freeName('brushes', name);
    doc.card.tags = doc.card.tags.filter((tag) => tag !== 'base');
    if (of.card.tags.includes('base')) doc.card.author = author();
    await brushDrafts.keep({ doc, revision: null, keptAt: Date.now(), pending: false });
    await loadDrafts();
    return doc;
  }

  async function remove(collection: Shelf, id: string): Promise<void> {
    await api.remove(collection, id);
    const lists = { brushes, alphas, sources, parts };
    const list = lists[collection] as typeof brushes;
    list.value = list.value.filter((k) => k.id !== id);
    fetched.delete(id);
    storedBelt = storedBelt.filter((b) => b !== id);
    beltIds.value = beltIds.value.filter((b) => b !== id);
  }

  async function restore(collection: Shelf, id: string): Promise<void> {
    const lists = { brushes, alphas, sources, parts };
    put(
      lists[collection] as ShallowRef<readonly Listed<Shelf>[]>,
      listedOf(collection, await api.restore(collection, id)),
    );
  }

  async function dropDraft(id: string): Promise<void> {
    await brushDrafts.drop(id);
    await loadDrafts();
  }

  async function keepDraft(draft: BrushDraft): Promise<void> {
    await brushDrafts.keep(draft);
    await loadDrafts();
  }

  /** At once; sent one after the other, and of several that wait the last alone. Taken back where it can’t be kept. */
  async function setBelt(ids: readonly string[]): Promise<void> {
    const turn = ++beltTurns;
    beltIds.value = [...ids];
    const sent = beltSent.then(() => (turn === beltTurns ? api.putBelt(ids) : null));
    beltSent = sent.catch(() => null);
    try {
      const stored = await sent;
      if (stored) storedBelt = stored;
      if (stored && turn === beltTurns) beltIds.value = stored;
    } catch (error) {
      if (turn === beltTurns) beltIds.value = storedBelt;
      throw error;
    }
  }

  const belt = computed(() => beltIds.value.map((id) => brushHead(id)).filter((b) => b !== null));

  connection.whenBack(load);
  return {
    brushes,
    alphas,
    sources,
    parts,
    skipped,
    drafts,
    beltIds,
    belt,
    loaded,
    failed,
    load,
    ready,
    loadDrafts,
    brush,
    brushHead,
    listedBrush,
    has,
    source,
    draftOf,
    savedBrush,
    freshBrush,
    alpha,
    part,
    alphasOf,
    followersOf,
    putBrush,
    putAlpha,
    putSource,
    putPart,
    putStored,
    freeName,
    copyBrush,
    remove,
    restore,
    dropDraft,
    keepDraft,
    setBelt,
  };
});
