/** A brush at the size a small picture needs, with everything on the body in proportion. */
import type { ResolvedBrush } from '#core/brush';

/** Nearer dabs, or more of them at a step, aren’t told apart in a small picture, and would cost many times as much. */
const NEAREST = 0.06;
const MOST_AT_A_STEP = 6;

/** A stencil has no view to lie over here and is laid on the surface. */
export function scaledTo(brush: ResolvedBrush, radius: number): ResolvedBrush {
  const by = radius / brush.radius;
  const { tooth } = brush;
  return {
    ...brush,
    spacing: Math.max(brush.spacing, NEAREST),
    drift: { ...brush.drift, count: Math.min(brush.drift.count, MOST_AT_A_STEP) },
    radius,
    tile: brush.tile * by,
    tooth: tooth && { ...tooth, side: tooth.follows ? tooth.side : tooth.side * by },
    mapping: brush.mapping === 'stencil' ? 'surface' : brush.mapping,
  };
}

/** Whether its strokes run along a line. */
export function runsAlong({ strokeType }: ResolvedBrush): boolean {
  return strokeType === 'trail' || strokeType === 'linger' || strokeType === 'ruler' || strokeType === 'path';
}

/** Brushes that need something to work on. */
export function needsClay({ action }: ResolvedBrush): boolean {
  return action === 'smooth' || action === 'flatten' || action === 'move';
}
