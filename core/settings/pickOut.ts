/** Strokes that say what of a picture is the thing wanted and what isn't, kept so that they can be run at any size. */
import { z } from 'zod';
import { setting } from './setting';

export const PickStrokeSchema = z.object({
  inside: z.boolean(),
  size: setting({
    label: 'Size',
    unit: '%',
    min: 0.2,
    max: 20,
    step: 0.1,
    fallback: 1.2,
    scale: 'log',
    help: 'Radius of the strokes, in per cent of the picture’s longer side',
  }),
  /** x, y of each sample in shares of the longer side, from the upper left corner. */
  points: z
    .array(z.number())
    .min(2, 'A stroke needs a point.')
    .max(4000)
    .refine((p) => p.length % 2 === 0, 'A stroke’s points come in twos.'),
});
export type PickStroke = z.infer<typeof PickStrokeSchema>;
