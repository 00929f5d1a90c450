/** What was done on the rack, to be undone and done again, one after the other. */
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { isMissing } from '../api/client';
import { sentence } from './connection';

const MOST = 50;

export interface RackStep {
  /** A sentence: what was done. */
  done: string;
  undo: () => Promise<void>;
  /** Not given where it can’t be done again. */
  redo?: () => Promise<void>;
}

/** What is to be said of the latest of them. */
export type Said = { text: string } & ({ undo: () => Promise<void> } | { failed: boolean });

export const useRackSteps = defineStore('rackSteps', () => {
  const past = shallowRef<readonly RackStep[]>([]);
  const future = shallowRef<readonly RackStep[]>([]);
  const said = shallowRef<Said | null>(null);
  let last: Promise<void> = Promise.resolve();

  /** It was done: says so, and can take it back. */
  function did(step: RackStep, says = true): void {
    past.value = [...past.value.slice(1 - MOST), step];
    future.value = [];
    if (says) said.value = { text: step.done, undo: () => undoOne(step) };
  }

  /** One at a time, in the order asked for. */
  function inTurn(act: () => Promise<void>): Promise<void> {
    last = last.then(async () => {
      try {
        await act();
      } catch (error) {
        said.value = { text: sentence(error), failed: true };
      }
    });
    return last;
  }

  /** What is back by another way, or gone for good, is no step any more; what else fails stays to be undone. */
  async function takeBack(step: RackStep): Promise<void> {
    const drop = (): void => void (past.value = past.value.filter((one) => one !== step));
    try {
      await step.undo();
    } catch (error) {
      if (isMissing(error)) drop();
      throw error;
    }
    drop();
    if (step.redo) future.value = [...future.value, step];
  }

  const undoOne = (step: RackStep): Promise<void> =>
    inTurn(async () => {
      // It was taken back already, by its key or by its notice.
      if (past.value.includes(step)) await takeBack(step);
    });

  const undo = (): Promise<void> =>
    inTurn(async () => {
      const step = past.value.at(-1);
      if (!step) return;
      await takeBack(step);
      said.value = { text: `Undone: ${step.done}`, failed: false };
    });

  const redo = (): Promise<void> =>
    inTurn(async () => {
      const step = future.value.at(-1);
      if (!step?.redo) return;
      await step.redo();
      future.value = future.value.filter((one) => one !== step);
      past.value = [...past.value, step];
      said.value = { text: `Done again: ${step.done}`, failed: false };
    });

  return {
    said,
    did,
    undo,
    redo,
    canUndo: computed(() => past.value.length > 0),
    canRedo: computed(() => future.value.length > 0),
  };
});
