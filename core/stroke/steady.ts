/**
 * Steady: the dab is drawn along on a string behind the hand. While the string is slack the dab rests, so a hand that
 * shakes less than the string is long draws a smooth line; how often the hand is asked makes no difference.
 */
import type { Vec3 } from '#core/brush';
import { onFacingPlane, type Sample } from './record';

export interface Steady {
  /** Body units. */
  length: number;
  toward: Vec3;
  /** Where the dab is, on the plane through the press that faces the eye. */
  tip: Vec3 | null;
}

/** The sample as the dab takes it; null while the string is slack. `at` is where the stroke was pressed. */
export function steadied(state: Steady, sample: Sample, at: Vec3): Sample | null {
  if (state.length <= 0) return sample;
  const hand = onFacingPlane(sample, at, state.toward);
  if (!hand) return null;
  if (!state.tip) {
    state.tip = hand;
    return sample;
  }
  const { tip } = state;
  const away = Math.hypot(hand[0] - tip[0], hand[1] - tip[1], hand[2] - tip[2]);
  if (away <= state.length) return null;
  const share = 1 - state.length / away;
  const next: Vec3 = [
    tip[0] + (hand[0] - tip[0]) * share,
    tip[1] + (hand[1] - tip[1]) * share,
    tip[2] + (hand[2] - tip[2]) * share,
  ];
  state.tip = next;
  const { origin: o } = sample;
  return { ...sample, origin: [o[0] + next[0] - hand[0], o[1] + next[1] - hand[1], o[2] + next[2] - hand[2]] };
}
