/**
 * Margin: how many pixels lie between the form and the nearest side of the frame.
 * A form that reaches the side gives a stamp with a cut edge. The form is what differs from the ground by
 * more than 1 % of the full range.
 */
import { edgeGround, type Picture } from '#core/picture';
import type { Check } from './check';

/** Share of the side that should stay clear. */
export const MARGIN_LIMIT = 0.02;
const FORM_THRESHOLD = 0.01;

export interface MarginReport {
  marginPx: number;
  /** Bounds of the form in pixels, inclusive; null when there is none. */
  box: { left: number; top: number; right: number; bottom: number } | null;
}

export function measureMargin(picture: Picture, ground = edgeGround(picture)): MarginReport {
  const { width, height, data } = picture;
  let left = width;
  let right = -1;
  let top = height;
  let bottom = -1;
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      if (Math.abs(data[j * width + i] - ground) <= FORM_THRESHOLD) continue;
      if (i < left) left = i;
      if (i > right) right = i;
      if (j < top) top = j;
      bottom = j;
    }
  }
  if (right < 0) return { marginPx: Math.floor(Math.min(width, height) / 2), box: null };
  return {
    marginPx: Math.min(left, top, width - 1 - right, height - 1 - bottom),
    box: { left, top, right, bottom },
  };
}

export function checkMargin(picture: Picture, report = measureMargin(picture)): Check {
  const limit = Math.ceil(picture.width * MARGIN_LIMIT);
  const ok = report.marginPx >= limit;
  const share = ((report.marginPx / picture.width) * 100).toFixed(1);
  return {
    name: 'margin',
    ok,
    value: report.marginPx,
    limit,
    unit: 'px',
    sentence: ok
      ? `Margin ${report.marginPx} px (${share} % of the side)`
      : report.marginPx === 0
        ? 'The form touches the side of the frame; the stamp would have a cut edge.'
        : `The form comes within ${report.marginPx} px of the side; keep ${limit} px clear.`,
  };
}
