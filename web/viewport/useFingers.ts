/** Two fingers on a view of a component. */
import { onBeforeUnmount, onMounted, type Ref } from 'vue';
import { Fingers, type FingerOptions } from './fingers';

/** `busy` says whether one finger is to do nothing just now. */
export function useFingers(surface: Ref<HTMLElement | undefined>, options: FingerOptions): { busy: () => boolean } {
  let fingers: Fingers | null = null;
  onMounted(() => {
    fingers = new Fingers(surface.value!, options);
  });
  onBeforeUnmount(() => fingers?.dispose());
  return { busy: () => fingers?.busy ?? false };
}
