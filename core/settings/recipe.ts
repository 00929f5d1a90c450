/**
 * The recipe: ordered, re-runnable steps from a source to an alpha. Lengths are in per cent of the picture's longer
 * side, so that a recipe gives the same result on a reduced copy and at full size.
 */
import { z } from 'zod';
import { BlobHashSchema } from './blob';
import { CurveNodeSchema } from './curve';
import { PickStrokeSchema } from './pickOut';
import { RetouchStrokeSchema } from './retouch';
import { setting } from './setting';

const head = { id: z.uuid(), on: z.boolean().default(true) };
type Named = { label: string; fallback: number; help: string };
const percent = ({ min = 0, step = 0.1, ...own }: Named & { max: number; min?: number; step?: number }) =>
  setting({ unit: '%', min, step, ...own });
const grey = (own: Named) => setting({ unit: 'grey', min: 0, max: 1, step: 0.001, ...own });
const count = (own: Named & { min: number; max: number }) => setting({ unit: '', step: 1, ...own });

export const FLIPS = ['across', 'down', 'both'] as const;
export const BACKGROUND_WAYS = ['tone', 'click', 'edge'] as const;
export const MIRRORS = ['across', 'down', 'both', 'radial'] as const;
export const SHAPES = ['round', 'square'] as const;
export const PROFILES = ['round', 'chamfer', 'own'] as const;
export const COMBINE_WAYS = ['max', 'min', 'add', 'multiply', 'over'] as const;
export const PROPORTIONS = ['found', 'square', 'own'] as const;
export const EVEN_WAYS = ['bright', 'dark'] as const;

/** A closed outline as x, y pairs, 0–1 of the picture's width and height. */
export const OutlineSchema = z.array(z.number()).min(6, 'An outline needs at least three points.').max(8000);
export type Outline = z.infer<typeof OutlineSchema>;

