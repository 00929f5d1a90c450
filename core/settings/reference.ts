/** A picture kept in sight while sculpting: pinned to the slab or beside it, see-through, never cast. */
import { z } from 'zod';
import { BlobHashSchema } from './blob';
import { setting } from './setting';

export const REFERENCE_PINS = ['slab', 'view'] as const;
/** Larger pictures are refused before they are decoded. */
export const REFERENCE_MOST_PIXELS = 100e6;
/** Kept at most this large. */
export const REFERENCE_SIDE = 2048;

export const ReferenceSchema = z.object({
  id: z.uuid(),
  name: z.string().max(120),
  /** A WebP picture. */
  blob: BlobHashSchema,
  width: z.number().int().positive(),
  height: z.number().int().positive(),
  pin: z.enum(REFERENCE_PINS).default('slab'),
  /** Its middle: body units on the slab, or shares of the view when pinned beside it. */
  x: z.number().min(-8).max(8).default(0),
  y: z.number().min(-8).max(8).default(0),
  turn: setting({
    label: 'Turn',
    unit: '°',
    min: -180,
    max: 180,
    step: 1,
    fallback: 0,
    help: 'Turns the picture, anticlockwise',
  }),
  size: setting({
    label: 'Width',
    unit: 'body',
    min: 0.05,
    max: 6,
    step: 0.01,
    fallback: 1.4,
    scale: 'log',
    help: 'Width in body units',
  }),
  opacity: setting({
    label: 'Opacity',
    unit: '%',
    min: 5,
    max: 100,
    step: 1,
    fallback: 45,
    help: 'How much of the picture is seen',
  }),
});
export type Reference = z.infer<typeof ReferenceSchema>;
