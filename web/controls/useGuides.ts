/** The guides of a view: kept in the browser, drawn on its clay, and settled on while Z is held. */
import { useLocalStorage } from '@vueuse/core';
import { ref, shallowRef, watch } from 'vue';
import type { MeshArrays } from '#core/mesh';
import type { Brush } from '#core/settings';
import type { ClayView } from '../viewport/clayView';
import { Settling, type GuideLook, type SettlingEye } from '../viewport/settling';
import { useShortcuts } from '../keys/shortcuts';

const AXIS_NAMES = ['X', 'Y', 'Z'] as const;

export function useGuides(name: string, o: { mesh: () => MeshArrays | null; moved: () => void }) {
  const guides = useLocalStorage<GuideLook>(`guides-${name}`, { centre: false, grid: false, step: 0.1 });
  const settling = shallowRef<Settling | null>(null);
  const axes = ref<readonly [string, string]>(['X', 'Y']);
  let view: ClayView | null = null;

  function begin(on: ClayView, eye: SettlingEye): void {
    view = on;
    settling.value = new Settling({ eye, mesh: o.mesh, guides: () => guides.value });
    view.setGuides(guides.value);
  }
  /** The eye has moved: other axes may lie across the view. */
  function looked(): void {
    const [a, b] = settling.value?.axes() ?? [0, 1];
    axes.value = [AXIS_NAMES[a], AXIS_NAMES[b]];
  }
  watch(guides, (now) => view?.setGuides(now), { deep: true });
  useShortcuts([
    {
      command: 'settle',
      hold: (down) => {
        if (settling.value) settling.value.held = down;
        o.moved();
      },
    },
  ]);
  return { guides, settling, axes, begin, looked };
}

/** Why a stamp can’t be laid at a typed place with this brush. */
export function hinderedBy(brush: Brush): string | null {
  const { type } = brush.stroke;
  const byHand = brush.touch.action === 'move' || (type === 'pull' && brush.stroke.height === 0);
  return byHand || type === 'ruler' || type === 'path' ? 'This brush needs a hand that draws.' : null;
}
