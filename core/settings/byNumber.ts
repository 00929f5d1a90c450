/** Changes by number of what is unmasked: each has an amount, and some a second number. */
import { z } from 'zod';
import { setting } from './setting';

export const NUMBER_KINDS = ['inflate', 'lift', 'smooth', 'flatten', 'noise', 'terrace'] as const;
export type NumberKind = (typeof NUMBER_KINDS)[number];

export const ByNumberSchema = z.object({
  inflate: setting({
    label: 'Inflate by',
    unit: 'body',
    min: -0.5,
    max: 0.5,
    step: 0.001,
    fallback: 0,
    help: 'Out along each place’s own normal; negative goes in',
  }),
  lift: setting({
    label: 'Lift by',
    unit: 'body',
    min: -0.5,
    max: 0.5,
    step: 0.001,
    fallback: 0,
    help: 'Straight up; negative goes down',
  }),
  smooth: setting({
    label: 'Smooth by',
    unit: 'steps',
    min: 0,
    max: 100,
    step: 1,
    fallback: 0,
    help: 'Steps towards the mean of the neighbours',
  }),
  flatten: setting({
    label: 'Flatten by',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 0,
    help: 'Towards the mean height of what is unmasked',
  }),
  noise: setting({
    label: 'Noise by',
    unit: 'body',
    min: -0.2,
    max: 0.2,
    step: 0.0005,
    fallback: 0,
    help: 'Height of seeded noise',
  }),
  terrace: setting({
    label: 'Terrace by',
    unit: 'body',
    min: 0,
    max: 0.3,
    step: 0.001,
    fallback: 0,
    help: 'Height of a step; 0 makes none',
  }),
  noiseScale: setting({
    label: 'Grain',
    unit: 'body',
    min: 0.004,
    max: 1,
    step: 0.001,
    fallback: 0.08,
    scale: 'log',
    help: 'Size of the noise’s largest lumps',
  }),
  noiseSeed: setting({
    label: 'Seed',
    unit: '',
    min: 1,
    max: 9999,
    step: 1,
    fallback: 1,
    help: 'Another number gives different noise',
  }),
  terraceSoft: setting({
    label: 'Soft edge',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 20,
    help: 'Share of each step that slopes',
  }),
});
export type ByNumber = z.infer<typeof ByNumberSchema>;
