/** A body of one's own: a mesh to prove brushes on, as it was brought and what was found about it. */
import { z } from 'zod';
import { BlobHashSchema } from './blob';
import { CardSchema } from './card';
import type { Migration } from './read';

export const BODY_VERSION = 2;

/** Until version 1 components were called pieces. */
export const BODY_MIGRATIONS: Record<number, Migration> = {
  1(doc) {
    if (typeof doc['report'] !== 'object') return doc;
    const { pieces, ...report } = { ...doc['report'] } as Record<string, unknown>;
    return { ...doc, report: { ...report, components: pieces } };
  },
};

const count = z.number().int().min(0);

export const OwnBodySchema = z.object({
  version: z.literal(BODY_VERSION),
  id: z.uuid(),
  card: CardSchema,
  /** The mesh as core/formats packs it, welded and scaled to about the plain ball's size. */
  mesh: BlobHashSchema,
  triangles: count.min(1, 'A body has triangles.'),
  /**
   * What welding did and found: corners merged, faces without area left out, edges of holes and borders, connected
   * components.
   */
  report: z.object({ merged: count, dropped: count, open: count, components: count }),
});
export type OwnBody = z.infer<typeof OwnBodySchema>;
