/**
 * Finer clay under a stroke while it is drawn, on bodies that are quickly laid out anew: for the eye alone, and seldom
 * enough that the hand doesn't wait for it.
 */
import { refineRunning } from '#core/session';
import type { RefineUnder } from '#core/stroke';
import { clayOrNull, current, state } from './state';

const MOST_VERTICES = 150_000;
const LEAST_MS = 350;
/** Between two runs there is so many times as much rest as the last one took. */
const REST = 4;

/** A stroke begins that asks for finer clay, or for none. */
export function wantFiner(refine: RefineUnder | null): void {
  state.finer = refine && !clayOrNull() ? { refine, notBefore: performance.now() + LEAST_MS } : null;
}

/** Refines under what was laid so far, when it is time to. */
export function finer(): void {
  const s = current();
  const began = performance.now();
  if (!state.finer || !s.running || began < state.finer.notBefore || s.surface.mesh.vertexCount > MOST_VERTICES) return;
  try {
    refineRunning(s, state.finer.refine);
    state.finer.notBefore = performance.now() + Math.max(LEAST_MS, (performance.now() - began) * REST);
  } catch {
    // Without the room for it the stroke is seen on the clay as it is.
    state.finer = null;
  }
}
