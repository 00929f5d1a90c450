/** What painting on the proof’s body needs beside its brushes: the layer that strokes go on, and the texture’s size. */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { TEXTURE_SIZES, type LayerEdit, type LayerHead } from '#core/paint';
import { useProof } from './proof';

export const usePainting = defineStore('painting', () => {
  const proof = useProof();
  const size = useLocalStorage<number>('proof-texture', 2048);
  if (!(TEXTURE_SIZES as readonly number[]).includes(size.value)) size.value = 2048;
  /** As it was chosen; what is there may be another. */
  const chosen = ref<{ layer: string; mask: boolean }>({ layer: '', mask: false });
  const layers = computed(() => proof.state.layers);
  const begun = computed(() => proof.state.textureSize > 0);
  const active = computed(() => {
    const one = layers.value.find(({ id }) => id === chosen.value.layer) ?? layers.value.at(-1) ?? null;
    return one && { ...one, onMask: one.id === chosen.value.layer && chosen.value.mask && one.masked };
  });
  let made = 0;

  /** What strokes that paint go on. */
  function on(): { layer: string; mask: boolean } | null {
    return active.value && { layer: active.value.id, mask: active.value.onMask };
  }

  function choose(layer: string, mask = false): void {
    chosen.value = { layer, mask };
  }

  function begin(): Promise<void> {
    return proof.sculptor.paint.begin(size.value);
  }

  /** Of this texture, with what is on it, and of those that begin from now on. */
  async function resize(to: number): Promise<void> {
    size.value = to;
    if (begun.value) await proof.sculptor.paint.resize(to);
  }

  const edit = (change: LayerEdit): Promise<void> => proof.sculptor.paint.change(change);

  function freeName(stem: string): string {
    for (let n = layers.value.length + 1; ; n++)
      if (!layers.value.some(({ name }) => name === `${stem} ${n}`)) return `${stem} ${n}`;
  }

  async function add(): Promise<void> {
    const id = crypto.randomUUID();
    await edit({ kind: 'add', id, name: freeName('Layer'), above: active.value?.id ?? null });
    choose(id);
  }

  async function copy(of: LayerHead): Promise<void> {
    const as = crypto.randomUUID();
    await edit({ kind: 'copy', id: of.id, as, name: `${of.name} copy`.slice(0, 80) });
    choose(as);
  }

  /** Changes of one `gesture`, e.g. a drag of a slider, are one step. */
  function set(id: string, to: Partial<Omit<LayerHead, 'id'>>, gesture?: number): Promise<void> {
    return edit({ kind: 'set', id, to, ...(gesture === undefined ? {} : { gesture }) });
  }

  const nextGesture = (): number => ++made;

  return { size, layers, begun, active, on, choose, begin, resize, edit, add, copy, set, nextGesture };
});
