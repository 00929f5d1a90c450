/** Changes of grey alone, pixel by pixel. Levels, curve, invert, threshold, terrace; values are 0–1 in and out. */
import { curveAt, prepareCurve } from '#core/falloff';
import type { Picture } from '#core/picture';
import { levelsCompiled } from './compiled';
import type { CurveNode } from '#core/settings';

/** Black and white become 0 and 1; `mid` over 1 lifts the tones between (v^(1/mid)). Black over white inverts. */
export function levels(from: Picture, black: number, mid: number, white: number): Picture {
  const span = white - black;
  const scale = Math.abs(span) < 1e-6 ? 1e6 : 1 / span;
  const table = mid === 1 ? null : tabulate((v) => v ** (1 / mid));
  return levelsCompiled(from, black, scale, table) ?? levelsPlain(from, black, scale, table);
}

export function levelsPlain(from: Picture, black: number, scale: number, table: Float32Array | null): Picture {
  const { width, height, data } = from;
  const out = new Float32Array(data.length);
  for (let i = 0; i < data.length; i++) {
    const v = (data[i] - black) * scale;
    out[i] = v < 0 ? 0 : v > 1 ? 1 : v;
  }
  if (!table) return { width, height, data: out };
  for (let i = 0; i < out.length; i++) out[i] = read(table, out[i]);
  return { width, height, data: out };
}

export function toneCurve(from: Picture, nodes: readonly CurveNode[]): Picture {
  const curve = prepareCurve(nodes);
  return mapped(
    from,
    tabulate((v) => curveAt(curve, v)),
  );
}

export function invert(from: Picture): Picture {
  return { ...from, data: from.data.map((v) => 1 - v) };
}

/** `soft` is the width of the slope, 0–1 of the tones. */
export function threshold(from: Picture, level: number, soft: number): Picture {
  const half = Math.max(soft / 2, 1e-6);
  return { ...from, data: from.data.map((v) => smoothstep(level - half, level + half, v)) };
}

/** `steps` even levels from black to white; each step slopes over `soft` (0–1) of its width. */
export function terrace(from: Picture, steps: number, soft: number): Picture {
  const last = steps - 1;
  const half = Math.max(soft / 2, 1e-4);
  return {
    ...from,
    data: from.data.map((v) => {
      const at = Math.max(0, Math.min(1, v)) * last;
      const below = Math.floor(at);
      return (below + smoothstep(0.5 - half, 0.5 + half, at - below)) / last;
    }),
  };
}

export function smoothstep(low: number, high: number, v: number): number {
  const t = (v - low) / (high - low);
  if (t <= 0) return 0;
  return t >= 1 ? 1 : t * t * (3 - 2 * t);
}

const TABLE = 65536;

function tabulate(change: (v: number) => number): Float32Array {
  return Float32Array.from({ length: TABLE + 2 }, (_, i) => change(Math.min(1, i / TABLE)));
}

/** Linear between entries, so that float pictures get no steps from the table. */
function read(table: Float32Array, v: number): number {
  const at = (v < 0 ? 0 : v > 1 ? 1 : v) * TABLE;
  const i = at | 0;
  return table[i] + (table[i + 1] - table[i]) * (at - i);
}

function mapped(from: Picture, table: Float32Array): Picture {
  return { ...from, data: from.data.map((v) => read(table, v)) };
}
