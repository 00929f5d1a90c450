/** What is done to one brush of the rack: opened, copied, renamed, deleted, put on the belt. */
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { BASE_BRUSHES } from '#core/presets';
import { FAVOURITES_ID, NameSchema } from '#core/settings';
import type { BrushHead } from '#core/stored';
import { failNotice } from '../controls/undoNotice';
import { useBelts } from '../stores/belts';
import { useBrushBench } from '../stores/brushBench';
import { sentence } from '../stores/connection';
import { useLibrary } from '../stores/library';
import { useRackSteps } from '../stores/rackSteps';
import type { Entry } from './entries';

export function useRackBrushes() {
  const router = useRouter();
  const library = useLibrary();
  const bench = useBrushBench();
  const steps = useRackSteps();
  const belts = useBelts();
  const renaming = ref<BrushHead | null>(null);

  function open(brush: { id: string }): void {
    void router.push(`/bench/brush/${brush.id}`);
  }

  async function fresh(): Promise<void> {
    open(await library.copyBrush(BASE_BRUSHES[0], 'New brush'));
  }

  async function copy({ id, card }: BrushHead): Promise<void> {
    try {
      const brush = await library.brush(id);
      if (brush) open(await library.copyBrush(brush));
      else
        failNotice(`“${card.name}” can’t be copied: the server can’t be reached, or it was deleted in another window.`);
    } catch (error) {
      failNotice(sentence(error));
    }
  }

  function askName(brush: BrushHead): void {
    renaming.value = brush;
  }

  /** A saved brush is renamed at once; a draft's name goes on being a draft's. Throws a sentence where it can't be. */
  async function rename(wanted: string): Promise<void> {
    const brush = renaming.value;
    if (!brush) return;
    const name = NameSchema.safeParse(wanted);
    if (!name.success) throw new Error(name.error.issues[0].message);
    const old = brush.card.name;
    await putName(brush.id, name.data);
    if (old === name.data) return;
    steps.did({
      done: `“${old}” is now “${name.data}”.`,
      undo: () => putName(brush.id, old),
      redo: () => putName(brush.id, name.data),
    });
  }

  async function putName(id: string, name: string): Promise<void> {
    await bench.open(id);
    const stored = bench.saved;
    await bench.edit((brush) => {
      brush.card.name = name;
    });
    await bench.keepDraft();
    if (!stored) return;
    const hadDraft =
      JSON.stringify({ ...bench.doc, card: { ...bench.doc?.card, name: stored.doc.card.name } }) !==
      JSON.stringify(stored.doc);
    if (hadDraft) return;
    if (!(await bench.save()) && bench.nameProblem) {
      const message = bench.nameProblem;
      await bench.revert();
      throw new Error(message);
    }
  }

  async function remove({ brush }: Entry): Promise<void> {
    const belt = [...library.beltIds];
    try {
      if (library.has('brushes', brush.id)) {
        await library.remove('brushes', brush.id);
        steps.did({
          done: `“${brush.card.name}” deleted.`,
          undo: async () => {
            await library.restore('brushes', brush.id);
            await library.setBelt(belt);
          },
          redo: () => library.remove('brushes', brush.id),
        });
      } else {
        const draft = library.drafts.find((d) => d.doc.id === brush.id);
        await library.dropDraft(brush.id);
        steps.did({
          done: `Draft “${brush.card.name}” discarded.`,
          undo: async () => {
            if (draft) await library.keepDraft(draft);
          },
        });
      }
    } catch (error) {
      failNotice(sentence(error));
    }
  }

  async function toBelt(brush: BrushHead): Promise<void> {
    await toggle(belts.open.id, brush);
  }
  async function toFavourites(brush: BrushHead): Promise<void> {
    await toggle(FAVOURITES_ID, brush);
  }
  async function toggle(belt: string, { id }: BrushHead): Promise<void> {
    try {
      await belts.toggle(belt, id);
    } catch (error) {
      failNotice(sentence(error));
    }
  }

  return { renaming, open, fresh, copy, askName, rename, remove, toBelt, toFavourites };
}
