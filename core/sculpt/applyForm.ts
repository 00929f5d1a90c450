/** Lays a dab's pictures over its weights: the form as the mapping has it, then the tooth. */
import type { DabFrame, ResolvedBrush, Tooth } from '#core/brush';
import { levelFor } from '#core/picture';
import type { Dab } from './dab';
import type { DabForm } from './height';
import type { Surface } from './surface';

/** form × falloff × (1 − mask); without a form 1 stands in, unless `masked` the mask is left out. */
export function applyForm(s: Surface, dab: Dab, brush: ResolvedBrush, form: DabForm | null, masked: boolean): void {
  const { loops } = s;
  const picture = form?.picture;
  if (!form || !picture || brush.mapping === 'surface' || brush.mapping === 'view')
    return loops.weigh(s, brush, form, masked);
  loops.weigh(s, brush, null, masked);
  const tones = { gain: 1, base: -form.ground };
  switch (brush.mapping) {
    case 'wrapped':
      return loops.wrap(s, picture, { side: brush.tile, turnRad: brush.turnRad }, tones);
    case 'shuffled': {
      const half = brush.fit / 2;
      const [x, y] = dab.shuffle;
      return loops.repeat(s, picture, [half, 0, 0.5 + x, 0, -half, 0.5 + y], tones);
    }
    case 'stencil': {
      if (dab.stencil) loops.stencil(s, picture, dab.stencil, tones);
    }
  }
}

export function applyTooth(s: Surface, frame: DabFrame, tooth: Tooth): void {
  const side = tooth.follows ? tooth.side * 2 * frame.radius : tooth.side;
  const picture = levelFor(tooth.picture, side / tooth.picture.levels[0].width, s.spacing);
  if (!tooth.carried) return s.loops.wrap(s, picture, { side, turnRad: tooth.turnRad }, tooth);
  const c = (Math.cos(tooth.turnRad) * frame.radius) / side;
  const d = (Math.sin(tooth.turnRad) * frame.radius) / side;
  s.loops.repeat(s, picture, [c, d, 0.5, d, -c, 0.5], tooth);
}
