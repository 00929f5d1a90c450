/**
 * The slab on the bench: its clay, its cast and its saves. Strokes are kept as a draft a moment after the hand rests,
 * and saved with every cast, so that an alpha's lineage is true.
 */
import { defineStore } from 'pinia';
import { computed, markRaw, ref, shallowRef } from 'vue';
import { ALPHA_VERSION, AlphaSchema, NameSchema, type Alpha, type CastSettings, type Slab } from '#core/settings';
import * as api from '../api/client';
import { dropSlabDraft, keepSlabDraft, slabDraft } from '../api/drafts';
import { Caster } from '../workers/caster';
import type { CastResult, FlatCast } from '../workers/cast.worker';
import { Sculptor } from '../workers/sculptor';
import { sentence, useConnection } from './connection';
import { useLibrary } from './library';

const DRAFT_DELAY_MS = 1500;
/** A live cast is never larger than this; the kept one has the size that was asked for. */
const PREVIEW_SIZE = 512;

export const useSlabBench = defineStore('slab-bench', () => {
  const library = useLibrary();
  const connection = useConnection();
  const doc = ref<Slab | null>(null);
  const revision = ref(0);
  const sculptor = shallowRef<Sculptor | null>(null);
  const caster = shallowRef<Caster | null>(null);
  const opening = ref(false);
  const problem = ref<string | null>(null);
  const preview = shallowRef<CastResult | FlatCast | null>(null);
  /** Clay or settings differ from what is saved. */
  const unsaved = ref(false);
  const saving = ref(false);
  const keptAt = ref<number | null>(null);
  const castShare = ref<number | null>(null);
  let timer: ReturnType<typeof setTimeout> | undefined;
  let changes = 0;

  const result = computed(() => (preview.value && 'greys' in preview.value ? preview.value : null));
  const flat = computed(() => (preview.value && 'flat' in preview.value ? preview.value : null));

  async function open(id: string): Promise<void> {
    await close();
    opening.value = true;
    problem.value = null;
    try {
      await library.ready();
      const kept = await api.get('sources', id);
      const draft = await slabDraft(id);
      const positions = draft && draft.revision === kept.revision ? draft.positions : kept.doc.blob ? await api.getBlob(kept.doc.blob) : null;
      const worker = markRaw(new Sculptor());
      await worker.open({ kind: 'slab', cells: kept.doc.cells, positions });
      const casting = markRaw(new Caster());
      await casting.open(worker.opened!);
      casting.onPreview = (made) => {
        preview.value = made;
      };
      doc.value = kept.doc;
      revision.value = kept.revision;
      sculptor.value = worker;
      caster.value = casting;
      unsaved.value = draft !== undefined && draft.revision === kept.revision;
      keptAt.value = unsaved.value ? draft!.keptAt : null;
      changes = 0;
      look();
    } catch (error) {
      connection.noticed(error);
      problem.value = `The slab can’t be opened. ${sentence(error)}`;
    } finally {
      opening.value = false;
    }
  }

  async function close(): Promise<void> {
    await flush();
    sculptor.value?.close();
    caster.value?.close();
    sculptor.value = null;
    caster.value = null;
    doc.value = null;
    preview.value = null;
    unsaved.value = false;
    keptAt.value = null;
  }

  /** The clay changed: cast it again, and keep a draft when the hand rests. */
  function touched(): void {
    changes++;
    unsaved.value = true;
    look();
    clearTimeout(timer);
    timer = setTimeout(() => void keepDraft(), DRAFT_DELAY_MS);
  }

  /** Writes down what is still on its way. */
  async function flush(): Promise<void> {
    if (timer !== undefined) await keepDraft();
  }

  async function keepDraft(): Promise<void> {
    clearTimeout(timer);
    timer = undefined;
    if (!doc.value || !sculptor.value) return;
    const id = doc.value.id;
    await keepSlabDraft(id, { positions: await sculptor.value.positions(), revision: revision.value, keptAt: Date.now() });
    keptAt.value = Date.now();
  }

  function look(): void {
    if (!doc.value || !caster.value) return;
    const { cast } = doc.value;
    caster.value.preview({ ...plain(cast), size: Math.min(cast.size, PREVIEW_SIZE) as CastSettings['size'], samples: 1 });
  }

  function editCast(change: (cast: CastSettings) => void): void {
    if (!doc.value) return;
    change(doc.value.cast);
    unsaved.value = true;
    look();
  }

  function rename(name: string): void {
    if (!doc.value) return;
    doc.value.card.name = name;
    unsaved.value = true;
  }

  async function save(): Promise<boolean> {
    if (!doc.value || !sculptor.value || saving.value) return false;
    saving.value = true;
    problem.value = null;
    const before = changes;
    try {
      const positions = await sculptor.value.positions();
      const blob = sculptor.value.state.strokes > 0 || doc.value.blob || keptAt.value ? await api.putBlob(new Uint8Array(positions)) : null;
      const kept = await api.save('sources', { ...plain(doc.value), blob }, revision.value);
      library.putSource(kept);
      doc.value.blob = blob;
      revision.value = kept.revision;
      if (changes === before) {
        clearTimeout(timer);
        timer = undefined;
        unsaved.value = false;
        keptAt.value = null;
        await dropSlabDraft(doc.value.id);
      } else await keepDraft();
      return true;
    } catch (error) {
      const away = connection.noticed(error);
      await keepDraft();
      problem.value = `${sentence(error)} ${away ? 'The slab is kept here as a draft; save it when the server is back.' : ''}`;
      return false;
    } finally {
      saving.value = false;
    }
  }

  /** Casts at full size and keeps the alpha, with its lineage. Null when it was cancelled or could not be. */
  async function cast(wanted: string): Promise<Alpha | null> {
    if (!doc.value || !caster.value) return null;
    problem.value = null;
    const name = NameSchema.safeParse(wanted);
    if (!name.success) {
      problem.value = name.error.issues[0]!.message;
      return null;
    }
    if (library.freeName('alphas', name.data) !== name.data) {
      problem.value = `There is already an alpha called “${name.data}”. Choose another name.`;
      return null;
    }
    castShare.value = 0;
    try {
      if (unsaved.value && !(await save())) return null;
      const settings = plain(doc.value.cast);
      const made = await caster.value.cast(settings, (share) => (castShare.value = share));
      if ('flat' in made) {
        problem.value = made.flat;
        return null;
      }
      const blob = await api.putBlob(new Uint8Array(made.greys.buffer as ArrayBuffer));
      const alpha = AlphaSchema.parse({
        version: ALPHA_VERSION, id: crypto.randomUUID(), size: made.size, relief: made.relief, ground: made.ground, blob,
        card: { name: name.data, author: doc.value.card.author },
        lineage: { sourceId: doc.value.id, sourceRevision: revision.value, floor: made.floor, crown: made.crown, cast: settings },
        report: { marginPx: made.margin.marginPx, ringLoss: made.ringLoss, usedRange: made.usedRange },
      } satisfies Omit<Alpha, 'card'> & { card: { name: string; author: string } });
      const kept = await api.save('alphas', alpha, null);
      library.putAlpha(kept);
      return kept.doc;
    } catch (error) {
      connection.noticed(error);
      if (!/cancelled/.test(String(error))) problem.value = `The cast wasn’t kept. ${sentence(error)}`;
      return null;
    } finally {
      castShare.value = null;
    }
  }

  return {
    doc, revision, sculptor, caster, opening, problem, result, flat, unsaved, saving, keptAt, castShare,
    open, close, flush, touched, look, editCast, rename, save, cast,
  };
});

function plain<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T;
}
