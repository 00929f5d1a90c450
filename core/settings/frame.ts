/** The square window of a cast. */
import { z } from 'zod';
import { setting } from './setting';

export const CAST_SIZES = [256, 512, 1024, 2048, 4096] as const;

export const FrameSchema = z.object({
  /** Centre on the slab, body units. */
  x: z.number().default(0),
  y: z.number().default(0),
  turn: setting({
    label: 'Frame turn', unit: '°', min: -180, max: 180, step: 1, fallback: 0, help: 'Turns the frame, anticlockwise',
  }),
  side: setting({
    label: 'Frame side', unit: 'body', min: 0.02, max: 4, step: 0.01, fallback: 1.8, help: 'Side of the square that is cast',
  }),
});
export type Frame = z.infer<typeof FrameSchema>;

export const CastSettingsSchema = z.object({
  frame: FrameSchema.prefault({}),
  /** Pixels a side. */
  size: z.union(CAST_SIZES.map((n) => z.literal(n))).default(1024),
  samples: z.union([z.literal(1), z.literal(4)]).default(4),
  /** Null: found from the form. Body units. */
  floor: z.number().nullable().default(null),
  crown: z.number().nullable().default(null),
});
export type CastSettings = z.infer<typeof CastSettingsSchema>;
