/** The light, turned by the pointer while L is held. */
import { computed, ref } from 'vue';
import { useShortcuts } from '../keys/shortcuts';
import type { ClayView } from '../viewport/clayView';

const RAD_PER_PIXEL = 0.01;
/** The light stays in front of the body and over its horizon. */
const LEAST_HEIGHT = 0.05;
const MOST_HEIGHT = 1.5;
/** From the upper left, as the view begins with. */
const START = { azimuth: 2.34, height: 0.53 };

export function useLight(view: () => ClayView | null) {
  const turning = ref(false);
  const at = ref({ ...START });

  function send(): void {
    const { azimuth, height } = at.value;
    const flat = Math.cos(height);
    view()?.setLight([flat * Math.cos(azimuth), flat * Math.sin(azimuth), Math.sin(height)]);
  }
  function move(e: PointerEvent): void {
    if (!turning.value) return;
    const height = at.value.height - e.movementY * RAD_PER_PIXEL;
    at.value = {
      azimuth: at.value.azimuth - e.movementX * RAD_PER_PIXEL,
      height: Math.max(LEAST_HEIGHT, Math.min(MOST_HEIGHT, height)),
    };
    send();
  }
  function reset(): void {
    at.value = { ...START };
    view()?.setLight(null);
  }
  const turned = computed(() => at.value.azimuth !== START.azimuth || at.value.height !== START.height);
  useShortcuts([{ command: 'light', hold: (down) => (turning.value = down) }]);
  return { turning, turned, move, reset };
}
