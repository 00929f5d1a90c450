/** Clay as what takes a stroke's dabs. */
import type { ResolvedBrush } from '#core/brush';
import { applyGathered, beginSpan, gatherDabs, rewindSpan, type Surface } from '#core/sculpt';
import { spanChanges } from '#core/timeline';
import type { Target } from './target';

/** Clay that a stroke of this brush begins on. */
export function clayTarget(surface: Surface, brush: ResolvedBrush): Target {
  beginSpan(surface, brush.action === 'mask', looksAtNormals(brush));
  let apply = (): void => undefined;
  return {
    gather(dabs, sign, dabBrush) {
      const gathered = gatherDabs(surface, dabs, dabBrush, sign);
      apply = () => applyGathered(surface, gathered);
      return gathered.touched;
    },
    apply: () => apply(),
    rewind: () => rewindSpan(surface),
    end: () => spanChanges(surface),
  };
}

/** Whether dabs look at the normals that the surface began with. */
function looksAtNormals(brush: ResolvedBrush): boolean {
  return brush.direction === 'own' || brush.mapping === 'wrapped' || (brush.tooth !== null && !brush.tooth.carried);
}
