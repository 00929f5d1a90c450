/**
 * The recipe: ordered, re-runnable steps from a source to an alpha. Lengths are in per cent of the picture's longer
 * side, so that a recipe gives the same result on a reduced copy and at full size.
 */
import { z } from 'zod';
import { BlobHashSchema } from './blob';
import { CurveNodeSchema } from './curve';
import { RetouchStrokeSchema } from './retouch';
import { setting } from './setting';

const head = { id: z.uuid(), on: z.boolean().default(true) };
const percent = (label: string, fallback: number, max: number, help: string, step = 0.1, min = 0) =>
  setting({ label, unit: '%', min, max, step, fallback, help });
const grey = (label: string, fallback: number, help: string) =>
  setting({ label, unit: 'grey', min: 0, max: 1, step: 0.001, fallback, help });
const count = (label: string, fallback: number, min: number, max: number, help: string) =>
  setting({ label, unit: '', min, max, step: 1, fallback, help });

export const FLIPS = ['across', 'down', 'both'] as const;
export const BACKGROUND_WAYS = ['tone', 'click', 'edge'] as const;
export const MIRRORS = ['across', 'down', 'both', 'radial'] as const;
export const SHAPES = ['round', 'square'] as const;
export const PROFILES = ['round', 'chamfer', 'own'] as const;
export const COMBINE_WAYS = ['max', 'min', 'add', 'multiply', 'over'] as const;
export const EVEN_WAYS = ['bright', 'dark'] as const;

/** A closed outline as x, y pairs, 0–1 of the picture's width and height. */
export const OutlineSchema = z.array(z.number()).min(6, 'An outline needs at least three points.').max(8000);
export type Outline = z.infer<typeof OutlineSchema>;

