/**
 * One cast of a slab: heights, tones, ground and what there is to be checked. The live picture and the kept one are
 * made by this.
 */
import type { MeshArrays } from '#core/mesh';
import { castChecks, type Check, type MarginReport } from '#core/checks';
import { edgeGround, edgeSpread, histogram, percentiles, ringMean, type Picture } from '#core/picture';
import type { CastSettings } from '#core/settings';
import { castHeights } from './heights';
import { castTones, type Range } from './tones';
import { findUndercut, type Undercut } from './undercut';

export interface SlabCast {
  picture: Picture;
  floor: number;
  crown: number;
  relief: number;
  ground: number;
  undercut: Undercut;
  checks: Check[];
  margin: MarginReport;
  /** Counts over the heights from floor to crown, before the tone curve. */
  histogram: Uint32Array;
  /** Heights between which nearly all pixels lie: what floor and crown would be without the stray ones. */
  used: Range;
  /** Height over which the border is level. */
  levelFloor: number;
}

/** Throws FlatCastError and CastCancelled. */
export function castSlab(
  mesh: MeshArrays,
  settings: CastSettings,
  onProgress: (share: number) => boolean = () => true,
): SlabCast {
  const { frame, size, samples } = settings;
  const heights = castHeights(mesh, { frame, size, samples, onProgress });
  const straight = castTones(heights, frame.side, settings.floor, settings.crown);
  const tones = castTones(heights, frame.side, settings.floor, settings.crown, settings.tone);
  const { picture } = tones;
  const ground = settings.ground === 'edge' ? edgeGround(picture) : ringMean(picture);
  const undercut = findUndercut(mesh, frame, heights);
  let empty = 0;
  for (let i = 0; i < heights.data.length; i++) if (heights.data[i] !== heights.data[i]) empty++;
  const { checks, margin } = castChecks(picture, ground, undercut.share, empty / heights.data.length);
  const [low, high] = percentiles(straight.picture, [0.002, 0.998]) as [number, number];
  const at = (grey: number): number => tones.floor + grey * (tones.crown - tones.floor);
  return {
    picture,
    floor: tones.floor,
    crown: tones.crown,
    relief: tones.relief,
    ground,
    undercut,
    checks,
    margin,
    histogram: histogram(straight.picture, 96),
    used: { floor: at(low), crown: at(high) },
    levelFloor: at(edgeSpread(straight.picture).upper),
  };
}
