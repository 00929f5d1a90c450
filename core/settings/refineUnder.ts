/** Refine under the brush: splits and joins triangles where strokes go. */
import { z } from 'zod';
import { setting } from './setting';

export const RefineUnderSchema = z.object({
  on: z.boolean().default(false),
  edge: setting({
    label: 'Edge',
    unit: 'body',
    min: 0.002,
    max: 0.2,
    step: 0.001,
    fallback: 0.012,
    scale: 'log',
    help: 'Length that edges take under the brush',
  }),
});
export type RefineUnderSettings = z.infer<typeof RefineUnderSchema>;
