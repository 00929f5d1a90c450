/** Falloff settings: the weight of a dab from its centre (0) to its rim (1). */
import { z } from 'zod';
import { CurveNodeSchema } from './curve';
import { setting } from './setting';

export const FALLOFF_KINDS = ['full', 'plateau', 'dome', 'bell', 'cone', 'needle', 'own'] as const;

export const FalloffSchema = z.object({
  kind: z.enum(FALLOFF_KINDS).default('dome'),
  hold: setting({
    label: 'Hold',
    unit: 'r',
    min: 0,
    max: 0.98,
    step: 0.01,
    fallback: 0.6,
    help: 'Plateau: share of the radius that keeps full weight',
  }),
  nodes: z
    .array(CurveNodeSchema)
    .min(2, 'A falloff curve needs at least two nodes.')
    .max(24)
    .default([
      { x: 0, y: 1, corner: false },
      { x: 0.6, y: 0.95, corner: true },
      { x: 1, y: 0, corner: false },
    ]),
});
export type FalloffSettings = z.infer<typeof FalloffSchema>;
