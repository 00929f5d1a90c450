/** A greyscale height picture and where it came from. */
import { z } from 'zod';
import { CardSchema } from './card';
import { CastSettingsSchema } from './frame';

export const ALPHA_VERSION = 1;

export const BlobHashSchema = z.string().regex(/^[0-9a-f]{64}$/, 'A blob is named by the 64 hexadecimal digits of its SHA-256.');

export const AlphaSchema = z.object({
  version: z.literal(ALPHA_VERSION),
  id: z.uuid(),
  card: CardSchema,
  /** Pixels a side; the picture is square. */
  size: z.number().int().min(8).max(8192),
  /** (crown − floor) ÷ frame side, without unit. */
  relief: z.number().positive().max(100),
  /** Median grey of the border, 0–1: the ground a new brush starts with. */
  ground: z.number().min(0).max(1),
  /** Row-major little-endian uint16, first row at the top. */
  blob: BlobHashSchema,
  lineage: z.object({
    sourceId: z.uuid().nullable(),
    sourceRevision: z.number().int().nullable(),
    floor: z.number(),
    crown: z.number(),
    cast: CastSettingsSchema,
  }),
  report: z.object({
    marginPx: z.number(),
    ringLoss: z.number(),
    usedRange: z.number(),
  }),
});
export type Alpha = z.infer<typeof AlphaSchema>;
