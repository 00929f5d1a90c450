/**
 * One cast: heights, tones, ground and what there is to be checked. The live picture and the kept one are made by
 * this.
 */
import type { MeshArrays } from '#core/mesh';
import { castChecks, type Check, type MarginReport } from '#core/checks';
import { edgeGround, edgeSpread, histogram, percentiles, ringMean, type Picture } from '#core/picture';
import type { CastSettings } from '#core/settings';
import { castHeights } from './heights';
import { castTones, type Range } from './tones';
import { findUndercut, type Undercut } from './undercut';

export interface Cast {
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
): Cast {
  const { frame, size, samples } = settings;
  const heights = castHeights(mesh, { frame, size, samples, onProgress });
  let empty = 0;
  for (let i = 0; i < heights.data.length; i++) if (heights.data[i] !== heights.data[i]) empty++;
  const undercut = findUndercut(mesh, frame, heights);
  return tonedCast(heights, settings, { undercut, emptyShare: empty / heights.data.length, of: 'clay' });
}

export interface Seen {
  undercut: Undercut;
  /** Share of the frame that lies beside the surface. */
  emptyShare: number;
  of: 'clay' | 'scan';
  repeats?: boolean;
  /** What is done to the tones before they are looked at, e.g. made to repeat. */
  after?: (tones: Picture) => Picture;
}

/** Heights as a cast: tones, ground, and what there is to be checked. Throws FlatCastError. */
export function tonedCast(
  heights: Picture,
  settings: CastSettings,
  { undercut, emptyShare, of, repeats = false, after }: Seen,
): Cast {
  const { frame } = settings;
  const straight = castTones(heights, frame.side, settings.floor, settings.crown);
  const tones = castTones(heights, frame.side, settings.floor, settings.crown, settings.tone);
  const picture = after ? after(tones.picture) : tones.picture;
  const ground = settings.ground === 'edge' ? edgeGround(picture) : ringMean(picture);
  const { checks, margin } = castChecks(picture, ground, { undercut: undercut.share, empty: emptyShare, of, repeats });
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
