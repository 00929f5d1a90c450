/** Work that isn't saved yet, kept in the browser so that it survives a reload, a crash or an absent server. */
import { createStore, del, entries, get, set } from 'idb-keyval';
import { BRUSH_VERSION, BrushSchema, readDocument, type Brush } from '#core/settings';

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
  positions: ArrayBuffer;
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

export async function keepSlabDraft(id: string, draft: SlabDraft): Promise<void> {
  await set(`slab:${id}`, draft, store);
}

export async function slabDraft(id: string): Promise<SlabDraft | undefined> {
  return get<SlabDraft>(`slab:${id}`, store);
}

export async function dropSlabDraft(id: string): Promise<void> {
  await del(`slab:${id}`, store);
}

function readable(draft: BrushDraft | undefined): BrushDraft | undefined {
  if (!draft) return undefined;
  const read = readDocument('brush', BrushSchema, BRUSH_VERSION, draft.doc);
  return read.ok ? { ...draft, doc: read.value } : undefined;
}
