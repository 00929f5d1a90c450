/** Brushes that a held key puts in the hand: one smooths, one masks, both at the size of the brush at hand. */
import { ref, watch } from 'vue';
import type { Brush } from '#core/settings';
import { useShortcuts } from '../keys/shortcuts';
import { heldBrush, MASK, SMOOTH } from '../stores/heldBrush';
import { useProof } from '../stores/proof';

type Held = 'smooth' | 'mask';
export function useHeldBrushes(brush: () => Brush, changed: () => void) {
  const proof = useProof();
  const held = ref<Held | null>(null);

  function inHand(): Brush | null {
    return held.value && heldBrush((held.value === 'smooth' ? SMOOTH : MASK).id, brush().stroke.size);
  }

  function hold(which: Held, down: boolean): void {
    if (down) held.value = which;
    else if (held.value === which) held.value = null;
  }

  watch([held, () => brush().stroke.size], async () => {
    const now = inHand();
    if (now) await proof.sculptor.use(now, { form: null, tooth: null, parts: [] });
    changed();
  });
  useShortcuts([
    { command: 'smooth', what: 'Held: Smooth, at this size', hold: (down) => hold('smooth', down) },
    { command: 'mask', hold: (down) => hold('mask', down) },
  ]);
  return { held, inHand };
}
