/** A body of one's own: a mesh to prove brushes on, as it was brought and what was found about it. */
import { z } from 'zod';
import { BlobHashSchema } from './blob';
import { CardSchema } from './card';

export const BODY_VERSION = 1;

const count = z.number().int().min(0);

export const OwnBodySchema = z.object({
  version: z.literal(BODY_VERSION),
  id: z.uuid(),
  card: CardSchema,
  /** The mesh as core/formats packs it, welded and scaled to about the plain ball's size. */
  mesh: BlobHashSchema,
  triangles: count.min(1, 'A body has triangles.'),
  /**
   * What welding did and found: corners merged, faces without area left out, edges of holes and borders, loose parts.
   */
  report: z.object({ merged: count, dropped: count, open: count, pieces: count }),
});
export type OwnBody = z.infer<typeof OwnBodySchema>;
