/** Every check of a brush on its bench; those that found something come first. */
import type { ResolvedBrush } from '#core/brush';
import { calmSpacing, detailShown, shapes, stampMeasures, type StampMeasures } from '#core/profile';
import type { Check } from './check';
import { bestFit, checkRingLoss } from './ringLoss';

export const DISC_LIMIT = 0.01;
export const RIM_LIMIT = 0.02;
export const RIPPLE_LIMIT = 0.06;
export const DETAIL_LIMIT = 0.85;

/** What a click changes. */
export type BrushMend =
  | { kind: 'set'; label: string; path: 'form.fit' | 'form.ground' | 'stroke.spacing'; value: number }
  | { kind: 'plateau'; label: string; hold: number }
  | { kind: 'subdivide'; label: string };

export interface BrushCheck extends Check {
  mend: BrushMend | null;
}

export interface BrushChecks {
  checks: BrushCheck[];
  measures: StampMeasures;
}

/**
 * `spacing` is the body's mean distance from vertex to vertex; null before a body is open. `finer` says whether it can
 * be subdivided.
 */
export function brushChecks(brush: ResolvedBrush, body: { spacing: number; finer: boolean } | null): BrushChecks {
  const measures = stampMeasures(brush);
  const checks = [
    ringLossOf(brush),
    discOf(brush, measures),
    rimOf(brush, measures),
    rippleOf(brush, measures),
    detailOf(brush, body),
  ].filter((c) => c !== null);
  return { checks: [...checks.filter((c) => !c.ok), ...checks.filter((c) => c.ok)], measures };
}

const percent = (share: number): string => `${(share * 100).toFixed(share < 0.1 ? 1 : 0)} %`;

/** Only a round ring cuts corners, and only where the alpha lies in the dab's own square. */
function ringLossOf(brush: ResolvedBrush): BrushCheck | null {
  const picture = brush.alpha?.levels[0];
  if (
    !picture ||
    brush.square ||
    brush.mapping === 'wrapped' ||
    brush.mapping === 'stencil' ||
    brush.mapping === 'shuffled'
  )
    return null;
  const check = checkRingLoss(picture, brush.fit, brush.ground);
  const fit = bestFit(picture, brush.ground);
  return {
    ...check,
    mend: check.ok ? null : { kind: 'set', label: `Set fit to ${fit.toFixed(2)}`, path: 'form.fit', value: fit },
  };
}

function discOf(brush: ResolvedBrush, { disc }: StampMeasures): BrushCheck | null {
  if (!brush.alpha || brush.action !== 'lift') return null;
  const ok = Math.abs(disc) <= DISC_LIMIT;
  // The setting is the alpha’s own grey, also where the form is inverted.
  const shaped = brush.ground + disc;
  const ground = Number((brush.inverted ? 1 - shaped : shaped).toFixed(3));
  return {
    name: 'disc',
    ok,
    value: disc * 100,
    limit: DISC_LIMIT * 100,
    unit: '%',
    mend: ok ? null : { kind: 'set', label: `Set ground to ${ground.toFixed(2)}`, path: 'form.ground', value: ground },
    sentence: ok
      ? 'No disc under the form'
      : `The stamp leaves a ${percent(Math.abs(disc))} ${disc > 0 ? 'lift' : 'dent'} under the whole form.`,
  };
}

/** A plain form ends where its falloff says; an alpha that isn't back at its ground by then leaves a wall. */
function rimOf(brush: ResolvedBrush, { rimStep }: StampMeasures): BrushCheck | null {
  if (!brush.alpha || brush.action === 'smooth' || brush.action === 'move') return null;
  const ok = rimStep <= RIM_LIMIT;
  return {
    name: 'rim-step',
    ok,
    value: rimStep * 100,
    limit: RIM_LIMIT * 100,
    unit: '%',
    mend: ok ? null : { kind: 'plateau', label: 'Fall off from 0.9 r', hold: 0.9 },
    sentence: ok
      ? 'Nothing is left standing at the rim'
      : `A step of ${percent(rimStep)} of the depth is left at the rim.`,
  };
}

function rippleOf(brush: ResolvedBrush, { ripple }: StampMeasures): BrushCheck | null {
  const runs =
    brush.strokeType === 'trail' ||
    brush.strokeType === 'linger' ||
    brush.strokeType === 'ruler' ||
    brush.strokeType === 'path';
  if (!runs || brush.action === 'move') return null;
  const ok = ripple <= RIPPLE_LIMIT;
  const spacing = ok ? 0 : calmSpacing(brush, RIPPLE_LIMIT);
  return {
    name: 'ripple',
    ok,
    value: ripple * 100,
    limit: RIPPLE_LIMIT * 100,
    unit: '%',
    mend: ok ? null : { kind: 'set', label: `Set spacing to ${spacing} %`, path: 'stroke.spacing', value: spacing },
    sentence: ok ? 'The dabs run together' : `The spacing leaves a ripple of ${percent(ripple)} along the stroke.`,
  };
}

function detailOf(brush: ResolvedBrush, body: { spacing: number; finer: boolean } | null): BrushCheck | null {
  if (!body || !(brush.alpha || shapes(brush.action))) return null;
  const shown = detailShown(brush, body.spacing);
  const ok = shown >= DETAIL_LIMIT;
  return {
    name: 'detail',
    ok,
    value: shown * 100,
    limit: DETAIL_LIMIT * 100,
    unit: '%',
    mend: ok || !body.finer ? null : { kind: 'subdivide', label: 'Subdivide the body' },
    sentence: ok
      ? `The body shows all of this ${brush.alpha ? 'alpha' : 'form'}`
      : `At this size the body is too coarse: it shows ${percent(shown)} of the ${brush.alpha ? 'alpha’s ups and downs' : 'falloff’s peak'}.`,
  };
}
