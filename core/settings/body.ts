/** A body of one's own: a mesh to prove brushes on, as it was brought and what was found about it. */
import { z } from 'zod';
import { BlobHashSchema } from './blob';
import { CardSchema } from './card';
import { PaintingSchema } from './painting';
import type { Migration } from './read';

export const BODY_VERSION = 4;

/**
 * Until version 1 components were called pieces; version 3 added the parts that were set down on it, version 4 what is
 * painted on it.
 */
export const BODY_MIGRATIONS: Record<number, Migration> = {
  1(doc) {
    if (typeof doc['report'] !== 'object') return doc;
    const { pieces, ...report } = { ...doc['report'] } as Record<string, unknown>;
    return { ...doc, report: { ...report, components: pieces } };
  },
  2: (doc) => doc,
  3: (doc) => doc,
};

const count = z.number().int().min(0);

const coordinate = z.number().min(-1e6).max(1e6);
const vec3 = z.tuple([coordinate, coordinate, coordinate]).readonly();
export const MOST_PIECES = 20_000;

/** A part that was set down on the body, as core/scene has it. */
export const PieceSchema = z.object({
  id: z.string().min(1).max(80),
  partId: z.uuid(),
  mesh: BlobHashSchema,
  name: z.string().max(80),
  seat: z.object({ up: vec3, forward: vec3, rest: vec3 }),
  at: z.object({ origin: vec3, across: vec3, forward: vec3, up: vec3 }),
  /** Where its own places lie among `shapes`, and how many numbers they are; null where they are its part’s. */
  shape: z.object({ from: count, length: count }).nullable().default(null),
  colour: z
    .string()
    .regex(/^#[0-9a-f]{6}$/, 'A colour is # and six hexadecimal digits.')
    .nullable()
    .default(null),
  hidden: z.boolean().default(false),
});

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
  pieces: z.array(PieceSchema).max(MOST_PIECES, `At most ${MOST_PIECES} pieces a body.`).default([]),
  /** Little-endian float32 places of pieces that were bent; null where none was. */
  shapes: BlobHashSchema.nullable().default(null),
  painting: PaintingSchema.nullable().default(null),
});
export type OwnBody = z.infer<typeof OwnBodySchema>;
