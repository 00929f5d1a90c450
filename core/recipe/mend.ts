/** What mends each check of a picture: a step that is added to its recipe, or another size. */
import type { Check, PictureChecks } from '#core/checks';
import type { StepKind } from '#core/settings';

export type Mend =
  | { kind: 'step'; label: string; step: StepKind; given: Record<string, unknown> }
  | { kind: 'size'; label: string; size: number };

/** A clean ground lies this far from what is still taken for dirt. */
const DIRT_REACH = 0.08;
const LEAST_SIZE = 64;

/** `size` is the picture's side, pixels; null for a check that nothing but new work mends. */
export function mendOf(name: Check['name'], found: PictureChecks, size: number): Mend | null {
  const value = found.checks.find((c) => c.name === name)?.value;
  const step = (label: string, kind: StepKind, given: Record<string, unknown> = {}): Mend => ({
    kind: 'step',
    label,
    step: kind,
    given,
  });
  switch (name) {
    case 'margin':
      return step('Pad and centre', 'pad', { margin: 6 });
    case 'ring-loss':
      return step('Pad into the ring', 'pad', { margin: 15.5 });
    case 'ground':
      return step('Feather to the ring', 'feather', { start: 70, end: 98 });
    case 'dirt':
      return cleanGround(found.ground);
    case 'specks': {
      const largest = Math.max(0, ...found.background.specks.map((s) => s.r)) * 100;
      return step('Despeckle', 'despeckle', { size: rounded(within(largest * 1.6, 0.1, 2), 2), contrast: 4 });
    }
    case 'used-range':
      return step('Spread the tones', 'levels', {
        black: grey(found.used[0]),
        white: grey(Math.max(found.used[0] + 0.02, found.used[1])),
      });
    case 'banding':
      return step('De-band', 'deband', { step: rounded(within(1.2 / Math.max(16, value ?? 255), 0.001, 0.06), 4) });
    case 'seam':
      return step('Make seamless', 'seamless');
    case 'lift':
      return step('Even it out', 'even', { size: 25 });
    case 'resolution':
      // A quarter more than is needed, since resampling takes a little.
      return {
        kind: 'size',
        label: 'Use the true size',
        size: within(Math.round((((value ?? 100) / 100) * size * 1.25) / 8) * 8, Math.min(LEAST_SIZE, size), size),
      };
    default:
      return null;
  }
}

/**
 * Faint tones go to the ground: a dark one takes the darks, a white one the lights, one between them both its sides.
 */
function cleanGround(ground: number): Mend {
  const low = grey(ground - DIRT_REACH);
  const high = grey(ground + DIRT_REACH);
  if (low <= 0) return { kind: 'step', label: 'Cut the darks', step: 'levels', given: { black: high, white: 1 } };
  if (high >= 1) return { kind: 'step', label: 'Cut the lights', step: 'levels', given: { black: 0, white: low } };
  const node = (x: number, y: number) => ({ x, y, corner: true });
  return {
    kind: 'step',
    label: 'Flatten the ground',
    step: 'curve',
    given: { nodes: [node(0, 0), node(low, grey(ground)), node(high, grey(ground)), node(1, 1)] },
  };
}

function grey(value: number): number {
  return rounded(within(value, 0, 1), 3);
}

function within(value: number, least: number, most: number): number {
  return Math.max(least, Math.min(most, value));
}

function rounded(value: number, digits: number): number {
  return Number(value.toFixed(digits));
}
