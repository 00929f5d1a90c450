/** A pack: brushes in groups and in an order, under a name, a maker and a licence. A brush may be in several packs. */
import { z } from 'zod';
import { CardSchema } from './card';
import type { References } from './references';

export const PACK_VERSION = 1;
export const MOST_IN_PACK = 5000;
export const MOST_PACK_GROUPS = 64;

/** Common ones by their SPDX names, in which a licence can be said in full. A pack may say it in its own words. */
export const LICENCES = [
  { value: 'All rights reserved', label: 'All rights reserved', help: 'Nobody else may use it without your word' },
  { value: 'CC0-1.0', label: 'CC0 1.0', help: 'Free of all rights, as far as the law allows' },
  { value: 'CC-BY-4.0', label: 'CC BY 4.0', help: 'Any use, with credit' },
  { value: 'CC-BY-SA-4.0', label: 'CC BY-SA 4.0', help: 'Any use, with credit, what is made of it under the same' },
  { value: 'CC-BY-NC-4.0', label: 'CC BY-NC 4.0', help: 'Use that isn’t commercial, with credit' },
  { value: 'CC-BY-ND-4.0', label: 'CC BY-ND 4.0', help: 'Any use as it is, with credit' },
] as const;

const GroupSchema = z.object({
  name: z.string().trim().max(80, 'A group’s name may have at most 80 characters.').default(''),
  brushes: z.array(z.uuid()),
});

export const PackSchema = z
  .object({
    version: z.literal(PACK_VERSION),
    id: z.uuid(),
    card: CardSchema,
    /** Where the maker is found. */
    site: z.string().trim().max(300, 'A site may have at most 300 characters.').default(''),
    licence: z.string().trim().max(300, 'A licence may have at most 300 characters.').default(''),
    /** Whose rack it stands on; none where it is one’s own. */
    rack: z.string().trim().max(80, 'A rack’s name may have at most 80 characters.').default(''),
    /** The brush whose picture stands for the pack; its first where none is named. */
    cover: z.uuid().nullable().default(null),
    /** The first has no name where there is only one. */
    groups: z
      .array(GroupSchema)
      .min(1, 'A pack has a group at least.')
      .max(MOST_PACK_GROUPS, `A pack has at most ${MOST_PACK_GROUPS} groups.`),
  })
  .refine((pack) => brushesOf(pack).length <= MOST_IN_PACK, `A pack takes ${MOST_IN_PACK} brushes at most.`)
  .refine((pack) => new Set(brushesOf(pack)).size === brushesOf(pack).length, 'A brush is in a pack only once.');
export type Pack = z.infer<typeof PackSchema>;

export function newPack(
  id: string,
  name: string,
  { author = '', ...about }: Partial<Pick<Pack, 'groups' | 'rack' | 'licence'>> & { author?: string } = {},
): Pack {
  return PackSchema.parse({ version: PACK_VERSION, id, card: { name, author }, groups: [{ brushes: [] }], ...about });
}

export function brushesOf({ groups }: { groups: readonly { brushes: readonly string[] }[] }): string[] {
  return groups.flatMap(({ brushes }) => brushes);
}

/** A pack goes on without a brush that is gone. */
export function referencesOfPack(pack: Pack): References {
  return {
    blobs: [],
    documents: brushesOf(pack).map((id) => ({ collection: 'brushes', id, needed: false })),
  };
}
