/** Everything a stroke needs, as one versioned object. */
import { z } from 'zod';
import { setting } from './setting';
import { FalloffSchema } from './falloff';
import { CardSchema } from './card';
import type { Migration } from './read';

export const BRUSH_VERSION = 2;
/** Version 2 added actions, steady and pen, all of which have defaults. */
export const BRUSH_MIGRATIONS: Record<number, Migration> = { 1: (doc) => doc };

export const ACTIONS = ['lift', 'build', 'crease', 'inflate', 'smooth', 'flatten', 'move', 'mask'] as const;
export const STROKE_TYPES = ['trail', 'press', 'grow'] as const;
export const MAPPINGS = ['surface', 'view'] as const;
export const FOOTPRINTS = ['round', 'square'] as const;
export const OVERLAPS = ['even', 'add'] as const;
export const TURN_SOURCES = ['fixed', 'stroke'] as const;

export const FormSchema = z.object({
  /** Null is the plain form: every point at full height, relief 0.1. */
  alphaId: z.uuid().nullable().default(null),
  fit: setting({
    label: 'Fit', unit: '', min: 0.5, max: 4, step: 0.01, fallback: 1,
    help: 'How far the alpha is shrunk into the ring: 1 puts its sides on the ring, 1.41 its corners',
  }),
  turn: setting({
    label: 'Turn', unit: '°', min: -180, max: 180, step: 1, fallback: 0,
    help: 'Turns the alpha in the dab, anticlockwise',
  }),
  ground: setting({
    label: 'Ground', unit: 'grey', min: 0, max: 1, step: 0.001, fallback: 0,
    help: 'The grey that leaves the surface where it is',
  }),
  depth: setting({
    label: 'Depth', unit: '%', min: 0, max: 400, step: 1, fallback: 100,
    help: '100 % stamps the relief at its true proportion',
  }),
  footprint: z.enum(FOOTPRINTS).default('round'),
});

export const TouchSchema = z.object({
  action: z.enum(ACTIONS).default('lift'),
  strength: setting({
    label: 'Strength', unit: '%', min: 0, max: 100, step: 1, fallback: 100,
    help: 'Share of the full effect that one dab gives',
  }),
  footing: setting({
    label: 'Footing', unit: '%', min: 0, max: 100, step: 1, fallback: 50,
    help: 'Share of the radius over which the normal is averaged; 0 takes the face under the pointer',
  }),
  reachDepth: setting({
    label: 'Reach depth', unit: 'r', min: 0.05, max: 4, step: 0.05, fallback: 1,
    help: 'How far above and below the dab is felt, in radii',
  }),
  pinch: setting({
    label: 'Pinch', unit: '%', min: 0, max: 100, step: 1, fallback: 20,
    help: 'Crease only: draws the clay together towards the line',
  }),
  overlaps: z.enum(OVERLAPS).default('add'),
  falloff: FalloffSchema.prefault({}),
});

export const StrokeSettingsSchema = z.object({
  type: z.enum(STROKE_TYPES).default('trail'),
  mapping: z.enum(MAPPINGS).default('surface'),
  size: setting({
    label: 'Size', unit: 'body', min: 0.005, max: 2, step: 0.001, fallback: 0.25, scale: 'log',
    help: 'Radius in body units; the plain ball has a radius of 1',
  }),
  spacing: setting({
    label: 'Spacing', unit: '%', min: 1, max: 400, step: 1, fallback: 25, scale: 'log',
    help: 'Distance from dab to dab, in per cent of the dab’s diameter',
  }),
  scatter: setting({
    label: 'Scatter', unit: '%', min: 0, max: 200, step: 1, fallback: 0,
    help: 'Each dab lands up to this far from the path, in per cent of the radius',
  }),
  turnFrom: z.enum(TURN_SOURCES).default('fixed'),
  steady: setting({
    label: 'Steady', unit: '%', min: 0, max: 100, step: 1, fallback: 0,
    help: 'Draws the dab along on a string behind a shaky hand; 100 % is a string of three radii',
  }),
});

export const PenSchema = z.object({
  sizeLow: setting({
    label: 'Light size', unit: '%', min: 0, max: 100, step: 1, fallback: 100,
    help: 'Size under the lightest pen pressure; 100 % leaves pressure out',
  }),
  strengthLow: setting({
    label: 'Light strength', unit: '%', min: 0, max: 100, step: 1, fallback: 100,
    help: 'Strength under the lightest pen pressure; 100 % leaves pressure out',
  }),
});

export const BrushSchema = z.object({
  version: z.literal(BRUSH_VERSION),
  id: z.uuid(),
  form: FormSchema.prefault({}),
  touch: TouchSchema.prefault({}),
  stroke: StrokeSettingsSchema.prefault({}),
  pen: PenSchema.prefault({}),
  card: CardSchema,
});
export type Brush = z.infer<typeof BrushSchema>;
export type Action = Brush['touch']['action'];
export type StrokeType = Brush['stroke']['type'];

export function newBrush(id: string, name: string, author = ''): Brush {
  return BrushSchema.parse({ version: BRUSH_VERSION, id, card: { name, author } });
}
