/** A cast as workers answer it to the page. */
import type { Cast } from '#core/cast';
import { ringLoss, type Check, type MarginReport } from '#core/checks';
import { toUint16, usedRange } from '#core/picture';

export interface CastResult {
  /** Pixels per side. */
  size: number;
  greys: Uint16Array;
  /** The same in float32, for casts that are kept so. */
  floats: Float32Array;
  floor: number;
  crown: number;
  relief: number;
  ground: number;
  margin: MarginReport;
  ringLoss: number;
  usedRange: number;
  /** Heights between which nearly all pixels lie. */
  used: { floor: number; crown: number };
  levelFloor: number;
  undercutShare: number;
  /** 1 where something is hidden from above. */
  undercut: Uint8Array;
  checks: Check[];
  /** Counts over the heights, lowest to highest. */
  histogram: Uint32Array;
  milliseconds: number;
}

/** What there is to say when everything lies at one height. */
export interface FlatCast {
  flat: string;
  floor: number;
}

export interface VectorResult {
  size: number;
  offsets: Float32Array;
  relief: number;
}

/** The cast was given up before it was done. */
export interface Cancelled {
  cancelled: true;
}

export function resultOf(made: Cast, size: number, milliseconds: number): CastResult {
  const { picture, ground, undercut } = made;
  return {
    size,
    greys: toUint16(picture),
    floats: picture.data,
    floor: made.floor,
    crown: made.crown,
    relief: made.relief,
    ground,
    margin: made.margin,
    ringLoss: ringLoss(picture, 1, ground),
    usedRange: usedRange(picture),
    used: made.used,
    levelFloor: made.levelFloor,
    undercutShare: undercut.share,
    undercut: undercut.pixels,
    checks: made.checks,
    histogram: made.histogram,
    milliseconds,
  };
}

/** What can be given away with it. */
export function buffersOf({ greys, floats, undercut, histogram }: CastResult): ArrayBuffer[] {
  return [greys.buffer, floats.buffer, undercut.buffer, histogram.buffer] as ArrayBuffer[];
}
