/** A node of a curve from 0 to 1: of a falloff, or of tones. */
import { z } from 'zod';

export const CurveNodeSchema = z.object({
  /** 0–1: the distance from the centre, or the height. */
  x: z.number().min(0).max(1),
  /** 0–1: the weight, or the grey. */
  y: z.number().min(0).max(1),
  /** A corner is met by straight lines, a smooth node by a monotone cubic. */
  corner: z.boolean(),
});
export type CurveNode = z.infer<typeof CurveNodeSchema>;
