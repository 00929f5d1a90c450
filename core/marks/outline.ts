/** The outline of one mark, a little outside its ink, traced by marching squares and simplified to half a pixel. */
import { contours } from 'd3-contour';
import simplify from 'simplify-js';
import { distanceFrom } from '#core/filter';
import type { Outline } from '#core/settings';

interface Bounds {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** Outer outlines, 0–1 of the sheet; `pad` pixels of paper are kept round the ink. */
export function outlineOf(
  inked: Uint8Array,
  labels: Int32Array,
  label: number,
  box: Bounds,
  pad: number,
  width: number,
  height: number,
): Outline[] {
  const x0 = box.left - pad - 2;
  const y0 = box.top - pad - 2;
  const w = box.right - box.left + 2 * pad + 4;
  const h = box.bottom - box.top + 2 * pad + 4;
  const own = new Uint8Array(w * h);
  for (let j = box.top; j < box.bottom; j++) {
    for (let i = box.left; i < box.right; i++) {
      const at = j * width + i;
      if (inked[at] && labels[at] === label) own[(j - y0) * w + i - x0] = 1;
    }
  }
  const distance = distanceFrom(own, w, h);
  // Contours cross where pad is met; the field falls to both sides of it.
  const field = Array.from(distance, (d) => pad - d);
  const [traced] = contours().size([w, h]).thresholds([0])(field);
  return (traced?.coordinates ?? [])
    .map(([outer]) =>
      simplify(
        outer.slice(0, -1).map(([x, y]) => ({ x: x, y: y })),
        0.5,
        true,
      ),
    )
    .filter((points) => points.length >= 3)
    .map((points) =>
      points.flatMap(({ x, y }) => [Number(((x + x0) / width).toFixed(5)), Number(((y + y0) / height).toFixed(5))]),
    );
}
