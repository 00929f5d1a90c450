/** Bodies of one's own, kept in the browser: they are looked at again and again, and belong to nobody's pack. */
import { createStore, del, get, keys, set } from 'idb-keyval';
import type { Welded } from '#core/mesh';

export interface OwnBody {
  id: string;
  name: string;
  /** As core/formats packs it. */
  mesh: ArrayBuffer;
  triangles: number;
  report: Omit<Welded, 'mesh'>;
  addedAt: number;
}

const store = createStore('mold-stamp-bodies', 'bodies');

export async function ownBodies(): Promise<Omit<OwnBody, 'mesh'>[]> {
  const all = await Promise.all((await keys<string>(store)).map((key) => get<OwnBody>(key, store)));
  return all.filter((b) => b !== undefined).map(({ id, name, triangles, report, addedAt }) => ({ id, name, triangles, report, addedAt })).sort((a, b) => a.addedAt - b.addedAt);
}

export async function ownBody(id: string): Promise<OwnBody | null> {
  return (await get<OwnBody>(id, store)) ?? null;
}

export async function keepBody(body: OwnBody): Promise<void> {
  await set(body.id, body, store);
}

export async function dropBody(id: string): Promise<void> {
  await del(id, store);
}
