/** Samples of a straight line as the eye sees it, close enough that the walk follows the surface between its ends. */
import { between, type Sample } from './record';

const STEPS = 64;

export function straight(from: Sample, to: Sample): Sample[] {
  return Array.from({ length: STEPS + 1 }, (_, i) => between(from, to, i / STEPS));
}
