/**
 * What pressure and speed of the hand do to size and strength: each through a curve, from a lower to an upper limit.
 */
import { z } from 'zod';
import { CurveNodeSchema } from './curve';
import { setting } from './setting';

const CurveSchema = z
  .array(CurveNodeSchema)
  .min(2, 'A curve needs at least two nodes.')
  .max(24)
  .default([
    { x: 0, y: 0, corner: true },
    { x: 1, y: 1, corner: true },
  ]);

/** `what` names what is led, `least` and `most` the state of the hand that the limits stand for. */
function link(what: string, least: string, most: string) {
  const limit = (hand: string) =>
    setting({
      label: `${hand} ${what}`,
      unit: '%',
      min: 0,
      max: 200,
      step: 1,
      fallback: 100,
      help: `Share of the brush’s ${what} that a ${hand.toLowerCase()} hand gives`,
    });
  return z.object({
    low: limit(least),
    high: limit(most),
    curve: CurveSchema,
  });
}

export const PEN_LINKS = ['pressureSize', 'pressureStrength', 'speedSize', 'speedStrength'] as const;
export type PenLinkName = (typeof PEN_LINKS)[number];

export const PenSchema = z.object({
  pressureSize: link('size', 'Light', 'Firm').prefault({}),
  pressureStrength: link('strength', 'Light', 'Firm').prefault({}),
  speedSize: link('size', 'Slow', 'Fast').prefault({}),
  speedStrength: link('strength', 'Slow', 'Fast').prefault({}),
  fast: setting({
    label: 'Full speed at',
    unit: 'body/s',
    min: 0.1,
    max: 20,
    step: 0.1,
    fallback: 3,
    scale: 'log',
    help: 'Speed of the hand that counts as full speed, body units per second',
  }),
});
export type PenLink = z.infer<typeof PenSchema>[PenLinkName];
