/**
 * Stencil: a sheet that lies over the view and is painted through. It is kept as the rows of a projection:
 * u = U·p ÷ W·p and v = V·p ÷ W·p for a point p of the body, −1 to 1 from side to side and from bottom to top.
 */
import type { Vec3 } from '#core/brush';
import type { Symmetry } from '#core/settings';
import { copyPoint, inverse, type Copy } from './symmetry';

type Row = readonly [number, number, number, number];

export interface StencilRows {
  u: Row;
  v: Row;
  w: Row;
}

/**
 * Where the sheet lies in the view: its middle in half heights of the view, half its side likewise, its turn
 * anticlockwise.
 */
export interface StencilPlace {
  x: number;
  y: number;
  half: number;
  turnRad: number;
}

/**
 * `clip` are the rows x, y and w of the eye's projection (clip space ÷ w is −1 to 1 across the view), `aspect` the
 * view's width over its height.
 */
export function stencilRows(clip: { x: Row; y: Row; w: Row }, aspect: number, place: StencilPlace): StencilRows {
  const c = Math.cos(place.turnRad) / place.half;
  const s = Math.sin(place.turnRad) / place.half;
  const across = row((k) => clip.x[k] * aspect - place.x * clip.w[k]);
  const up = row((k) => clip.y[k] - place.y * clip.w[k]);
  return { u: row((k) => across[k] * c + up[k] * s), v: row((k) => up[k] * c - across[k] * s), w: clip.w };
}

/** The stencil as a copy of a dab under symmetry sees it. */
export function copyStencil(rows: StencilRows, copy: Copy, symmetry: Symmetry): StencilRows {
  // A row reads the point that was copied; where that came from is the copy's way back.
  const back = inverse(copy);
  const from = copyPoint([0, 0, 0], back, symmetry);
  const turned = (r: Row): Row => [
    r[0] * back[0] + r[1] * back[3] + r[2] * back[6],
    r[0] * back[1] + r[1] * back[4] + r[2] * back[7],
    r[0] * back[2] + r[1] * back[5] + r[2] * back[8],
    r[3] + r[0] * from[0] + r[1] * from[1] + r[2] * from[2],
  ];
  return { u: turned(rows.u), v: turned(rows.v), w: turned(rows.w) };
}

/** Side of the sheet where it falls on the body at a point, across `along` and `across`, body units. */
export function stencilSide(rows: StencilRows, at: Vec3, along: Vec3, across: Vec3): number {
  const place = (p: Vec3): readonly [number, number] => {
    const w = dotted(rows.w, p);
    return [dotted(rows.u, p) / w, dotted(rows.v, p) / w];
  };
  const step = 1e-3;
  const from = place(at);
  const moved = (by: Vec3): number => {
    const to = place([at[0] + by[0] * step, at[1] + by[1] * step, at[2] + by[2] * step]);
    return Math.hypot(to[0] - from[0], to[1] - from[1]) / step;
  };
  const most = Math.max(moved(along), moved(across));
  return Number.isFinite(most) && most > 0 ? 2 / most : 0;
}

function dotted(r: Row, p: Vec3): number {
  return r[0] * p[0] + r[1] * p[1] + r[2] * p[2] + r[3];
}

function row(at: (k: 0 | 1 | 2 | 3) => number): Row {
  return [at(0), at(1), at(2), at(3)];
}
