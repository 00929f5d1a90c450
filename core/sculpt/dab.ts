/** One dab: gather what it touches, weigh it, let its action work, renew what hangs on it. */
import type { DabFrame, ResolvedBrush, Vec3 } from '#core/brush';
import { LEAF_SHIFT } from '#core/mesh';
import { dabForm } from './height';
import { noteChanged, type Surface } from './surface';

export interface DabTouch {
  sign: 1 | -1;
  /** Where a Move drag has got to, from its beginning. */
  by: Vec3;
}

/** A full-strength dab of Smooth takes this many steps towards the mean of the neighbours. */
const SMOOTH_STEPS = 4;
/** Build raises hollows by at most this many times its own height in a dab. */
const BUILD_MOST = 2;

/**
 * Applies one dab; returns how many vertices it touched. A Lift is measured on the surface its stroke began on,
 * so that a stroke's own growth doesn't tip or stretch what follows; the others work on the clay as it is now.
 */
export function applyDab(s: Surface, frame: DabFrame, brush: ResolvedBrush, touch: DabTouch): number {
  const { loops } = s;
  if (loops.gather(s, frame, brush, brush.action === 'lift' || brush.action === 'mask') === 0) return 0;
  const form = dabForm(brush, frame.radius, s.spacing);
  const { sign, by } = touch;
  const scale = form.scale * brush.strength * sign;
  switch (brush.action) {
    case 'lift':
      loops.weigh(s, brush, form, true);
      loops.push(s, frame.normal, scale, brush.even);
      break;
    case 'build': {
      loops.weigh(s, brush, null, true);
      const mean = loops.meanHeight(s, frame);
      if (form.picture) loops.weigh(s, brush, form, true);
      // Up to a plane a little over the mean: hollows fill first, what stands higher stays.
      loops.level(s, frame, mean + form.scale * sign, brush.strength, form.scale * BUILD_MOST, sign > 0 ? -1 : 1);
      break;
    }
    case 'inflate':
      loops.weigh(s, brush, form, true);
      loops.inflate(s, scale);
      break;
    case 'crease':
      loops.weigh(s, brush, form, true);
      loops.crease(s, frame, -scale, -brush.pinch * brush.strength * frame.radius);
      break;
    case 'flatten': {
      loops.weigh(s, brush, form.picture ? form : null, true);
      const mean = loops.meanHeight(s, frame);
      // Digging cuts what stands over the mean and leaves hollows as they are.
      loops.level(s, frame, mean, brush.strength, Infinity, sign > 0 ? 0 : 1);
      break;
    }
    case 'smooth': {
      loops.weigh(s, brush, form.picture ? form : null, true);
      const steps = Math.max(1, Math.ceil(brush.strength * SMOOTH_STEPS));
      for (let i = 0; i < steps; i++) loops.relax(s, (brush.strength * SMOOTH_STEPS) / steps);
      break;
    }
    case 'move':
      loops.weigh(s, brush, form.picture ? form : null, true);
      loops.carry(s, by, brush.strength);
      break;
    case 'mask':
      loops.weigh(s, brush, form, false);
      loops.paintMask(s, brush.strength * sign, brush.even);
      noteTouched(s);
      return s.touchedCount;
  }
  loops.renew(s, s.touched, s.touchedCount);
  return s.touchedCount;
}

/** Masks move nothing: the view hears of their leaves, normals stay. */
export function noteTouched(s: Surface): void {
  for (let i = 0; i < s.touchedCount; i++) noteChanged(s, s.touched[i]! >> LEAF_SHIFT);
}
