/** What a brush paints: its two colours and how they drift, what of its picture covers, and how paint flows. */
import { z } from 'zod';
import { setting } from './setting';

/** What of the picture covers: its bright, its dark, or its own transparency. */
export const COVERS = ['bright', 'dark', 'clear'] as const;
/** What a colour is drawn anew for; along changes smoothly on the way. */
export const COLOUR_DRIFTS = ['dab', 'stroke', 'along'] as const;
export const MIXINGS = ['light', 'pigment'] as const;
/** What Fill fills: everything, what hangs together in space, an island, or what is of one colour. */
export const FILLS = ['all', 'part', 'island', 'colour'] as const;

export const HexSchema = z.string().regex(/^#[0-9a-f]{6}$/, 'A colour is # and six hexadecimal digits.');

const share = (label: string, fallback: number, help: string) =>
  setting({ label, unit: '%', min: 0, max: 100, step: 1, fallback, help });

export const ColourSchema = z.object({
  first: HexSchema.default('#47707a'),
  second: HexSchema.default('#c8a878'),
  /** A brush that sculpts paints too. */
  too: z.boolean().default(false),
  flow: share('Flow', 100, 'How much of the colour one dab lays; digits set it'),
  opacity: share('Opacity', 100, 'How much of a whole stroke lies over what was there'),
  cover: z.enum(COVERS).default('bright'),
  /** Paints the picture’s own colours, where it has any. */
  own: z.boolean().default(false),
  hardness: share('Hardness', 0, 'Makes soft edges hard, up to a texel’s width'),
  per: z.enum(COLOUR_DRIFTS).default('dab'),
  hue: setting({
    label: 'Hue drift',
    unit: '°',
    min: 0,
    max: 180,
    step: 1,
    fallback: 0,
    help: 'Hues vary by up to this much, both ways',
  }),
  chroma: share('Chroma drift', 0, 'Colours are duller or purer by up to this share of their own'),
  lightness: share('Light drift', 0, 'Colours are lighter or darker by up to this share, as the eye sees it'),
  mix: share('Mix drift', 0, 'Up to this much of the second colour is mixed into the first'),
  length: setting({
    label: 'Drift length',
    unit: 'r',
    min: 0.5,
    max: 60,
    step: 0.5,
    fallback: 6,
    scale: 'log',
    help: 'Along only: length, in radii, after which the colour is another one',
  }),
  pooling: share('Pooling', 0, 'How much darker the rim dries'),
  load: setting({
    label: 'Load',
    unit: 'r',
    min: 0,
    max: 200,
    step: 1,
    fallback: 0,
    help: 'Length, in radii, after which the paint has run out; 0 never runs out',
  }),
  pickup: share('Pickup', 0, 'How much of the paint below each dab picks up and carries along'),
  mixing: z.enum(MIXINGS).default('light'),
  fills: z.enum(FILLS).default('all'),
  tolerance: share('Tolerance', 8, 'How far a colour may be off and still be filled'),
});
export type ColourSettings = z.infer<typeof ColourSchema>;
