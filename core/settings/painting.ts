/** A painting as it is kept with its body: layers from the lowest, each in squares of its texture. */
import { z } from 'zod';
import { BLEND_MODES } from '#core/colour';
import { BlobHashSchema } from './blob';
import { setting } from './setting';

const count = z.number().int().min(0);

/** One square of the texture, by its number row by row: its bytes as core/formats packs them, gzipped. */
const SquareSchema = z.object({ square: count, blob: BlobHashSchema });

export const PaintLayerSchema = z.object({
  id: z.string().min(1).max(80),
  name: z.string().max(80),
  hidden: z.boolean().default(false),
  opacity: setting({
    label: 'Opacity',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 100,
    help: 'How much of the layer lies over those below',
  }),
  blend: z.enum(BLEND_MODES).default('normal'),
  clipped: z.boolean().default(false),
  locked: z.boolean().default(false),
  squares: z.array(SquareSchema).max(256),
  /** Null where it has none. */
  mask: z.array(SquareSchema).max(256).nullable().default(null),
});

export const PaintingSchema = z.object({
  /** Texels a side. */
  size: z.union([z.literal(512), z.literal(1024), z.literal(2048), z.literal(4096), z.literal(8192)]),
  layers: z.array(PaintLayerSchema).min(1).max(64),
});
export type StoredPainting = z.infer<typeof PaintingSchema>;
