/** A greyscale height picture and where it came from. */
import { z } from 'zod';
import { BlobHashSchema } from './blob';
import { CardSchema } from './card';
import { CAST_FORMATS, CastSettingsSchema } from './frame';
import type { Migration } from './read';
import { RecipeSchema } from './recipe';

export const ALPHA_VERSION = 3;
/** Version 2 added formats and the share of undercut, version 3 the recipe; all have defaults. */
export const ALPHA_MIGRATIONS: Record<number, Migration> = { 1: (doc) => doc, 2: (doc) => doc };

export const AlphaSchema = z.object({
  version: z.literal(ALPHA_VERSION),
  id: z.uuid(),
  card: CardSchema,
  /** Pixels per side; the picture is square. */
  size: z.number().int().min(8).max(8192),
  /** (crown − floor) ÷ frame side, without unit. */
  relief: z.number().positive().max(100),
  /** Median grey of the border, 0–1: the ground a new brush starts with. */
  ground: z.number().min(0).max(1),
  /** What a pixel of the blob is: a grey as uint16 or float32, or an offset x, y, z in frame sides as three float32. */
  format: z.enum(CAST_FORMATS).default('grey16'),
  /** Row-major, little-endian, first row at the top. */
  blob: BlobHashSchema,
  lineage: z.object({
    sourceId: z.uuid().nullable(),
    sourceRevision: z.number().int().nullable(),
    floor: z.number(),
    crown: z.number(),
    /** Of a slab, or of a patch of a scan. */
    cast: CastSettingsSchema.prefault({}),
    /** The patch of the scan. */
    patchId: z.uuid().nullable().default(null),
    /** Its colours as they were cast beside the heights: red, green, blue and cover of each pixel, sRGB bytes. */
    colours: z
      .object({ blob: BlobHashSchema, size: z.number().int().min(8).max(8192) })
      .nullable()
      .default(null),
  }),
  /** The steps from the source to this picture; null for a cast that was left as it is. */
  recipe: RecipeSchema.nullable().default(null),
  report: z.object({
    marginPx: z.number(),
    ringLoss: z.number(),
    usedRange: z.number(),
    /** Share of the form's surface that is hidden from above. */
    undercut: z.number().default(0),
  }),
});
export type Alpha = z.infer<typeof AlphaSchema>;

/** Bytes of a pixel. */
export const FORMAT_BYTES: Record<Alpha['format'], number> = { grey16: 2, grey32f: 4, vector32f: 12 };