export const StepSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('crop'),
    ...head,
    left: percent({ label: 'Left', fallback: 0, max: 95, help: 'Cut off on the left' }),
    right: percent({ label: 'Right', fallback: 0, max: 95, help: 'Cut off on the right' }),
    top: percent({ label: 'Top', fallback: 0, max: 95, help: 'Cut off at the top' }),
    bottom: percent({ label: 'Bottom', fallback: 0, max: 95, help: 'Cut off at the bottom' }),
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
  z.object({
    kind: z.literal('perspective'),
    ...head,
    /** x, y of upper left, upper right, lower right, lower left, 0–1 of width and height. */
    corners: z
      .array(z.number().min(-1).max(2))
      .length(8, 'There are four corners.')
      .default([0.1, 0.1, 0.9, 0.1, 0.9, 0.9, 0.1, 0.9]),
    proportion: z.enum(PROPORTIONS).default('found'),
    ratio: setting({
      label: 'Width : height',
      unit: '',
      min: 0.1,
      max: 10,
      step: 0.01,
      fallback: 1,
      scale: 'log',
      help: 'Width over height of what is straightened',
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
    red: percent({ label: 'Red', fallback: 21, max: 200, help: 'Share of red in the grey', step: 1, min: -200 }),
    green: percent({ label: 'Green', fallback: 72, max: 200, help: 'Share of green in the grey', step: 1, min: -200 }),
    blue: percent({ label: 'Blue', fallback: 7, max: 200, help: 'Share of blue in the grey', step: 1, min: -200 }),
  }),
  z.object({
    kind: z.literal('levels'),
    ...head,
    black: grey({ label: 'Black', fallback: 0, help: 'Greys below become black' }),
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
    white: grey({ label: 'White', fallback: 1, help: 'Greys above become white' }),
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
    level: grey({ label: 'Level', fallback: 0.5, help: 'Greys above become white' }),
    soft: percent({
      label: 'Soft edge',
      fallback: 4,
      max: 100,
      help: 'Width of the slope from black to white, in per cent of the tones',
    }),
  }),
  z.object({
    kind: z.literal('blur'),
    ...head,
    radius: percent({
      label: 'Radius',
      fallback: 0.4,
      max: 20,
      help: 'Spread of the Gaussian, in per cent of the longer side',
      step: 0.01,
    }),
  }),
  z.object({
    kind: z.literal('sharpen'),
    ...head,
    radius: percent({
      label: 'Radius',
      fallback: 0.3,
      max: 10,
      help: 'Size of what is sharpened, in per cent of the longer side',
      step: 0.01,
    }),
    amount: percent({ label: 'Amount', fallback: 80, max: 400, help: 'How much is added', step: 1 }),
  }),
  z.object({
    kind: z.literal('despeckle'),
    ...head,
    size: percent({
      label: 'Size',
      fallback: 0.1,
      max: 2,
      help: 'Specks up to this size are removed, in per cent of the longer side',
      step: 0.01,
    }),
    contrast: percent({
      label: 'Contrast',
      fallback: 0,
      max: 100,
      help: 'Only what stands out by more than this is removed',
      step: 1,
    }),
  }),
  z.object({
    kind: z.literal('background'),
    ...head,
    by: z.enum(BACKGROUND_WAYS).default('edge'),
    tone: grey({ label: 'Tone', fallback: 0, help: 'The background’s grey' }),
    x: z.number().min(0).max(1).default(0.02),
    y: z.number().min(0).max(1).default(0.02),
    tolerance: percent({
      label: 'Tolerance',
      fallback: 8,
      max: 100,
      help: 'Greys this close belong to the background',
      step: 0.5,
    }),
    soft: percent({
      label: 'Soft',
      fallback: 6,
      max: 100,
      help: 'Width of the matte from background to form, in per cent of the tones',
      step: 0.5,
    }),
  }),
  z.object({
    kind: z.literal('even'),
    ...head,
    size: percent({
      label: 'Size',
      fallback: 12,
      max: 60,
      help: 'What is larger than this counts as uneven light',
      step: 0.5,
      min: 1,
    }),
    way: z.enum(EVEN_WAYS).default('bright'),
  }),
  z.object({
    kind: z.literal('pickOut'),
    ...head,
    strokes: z.array(PickStrokeSchema).max(200, 'At most 200 strokes a step; remove some.').default([]),
    edge: percent({
      label: 'Edge',
      fallback: 1,
      max: 8,
      help: 'How far round the found edge hair and fringe are looked for',
      step: 0.1,
      min: 0.1,
    }),
  }),
  z.object({
    kind: z.literal('shading'),
    ...head,
    light: setting({
      label: 'Light from',
      unit: '°',
      min: -180,
      max: 180,
      step: 1,
      fallback: 135,
      help: 'Where the light comes from, anticlockwise from the right',
    }),
    largest: percent({
      label: 'Largest',
      fallback: 30,
      max: 100,
      help: 'Forms wider than this are left out: large changes of tone are mostly light and colour',
      step: 1,
      min: 2,
    }),
    calm: percent({
      label: 'Calm',
      fallback: 25,
      max: 100,
      help: 'Calms streaks that run the way the light falls',
      step: 1,
      min: 2,
    }),
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
    radius: percent({
      label: 'Radius',
      fallback: 0.8,
      max: 8,
      help: 'Width over which a terrace is smoothed',
      step: 0.05,
      min: 0.05,
    }),
  }),
  z.object({
    kind: z.literal('noise'),
    ...head,
    amount: percent({ label: 'Amount', fallback: 6, max: 100, help: 'Height of the noise', step: 0.5 }),
    size: percent({
      label: 'Size',
      fallback: 1,
      max: 40,
      help: 'Size of its largest lumps, in per cent of the longer side',
      step: 0.05,
      min: 0.05,
    }),
    seed: count({ label: 'Seed', fallback: 1, min: 1, max: 9999, help: 'Another number gives different noise' }),
  }),
  z.object({
    kind: z.literal('feather'),
    ...head,
    shape: z.enum(SHAPES).default('round'),
    start: percent({ label: 'Start', fallback: 80, max: 99, help: 'Share of the ring that stays whole', step: 0.5 }),
    end: percent({ label: 'End', fallback: 98, max: 141, help: 'Where the ground is reached', step: 0.5, min: 1 }),
  }),
  z.object({
    kind: z.literal('symmetry'),
    ...head,
    way: z.enum(MIRRORS).default('across'),
    copies: count({ label: 'Copies', fallback: 6, min: 2, max: 64, help: 'Copies around the middle' }),
  }),
  z.object({
    kind: z.literal('repeat'),
    ...head,
    columns: count({ label: 'Columns', fallback: 2, min: 1, max: 16, help: 'Side by side' }),
    rows: count({ label: 'Rows', fallback: 2, min: 1, max: 16, help: 'One below another' }),
  }),
  z.object({
    kind: z.literal('seamless'),
    ...head,
    overlap: percent({
      label: 'Overlap',
      fallback: 20,
      max: 50,
      help: 'Width over which opposite sides are blended',
      step: 1,
      min: 2,
    }),
  }),
  z.object({
    kind: z.literal('terrace'),
    ...head,
    steps: count({ label: 'Steps', fallback: 6, min: 2, max: 64, help: 'How many levels' }),
    soft: percent({ label: 'Soft edge', fallback: 20, max: 100, help: 'Share of each step that slopes', step: 1 }),
  }),
  z.object({
    kind: z.literal('bevel'),
    ...head,
    level: grey({
      label: 'Outline at',
      fallback: 0.5,
      help: 'The grey of the outline, as a share of its form’s own grey',
    }),
    width: percent({
      label: 'Width',
      fallback: 4,
      max: 50,
      help: 'From the outline to full height, in per cent of the longer side',
      step: 0.05,
      min: 0.05,
    }),
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
    strength: percent({ label: 'Strength', fallback: 100, max: 100, help: 'Share of the other alpha', step: 1 }),
    turn: setting({
      label: 'Turn',
      unit: '°',
      min: -180,
      max: 180,
      step: 1,
      fallback: 0,
      help: 'Turns the other alpha',
    }),
    scale: percent({ label: 'Scale', fallback: 100, max: 400, help: 'Size of the other alpha', step: 1, min: 5 }),
  }),
  z.object({
    kind: z.literal('pad'),
    ...head,
    margin: percent({ label: 'Margin', fallback: 6, max: 40, help: 'Kept clear on each side', step: 0.5 }),
    centre: z.boolean().default(true),
  }),
  z.object({
    kind: z.literal('cut'),
    ...head,
    outlines: z.array(OutlineSchema).max(400).default([]),
    soft: percent({
      label: 'Soft edge',
      fallback: 0.4,
      max: 10,
      help: 'Width of the matte along the outline, in per cent of the longer side',
      step: 0.05,
    }),
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
