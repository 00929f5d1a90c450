/** Changes of the mask as a whole. Soften, grow and shrink go by rings of neighbours, one a step. */
import { RING_VERTEX } from '#core/mesh';
import type { Surface } from '#core/sculpt';
import { changeMask } from './change';

export function invertMask(s: Surface): void {
  changeMask(s, (_, now) => 1 - now);
}

export function clearMask(s: Surface): void {
  changeMask(s, () => 0);
}

/** Each step takes the mean of a vertex and its neighbours. */
export function softenMask(s: Surface, steps: number): void {
  byRings(s, steps, (now, sum, n) => (now + sum) / (n + 1));
}

/** Each step takes the largest mask round a vertex; negative steps the smallest. */
export function growMask(s: Surface, steps: number): void {
  byRings(s, Math.abs(steps), (now, _, __, low, high) => (steps < 0 ? Math.min(now, low) : Math.max(now, high)));
}

function byRings(
  s: Surface,
  steps: number,
  next: (now: number, sum: number, n: number, low: number, high: number) => number,
): void {
  const { mask, ringStarts, rings, vertexCount } = s.mesh;
  let from = mask.slice();
  let to = new Float32Array(vertexCount);
  for (let step = 0; step < steps; step++) {
    for (let v = 0; v < vertexCount; v++) {
      let sum = 0;
      let low = 1;
      let high = 0;
      const first = ringStarts[v];
      const end = ringStarts[v + 1];
      // A closed ring names its first neighbour again.
      const last = end - first > 1 && rings[first] === rings[end - 1] ? end - 1 : end;
      for (let k = first; k < last; k++) {
        const m = from[rings[k] & RING_VERTEX];
        sum += m;
        if (m < low) low = m;
        if (m > high) high = m;
      }
      to[v] = last > first ? next(from[v], sum, last - first, low, high) : from[v];
    }
    [from, to] = [to, from];
  }
  changeMask(s, (v) => from[v]);
}
