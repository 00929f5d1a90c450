/** Casting alphas anew from their sources as these are saved now, one or many, as one step that is undone. */
import { defineStore } from 'pinia';
import { CastCancelled } from '#core/cast';
import type { AlphaHead, StoredDocument } from '#core/stored';
import type { Alpha, Patch, Scan, Slab, Source } from '#core/settings';
import { counted } from '#core/words';
import * as api from '../api/client';
import { hasDraft } from '../api/drafts';
import { plain } from '../api/plain';
import { Caster } from '../workers/caster';
import { ScanThread } from '../workers/scanThread';
import { Sculptor } from '../workers/sculptor';
import { castAlpha } from './castAlpha';
import { sentence, useConnection } from './connection';
import { fullCast, keepCast, type FullCast, type Keeping } from './keepCast';
import { useLibrary } from './library';
import { coloursOf, patchCast } from './patchCast';
import { useRackSteps } from './rackSteps';
import { savedClay } from './slabClay';
import { useWork, type WorkHand } from './work';

const ON = 'casts';
type Saved<T extends Source> = Omit<StoredDocument<'sources'>, 'doc'> & { doc: T };

export const useRecast = defineStore('recast', () => {
  const library = useLibrary();
  const steps = useRackSteps();
  const connection = useConnection();
  const work = useWork();

  /** One after the other, up to Cancel; what can’t be cast anew is left as it is, and said. */
  async function recast(alphas: readonly AlphaHead[]): Promise<void> {
    if (work.find(ON)) throw new Error('Alphas are being cast anew already. Wait until it finishes, or cancel it.');
    const done: { before: StoredDocument<'alphas'>; after: StoredDocument<'alphas'> }[] = [];
    const failed: string[] = [];
    const one = alphas.length === 1 ? alphas[0] : null;
    await work.run(one ? `Casting “${one.card.name}” anew` : 'Casting alphas anew', ON, async (hand) => {
      for (const [i, { id, card }] of alphas.entries()) {
        if (hand.cancelled) break;
        const report = (share: number): void =>
          hand.report((i + share) / alphas.length, one ? '' : `${i + 1} of ${alphas.length}`);
        report(0);
        try {
          const before = await api.get('alphas', id);
          await castAnew(before, {
            report,
            onCancel: hand.onCancel,
            get cancelled() {
              return hand.cancelled;
            },
          });
          done.push({ before, after: await api.get('alphas', id) });
        } catch (error) {
          // What Cancel ended is no failure.
          if (hand.cancelled) break;
          connection.noticed(error);
          failed.push(`“${card.name}”: ${sentence(error)}`);
        }
      }
    });
    if (done.length > 0)
      steps.did({
        done: `${one ? `“${one.card.name}”` : counted(done.length, 'alpha')} cast anew.`,
        undo: () => putBack(done.map(({ before, after }) => ({ doc: before.doc, on: after.revision }))),
      });
    if (failed.length > 0) throw new Error(`Not cast anew. ${failed.join(' ')}`);
  }

  /** All or none: what was changed since is looked at first. */
  async function putBack(all: readonly { doc: Alpha; on: number }[]): Promise<void> {
    for (const { doc, on } of all)
      if (library.alpha(doc.id)?.revision !== on)
        throw new Error(`“${doc.card.name}” was changed since it was cast anew; it stays.`);
    for (const { doc, on } of all) library.putAlpha(await api.save('alphas', doc, on));
  }

  async function castAnew(before: StoredDocument<'alphas'>, hand: WorkHand): Promise<void> {
    const { id, lineage } = before.doc;
    if (await hasDraft(id))
      throw new Error('It has changes that aren’t saved. Open it, and save or revert them first.');
    if (lineage.sourceId === null) throw new Error('It was cast from no source.');
    const source = await api.get('sources', lineage.sourceId);
    switch (source.doc.kind) {
      case 'slab':
        return ofSlab(before, source as Saved<Slab>, hand);
      case 'scan':
        return ofScan(before, source as Saved<Scan>, hand);
      case 'lettering':
      case 'pattern':
      case 'sheet':
        return ofRecipe(before, source, hand);
    }
  }

  /** From the drawn source, or the sheet’s window, that its recipe begins with. */
  async function ofRecipe(
    { doc, revision }: StoredDocument<'alphas'>,
    source: Saved<Source>,
    hand: WorkHand,
  ): Promise<void> {
    const { id, card, size, relief, format, recipe } = doc;
    if (!recipe || format === 'vector32f') throw new Error('It has no recipe that could be run again.');
    const made = source.doc.kind === 'lettering' || source.doc.kind === 'pattern' ? source.doc : null;
    const cast = castAlpha(
      { id, card, size, relief, format, recipe, made, source: { id: source.doc.id, revision: source.revision } },
      revision,
      hand.report,
    );
    hand.onCancel(cast.cancel);
    await cast.done;
  }

  /** In the frame that it was cast in, whatever frame the slab has now. */
  async function ofSlab(before: StoredDocument<'alphas'>, slab: Saved<Slab>, hand: WorkHand): Promise<void> {
    const sculptor = new Sculptor();
    const caster = new Caster();
    try {
      await sculptor.open({ ...(await savedClay(slab.doc)), history: null });
      await sculptor.edits.showSetForms(slab.doc.setForms);
      await caster.open(sculptor.opened!);
      hand.onCancel(() => caster.cancel());
      if (hand.cancelled) throw new CastCancelled();
      const made = await fullCast(caster, plain(before.doc.lineage.cast), hand.report);
      await saveCast(made, before, { id: slab.doc.id, revision: slab.revision }, hand);
    } finally {
      caster.close();
      sculptor.close();
    }
  }

  async function ofScan(before: StoredDocument<'alphas'>, scan: Saved<Scan>, hand: WorkHand): Promise<void> {
    const { id, card, patches, mesh } = scan.doc;
    const patch: Patch | undefined = patches.find((one) => one.id === before.doc.lineage.patchId);
    if (!patch) throw new Error(`Its patch isn’t on “${card.name}” any more.`);
    const thread = new ScanThread();
    try {
      await thread.open(await api.getBlob(mesh));
      hand.onCancel(() => thread.casts.cancel());
      if (hand.cancelled) throw new CastCancelled();
      const made = await patchCast(thread, patch, hand.report);
      const colours = before.doc.lineage.colours ? await coloursOf(thread, patch) : null;
      await saveCast(made, before, { id, revision: scan.revision, patchId: patch.id }, hand, colours);
    } finally {
      thread.close();
    }
  }

  async function saveCast(
    made: FullCast | { flat: string },
    before: StoredDocument<'alphas'>,
    source: Keeping['source'],
    hand: WorkHand,
    colours: Keeping['colours'] = null,
  ): Promise<void> {
    if ('flat' in made) throw new Error(made.flat);
    await keepCast({ made, before, card: before.doc.card, source, steps: [], colours }, hand);
  }

  return { recast, running: () => work.find(ON) };
});
