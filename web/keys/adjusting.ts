/** A drag on the surface while a key is held: left and right for size, up and down for strength. */
import { useEventListener } from '@vueuse/core';
import { ref, type Ref } from 'vue';
import type { Brush } from '#core/settings';
import { putStrength, sizeNear, strengthOf } from './brushKeys';
import { useShortcuts } from './shortcuts';

/** A pixel of the drag multiplies the size by this, and is worth so many per cent of strength. */
const SIZE_A_PIXEL = 1.008;
const STRENGTH_A_PIXEL = 0.4;

export interface AdjustingOptions {
  surface: Ref<HTMLElement | undefined>;
  brush: () => Brush;
  edit: (change: (brush: Brush) => void) => void;
  /** The cursor is to be drawn anew. */
  changed: () => void;
}

interface Drag {
  pointer: number;
  x: number;
  y: number;
  size: number;
  strength: number;
}

/** Size and strength after a drag of so many CSS pixels. */
export function adjusted(from: { size: number; strength: number }, dx: number, dy: number): typeof from {
  return {
    size: sizeNear(from.size * SIZE_A_PIXEL ** dx),
    strength: Math.round(Math.max(0, Math.min(100, from.strength - dy * STRENGTH_A_PIXEL))),
  };
}

export function useAdjusting({ surface, brush, edit, changed }: AdjustingOptions) {
  const held = ref(false);
  let drag: Drag | null = null;

  function put({ size, strength }: { size: number; strength: number }): void {
    edit((next) => {
      next.stroke.size = size;
      putStrength(next, strength);
    });
    changed();
  }
  /** Puts back what the drag began with; false where none is under way. */
  function cancel(): boolean {
    if (!drag) return false;
    put(drag);
    drag = null;
    return true;
  }

  useEventListener(surface, 'pointerdown', (e: PointerEvent) => {
    if (!held.value || e.button !== 0 || drag) return;
    surface.value?.setPointerCapture(e.pointerId);
    const { stroke } = brush();
    drag = {
      pointer: e.pointerId,
      x: e.clientX,
      y: e.clientY,
      size: stroke.size,
      strength: strengthOf(brush()),
    };
  });
  useEventListener(surface, 'pointermove', (e: PointerEvent) => {
    if (drag?.pointer === e.pointerId) put(adjusted(drag, e.clientX - drag.x, e.clientY - drag.y));
  });
  useEventListener(surface, ['pointerup', 'pointercancel'], (e: PointerEvent) => {
    if (drag?.pointer === e.pointerId) drag = null;
  });
  useShortcuts([
    {
      command: 'adjust',
      hold: (down) => {
        held.value = down;
        if (!down) drag = null;
      },
    },
  ]);
  return { held, cancel };
}
