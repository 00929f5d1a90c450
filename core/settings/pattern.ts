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
    help: 'How many stand side by side',
  });
type Named = { label: string; fallback: number; help: string };
const percent = ({ min = 0, max = 100, ...own }: Named & { min?: number; max?: number }) =>
  setting({ unit: '%', min, max, step: 1, ...own });
const count = (own: Named & { min: number; max: number }) => setting({ unit: '', step: 1, ...own });
const common = { seed, tiles: z.boolean().default(true) };

export const GrowSchema = z.discriminatedUnion('form', [
  z.object({
    form: z.literal('soft'),
    ...common,
    across: scale(4),
    octaves: count({ label: 'Layers', fallback: 5, min: 1, max: 8, help: 'Finer and finer noise laid over it' }),
    rough: percent({
      label: 'Roughness',
      fallback: 50,
      help: 'How much of the finer layers is kept',
      min: 10,
      max: 90,
    }),
    stretch: percent({ label: 'Stretch', fallback: 0, help: 'Draws it out sideways' }),
  }),
  z.object({
    form: z.literal('ridges'),
    ...common,
    across: scale(4),
    octaves: count({ label: 'Layers', fallback: 5, min: 1, max: 8, help: 'Finer and finer ridges' }),
    sharp: percent({ label: 'Sharpness', fallback: 60, help: 'How thin the crests are' }),
    bend: percent({ label: 'Bend', fallback: 30, help: 'How far they wander' }),
  }),
  z.object({
    form: z.literal('cells'),
    ...common,
    across: scale(7),
    loose: percent({ label: 'Looseness', fallback: 85, help: 'How far cells stand from a grid' }),
    dome: percent({ label: 'Dome', fallback: 70, help: 'Flat tops or round ones' }),
    gap: percent({ label: 'Gap', fallback: 14, help: 'Width of the grooves between' }),
  }),
  z.object({
    form: z.literal('scales'),
    ...common,
    across: scale(8),
    overlap: percent({ label: 'Overlap', fallback: 50, help: 'How far each lies under the next', min: 10, max: 90 }),
    point: percent({ label: 'Point', fallback: 25, help: 'Round or pointed' }),
    uneven: percent({ label: 'Unevenness', fallback: 15, help: 'Size and height vary' }),
  }),
  z.object({
    form: z.literal('cracks'),
    ...common,
    across: scale(5),
    width: percent({ label: 'Width', fallback: 14, help: 'Width of the cracks', min: 2 }),
    ragged: percent({ label: 'Raggedness', fallback: 40, help: 'How far they wander' }),
    branch: percent({ label: 'Branches', fallback: 50, help: 'Finer cracks within the plates' }),
  }),
  z.object({
    form: z.literal('weave'),
    ...common,
    across: scale(8),
    fill: percent({ label: 'Thread', fallback: 82, help: 'Width of the threads', min: 30 }),
    over: count({ label: 'Over', fallback: 1, min: 1, max: 4, help: 'Threads passed over before going under' }),
    round: percent({ label: 'Roundness', fallback: 70, help: 'Flat bands or round cords' }),
    fray: percent({ label: 'Fray', fallback: 12, help: 'Fibres along the threads' }),
  }),
  z.object({
    form: z.literal('fibres'),
    ...common,
    across: scale(24, 120),
    length: percent({ label: 'Length', fallback: 40, help: 'How long the fibres are' }),
    turn: setting({ label: 'Turn', unit: '°', min: -90, max: 90, step: 1, fallback: 0, help: 'Their direction' }),
    tangle: percent({ label: 'Tangle', fallback: 25, help: 'How much their direction varies' }),
  }),
  z.object({
    form: z.literal('pebbles'),
    ...common,
    across: scale(7),
    fill: percent({ label: 'Fill', fallback: 85, help: 'How densely they lie' }),
    vary: percent({ label: 'Variety', fallback: 55, help: 'Large and small together' }),
    flat: percent({ label: 'Flatness', fallback: 25, help: 'Worn flat or round' }),
  }),
  z.object({
    form: z.literal('ripple'),
    ...common,
    across: scale(9),
    bend: percent({ label: 'Bend', fallback: 35, help: 'How far the crests wander' }),
    lean: percent({ label: 'Lean', fallback: 45, help: 'One side steeper' }),
    fork: percent({ label: 'Forks', fallback: 30, help: 'Crests that join and end' }),
  }),
  z.object({
    form: z.literal('dots'),
    ...common,
    across: scale(9),
    size: percent({ label: 'Size', fallback: 60, help: 'Diameter, in per cent of the grid', min: 5 }),
    jitter: percent({ label: 'Jitter', fallback: 30, help: 'How far dots stand from the grid' }),
    vary: percent({ label: 'Variety', fallback: 25, help: 'Sizes and heights vary' }),
    edge: percent({ label: 'Edge', fallback: 50, help: 'Flat discs or domes' }),
  }),
  z.object({
    form: z.literal('wisps'),
    ...common,
    spread: percent({ label: 'Spread', fallback: 50, help: 'How far the wisps reach' }),
    twist: percent({ label: 'Twist', fallback: 50, help: 'Another balance of the map' }),
    fine: percent({ label: 'Fineness', fallback: 55, help: 'Contrast of the faint parts' }),
    folds: count({ label: 'Folds', fallback: 1, min: 1, max: 8, help: 'Copies around the middle' }),
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
