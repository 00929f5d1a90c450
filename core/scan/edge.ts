/** What is done to a patch’s sides, as a step of the recipe of the alpha that is cast from it. */
import { feather, seamless } from '#core/filter';
import { edgeGround, type Picture } from '#core/picture';
import type { Patch, StepOf } from '#core/settings';

type EdgeStep =
  Pick<StepOf<'feather'>, 'kind' | 'shape' | 'start' | 'end'> | Pick<StepOf<'seamless'>, 'kind' | 'overlap'>;

/** The ground is reached so far out, per cent of the ring: the margin stays clear. */
const CLEAR = 94;

/** Null where they are cut as they are. */
export function edgeStep({ edge, edgeWidth }: Pick<Patch, 'edge' | 'edgeWidth'>): EdgeStep | null {
  switch (edge) {
    case 'cut':
      return null;
    case 'fade':
      return { kind: 'feather', shape: 'round', start: Math.max(0, CLEAR - 2 * edgeWidth), end: CLEAR };
    case 'repeat':
      return { kind: 'seamless', overlap: edgeWidth };
  }
}

export function withEdge(tones: Picture, step: EdgeStep): Picture {
  return step.kind === 'seamless'
    ? seamless(tones, step.overlap / 100)
    : feather(tones, {
        shape: step.shape,
        start: step.start / 100,
        end: step.end / 100,
        ground: edgeGround(tones),
      });
}