export const StepSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('crop'),
    ...head,
    left: percent('Left', 0, 95, 'Cut off on the left'),
    right: percent('Right', 0, 95, 'Cut off on the right'),
    top: percent('Top', 0, 95, 'Cut off at the top'),
    bottom: percent('Bottom', 0, 95, 'Cut off at the bottom'),
  }),
  z.object({
    kind: z.literal('straighten'),
    ...head,
    turn: setting({
      label: 'Turn',
      unit: '°',
      min: -180,
      max: 180,
      step: 0.1,
      fallback: 0,
      help: 'Turns the picture, anticlockwise',
    }),
  }),
  z.object({ kind: z.literal('flip'), ...head, way: z.enum(FLIPS).default('across') }),
  z.object({
    kind: z.literal('resize'),
    ...head,
    side: setting({
      label: 'Longer side',
      unit: 'px',
      min: 16,
      max: 4096,
      step: 1,
      fallback: 1024,
      scale: 'log',
      help: 'Pixels of the longer side from here on',
    }),
  }),
  z.object({
    kind: z.literal('mix'),
    ...head,
    red: percent('Red', 21, 200, 'Share of red in the grey', 1, -200),
    green: percent('Green', 72, 200, 'Share of green in the grey', 1, -200),
    blue: percent('Blue', 7, 200, 'Share of blue in the grey', 1, -200),
  }),
  z.object({
    kind: z.literal('levels'),
    ...head,
    black: grey('Black', 0, 'Greys below become black'),
    mid: setting({
      label: 'Mid',
      unit: '',
      min: 0.1,
      max: 8,
      step: 0.01,
      fallback: 1,
      scale: 'log',
      help: 'Over 1 lifts the mid tones, under 1 pulls them down',
    }),
    white: grey('White', 1, 'Greys above become white'),
  }),
  z.object({
    kind: z.literal('curve'),
    ...head,
    nodes: z
      .array(CurveNodeSchema)
      .min(2, 'A tone curve needs at least two nodes.')
      .max(24)
      .default([
        { x: 0, y: 0, corner: true },
        { x: 1, y: 1, corner: true },
      ]),
  }),
  z.object({ kind: z.literal('invert'), ...head }),
  z.object({
    kind: z.literal('threshold'),
    ...head,
    level: grey('Level', 0.5, 'Greys above become white'),
    soft: percent('Soft edge', 4, 100, 'Width of the slope from black to white, in per cent of the tones'),
  }),
  z.object({
    kind: z.literal('blur'),
    ...head,
    radius: percent('Radius', 0.4, 20, 'Spread of the Gaussian, in per cent of the longer side', 0.01),
  }),
  z.object({
    kind: z.literal('sharpen'),
    ...head,
    radius: percent('Radius', 0.3, 10, 'Size of what is sharpened, in per cent of the longer side', 0.01),
    amount: percent('Amount', 80, 400, 'How much is added', 1),
  }),
  z.object({
    kind: z.literal('despeckle'),
    ...head,
    size: percent('Size', 0.1, 2, 'Specks up to this size go, in per cent of the longer side', 0.01),
    contrast: percent('Contrast', 0, 100, 'Only what stands out by more than this goes', 1),
  }),
  z.object({
    kind: z.literal('background'),
    ...head,
    by: z.enum(BACKGROUND_WAYS).default('edge'),
    tone: grey('Tone', 0, 'The background’s grey'),
    x: z.number().min(0).max(1).default(0.02),
    y: z.number().min(0).max(1).default(0.02),
    tolerance: percent('Tolerance', 8, 100, 'Greys this close belong to the background', 0.5),
    soft: percent('Soft', 6, 100, 'Width of the matte from background to form, in per cent of the tones', 0.5),
  }),
  z.object({
    kind: z.literal('even'),
    ...head,
    size: percent('Size', 12, 60, 'What is larger than this counts as uneven light', 0.5, 1),
    way: z.enum(EVEN_WAYS).default('bright'),
  }),
  z.object({
    kind: z.literal('deband'),
    ...head,
    step: setting({
      label: 'Step',
      unit: 'grey',
      min: 0.0005,
      max: 0.06,
      step: 0.0005,
      fallback: 0.004,
      help: 'Height of the terraces: 0.004 is one of 256 steps',
    }),
    radius: percent('Radius', 0.8, 8, 'Width over which a terrace is smoothed', 0.05, 0.05),
  }),
  z.object({
    kind: z.literal('noise'),
    ...head,
    amount: percent('Amount', 6, 100, 'Height of the noise', 0.5),
    size: percent('Size', 1, 40, 'Size of its largest lumps, in per cent of the longer side', 0.05, 0.05),
    seed: count('Seed', 1, 1, 9999, 'Another number gives other noise'),
  }),
  z.object({
    kind: z.literal('feather'),
    ...head,
    shape: z.enum(SHAPES).default('round'),
    start: percent('Start', 80, 99, 'Share of the ring that stays whole', 0.5),
    end: percent('End', 98, 141, 'Where the ground is reached', 0.5, 1),
  }),
  z.object({
    kind: z.literal('symmetry'),
    ...head,
    way: z.enum(MIRRORS).default('across'),
    copies: count('Copies', 6, 2, 64, 'Copies about the middle'),
  }),
  z.object({
    kind: z.literal('repeat'),
    ...head,
    columns: count('Columns', 2, 1, 16, 'Beside each other'),
    rows: count('Rows', 2, 1, 16, 'Under each other'),
  }),
  z.object({
    kind: z.literal('seamless'),
    ...head,
    overlap: percent('Overlap', 20, 50, 'Width over which opposite sides are blended', 1, 2),
  }),
  z.object({
    kind: z.literal('terrace'),
    ...head,
    steps: count('Steps', 6, 2, 64, 'How many levels'),
    soft: percent('Soft edge', 20, 100, 'Share of each step that slopes', 1),
  }),
  z.object({
    kind: z.literal('bevel'),
    ...head,
    level: grey('Outline at', 0.5, 'The grey of the outline, as a share of its form’s own grey'),
    width: percent('Width', 4, 50, 'From the outline to full height, in per cent of the longer side', 0.05, 0.05),
    profile: z.enum(PROFILES).default('round'),
    nodes: z
      .array(CurveNodeSchema)
      .min(2, 'A profile needs at least two nodes.')
      .max(24)
      .default([
        { x: 0, y: 0, corner: true },
        { x: 0.4, y: 0.7, corner: false },
        { x: 1, y: 1, corner: true },
      ]),
  }),
  z.object({
    kind: z.literal('combine'),
    ...head,
    alphaId: z.uuid().nullable().default(null),
    way: z.enum(COMBINE_WAYS).default('max'),
    strength: percent('Strength', 100, 100, 'Share of the other alpha', 1),
    turn: setting({
      label: 'Turn',
      unit: '°',
      min: -180,
      max: 180,
      step: 1,
      fallback: 0,
      help: 'Turns the other alpha',
    }),
    scale: percent('Scale', 100, 400, 'Size of the other alpha', 1, 5),
  }),
  z.object({
    kind: z.literal('pad'),
    ...head,
    margin: percent('Margin', 6, 40, 'Kept clear on each side', 0.5),
    centre: z.boolean().default(true),
  }),
  z.object({
    kind: z.literal('cut'),
    ...head,
    outlines: z.array(OutlineSchema).max(400).default([]),
    soft: percent('Soft edge', 0.4, 10, 'Width of the matte along the outline, in per cent of the longer side', 0.05),
  }),
  z.object({
    kind: z.literal('retouch'),
    ...head,
    strokes: z.array(RetouchStrokeSchema).max(600, 'At most 600 strokes a step; add another step.').default([]),
  }),
]);
export type Step = z.infer<typeof StepSchema>;
export type StepKind = Step['kind'];
export type StepOf<K extends StepKind> = Extract<Step, { kind: K }>;
export const STEP_KINDS = StepSchema.options.map((o) => o.shape.kind.value) as readonly StepKind[];
export const MOST_STEPS = 40;

