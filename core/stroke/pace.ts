/** Speed of the hand over the plane of the press that faces the eye, smoothed, since samples come at uneven times. */
import type { Vec3 } from '#core/brush';
import { onFacingPlane, type Sample } from './record';

export interface Pace {
  toward: Vec3;
  at: Vec3 | null;
  time: number;
  speed: number;
}

/** Time in which a change of speed is followed to 63 %. */
const SMOOTH_MS = 60;

/** The sample with its speed, body units per second. `at` is where the stroke was pressed. */
export function paced(pace: Pace, sample: Sample, at: Vec3): Sample {
  if (sample.time === undefined) return sample;
  const hand = onFacingPlane(sample, at, pace.toward);
  if (!hand) return { ...sample, speed: pace.speed };
  const elapsed = sample.time - pace.time;
  if (pace.at && elapsed > 0) {
    const now = (Math.hypot(hand[0] - pace.at[0], hand[1] - pace.at[1], hand[2] - pace.at[2]) / elapsed) * 1000;
    pace.speed += (now - pace.speed) * (1 - Math.exp(-elapsed / SMOOTH_MS));
  }
  if (!pace.at || elapsed > 0) {
    pace.at = hand;
    pace.time = sample.time;
  }
  return { ...sample, speed: pace.speed };
}
