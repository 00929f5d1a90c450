/** How a dab works on the surface: what it does, how strongly, along which way and under which falloff. */
import { z } from 'zod';
import { FalloffSchema } from './falloff';
import { setting } from './setting';

/** Those that change the clay. */
export const CLAY_ACTIONS = ['lift', 'build', 'crease', 'inflate', 'smooth', 'flatten', 'move', 'mask'] as const;
/** Those that change the texture. */
export const PAINT_ACTIONS = ['paint', 'smudge', 'erase', 'fill'] as const;
export const ACTIONS = [...CLAY_ACTIONS, 'insert', ...PAINT_ACTIONS] as const;
export const OVERLAPS = ['even', 'add'] as const;
/** What a dab takes: single stamps what hangs together and runs of dabs everything, or one of them always. */
export const TAKES = ['auto', 'connected', 'all'] as const;
/** Ways that Lift moves clay: the dab's normal, each point's own, towards the eye, or an axis of the body. */
export const DIRECTIONS = ['dab', 'own', 'view', 'x', 'y', 'z'] as const;

export const TouchSchema = z.object({
  action: z.enum(ACTIONS).default('lift'),
  strength: setting({
    label: 'Strength',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 100,
    help: 'Share of the full effect that one dab gives',
  }),
  direction: z.enum(DIRECTIONS).default('dab'),
  footing: setting({
    label: 'Footing',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 50,
    help: 'Share of the radius over which the normal is averaged; 0 takes the face under the pointer',
  }),
  reachDepth: setting({
    label: 'Reach depth',
    unit: 'r',
    min: 0.05,
    max: 4,
    step: 0.05,
    fallback: 1,
    help: 'How far above and below the dab is felt, in radii',
  }),
  pinch: setting({
    label: 'Pinch',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 20,
    help: 'Crease only: draws the clay together towards the line',
  }),
  overlaps: z.enum(OVERLAPS).default('even'),
  takes: z.enum(TAKES).default('auto'),
  falloff: FalloffSchema.prefault({}),
});
