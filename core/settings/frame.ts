/** The square window of a cast, and how heights become tones. */
import { z } from 'zod';
import { CurveNodeSchema } from './curve';
import { setting } from './setting';

/** Sizes that are offered; any from 8 to 4096 may be typed. */
export const CAST_SIZES = [256, 512, 1024, 2048, 4096] as const;

export const FrameSchema = z.object({
  /** Centre on the slab, body units. */
  x: z.number().min(-8).max(8).default(0),
  y: z.number().min(-8).max(8).default(0),
  turn: setting({
    label: 'Turn',
    unit: '°',
    min: -180,
    max: 180,
    step: 1,
    fallback: 0,
    help: 'Turns the frame, anticlockwise',
  }),
  side: setting({
    label: 'Side',
    unit: 'body',
    min: 0.02,
    max: 4,
    step: 0.01,
    fallback: 1.8,
    scale: 'log',
    help: 'Side of the square that is cast, in body units',
  }),
});
export type Frame = z.infer<typeof FrameSchema>;

export const CAST_FORMATS = ['grey16', 'grey32f', 'vector32f'] as const;
export type CastFormat = (typeof CAST_FORMATS)[number];

export const GROUNDS = ['edge', 'average'] as const;

export const CastSettingsSchema = z.object({
  frame: FrameSchema.prefault({}),
  /** Pixels per side. */
  size: setting({
    label: 'Size',
    unit: 'px',
    min: 8,
    max: 4096,
    step: 1,
    fallback: 1024,
    scale: 'log',
    help: 'Pixels per side: 256 for small detail, 512 to 1024 as usual, 4096 for skin',
  }),
  samples: z.union([z.literal(1), z.literal(4)]).default(4),
  /** Null: found from the form. Body units. */
  floor: z.number().nullable().default(null),
  crown: z.number().nullable().default(null),
  /** Height (0 at the floor, 1 at the crown) to grey. */
  tone: z
    .array(CurveNodeSchema)
    .min(2, 'A tone curve needs at least two nodes.')
    .max(24)
    .default([
      { x: 0, y: 0, corner: true },
      { x: 1, y: 1, corner: true },
    ]),
  /** Where the ground of a new brush is taken: the border's median, or the mean under the ring. */
  ground: z.enum(GROUNDS).default('edge'),
  /** Kept clear on each side when the frame is fitted to the form. */
  margin: setting({
    label: 'Margin',
    unit: '%',
    min: 2,
    max: 30,
    step: 1,
    fallback: 6,
    help: 'Kept clear on each side when the frame is fitted, in per cent of its side',
  }),
  format: z.enum(CAST_FORMATS).default('grey16'),
});
export type CastSettings = z.infer<typeof CastSettingsSchema>;
