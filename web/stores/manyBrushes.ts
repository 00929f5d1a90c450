/** What is done to many brushes at once, as one step: cards changed, copies made, brushes deleted. */
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { BrushSchema, SETTING_GROUPS, type Brush, type Card } from '#core/settings';
import * as api from '../api/client';
import { plain } from '../api/plain';
import { sentence } from './connection';
import { useLibrary } from './library';
import { counted } from './packs';
import { useRackSteps } from './rackSteps';

export const useManyBrushes = defineStore('manyBrushes', () => {
  const library = useLibrary();
  const steps = useRackSteps();
  /** How far it is; null while nothing runs. */
  const progress = ref<{ done: number; of: number } | null>(null);
  let cancelled = false;

  /**
   * One after the other, up to the first that can’t be done. What was done is a step; what wasn’t is said.
   * `what` says in a sentence what was done to so many.
   */
  async function each(
    ids: readonly string[],
    what: (count: string) => string,
    act: (id: string) => Promise<() => Promise<void>>,
  ): Promise<void> {
    if (progress.value) throw new Error('Something is being done to many brushes already. Wait until it finishes.');
    const backs: (() => Promise<void>)[] = [];
    cancelled = false;
    progress.value = { done: 0, of: ids.length };
    let failure: unknown = null;
    try {
      for (const id of ids) {
        if (cancelled) break;
        backs.push(await act(id));
        progress.value = { done: backs.length, of: ids.length };
      }
    } catch (error) {
      failure = error;
    } finally {
      progress.value = null;
    }
    if (backs.length > 0)
      steps.did({
        done: what(counted(backs.length)),
        undo: async () => {
          for (const back of [...backs].reverse()) await back();
        },
      });
    if (failure) throw new Error(leftOver(ids.length - backs.length, ids.length, failure));
  }

  function leftOver(left: number, of: number, error: unknown): string {
    return of === 1 ? sentence(error) : `${counted(left)} of ${of} left as before. ${sentence(error)}`;
  }

  /** A draft goes on being one, with the change in it; anything else is saved. */
  async function changed(id: string, edit: (brush: Brush) => void): Promise<void> {
    const draft = library.drafts.find(({ doc }) => doc.id === id);
    const stored = draft ? null : await library.savedBrush(id);
    const doc = draft?.doc ?? stored?.doc;
    if (!doc) throw new Error('A brush isn’t here any more; it was deleted in another window.');
    const next = plain(doc) as Brush;
    edit(next);
    const read = BrushSchema.safeParse(next);
    if (!read.success) throw new Error(`“${doc.card.name}”: ${read.error.issues[0].message}`);
    if (draft) await library.keepDraft({ ...draft, doc: read.data, keptAt: Date.now() });
    else library.putBrush(await api.save('brushes', read.data, stored!.revision));
  }

  function editCards(
    ids: readonly string[],
    what: (count: string) => string,
    edit: (card: Card, index: number) => void,
  ): Promise<void> {
    return each(ids, what, async (id) => {
      let before: Card | null = null;
      await changed(id, (brush) => {
        before = plain(brush.card) as Card;
        edit(brush.card, ids.indexOf(id));
      });
      return () => changed(id, (brush) => (brush.card = { ...before! }));
    });
  }

  /** Each takes the settings that were copied; undone, it has its own again. */
  function paste(ids: readonly string[], told: string, put: (brush: Brush) => void): Promise<void> {
    return each(
      ids,
      (count) => `${count} took ${told}.`,
      async (id) => {
        let before: Brush | null = null;
        await changed(id, (brush) => {
          before = plain(brush) as Brush;
          put(brush);
        });
        return () =>
          changed(id, (brush) => {
            for (const group of SETTING_GROUPS) Object.assign(brush, { [group]: before![group] });
          });
      },
    );
  }

  function remove(ids: readonly string[]): Promise<void> {
    const belt = [...library.beltIds];
    return each(
      ids,
      (count) => `${count} deleted.`,
      async (id) => {
        const draft = library.drafts.find(({ doc }) => doc.id === id);
        if (draft) await library.dropDraft(id);
        const stored = library.has('brushes', id);
        if (stored) await library.remove('brushes', id);
        return async () => {
          if (stored) await library.restore('brushes', id);
          if (draft) await library.keepDraft(draft);
          if (belt.includes(id))
            await library.setBelt(belt.filter((one) => one === id || library.beltIds.includes(one)));
        };
      },
    );
  }

  /** Copies are drafts until they are saved. */
  function copy(ids: readonly string[]): Promise<void> {
    return each(
      ids,
      (count) => `${count} copied.`,
      async (id) => {
        const brush = await library.brush(id);
        if (!brush) throw new Error('A brush can’t be copied: the server can’t be reached, or it was deleted.');
        const made = await library.copyBrush(brush);
        return () => library.dropDraft(made.id);
      },
    );
  }

  return { progress, editCards, paste, remove, copy, cancel: () => (cancelled = true) };
});