/** The tone of a sheet's bare paper: a coarse grid, one value a plane, read bilinearly. */
export const PaperSchema = z.object({
  columns: z.number().int().min(1).max(32),
  rows: z.number().int().min(1).max(32),
  planes: z
    .array(z.array(z.number().min(0).max(4)).max(1024))
    .min(1)
    .max(3),
});
export type Paper = z.infer<typeof PaperSchema>;

/** What a recipe begins with. */
export const BaseSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('sheet'),
    blob: BlobHashSchema,
    /** Window of the sheet in its own pixels; it may reach over the sheet's sides. */
    x: z.number(),
    y: z.number(),
    width: z.number().positive(),
    height: z.number().positive(),
    sheetWidth: z.number().int().positive(),
    sheetHeight: z.number().int().positive(),
    paper: PaperSchema.nullable().default(null),
    /** Marks are darker than the paper, and become high. */
    dark: z.boolean().default(true),
  }),
  z.object({ kind: z.literal('lettering'), sourceId: z.uuid() }),
  z.object({ kind: z.literal('pattern'), sourceId: z.uuid() }),
  /** A picture that is kept as it is: the cast of a slab, size × size. */
  z.object({
    kind: z.literal('cast'),
    blob: BlobHashSchema,
    format: z.enum(['grey16', 'grey32f']),
    size: z.number().int().min(8).max(8192),
  }),
]);
export type Base = z.infer<typeof BaseSchema>;

export const RecipeSchema = z.object({
  base: BaseSchema,
  steps: z.array(StepSchema).max(MOST_STEPS, `A recipe has at most ${MOST_STEPS} steps.`).default([]),
});
export type Recipe = z.infer<typeof RecipeSchema>;

/** A step of this kind as it is when it is added. */
export function newStep(kind: StepKind, id: string): Step {
  return StepSchema.parse({ kind, id });
}

/** The schema of one kind of step, for its settings' ranges. */
export function stepSchema(kind: StepKind) {
  return StepSchema.options.find((o) => o.shape.kind.value === kind)!;
}
