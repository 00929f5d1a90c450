/** What the brush bench and the proof share: opening the brush of the address, and editing it there. */
import { computed, ref, shallowRef, watch } from 'vue';
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
  /** How often another brush was opened here. */
  const openings = ref(0);
  const last = shallowRef<Brush | null>(null);
  watch(
    () => bench.doc,
    (doc) => {
      if (doc) last.value = doc;
    },
    { immediate: true },
  );
  /** The brush that is shown: while another one is on its way, the one before it, so that the hand can go on. */
  const shown = computed(() => bench.doc ?? (opening.value ? last.value : null));
  const alphas = computed(() => (shown.value ? library.alphasOf(shown.value) : { form: null, tooth: null, parts: [] }));
  const alpha = computed(() => alphas.value.form);

  watch(
    id,
    async (wanted) => {
      if (bench.doc?.id !== wanted) {
        opening.value = true;
        await bench.open(wanted);
        if (wanted !== id()) return;
        openings.value++;
      }
      opening.value = false;
    },
    { immediate: true },
  );

  /** What is drawn from here on is drawn with that brush, so it counts from the choice and not from its arrival. */
  function go(to: string): void {
    if (to === id()) return;
    opening.value = true;
    const stayed = (): void => {
      opening.value = false;
    };
    void router.push(`${path}/${to}`).then((failure) => failure && stayed(), stayed);
  }

  /** A base brush's first change goes to a copy; address and strokes follow it there. */
  async function edit(change: (brush: Brush) => void): Promise<void> {
    // Nothing is changed while another brush is on its way.
    if (!bench.doc) return;
    const from = bench.doc.id;
    // Strokes become the copy's before its settings are asked for.
    const to = await bench.edit(change, undefined, (of, copy) => void proof.sculptor.adopt(of, copy));
    if (to === from) return;
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

  return { bench, shown, openings, alpha, alphas, opening, go, edit, revert, keepAsCopy };
}
