/** What is kept here, as it meets what is in a pack file. */
import {
  alphaKey,
  brushKey,
  paletteKey,
  partKey,
  sourceKey,
  type Here,
  type Existing,
  type Thing,
} from '#core/packFile';
import { alphasOf } from '#core/settings';
import type { Collection, Listed } from '#core/stored';
import { digest } from '../studio/packIn';
import type { List, Store } from '../store/port';

const PAGE = 500;

export async function everyHead<C extends Collection>(store: Store, collection: C): Promise<Listed<C>[]> {
  const out: Listed<C>[] = [];
  for (let after: string | null = null; ;) {
    const page: List<C> = await store.list(collection, { after, limit: PAGE });
    out.push(...page.items);
    if (page.next === null) return out;
    after = page.next;
  }
}

export async function hereOf(store: Store, things: readonly Thing[]): Promise<Here> {
  const existing: Existing[] = [];
  const keys = new Map<string, string>();
  const keep = (
    collection: Existing['collection'],
    { id, card, revision, base }: Pick<Listed<'brushes'>, 'id' | 'card' | 'revision' | 'base'>,
    key: string,
  ): void => void existing.push({ collection, id, name: card.name, key: key && digest(key), revision, base });

  const sources = new Set(idsOf(things, 'sources'));
  for (const head of await everyHead(store, 'sources'))
    keep('sources', head, sources.has(head.id) ? sourceKey((await store.document('sources', head.id)).doc) : head.id);
  for (const head of await everyHead(store, 'alphas')) {
    const key = alphaKey(head);
    keys.set(head.id, key);
    keep('alphas', head, key);
  }
  for (const head of await everyHead(store, 'parts')) {
    const key = partKey(head);
    keys.set(head.id, key);
    keep('parts', head, key);
  }
  for (const head of await everyHead(store, 'palettes')) keep('palettes', head, paletteKey(head));

  const own = new Set(idsOf(things, 'brushes'));
  const packed = new Set(things.map(({ key }) => key));
  const isPacked = (id: string): boolean => keys.has(id) && packed.has(digest(keys.get(id)!));
  for (const head of await everyHead(store, 'brushes')) {
    const named = [...alphasOf(head), ...head.parts.entries.map(({ partId }) => partId)];
    // Only one that reads what the pack has can be the same as one of the pack’s.
    const may = own.has(head.id) || named.every(isPacked);
    keep('brushes', head, may ? await keyOfBrush(store, head.id, keys) : head.id);
  }
  return { things: existing, gone: new Set((await store.trash()).map(({ id }) => id)) };
}

async function keyOfBrush(store: Store, id: string, keys: ReadonlyMap<string, string>): Promise<string> {
  const { doc } = await store.document('brushes', id);
  return brushKey(doc, (_, of) => keys.get(of) ?? of);
}

function idsOf(things: readonly Thing[], collection: Existing['collection']): string[] {
  return things.filter((thing) => thing.collection === collection).map(({ id }) => id);
}
