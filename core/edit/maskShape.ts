/**
 * Masks everything inside an outline drawn on the slab, seen straight from above, and inside its copies. The edge is as
 * soft as the clay is coarse: from 1 to 0 over a vertex on either side, so that what is done inside ends along the
 * outline and not along the grid.
 */
import { copiesOf, copyPoint, inverse } from '#core/stroke';
import type { Symmetry } from '#core/settings';
import type { Surface } from '#core/sculpt';
import { changeMask } from './change';
import type { MaskMode } from './edit';

export type MaskShape =
  /** Half sides along the shape's own axes, body units. */
  | { kind: 'rectangle' | 'ellipse'; x: number; y: number; turnRad: number; halfWidth: number; halfHeight: number }
  /** x, y of each corner; closed by itself. */
  | { kind: 'lasso'; points: readonly number[] };

/**
 * How far a place lies within an outline, body units; negative outside. Exact up to `soft` from it, beyond that only
 * its sign is.
 */
type Within = (x: number, y: number) => number;

export function maskShape(s: Surface, shape: MaskShape, mode: MaskMode, symmetry: Symmetry): void {
  const copies = copiesOf(symmetry).map(inverse);
  const soft = s.spacing;
  const within = withinOf(shape, soft);
  const { positions: p } = s.mesh;
  changeMask(s, (vertex, now) => {
    const at = [p[vertex * 3], p[vertex * 3 + 1], p[vertex * 3 + 2]] as const;
    let most = -Infinity;
    for (const copy of copies) {
      const [x, y] = copyPoint(at, copy, symmetry);
      most = Math.max(most, within(x, y));
    }
    // In steps of 1/256, which masks hold exactly: inverted twice, or taken away again, nothing is left of it.
    const cover = Math.round(Math.max(0, Math.min(1, 0.5 + most / (2 * soft))) * 256) / 256;
    return mode === 'add' ? Math.max(now, cover) : now - cover;
  });
}

function withinOf(shape: MaskShape, soft: number): Within {
  if (shape.kind === 'lasso') return withinLasso(shape.points, soft);
  const c = Math.cos(shape.turnRad);
  const s = Math.sin(shape.turnRad);
  const within =
    shape.kind === 'rectangle'
      ? withinRectangle(shape.halfWidth, shape.halfHeight)
      : withinEllipse(shape.halfWidth, shape.halfHeight);
  return (x, y) => {
    const dx = x - shape.x;
    const dy = y - shape.y;
    return within(dx * c + dy * s, dy * c - dx * s);
  };
}

function withinRectangle(w: number, h: number): Within {
  return (u, v) => {
    const across = Math.abs(u) - w;
    const up = Math.abs(v) - h;
    return across > 0 && up > 0 ? -Math.hypot(across, up) : -Math.max(across, up);
  };
}

/** By the first step of Newton's method from the place towards the outline, which is exact at it. */
function withinEllipse(w: number, h: number): Within {
  return (u, v) => {
    const level = Math.hypot(u / w, v / h);
    if (level === 0) return Math.min(w, h);
    const slope = Math.hypot(u / (w * w), v / (h * h)) / level;
    return (1 - level) / slope;
  };
}

const MOST_BANDS = 512;

/**
 * Even–odd rule, with the distance to the nearest side. Sides are sorted into bands from bottom to top: a place asks
 * those of its own.
 */
function withinLasso(points: readonly number[], soft: number): Within {
  const count = points.length / 2;
  const ys = points.filter((_, i) => i % 2 === 1);
  const low = ys.reduce((a, b) => Math.min(a, b), Infinity) - soft;
  const high = ys.reduce((a, b) => Math.max(a, b), -Infinity) + soft;
  const bands = Math.max(1, Math.min(MOST_BANDS, Math.ceil((high - low) / soft)));
  const bandOf = (y: number): number =>
    Math.max(0, Math.min(bands - 1, Math.floor(((y - low) / (high - low)) * bands)));
  const sides: number[][] = Array.from({ length: bands }, () => []);
  for (let i = 0, j = count - 1; i < count; j = i++) {
    const [x0, y0, x1, y1] = [points[j * 2], points[j * 2 + 1], points[i * 2], points[i * 2 + 1]];
    for (let band = bandOf(Math.min(y0, y1) - soft); band <= bandOf(Math.max(y0, y1) + soft); band++)
      sides[band].push(x0, y0, x1, y1);
  }
  return (x, y) => {
    if (y < low || y > high) return -soft;
    const own = sides[bandOf(y)];
    let inside = false;
    let near = soft * soft;
    for (let at = 0; at < own.length; at += 4) {
      const x0 = own[at];
      const y0 = own[at + 1];
      const dx = own[at + 2] - x0;
      const dy = own[at + 3] - y0;
      if (y0 > y !== own[at + 3] > y && x < x0 + (dx * (y - y0)) / dy) inside = !inside;
      const t = Math.max(0, Math.min(1, ((x - x0) * dx + (y - y0) * dy) / (dx * dx + dy * dy || 1)));
      const px = x - x0 - t * dx;
      const py = y - y0 - t * dy;
      near = Math.min(near, px * px + py * py);
    }
    return inside ? Math.sqrt(near) : -Math.sqrt(near);
  };
}
