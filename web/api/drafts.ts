/** Work that isn't saved yet, kept in the browser so that it survives a reload, a crash or an absent server. */
import { createStore, del, entries, get, set } from 'idb-keyval';
import * as Comlink from 'comlink';
import {
  ALPHA_MIGRATIONS, ALPHA_VERSION, AlphaSchema, BRUSH_MIGRATIONS, BRUSH_VERSION, BrushSchema, readDocument, SlabSchema, SOURCE_MIGRATIONS, SOURCE_VERSION,
  SourceSchema, type Alpha, type Brush, type Lettering, type Pattern, type Sheet, type Slab,
} from '#core/settings';
import type { DraftWorker } from '../workers/draft.worker';
import type { ClayBytes } from '../workers/sculpt/messages';

const store = createStore('mold-stamp', 'drafts');

export interface BrushDraft {
  doc: Brush;
  /** The revision the change was made on; null for a brush that was never saved. */
  revision: number | null;
  keptAt: number;
  /** Saved while the server was away; to be sent when it is back. */
  waiting: boolean;
}

export interface SlabDraft {
  doc: Slab;
  clay: ClayBytes;
  /** The revision the change was made on. */
  revision: number;
  keptAt: number;
}

export async function keepBrushDraft(draft: BrushDraft): Promise<void> {
  await set(`brush:${draft.doc.id}`, JSON.parse(JSON.stringify(draft)), store);
}

export async function brushDraft(id: string): Promise<BrushDraft | undefined> {
  return readable(await get<BrushDraft>(`brush:${id}`, store));
}

export async function dropBrushDraft(id: string): Promise<void> {
  await del(`brush:${id}`, store);
}

/** Every brush draft that can be read, oldest first. */
export async function brushDrafts(): Promise<BrushDraft[]> {
  const all = await entries<string, BrushDraft>(store);
  return all.filter(([key]) => String(key).startsWith('brush:')).map(([, draft]) => readable(draft))
    .filter((draft) => draft !== undefined).sort((a, b) => a.keptAt - b.keptAt);
}

export interface AlphaDraft {
  doc: Alpha;
  /** The revision the change was made on. */
  revision: number | null;
  keptAt: number;
}

export async function keepAlphaDraft(draft: AlphaDraft): Promise<void> {
  await set(`alpha:${draft.doc.id}`, JSON.parse(JSON.stringify(draft)), store);
}

export async function alphaDraft(id: string): Promise<AlphaDraft | undefined> {
  const draft = await get<AlphaDraft>(`alpha:${id}`, store);
  const read = draft ? readDocument('alpha', AlphaSchema, ALPHA_VERSION, draft.doc, ALPHA_MIGRATIONS) : null;
  return draft && read?.ok ? { ...draft, doc: read.value } : undefined;
}

export async function dropAlphaDraft(id: string): Promise<void> {
  await del(`alpha:${id}`, store);
}

export interface SourceDraft {
  doc: Sheet | Lettering | Pattern;
  revision: number;
  keptAt: number;
}

export async function keepSourceDraft(draft: SourceDraft): Promise<void> {
  await set(`source:${draft.doc.id}`, JSON.parse(JSON.stringify(draft)), store);
}

export async function sourceDraft(id: string): Promise<SourceDraft | undefined> {
  const draft = await get<SourceDraft>(`source:${id}`, store);
  const read = draft ? readDocument('source', SourceSchema, SOURCE_VERSION, draft.doc, SOURCE_MIGRATIONS) : null;
  return draft && read?.ok && read.value.kind !== 'slab' ? { ...draft, doc: read.value } : undefined;
}

export async function dropSourceDraft(id: string): Promise<void> {
  await del(`source:${id}`, store);
}

/**
 * A save came through of what is no longer open here. A draft of the same is done with; one with later changes was made
 * on what is stored now.
 */
export async function draftIsSaved(kind: 'brush' | 'alpha' | 'source', id: string, sent: unknown, revision: number): Promise<void> {
  const key = `${kind}:${id}`;
  const draft = await get<{ doc: unknown }>(key, store);
  if (!draft) return;
  if (JSON.stringify(draft.doc) === JSON.stringify(sent)) await del(key, store);
  else await set(key, { ...draft, revision }, store);
}

/** Every blob that a draft in this browser names. */
export async function blobsOfDrafts(): Promise<string[]> {
  const all = await entries<string, { doc?: unknown }>(store);
  const named = all.flatMap(([, draft]) => JSON.stringify(draft.doc ?? null).match(/\b[0-9a-f]{64}\b/g) ?? []);
  return [...new Set(named)];
}

let worker: Comlink.Remote<DraftWorker> | null = null;

/** Gives the clay's bytes away: they are large. */
export async function keepSlabDraft(draft: SlabDraft): Promise<void> {
  worker ??= Comlink.wrap<DraftWorker>(new Worker(new URL('../workers/draft.worker.ts', import.meta.url), { type: 'module' }));
  const { clay } = draft;
  await worker.keep(draft.doc.id, Comlink.transfer(draft, [clay.places, ...(clay.mask ? [clay.mask] : []), ...(clay.history ? [clay.history] : [])]));
}

/** A draft that can't be read is no draft. */
export async function slabDraft(id: string): Promise<SlabDraft | undefined> {
  const draft = await get<SlabDraft>(`slab:${id}`, store);
  if (!draft?.clay) return undefined;
  const read = readDocument('slab', SlabSchema, SOURCE_VERSION, draft.doc, SOURCE_MIGRATIONS);
  return read.ok ? { ...draft, doc: read.value } : undefined;
}

export async function dropSlabDraft(id: string): Promise<void> {
  await del(`slab:${id}`, store);
}

function readable(draft: BrushDraft | undefined): BrushDraft | undefined {
  if (!draft) return undefined;
  const read = readDocument('brush', BrushSchema, BRUSH_VERSION, draft.doc, BRUSH_MIGRATIONS);
  return read.ok ? { ...draft, doc: read.value } : undefined;
}
