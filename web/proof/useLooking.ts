/** How a body is looked at: from its sides, along one direction or in perspective, and by hand under a held key. */
import { useLocalStorage } from '@vueuse/core';
import { ref, shallowRef } from 'vue';
import type { View } from '#core/stroke';
import type { CommandId } from '../keys/commands';
import { useShortcuts } from '../keys/shortcuts';
import type { BodyEye, EyeHand } from '../viewport/bodyEye';
import { SIDES, type Side } from '../viewport/sides';

export const SIDE_COMMANDS: Record<Side['name'], CommandId> = {
  front: 'whole',
  back: 'fromBack',
  left: 'fromLeft',
  right: 'fromRight',
  above: 'fromAbove',
  below: 'fromBelow',
};

export interface LookingOptions {
  eye: () => BodyEye | null;
  /** The place of the body that is under the pointer. */
  under: () => readonly [number, number, number] | null;
}

export function useLooking({ eye, under }: LookingOptions) {
  const parallel = useLocalStorage('proof-parallel', false);
  const basis = shallowRef<View | null>(null);
  /** A key is held: the left button moves the eye and lays no stroke. */
  const held = ref(false);

  const hold = (hand: EyeHand) => (down: boolean) => {
    held.value = down;
    eye()?.hold(down ? hand : null);
  };
  function toggle(): void {
    eye()?.setParallel(!parallel.value);
  }
  /** The eye has moved. */
  function moved(): void {
    const now = eye();
    if (!now) return;
    basis.value = now.basis();
    parallel.value = now.pose.parallel;
  }
  useShortcuts([
    ...SIDES.map(({ name, label }) => ({
      command: SIDE_COMMANDS[name],
      what: `Look ${label.toLowerCase()}`,
      run: () => (name === 'front' ? eye()?.home() : eye()?.from(name)),
    })),
    { command: 'parallel', run: toggle },
    {
      command: 'lookAt',
      what: 'Look at the place under the pointer',
      run: () => {
        const place = under();
        if (place) eye()?.lookAt(place);
      },
    },
    { command: 'move', what: 'Held: a drag anywhere turns the body; with Shift it pans', hold: hold('turn') },
    { command: 'zoom', hold: hold('nearer') },
  ]);
  return { parallel, basis, held, toggle, moved };
}
