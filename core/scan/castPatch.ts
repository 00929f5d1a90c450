/**
 * One cast of a patch: the surface in its frame, the overall shape taken out, holes filled, then toned and checked like
 * every other cast.
 */
import { castHeights, findUndercut, tonedCast, type Cast } from '#core/cast';
import type { MeshArrays } from '#core/mesh';
import type { Picture } from '#core/picture';
import type { Patch } from '#core/settings';
import { patchFrame } from './axes';
import { detrend } from './detrend';
import { edgeStep, withEdge } from './edge';
import { fillSmoothly } from './fill';
import { allFaces, patchSurface, type PatchSurface } from './surface';

export interface PatchCast extends Cast {
  /** The overall shape that was found, small; body units. */
  shape: Picture;
  /** Share of the frame where the scan has nothing; it was filled smoothly. */
  filled: number;
}

/** The scan doesn’t reach into the frame. */
export class EmptyPatchError extends Error {
  constructor() {
    super('The scan doesn’t reach into this frame. Lay it on the surface again.');
  }
}

/** Throws EmptyPatchError. */
export function surfaceOf(mesh: MeshArrays, patch: Patch): PatchSurface {
  const surface = patchSurface(mesh, patchFrame(patch));
  if (!surface) throw new EmptyPatchError();
  return surface;
}

/** Throws FlatCastError, EmptyPatchError and CastCancelled. */
export function castPatch(
  surface: PatchSurface,
  patch: Patch,
  onProgress: (share: number) => boolean = () => true,
): PatchCast {
  const { size, samples } = patch.cast;
  const frame = { x: 0, y: 0, turn: 0, side: patch.cast.frame.side };
  const heights = castHeights(surface, { frame, size, samples, onProgress });
  let empty = 0;
  for (let i = 0; i < heights.data.length; i++) if (heights.data[i] !== heights.data[i]) empty++;
  if (empty === heights.data.length) throw new EmptyPatchError();
  const { positions } = surface;
  const undercut = findUndercut({ positions, triangles: allFaces(surface) }, frame, heights);
  const { heights: relief, shape } = detrend(heights, patch.detrend);
  const filled = empty / heights.data.length;
  const step = edgeStep(patch);
  const cast = tonedCast(fillSmoothly(relief), patch.cast, {
    undercut,
    emptyShare: filled,
    of: 'scan',
    repeats: patch.edge === 'repeat',
    ...(step ? { after: (tones: Picture) => withEdge(tones, step) } : {}),
  });
  return { ...cast, shape, filled };
}
