/** What the brush bench and the proof share: opening the brush of the address, and editing it there. */
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import type { Brush } from '#core/settings';
import { undoNotice } from '../controls/undoNotice';
import { useBrushBench } from '../stores/brushBench';
import { useLibrary } from '../stores/library';
import { useProof } from '../stores/proof';

/** `path` is the address of a brush in this place, without its id. */
export function useOpenBrush(id: () => string, path: string) {
  const router = useRouter();
  const bench = useBrushBench();
  const library = useLibrary();
  const proof = useProof();
  const opening = ref(true);
  const alphas = computed(() => (bench.doc ? library.alphasOf(bench.doc) : { form: null, tooth: null, parts: [] }));
  const alpha = computed(() => alphas.value.form);

  watch(
    id,
    async (wanted) => {
      if (bench.doc?.id !== wanted) {
        opening.value = true;
        await bench.open(wanted);
      }
      opening.value = false;
    },
    { immediate: true },
  );

  function go(to: string): void {
    void router.push(`${path}/${to}`);
  }

  /** A base brush's first change goes to a copy; address and strokes follow it there. */
  async function edit(change: (brush: Brush) => void): Promise<void> {
    const from = bench.doc?.id;
    // Strokes become the copy's before its settings are asked for.
    const to = await bench.edit(change, undefined, (of, copy) => void proof.sculptor.adopt(of, copy));
    if (!from || to === from) return;
    await router.replace(`${path}/${to}`);
  }

  async function revert(): Promise<void> {
    const left = JSON.stringify(bench.doc);
    await bench.revert();
    undoNotice('Back to the saved brush.', async () => {
      await bench.edit((brush) => Object.assign(brush, JSON.parse(left)));
    });
  }

  async function keepAsCopy(): Promise<void> {
    const copy = await bench.keepAsCopy();
    await router.replace(`${path}/${copy}`);
  }

  return { bench, alpha, alphas, opening, go, edit, revert, keepAsCopy };
}
