/** What a brush stamps: its alpha, how it lies in the ring, and which grey leaves the surface alone. */
import { z } from 'zod';
import { setting } from './setting';

export const FOOTPRINTS = ['round', 'square'] as const;

export const FormSchema = z.object({
  /** Null is the plain form: every point at full height, relief 0.1. */
  alphaId: z.uuid().nullable().default(null),
  fit: setting({
    label: 'Fit',
    unit: '',
    min: 0.5,
    max: 4,
    step: 0.01,
    fallback: 1,
    help: 'How far the alpha is shrunk into the ring: 1 puts its sides on the ring, 1.41 its corners',
  }),
  turn: setting({
    label: 'Turn',
    unit: '°',
    min: -180,
    max: 180,
    step: 1,
    fallback: 0,
    help: 'Turns the alpha in the dab, anticlockwise',
  }),
  ground: setting({
    label: 'Ground',
    unit: 'grey',
    min: 0,
    max: 1,
    step: 0.001,
    fallback: 0,
    help: 'The grey that leaves the surface where it is',
  }),
  depth: setting({
    label: 'Depth',
    unit: '%',
    min: 0,
    max: 400,
    step: 1,
    fallback: 100,
    help: '100 % stamps the relief at its true proportion',
  }),
  tile: setting({
    label: 'Repeat',
    unit: 'body',
    min: 0.02,
    max: 2,
    step: 0.001,
    fallback: 0.4,
    scale: 'log',
    help: 'Wrapped only: side of the alpha on the body, where it repeats',
  }),
  footprint: z.enum(FOOTPRINTS).default('round'),
  across: setting({
    label: 'Tiles across',
    unit: '',
    min: 1,
    max: 16,
    step: 1,
    fallback: 1,
    help: 'How often the alpha repeats from side to side of the stamp',
  }),
  down: setting({
    label: 'Tiles down',
    unit: '',
    min: 1,
    max: 16,
    step: 1,
    fallback: 1,
    help: 'How often the alpha repeats from top to bottom of the stamp',
  }),
  fade: setting({
    label: 'Fade',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 0,
    help: 'How far from the edge the form goes back to the ground, of the way to the middle',
  }),
  invert: z.boolean().default(false),
  mirrorAcross: z.boolean().default(false),
  mirrorDown: z.boolean().default(false),
});

/** What is done to the alpha inside the stamp, where nothing is. */
export const INSIDE_DEFAULTS = FormSchema.pick({
  across: true,
  down: true,
  fade: true,
  invert: true,
  mirrorAcross: true,
  mirrorDown: true,
}).parse({});
