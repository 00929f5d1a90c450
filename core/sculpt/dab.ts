/** One dab: gather what it touches, displace it, renew what hangs on it. */
import type { DabFrame, ResolvedBrush, Vec3 } from '#core/brush';
import { crease } from './crease';
import { gather } from './gather';
import { lift } from './lift';
import { move } from './move';
import { renewTouched } from './renew';
import { smooth } from './smooth';
import type { Surface } from './surface';

export interface DabTouch {
  sign: 1 | -1;
  /** Where a Move drag has got to, from its beginning. */
  by: Vec3;
}

/**
 * Applies one dab; returns how many vertices it touched. A Lift is measured on the surface its stroke began on,
 * so that a stroke's own growth doesn't tip or stretch what follows; the others work on the clay as it is now.
 */
export function applyDab(s: Surface, frame: DabFrame, brush: ResolvedBrush, touch: DabTouch): number {
  gather(s, frame, brush, brush.action === 'lift');
  if (s.touchedCount === 0) return 0;
  switch (brush.action) {
    case 'lift': lift(s, frame, brush, touch.sign); break;
    case 'crease': crease(s, frame, brush, touch.sign); break;
    case 'smooth': smooth(s, brush); break;
    case 'move': move(s, brush, touch.by); break;
  }
  renewTouched(s);
  return s.touchedCount;
}
