/** Lengths as they are shown and typed: documents keep body units, the hand may read millimetres. */
import { computed } from 'vue';
import { usePreferences } from '../stores/preferences';
import { digitsOf } from './useTypedNumber';

export function useLengths() {
  const preferences = usePreferences();
  const inMm = computed(() => preferences.now.lengths === 'mm');
  /** What a length in body units is multiplied by to be shown. */
  const factor = computed(() => (inMm.value ? preferences.now.mmPerUnit : 1));
  const unit = computed(() => (inMm.value ? 'mm' : 'body units'));
  /** A length that changes by such steps, both in body units, as it is shown. */
  const told = (length: number, step: number): string =>
    `${(length * factor.value).toFixed(digitsOf(step * factor.value))}${inMm.value ? ' mm' : ''}`;
  return { factor, unit, inMm, told };
}
