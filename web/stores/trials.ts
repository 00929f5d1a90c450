/** Sets of test strokes: shipped ones and one's own. Laying a set takes what was on the body off. */
import { defineStore } from 'pinia';
import { TRIAL_VERSION, trialSets, type TrialStroke } from '#core/trial';
import { get } from '../api/client';
import { pendingTrials, type PendingTrial } from '../api/outbox';
import { heldBrush } from './heldBrush';
import { sentence } from './connection';
import { plain } from '../api/plain';
import { useProof } from './proof';
import { useSending } from './sending';

export interface TrialRow {
  id: string;
  name: string;
  body: string;
  /** How many. */
  strokes: number;
}

export const useTrials = defineStore('trials', () => {
  const proof = useProof();
  const shipped = trialSets();
  const {
    own,
    problem,
    load,
    keep: keepOne,
    forget,
  } = useSending<'trials', PendingTrial, TrialRow>({
    collection: 'trials',
    box: pendingTrials,
    what: 'set of test strokes',
    documentOf: ({ id, body, strokes }, name) =>
      Promise.resolve({ version: TRIAL_VERSION, id, card: { name, author: '', tags: [], notes: '' }, body, strokes }),
    rowOf: ({ id, name, body, strokes }) => ({ id, name, body, strokes: strokes.length }),
    rowOfStored: ({ id, card, body, strokes }) => ({ id, name: card.name, body, strokes }),
  });

  async function replayOn(strokes: readonly TrialStroke[], body: string | null, brushId: string): Promise<void> {
    if (body && body !== proof.name && proof.knows(body)) await proof.show(body, proof.density);
    await proof.sculptor.drawSteps(
      strokes.map((s) => ({ kind: 'stroke', stroke: { ...plain(s), brushId } })),
      brushId,
    );
    await proof.sculptor.letStay(!proof.follows);
  }

  async function replayShipped(name: string, brushId: string): Promise<void> {
    const set = shipped.find((s) => s.name === name);
    if (set) await replayOn(set.strokes, set.body, brushId);
  }

  async function replayOwn(id: string, brushId: string): Promise<void> {
    if (!own.value.some((s) => s.id === id)) return;
    const set = (await pendingTrials.one(id).catch(() => null)) ?? (await get('trials', id)).doc;
    await replayOn(set.strokes, set.body, brushId);
  }

  /**
   * Keeps the strokes that are on the body now, but for those of held keys, which smooth and mask and are no test of a
   * brush, and those on pieces, which another body hasn't.
   */
  async function keep(name: string): Promise<void> {
    const done = (await proof.sculptor.steps()).flatMap((step) =>
      step.kind === 'stroke' && !step.stroke.on && !heldBrush(step.stroke.brushId, 1) ? [step.stroke] : [],
    );
    const strokes = done.map((kept): TrialStroke => {
      const { seed, dig, symmetry, view, samples, stencil, scale, part } = kept;
      return {
        seed,
        dig,
        symmetry,
        view,
        samples,
        ...(stencil ? { stencil } : {}),
        ...(scale === undefined ? {} : { scale }),
        ...(part === undefined ? {} : { part }),
      };
    });
    await keepOne({ id: crypto.randomUUID(), name, body: proof.name, strokes, addedAt: Date.now() });
  }

  void load().catch((error: unknown) => (problem.value = sentence(error)));
  return { shipped, own, problem, replayShipped, replayOwn, keep, forget };
});
