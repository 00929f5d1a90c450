/**
 * Changes of a recipe's steps: one added behind the chosen one, changed, copied, put in another order, or added to mend
 * what a check found.
 */
import type { ComputedRef, Ref, ShallowRef } from 'vue';
import type { Check } from '#core/checks';
import { mendOf, type Mend } from '#core/recipe';
import { MOST_STEPS, newStep, StepSchema, type Alpha, type Recipe, type Step, type StepKind } from '#core/settings';
import type { RecipeAnswer } from '../workers/recipe.worker';
import { plain } from '../api/plain';

export interface Held {
  held: boolean;
}

export interface RecipeStepsOptions {
  recipe: ComputedRef<Recipe | null>;
  /** Changes the alpha. Changes of the same label in quick succession are one undo step. */
  edit: (label: string, change: (alpha: Alpha & { recipe: Recipe | null }) => void, held?: Held) => void;
  /** The id of the step that is chosen. */
  chosen: Ref<string | null>;
  problem: Ref<string | null>;
  answer: ShallowRef<RecipeAnswer | null>;
  added: () => void;
}

export function useRecipeSteps({ recipe, edit, chosen, problem, answer, added }: RecipeStepsOptions) {
  function addStep(kind: StepKind, given: Record<string, unknown> = {}): string | null {
    if ((recipe.value?.steps.length ?? 0) >= MOST_STEPS) {
      problem.value = `A recipe has at most ${MOST_STEPS} steps.`;
      return null;
    }
    const id = crypto.randomUUID();
    const after = recipe.value?.steps.findIndex((s) => s.id === chosen.value) ?? -1;
    const made = StepSchema.parse({ ...newStep(kind, id), ...given, id });
    edit(`add ${id}`, ({ recipe: r }) => r!.steps.splice(after < 0 ? r!.steps.length : after + 1, 0, made));
    chosen.value = id;
    added();
    return id;
  }

  /** `held` while the hand holds on: changes of one label are one step of undo then, however long it takes. */
  function editStep(id: string, change: (step: Step) => void, label = 'change', held?: Held): void {
    edit(
      `${label} ${id}`,
      ({ recipe: r }) => {
        const own = r!.steps.find((s) => s.id === id);
        if (own) change(own);
      },
      held,
    );
  }

  function removeStep(id: string): void {
    edit(`remove ${id}`, ({ recipe: r }) => (r!.steps = r!.steps.filter((s) => s.id !== id)));
    if (chosen.value === id) chosen.value = null;
  }

  function copyStep(id: string): void {
    const own = recipe.value?.steps.find((s) => s.id === id);
    if (!own) return;
    chosen.value = id;
    addStep(own.kind, plain(own));
  }

  function orderSteps(ids: readonly string[]): void {
    edit(
      'order',
      ({ recipe: r }) => (r!.steps = ids.map((id) => r!.steps.find((s) => s.id === id)).filter((s) => s !== undefined)),
    );
  }

  function mendFor(name: Check['name']): Mend | null {
    return answer.value && mendOf(name, answer.value.checks, answer.value.size);
  }

  function mend(name: Check['name']): void {
    const found = mendFor(name);
    if (found?.kind === 'step') addStep(found.step, found.given);
    else if (found) edit('size', (alpha) => (alpha.size = Math.min(alpha.size, found.size)));
  }

  return {
    addStep,
    editStep,
    removeStep,
    copyStep,
    orderSteps,
    mend,
    mendLabel: (name: Check['name']) => mendFor(name)?.label ?? null,
  };
}
