/** All that goes into a pack file: brushes, what they need, and what that was made from where it is wanted. */
import { withoutRecipe, type PackContents } from '#core/packFile';
import { alphasOf, brushesOf, type Alpha, type Part } from '#core/settings';
import { referencesOf, SINGULAR, type Collection, type Documents } from '#core/stored';
import { Problem } from '../problem';
import type { Store } from '../store/port';

export interface Wish {
  /** A pack; null for brushes that were chosen one by one. */
  pack: string | null;
  brushes: string[];
  name: string;
  /** Recipes, and parts as they were before they were made light. */
  recipes: boolean;
  sources: boolean;
  palettes: string[];
}

export async function contentsOf(store: Store, wish: Wish): Promise<PackContents> {
  const pack = wish.pack === null ? null : (await store.document('packs', wish.pack)).doc;
  const read = async <C extends Collection>(collection: C, ids: Iterable<string>): Promise<Documents[C][]> => {
    const out: Documents[C][] = [];
    for (const id of new Set(ids)) {
      const found = await store.document(collection, id).catch((error: unknown) => {
        if (error instanceof Problem && error.status === 404) return null;
        throw error;
      });
      // What a pack or a recipe names may be gone; what a brush names can’t.
      if (found) out.push(found.doc);
      else if (collection === 'alphas' || collection === 'parts') missing.push(`${SINGULAR[collection]} ${id}`);
    }
    return out;
  };
  const missing: string[] = [];
  const brushes = await read('brushes', pack ? brushesOf(pack) : wish.brushes);
  if (brushes.length === 0)
    throw new Problem(422, 'empty-pack', 'There is no brush to write that is saved. Save those that are drafts first.');
  const parts = await read(
    'parts',
    brushes.flatMap((brush) => brush.parts.entries.map(({ partId }) => partId)),
  );
  const alphas = await withCombined(brushes.flatMap(alphasOf), wish.recipes, (ids) => read('alphas', ids));
  const plain = <T extends Alpha | Part>(doc: T): T => (wish.recipes ? doc : withoutRecipe(doc));
  const kept = { alphas: alphas.map(plain), parts: parts.map(plain) };
  const sources = wish.sources
    ? await read('sources', [...sourcesOf('alphas', kept.alphas), ...sourcesOf('parts', kept.parts)])
    : [];
  // A pack says only which of its brushes came along.
  const here = new Set(brushes.map(({ id }) => id));
  return {
    name: pack?.card.name ?? wish.name,
    pack: pack && {
      ...pack,
      cover: pack.cover && here.has(pack.cover) ? pack.cover : null,
      groups: pack.groups.map((group) => ({ ...group, brushes: group.brushes.filter((id) => here.has(id)) })),
    },
    brushes,
    ...kept,
    sources,
    palettes: await read('palettes', wish.palettes),
  };
}

/** Alphas, and those that their recipes combine them with. */
async function withCombined(
  ids: readonly string[],
  recipes: boolean,
  read: (ids: readonly string[]) => Promise<Alpha[]>,
): Promise<Alpha[]> {
  const out = new Map<string, Alpha>();
  for (let wanted = [...ids]; wanted.length > 0;) {
    const found = await read(wanted);
    for (const alpha of found) out.set(alpha.id, alpha);
    if (!recipes) break;
    wanted = found
      .flatMap((alpha) => referencesOf('alphas', alpha).documents)
      .filter(({ collection, id }) => collection === 'alphas' && !out.has(id))
      .map(({ id }) => id);
  }
  return [...out.values()];
}

function sourcesOf<C extends 'alphas' | 'parts'>(collection: C, docs: readonly Documents[C][]): string[] {
  return docs
    .flatMap((doc) => referencesOf(collection, doc).documents)
    .filter((named) => named.collection === 'sources')
    .map(({ id }) => id);
}
