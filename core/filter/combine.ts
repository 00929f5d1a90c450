/** Lays another picture of the same size over one. */
import type { Picture } from '#core/picture';
import type { StepOf } from '#core/settings';

export type CombineMode = StepOf<'combine'>['way'];

/** `strength` 0–1 is the share of the result; “over” covers by the other's own height. */
export function combine(a: Picture, b: Picture, way: CombineMode, strength: number): Picture {
  const out = new Float32Array(a.data.length);
  for (let i = 0; i < out.length; i++) {
    const x = a.data[i];
    const y = b.data[i];
    const v = x + (joined(x, y, way) - x) * strength;
    out[i] = v < 0 ? 0 : v > 1 ? 1 : v;
  }
  return { width: a.width, height: a.height, data: out };
}

function joined(x: number, y: number, way: CombineMode): number {
  switch (way) {
    case 'max':
      return Math.max(x, y);
    case 'min':
      return Math.min(x, y);
    case 'add':
      return x + y;
    case 'multiply':
      return x * y;
    case 'over':
      return y + x * (1 - y);
  }
}
