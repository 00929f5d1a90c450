/**
 * Finer clay under a stroke while it is drawn, on bodies that are quickly laid out anew. It is for the eye alone: at
 * its end, or when it is given up, the body is the one that the stroke began on, so that the same samples always give
 * the same triangles.
 */
import { abandon, beginStroke, extendStroke, refinedWhile, type Session } from '#core/session';
import type { RefineUnder, Sample, StrokeStart } from '#core/stroke';
import { clayOrNull, current, held, opened } from './held';
import type { Opened } from './messages';

const MOST_VERTICES = 150_000;
const LEAST_MS = 350;
/** Between two runs there is so many times as much rest as the last one took. */
const REST = 4;

let wanted: RefineUnder | null = null;
/** The body that the running stroke began on, while another is shown. */
let before: Session | null = null;
let notBefore = 0;

/** A stroke begins that asks for finer clay, or for none. */
export function wantFiner(refine: RefineUnder | null): void {
  dropFiner();
  wanted = clayOrNull() ? null : refine;
  notBefore = performance.now() + LEAST_MS;
}

/** Refines under what was laid so far, when it is time to; null while everything stays. */
export function finer(): Opened | null {
  const s = current();
  const began = performance.now();
  if (!wanted || !s.running || began < notBefore || s.surface.mesh.vertexCount > MOST_VERTICES) return null;
  let next: Session | null;
  try {
    next = refinedWhile(s, wanted);
  } catch {
    // Without the room for it the stroke is seen on the clay as it is.
    wanted = null;
    return null;
  }
  notBefore = performance.now() + Math.max(LEAST_MS, (performance.now() - began) * REST);
  if (!next) return null;
  if (!before) {
    before = s;
    abandon(s);
  }
  held.open = { session: next };
  return opened(true);
}

/** Back to the body that the stroke began on, without the stroke; false when that is the one that is shown. */
export function dropFiner(): boolean {
  wanted = null;
  if (!before) return false;
  held.open = { session: before };
  held.unseen = true;
  before = null;
  return true;
}

/** Back to the body that the stroke began on, with all of the stroke laid on it. */
export function relay(): void {
  const record: (StrokeStart & { samples: Sample[] }) | undefined = before ? current().running?.record : undefined;
  dropFiner();
  if (!record) return;
  const { samples, ...start } = record;
  beginStroke(current(), start);
  extendStroke(current(), samples);
}
