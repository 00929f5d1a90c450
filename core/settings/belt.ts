/** A belt: brushes at hand for one task, in their order. Favourites are one too. */
import { z } from 'zod';
import { CardSchema } from './card';
import type { References } from './references';

export const BELT_VERSION = 1;
export const MOST_ON_BELT = 200;
/** The belt that favourites stand on, wherever it was made. */
export const FAVOURITES_ID = 'fa000000-0000-4000-8000-000000000001';

export const BeltSchema = z.object({
  version: z.literal(BELT_VERSION),
  id: z.uuid(),
  card: CardSchema,
  brushes: z
    .array(z.uuid())
    .max(MOST_ON_BELT, `A belt holds at most ${MOST_ON_BELT} brushes.`)
    .refine((ids) => new Set(ids).size === ids.length, 'A brush is on a belt only once.'),
});
export type Belt = z.infer<typeof BeltSchema>;

export function newBelt(id: string, name: string, brushes: readonly string[] = []): Belt {
  return BeltSchema.parse({ version: BELT_VERSION, id, card: { name }, brushes });
}

/** A belt goes on without a brush that is gone. */
export function referencesOfBelt({ brushes }: Belt): References {
  return { blobs: [], documents: brushes.map((id) => ({ collection: 'brushes', id, needed: false })) };
}
