import { computed, ref, shallowRef, type Ref } from 'vue';
import { pictureChecks } from '#core/checks';
import { MOST_STEPS, STEP_KINDS, type Alpha, type Recipe } from '#core/settings';
import type { RecipeAnswer } from '../workers/recipe.worker';
import { useRecipeSteps } from './recipeSteps';

function bench(answer: RecipeAnswer | null = null) {
  const alpha = ref({
    size: 256,
    recipe: { base: { kind: 'pattern', sourceId: '00000000-0000-4000-8000-000000000001' }, steps: [] } as Recipe,
  }) as Ref<Alpha & { recipe: Recipe }>;
  const labels: string[] = [];
  const chosen = ref<string | null>(null);
  const problem = ref<string | null>(null);
  let added = 0;
  const steps = useRecipeSteps({
    recipe: computed(() => alpha.value.recipe),
    chosen,
    problem,
    answer: shallowRef(answer),
    added: () => added++,
    edit: (label, change, held) => {
      labels.push(held?.held ? `${label} held` : label);
      change(alpha.value);
    },
  });
  return {
    ...steps,
    alpha,
    labels,
    chosen,
    problem,
    looks: () => added,
    kinds: () => alpha.value.recipe.steps.map((s) => s.kind),
  };
}

/** What was seen of a picture that lies on the ground but for a square in its middle. */
function answered(draw: (x: number, y: number) => number): RecipeAnswer {
  const size = 64;
  const seen = { width: size, height: size, data: new Float32Array(size * size) };
  for (let y = 0; y < size; y++) for (let x = 0; x < size; x++) seen.data[y * size + x] = draw(x / size, y / size);
  return {
    size,
    heights: seen.data,
    checks: pictureChecks(seen, false),
    before: null,
    missing: [],
    problems: [],
    through: false,
    milliseconds: 0,
  } as unknown as RecipeAnswer;
}

test('a step goes behind the chosen one, or to the end, and is chosen itself', () => {
  const b = bench();
  b.addStep('levels');
  b.addStep('blur');
  expect(b.kinds()).toEqual(['levels', 'blur']);
  b.chosen.value = b.alpha.value.recipe.steps[0].id;
  const id = b.addStep('invert');
  expect(b.kinds()).toEqual(['levels', 'invert', 'blur']);
  expect(b.chosen.value).toBe(id);
  expect(b.looks()).toBe(3);
  expect(new Set(b.alpha.value.recipe.steps.map((s) => s.id)).size).toBe(3);
});

test('a copy stands behind its own with the same settings; removing the chosen one leaves none chosen', () => {
  const b = bench();
  const id = b.addStep('blur', { radius: 7 })!;
  b.addStep('invert');
  b.copyStep(id);
  expect(b.kinds()).toEqual(['blur', 'blur', 'invert']);
  expect(b.alpha.value.recipe.steps[1]).toMatchObject({ radius: 7 });
  expect(b.chosen.value).toBe(b.alpha.value.recipe.steps[1].id);
  b.removeStep(b.chosen.value!);
  expect(b.chosen.value).toBeNull();
  b.removeStep(id);
  expect(b.kinds()).toEqual(['invert']);
  b.copyStep('nobody');
  expect(b.kinds()).toEqual(['invert']);
});

test('steps are put in another order by their ids; ids that are no step’s are passed over', () => {
  const b = bench();
  const ids = ['levels', 'blur', 'invert'].map((kind) => b.addStep(kind as 'levels')!);
  b.orderSteps([ids[2], 'nobody', ids[0], ids[1]]);
  expect(b.kinds()).toEqual(['invert', 'levels', 'blur']);
});

test('changes of one step have a label of their own, so that undo takes them together', () => {
  const b = bench();
  const [one, two] = [b.addStep('blur')!, b.addStep('blur')!];
  b.editStep(one, (step) => (step.on = false));
  b.editStep(two, (step) => (step.on = false), 'switch');
  expect(b.labels.slice(-2)).toEqual([`change ${one}`, `switch ${two}`]);
  b.editStep(one, (step) => (step.on = true), 'drag 1', { held: true });
  expect(b.labels.at(-1)).toBe(`drag 1 ${one} held`);
  b.editStep(one, (step) => (step.on = false), 'drag 1', { held: true });
  expect(b.alpha.value.recipe.steps.map((s) => s.on)).toEqual([false, false]);
});

test('every kind can be added with its defaults; more than fit are refused with a sentence', () => {
  const b = bench();
  for (const kind of STEP_KINDS) expect(b.addStep(kind)).not.toBeNull();
  while (b.alpha.value.recipe.steps.length < MOST_STEPS) b.addStep('invert');
  expect(b.addStep('invert')).toBeNull();
  expect(b.problem.value).toBe(`A recipe has at most ${MOST_STEPS} steps.`);
  expect(b.alpha.value.recipe.steps).toHaveLength(MOST_STEPS);
});

test('a check is mended by the step that it names; what can’t be mended has no label', () => {
  const edge = bench(answered((x) => (x < 0.5 ? 0 : 1)));
  expect(edge.mendLabel('margin')).toBe('Pad and centre');
  edge.mend('margin');
  expect(edge.kinds()).toEqual(['pad']);
  expect(edge.alpha.value.recipe.steps[0]).toMatchObject({ margin: 6 });
  const faint = bench(answered((x, y) => 0.4 + 0.1 * Math.exp(-((x - 0.5) ** 2 + (y - 0.5) ** 2) * 40)));
  faint.mend('used-range');
  expect(faint.kinds()).toEqual(['levels']);
  const levels = faint.alpha.value.recipe.steps[0] as unknown as { black: number; white: number };
  expect(levels.black).toBeCloseTo(0.4, 1);
  expect(levels.white).toBeCloseTo(0.5, 1);
  expect(bench().mendLabel('margin')).toBeNull();
  bench().mend('margin');
});

test('the true size is taken, never a larger one', () => {
  const smooth = bench(answered((x, y) => 0.5 + 0.5 * Math.cos(x * 6.283) * Math.cos(y * 6.283)));
  smooth.alpha.value.size = 32;
  smooth.mend('resolution');
  expect(smooth.alpha.value.size).toBe(32);
  smooth.alpha.value.size = 4096;
  smooth.mend('resolution');
  expect(smooth.alpha.value.size).toBeLessThanOrEqual(64);
  expect(smooth.kinds()).toEqual([]);
});
