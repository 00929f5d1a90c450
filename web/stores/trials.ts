/** Sets of test strokes: shipped ones and one's own. Laying a set takes what was on the body off. */
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { trialSets, type TrialStroke } from '#core/trial';
import { dropTrial, keepTrial, ownTrials, type OwnTrial } from '../api/trials';
import { heldBrush } from '../proof/heldBrushes';
import { plain } from './plain';
import { useProof } from './proof';

export const useTrials = defineStore('trials', () => {
  const proof = useProof();
  const shipped = trialSets();
  const own = ref<OwnTrial[]>([]);

  async function load(): Promise<void> {
    own.value = await ownTrials().catch(() => []);
  }

  async function lay(strokes: readonly TrialStroke[], body: string | null, brushId: string): Promise<void> {
    if (body && body !== proof.name && proof.knows(body)) await proof.show(body, proof.density);
    await proof.sculptor.lay(strokes.map((s) => ({ kind: 'stroke', stroke: { ...plain(s), brushId } })), brushId);
  }

  async function layShipped(name: string, brushId: string): Promise<void> {
    const set = shipped.find((s) => s.name === name);
    if (set) await lay(set.strokes, set.body, brushId);
  }

  async function layOwn(id: string, brushId: string): Promise<void> {
    const set = own.value.find((s) => s.id === id);
    if (set) await lay(set.strokes, set.body, brushId);
  }

  /** Keeps the strokes that are on the body now, but for those of held keys, which smooth and mask and are no test of a brush. */
  async function keep(name: string): Promise<void> {
    const done = (await proof.sculptor.steps()).flatMap((step) => (step.kind === 'stroke' && !heldBrush(step.stroke.brushId, 1) ? [step.stroke] : []));
    const strokes = done.map((kept): TrialStroke => {
      const { seed, dig, symmetry, view, samples, stencil, scale } = kept;
      return { seed, dig, symmetry, view, samples, ...(stencil ? { stencil } : {}), ...(scale === undefined ? {} : { scale }) };
    });
    await keepTrial({ id: crypto.randomUUID(), name, body: proof.name, strokes, addedAt: Date.now() });
    await load();
  }

  async function drop(id: string): Promise<void> {
    await dropTrial(id);
    await load();
  }

  void load();
  return { shipped, own, layShipped, layOwn, keep, drop };
});
