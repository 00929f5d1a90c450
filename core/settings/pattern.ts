/** Patterns that are grown from a seed. */
import { z } from 'zod';
import { setting } from './setting';

const seed = setting({
  label: 'Seed',
  unit: '',
  min: 1,
  max: 99999,
  step: 1,
  fallback: 1,
  help: 'Another number gives another pattern of the same kind',
});
const scale = (fallback: number, max = 40) =>
  setting({
    label: 'Across',
    unit: '',
    min: 1,
    max,
    step: 1,
    fallback,
    scale: 'log',
    help: 'How many stand beside each other',
  });
const percent = (label: string, fallback: number, help: string, min = 0, max = 100) =>
  setting({ label, unit: '%', min, max, step: 1, fallback, help });
const count = (label: string, fallback: number, min: number, max: number, help: string) =>
  setting({ label, unit: '', min, max, step: 1, fallback, help });
const common = { seed, tiles: z.boolean().default(true) };

export const GrowSchema = z.discriminatedUnion('form', [
  z.object({
    form: z.literal('soft'),
    ...common,
    across: scale(4),
    octaves: count('Layers', 5, 1, 8, 'Finer and finer noise laid over it'),
    rough: percent('Roughness', 50, 'How much of the finer layers is kept', 10, 90),
    stretch: percent('Stretch', 0, 'Draws it out sideways'),
  }),
  z.object({
    form: z.literal('ridges'),
    ...common,
    across: scale(4),
    octaves: count('Layers', 5, 1, 8, 'Finer and finer ridges'),
    sharp: percent('Sharpness', 60, 'How thin the crests are'),
    bend: percent('Bend', 30, 'How far they wander'),
  }),
  z.object({
    form: z.literal('cells'),
    ...common,
    across: scale(7),
    loose: percent('Looseness', 85, 'How far cells stand from a grid'),
    dome: percent('Dome', 70, 'Flat tops or round ones'),
    gap: percent('Gap', 14, 'Width of the grooves between'),
  }),
  z.object({
    form: z.literal('scales'),
    ...common,
    across: scale(8),
    overlap: percent('Overlap', 50, 'How far each lies under the next', 10, 90),
    point: percent('Point', 25, 'Round or pointed'),
    uneven: percent('Unevenness', 15, 'Size and height vary'),
  }),
  z.object({
    form: z.literal('cracks'),
    ...common,
    across: scale(5),
    width: percent('Width', 14, 'Width of the cracks', 2),
    ragged: percent('Raggedness', 40, 'How far they wander'),
    branch: percent('Branches', 50, 'Finer cracks within the plates'),
  }),
  z.object({
    form: z.literal('weave'),
    ...common,
    across: scale(8),
    fill: percent('Thread', 82, 'Width of the threads', 30),
    over: count('Over', 1, 1, 4, 'Threads passed over before going under'),
    round: percent('Roundness', 70, 'Flat bands or round cords'),
    fray: percent('Fray', 12, 'Fibres along the threads'),
  }),
  z.object({
    form: z.literal('fibres'),
    ...common,
    across: scale(24, 120),
    length: percent('Length', 40, 'How long the fibres are'),
    turn: setting({ label: 'Turn', unit: '°', min: -90, max: 90, step: 1, fallback: 0, help: 'Their direction' }),
    tangle: percent('Tangle', 25, 'How much their direction varies'),
  }),
  z.object({
    form: z.literal('pebbles'),
    ...common,
    across: scale(7),
    fill: percent('Fill', 85, 'How densely they lie'),
    vary: percent('Variety', 55, 'Large and small together'),
    flat: percent('Flatness', 25, 'Worn flat or round'),
  }),
  z.object({
    form: z.literal('ripple'),
    ...common,
    across: scale(9),
    bend: percent('Bend', 35, 'How far the crests wander'),
    lean: percent('Lean', 45, 'One side steeper'),
    fork: percent('Forks', 30, 'Crests that join and end'),
  }),
  z.object({
    form: z.literal('dots'),
    ...common,
    across: scale(9),
    size: percent('Size', 60, 'Diameter, in per cent of the grid', 5),
    jitter: percent('Jitter', 30, 'How far dots stand from the grid'),
    vary: percent('Variety', 25, 'Sizes and heights vary'),
    edge: percent('Edge', 50, 'Flat discs or domes'),
  }),
  z.object({
    form: z.literal('wisps'),
    ...common,
    spread: percent('Spread', 50, 'How far the wisps reach'),
    twist: percent('Twist', 50, 'Another balance of the map'),
    fine: percent('Fineness', 55, 'Contrast of the faint parts'),
    folds: count('Folds', 1, 1, 8, 'Copies about the middle'),
  }),
]);
export type Grow = z.infer<typeof GrowSchema>;
export type PatternForm = Grow['form'];
export type GrowOf<F extends PatternForm> = Extract<Grow, { form: F }>;
export const PATTERN_FORMS = GrowSchema.options.map((o) => o.shape.form.value) as readonly PatternForm[];

export function newGrow(form: PatternForm, seedNumber = 1): Grow {
  return GrowSchema.parse({ form, seed: seedNumber });
}

/** The schema of one form, for its settings' ranges. */
export function growSchema(form: PatternForm) {
  return GrowSchema.options.find((o) => o.shape.form.value === form)!;
}

export const PatternFields = {
  kind: z.literal('pattern'),
  grow: GrowSchema,
};
