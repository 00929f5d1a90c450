/**
 * Ring loss: share of Σ|h − ground| that lies outside the reach ring at a fit, and the smallest fit that loses next to
 * nothing.
 */
import { edgeGround, type Picture } from '#core/picture';
import type { Check } from './check';

export const RING_LOSS_LIMIT = 0.001;

export function ringLoss(picture: Picture, fit: number, ground = edgeGround(picture)): number {
  const { width, height, data } = picture;
  let all = 0;
  let outside = 0;
  for (let j = 0; j < height; j++) {
    const v = ((j + 0.5) / height) * 2 - 1;
    for (let i = 0; i < width; i++) {
      const u = ((i + 0.5) / width) * 2 - 1;
      const d = Math.abs(data[j * width + i] - ground);
      all += d;
      if (u * u + v * v > fit * fit) outside += d;
    }
  }
  return all > 0 ? outside / all : 0;
}

/** Smallest fit with under 0.1 % outside the ring, to a hundredth, at most √2. */
export function bestFit(picture: Picture, ground = edgeGround(picture)): number {
  const { width, height, data } = picture;
  const bins = new Float64Array(1024);
  let all = 0;
  for (let j = 0; j < height; j++) {
    const v = ((j + 0.5) / height) * 2 - 1;
    for (let i = 0; i < width; i++) {
      const u = ((i + 0.5) / width) * 2 - 1;
      const d = Math.abs(data[j * width + i] - ground);
      bins[Math.min(1023, Math.ceil((Math.sqrt(u * u + v * v) / Math.SQRT2) * 1023))] += d;
      all += d;
    }
  }
  let outside = 0;
  for (let b = 1023; b >= 0; b--) {
    outside += bins[b];
    if (outside >= all * RING_LOSS_LIMIT) return Math.min(1.42, Math.ceil((b / 1023) * Math.SQRT2 * 100) / 100);
  }
  return 1;
}

export function checkRingLoss(picture: Picture, fit: number, ground = edgeGround(picture)): Check {
  const value = ringLoss(picture, fit, ground);
  const ok = value < RING_LOSS_LIMIT;
  return {
    name: 'ring-loss',
    ok,
    value: value * 100,
    limit: RING_LOSS_LIMIT * 100,
    unit: '%',
    sentence: ok
      ? 'The whole form lies inside the ring'
      : `${(value * 100).toFixed(1)} % of the form lies outside the ring and is lost.`,
  };
}
