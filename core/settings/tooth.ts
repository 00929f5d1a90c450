/** Tooth: a second, repeating picture inside the form, like the tooth of paper. */
import { z } from 'zod';
import { setting } from './setting';

export const TOOTH_HOLDS = ['surface', 'dab'] as const;
export const TOOTH_SCALES = ['fixed', 'follows'] as const;

export const ToothSchema = z.object({
  /** Null is no tooth. */
  alphaId: z.uuid().nullable().default(null),
  /** Lies still on the body, or goes along with each dab. */
  holds: z.enum(TOOTH_HOLDS).default('surface'),
  scale: z.enum(TOOTH_SCALES).default('fixed'),
  side: setting({
    label: 'Tooth side',
    unit: 'body',
    min: 0.01,
    max: 2,
    step: 0.001,
    fallback: 0.2,
    scale: 'log',
    help: 'Side of the tooth’s picture on the body',
  }),
  share: setting({
    label: 'Tooth side',
    unit: '%',
    min: 2,
    max: 400,
    step: 1,
    fallback: 50,
    scale: 'log',
    help: 'Side of the tooth’s picture, in per cent of the dab’s diameter',
  }),
  turn: setting({
    label: 'Tooth turn',
    unit: '°',
    min: -180,
    max: 180,
    step: 1,
    fallback: 0,
    help: 'Turns the tooth, anticlockwise',
  }),
  depth: setting({
    label: 'Tooth depth',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 70,
    help: 'How much of the dab the tooth may take away',
  }),
  invert: z.boolean().default(false),
});
