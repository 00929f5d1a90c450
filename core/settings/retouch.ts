/** Retouching by hand, kept as strokes so that it can be run again at any size. */
import { z } from 'zod';
import { setting } from './setting';

export const RETOUCH_TOOLS = ['erase', 'heal', 'copy', 'lighten', 'darken', 'smudge', 'paint'] as const;
export const TONE_RANGES = ['all', 'shadows', 'mids', 'lights'] as const;

export const RetouchStrokeSchema = z.object({
  tool: z.enum(RETOUCH_TOOLS),
  size: setting({
    label: 'Size',
    unit: '%',
    min: 0.2,
    max: 40,
    step: 0.1,
    fallback: 4,
    scale: 'log',
    help: 'Radius, in per cent of the picture’s longer side',
  }),
  strength: setting({
    label: 'Strength',
    unit: '%',
    min: 1,
    max: 100,
    step: 1,
    fallback: 60,
    help: 'Share of the full effect',
  }),
  hardness: setting({
    label: 'Hardness',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 30,
    help: 'Share of the radius that keeps full weight',
  }),
  /** Lighten and darken: which tones are changed. */
  range: z.enum(TONE_RANGES).default('all'),
  /** Paint: the grey. */
  grey: setting({
    label: 'Grey',
    unit: 'grey',
    min: 0,
    max: 1,
    step: 0.001,
    fallback: 1,
    help: 'The grey that is painted',
  }),
  /** Copy: from the source point to the stroke's first point, in shares of the longer side. */
  from: z.tuple([z.number().min(-4).max(4), z.number().min(-4).max(4)]).default([0, 0]),
  /** x, y, pressure of each sample; x and y in shares of the longer side, from the upper left corner. */
  points: z
    .array(z.number())
    .min(3, 'A stroke needs a point.')
    .max(6000)
    .refine((p) => p.length % 3 === 0, 'A stroke’s points come in threes.'),
});
export type RetouchStroke = z.infer<typeof RetouchStrokeSchema>;
export type RetouchTool = RetouchStroke['tool'];
