/**
 * GrabCut (Rother, Kolmogorov and Blake, 2004) as OpenCV has it: colours inside and outside are each a mixture of
 * Gaussians, and the cheapest cut between the two follows the picture’s edges. It begins with mixtures of ours: its
 * own come of chance that can't be seeded. The package is large: it is fetched when it is first asked for.
 */
import { CLUSTERS, mixtureOf } from './mixture';
import { INSIDE, LIKELY_INSIDE, type Segment } from './segment';

/** Of cutting and learning the colours anew; what is likely is told beforehand, so that few are enough. */
const ROUNDS = 2;

export async function loadGrabCut(): Promise<Segment> {
  (globalThis as { Module?: object }).Module ??= {};
  const { cv, whenReady } = await import('./openCv');
  await whenReady();
  return ({ width, height, rgb, known }) => {
    const [outside, inside] = [false, true].map((on) => side(known, on));
    // Nothing is left to be found, and nothing to learn the colours of one side from.
    if (outside.length === 0 || inside.length === 0) return known.map((k) => (isInside(k) ? 1 : 0));
    const made = [
      cv.matFromArray(height, width, cv.CV_8UC3, rgb),
      cv.matFromArray(height, width, cv.CV_8UC1, known),
      ...[outside, inside].map((pixels) => cv.matFromArray(1, CLUSTERS * 13, cv.CV_64FC1, mixtureOf(rgb, pixels))),
    ];
    const [picture, mask, ofOutside, ofInside] = made;
    try {
      cv.grabCut(picture, mask, new cv.Rect(0, 0, width, height), ofOutside, ofInside, ROUNDS, cv.GC_EVAL);
      return Uint8Array.from(mask.data as Uint8Array, (v) => (isInside(v) ? 1 : 0));
    } catch (error) {
      // It throws the number of an exception in its own memory.
      throw error instanceof Error ? error : new Error('Its colours couldn’t be told apart.');
    } finally {
      for (const mat of made) mat.delete();
    }
  };
}

const isInside = (known: number): boolean => known === INSIDE || known === LIKELY_INSIDE;

/** Pixels that are, or likely are, on one side. */
function side(known: Uint8Array, inside: boolean): number[] {
  const out: number[] = [];
  known.forEach((k, i) => isInside(k) === inside && out.push(i));
  return out;
}
