/** Where the single forms of a set form stand: one, a row along its turn, or a ring round its middle. */
import type { SetForm } from '#core/settings';

export interface SetFormPlace {
  x: number;
  y: number;
  turnRad: number;
}

export function setFormPlaces(setForm: SetForm): SetFormPlace[] {
  const turn = (setForm.turn * Math.PI) / 180;
  const { x, y, count, pitch } = setForm;
  switch (setForm.repeat) {
    case 'one':
      return [{ x, y, turnRad: turn }];
    case 'row':
      return Array.from({ length: count }, (_, i) => {
        const at = (i - (count - 1) / 2) * pitch;
        return { x: x + Math.cos(turn) * at, y: y + Math.sin(turn) * at, turnRad: turn };
      });
    case 'ring':
      return Array.from({ length: count }, (_, i) => {
        const angle = turn + (2 * Math.PI * i) / count;
        return { x: x + Math.cos(angle) * pitch, y: y + Math.sin(angle) * pitch, turnRad: angle };
      });
  }
}

/** Index of the topmost set form at (x, y), −1 where there is none. */
export function setFormAt(
  setForms: readonly SetForm[],
  x: number,
  y: number,
  reach: (setForm: SetForm) => number,
): number {
  for (let i = setForms.length - 1; i >= 0; i--) {
    const setForm = setForms[i];
    if (setFormPlaces(setForm).some((p) => Math.hypot(p.x - x, p.y - y) <= reach(setForm))) return i;
  }
  return -1;
}
