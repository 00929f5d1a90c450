/** A set of test strokes of one's own, as it is kept. */
import { z } from 'zod';
import { CardSchema, SymmetrySchema } from '#core/settings';
import type { TrialStroke } from './sets';

export const TRIAL_VERSION = 1;
/** Places of the hand in one set, all strokes together. */
const MOST_SAMPLES = 100_000;

const number = z.number();
const vec3 = z.tuple([number, number, number]).readonly();
const row = z.tuple([number, number, number, number]).readonly();

const SampleSchema = z.object({
  origin: vec3,
  direction: vec3,
  pressure: number.exactOptional(),
  time: number.exactOptional(),
  lean: number.exactOptional(),
  speed: number.exactOptional(),
  stop: z.enum(['end', 'corner', 'join']).exactOptional(),
  way: vec3.exactOptional(),
});
export const TrialStrokeSchema = z.object({
  seed: number,
  dig: z.boolean(),
  symmetry: SymmetrySchema,
  view: z.object({ right: vec3, up: vec3, toward: vec3 }),
  samples: z.array(SampleSchema).min(1),
  stencil: z.object({ u: row, v: row, w: row }).exactOptional(),
  scale: number.positive().exactOptional(),
  part: number.int().min(0).exactOptional(),
}) satisfies z.ZodType<Omit<TrialStroke, 'on'>>;

export const OwnTrialSchema = z.object({
  version: z.literal(TRIAL_VERSION),
  id: z.uuid(),
  card: CardSchema,
  /** A shipped body's name or the id of one's own. */
  body: z.string().min(1).max(80),
  strokes: z
    .array(TrialStrokeSchema)
    .min(1, 'A set has at least one stroke.')
    .refine(
      (strokes) => strokes.reduce((sum, s) => sum + s.samples.length, 0) <= MOST_SAMPLES,
      `A set may have at most ${MOST_SAMPLES} places of the hand.`,
    ),
});
export type OwnTrial = z.infer<typeof OwnTrialSchema>;
