/** How dabs follow from the hand: type, mapping, size, spacing, tapers, fade and steadying. */
import { z } from 'zod';
import { setting } from './setting';

export const STROKE_TYPES = ['trail', 'linger', 'ruler', 'path', 'press', 'grow', 'pull'] as const;
export const MAPPINGS = ['surface', 'view', 'wrapped', 'stencil', 'shuffled'] as const;
export const TURN_SOURCES = ['fixed', 'stroke', 'lean', 'random'] as const;

export const StrokeSettingsSchema = z.object({
  type: z.enum(STROKE_TYPES).default('trail'),
  mapping: z.enum(MAPPINGS).default('surface'),
  size: setting({
    label: 'Size',
    unit: 'body',
    min: 0.005,
    max: 2,
    step: 0.001,
    fallback: 0.25,
    scale: 'log',
    help: 'Radius in body units; the plain ball has a radius of 1',
  }),
  height: setting({
    label: 'Height',
    unit: 'body',
    min: 0,
    max: 2,
    step: 0.001,
    fallback: 0,
    help: 'Pull only: how high it pulls, up or down as the drag goes; 0 is as far as the drag',
  }),
  spacing: setting({
    label: 'Spacing',
    unit: '%',
    min: 1,
    max: 400,
    step: 1,
    fallback: 25,
    scale: 'log',
    help: 'Distance from dab to dab, in per cent of the dab’s diameter',
  }),
  /** Path: the spacing gives a little, so that a dab falls on each end and corner. */
  toEnds: z.boolean().default(false),
  rate: setting({
    label: 'Rate',
    unit: 'dabs/s',
    min: 1,
    max: 60,
    step: 1,
    fallback: 15,
    scale: 'log',
    help: 'Linger only: dabs per second while the pointer rests',
  }),
  turnFrom: z.enum(TURN_SOURCES).default('fixed'),
  steady: setting({
    label: 'Steady',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 0,
    help: 'Draws the dab along on a string behind a shaky hand; 100 % is a string of three radii',
  }),
  taperStart: setting({
    label: 'Taper in',
    unit: 'r',
    min: 0,
    max: 40,
    step: 0.5,
    fallback: 0,
    help: 'Length, in radii, over which the stroke comes up to size and strength; 0 begins in full',
  }),
  taperEnd: setting({
    label: 'Taper out',
    unit: 'r',
    min: 0,
    max: 40,
    step: 0.5,
    fallback: 0,
    help: 'Length, in radii, over which the stroke dies away; laid when the pointer is released',
  }),
  tipSize: setting({
    label: 'Tip size',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 0,
    help: 'Size that a taper begins or ends with',
  }),
  tipStrength: setting({
    label: 'Tip strength',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 100,
    help: 'Strength that a taper begins or ends with',
  }),
  fade: setting({
    label: 'Fade',
    unit: 'r',
    min: 0,
    max: 200,
    step: 1,
    fallback: 0,
    help: 'Length, in radii, after which the stroke has faded to nothing; 0 never fades',
  }),
});
