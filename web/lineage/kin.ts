/** Everything that is kept as its lineage has it: its kind, what it was made from, and how it is shown. */
import { computed, type ComputedRef } from 'vue';
import type { Kin } from '#core/lineage';
import { alphasOf, brushesOf } from '#core/settings';
import type { Collection } from '#core/stored';
import { spaced } from '#core/words';
import { pictureUrl } from '../api/client';
import { useLibrary } from '../stores/library';
import { usePacks } from '../stores/packs';

export const RANKS = ['sources', 'casts', 'brushes', 'packs'] as const;
export type Rank = (typeof RANKS)[number];
export const RANK_LABELS: Record<Rank, string> = {
  sources: 'Sources',
  casts: 'Alphas and parts',
  brushes: 'Brushes',
  packs: 'Packs',
};

export interface Shown extends Kin {
  collection: Extract<Collection, 'sources' | 'alphas' | 'parts' | 'brushes' | 'packs'>;
  rank: Rank;
  name: string;
  /** What it is, in a few words. */
  what: string;
  picture: string;
  /** Where it is worked on. */
  bench: string;
}

/** `mixed` says of alphas which others their recipes read, as far as that was looked at. */
export function useKin(mixed: Readonly<{ value: ReadonlyMap<string, readonly string[]> }>): ComputedRef<Shown[]> {
  const library = useLibrary();
  const packs = usePacks();
  const brushPicture = (id: string | undefined): string => {
    const brush = library.listedBrush(id ?? '');
    return brush ? pictureUrl('brushes', brush.id, brush.revision) : '';
  };
  const given = (ids: readonly (string | null | undefined)[]): string[] =>
    ids.filter((id): id is string => typeof id === 'string');

  return computed(() => [
    ...library.sources.map(({ id, card, kind, revision }): Shown => ({
      id,
      from: [],
      collection: 'sources',
      rank: 'sources',
      name: card.name,
      what: `${kind} · revision ${revision}`,
      picture: pictureUrl('sources', id, revision),
      bench: `/bench/${kind}/${id}`,
    })),
    ...library.alphas.map(({ id, card, size, format, lineage, revision }): Shown => ({
      id,
      from: given([lineage.sourceId, ...(mixed.value.get(id) ?? [])]),
      collection: 'alphas',
      rank: 'casts',
      name: card.name,
      what: `${format === 'vector32f' ? 'vector alpha' : 'alpha'} · ${size} px`,
      picture: pictureUrl('alphas', id, revision),
      bench: `/bench/alpha/${id}`,
    })),
    ...library.parts.map(({ id, card, triangles, made, revision }): Shown => ({
      id,
      from: given([made.sourceId]),
      collection: 'parts',
      rank: 'casts',
      name: card.name,
      what: `part · ${spaced(triangles)} faces`,
      picture: pictureUrl('parts', id, revision),
      bench: `/bench/part/${id}`,
    })),
    ...library.brushes.map((brush): Shown => ({
      id: brush.id,
      from: given([...alphasOf(brush), ...brush.parts.entries.map(({ partId }) => partId)]),
      collection: 'brushes',
      rank: 'brushes',
      name: brush.card.name,
      what: `brush · revision ${brush.revision}`,
      picture: brushPicture(brush.id),
      bench: `/bench/brush/${brush.id}`,
    })),
    ...packs.all.map((pack): Shown => {
      const brushes = brushesOf(pack);
      return {
        id: pack.id,
        from: brushes,
        collection: 'packs',
        rank: 'packs',
        name: pack.card.name,
        what: `pack · ${brushes.length} ${brushes.length === 1 ? 'brush' : 'brushes'}`,
        picture: brushPicture(pack.cover ?? brushes[0]),
        bench: `/?shelf=${pack.id}`,
      };
    }),
  ]);
}
