/** Symmetry of strokes and masks: mirrors, and copies turned about an axis. */
import { z } from 'zod';
import { setting } from './setting';

export const AXES = ['x', 'y', 'z'] as const;
export type Axis = (typeof AXES)[number];

export const SymmetrySchema = z.object({
  mirrorX: z.boolean().default(false),
  mirrorY: z.boolean().default(false),
  mirrorZ: z.boolean().default(false),
  copies: setting({
    label: 'Copies',
    unit: '',
    min: 1,
    max: 128,
    step: 1,
    fallback: 1,
    scale: 'log',
    help: 'Radial copies around the axis; 1 is none',
  }),
  /** What copies turn about: of a slab z, which looks at the eye. */
  axis: z.enum(AXES).default('z'),
  /** The point that the axis and the mirrors run through, body units. */
  x: z.number().default(0),
  y: z.number().default(0),
  z: z.number().default(0),
});
export type Symmetry = z.infer<typeof SymmetrySchema>;
