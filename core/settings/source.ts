/** Where a form comes from. Slabs are the first kind; sheets, scans, lettering and patterns join the union. */
import { z } from 'zod';
import { CardSchema } from './card';
import { CastSettingsSchema } from './frame';
import { BlobHashSchema } from './alpha';

export const SOURCE_VERSION = 1;

/** Cells a side; a slab has (cells + 1)² vertices. */
export const SLAB_CELLS = [256, 512, 1024] as const;
/** Side of every slab in body units. */
export const SLAB_SIDE = 2;

export const SlabSchema = z.object({
  version: z.literal(SOURCE_VERSION),
  kind: z.literal('slab'),
  id: z.uuid(),
  card: CardSchema,
  cells: z.union(SLAB_CELLS.map((n) => z.literal(n))),
  /** Little-endian float32 x, y, z of every vertex, row by row from the lower left; null is the untouched plane. */
  blob: BlobHashSchema.nullable(),
  cast: CastSettingsSchema.prefault({}),
});
export const SourceSchema = z.discriminatedUnion('kind', [SlabSchema]);
export type Slab = z.infer<typeof SlabSchema>;
export type Source = z.infer<typeof SourceSchema>;
