/** Seeded variation of dabs. */
import { z } from 'zod';
import { setting } from './setting';

export const DRIFT_PER = ['dab', 'stroke'] as const;

export const DriftSchema = z.object({
  /** Whether every dab varies by itself, or a stroke's dabs all alike. Places always vary by the dab. */
  per: z.enum(DRIFT_PER).default('dab'),
  count: setting({
    label: 'Count',
    unit: '',
    min: 1,
    max: 16,
    step: 1,
    fallback: 1,
    help: 'Dabs that are laid at each step',
  }),
  along: setting({
    label: 'Along',
    unit: '%',
    min: 0,
    max: 400,
    step: 1,
    fallback: 0,
    help: 'Scatters dabs along the stroke, up to this share of the radius both ways',
  }),
  across: setting({
    label: 'Across',
    unit: '%',
    min: 0,
    max: 400,
    step: 1,
    fallback: 0,
    help: 'Scatters dabs to both sides of the stroke, up to this share of the radius',
  }),
  size: setting({
    label: 'Size drift',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 0,
    help: 'Sizes vary by up to this share, both ways',
  }),
  leastSize: setting({
    label: 'Least size',
    unit: '%',
    min: 1,
    max: 100,
    step: 1,
    fallback: 20,
    help: 'No dab is smaller than this share of the size',
  }),
  turn: setting({
    label: 'Turn drift',
    unit: '°',
    min: 0,
    max: 180,
    step: 1,
    fallback: 0,
    help: 'Turns vary by up to this much, both ways',
  }),
  squash: setting({
    label: 'Squash',
    unit: '%',
    min: 0,
    max: 90,
    step: 1,
    fallback: 0,
    help: 'Dabs are narrowed by up to this share',
  }),
  flip: setting({
    label: 'Flip',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 0,
    help: 'Share of dabs that are mirrored',
  }),
});
