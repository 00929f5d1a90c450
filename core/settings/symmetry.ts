/** Symmetry of strokes and masks on a slab: mirrors, and copies turned about a point. */
import { z } from 'zod';
import { setting } from './setting';

export const SymmetrySchema = z.object({
  mirrorX: z.boolean().default(false),
  mirrorY: z.boolean().default(false),
  copies: setting({
    label: 'Copies',
    unit: '',
    min: 1,
    max: 128,
    step: 1,
    fallback: 1,
    scale: 'log',
    help: 'Radial copies about the point; 1 is none',
  }),
  /** The point that copies turn about and mirrors run through, body units. */
  x: z.number().default(0),
  y: z.number().default(0),
});
export type Symmetry = z.infer<typeof SymmetrySchema>;
