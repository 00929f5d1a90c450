/** Masks everything inside an outline drawn on the slab, seen straight from above, and inside its copies. */
import { copiesOf } from '#core/stroke';
import type { Symmetry } from '#core/settings';
import type { Surface } from '#core/sculpt';
import { changeMask } from './change';
import type { MaskWay } from './edit';

export type MaskShape =
  /** Half sides along the shape's own axes, body units. */
  | { kind: 'rectangle' | 'ellipse'; x: number; y: number; turnRad: number; halfWidth: number; halfHeight: number }
  /** x, y of each corner; closed by itself. */
  | { kind: 'lasso'; points: readonly number[] };

export function maskShape(s: Surface, shape: MaskShape, way: MaskWay, symmetry: Symmetry): void {
  const copies = copiesOf(symmetry);
  const inside = insideOf(shape);
  const { positions: p } = s.mesh;
  changeMask(s, (vertex, now) => {
    const x = p[vertex * 3]! - symmetry.x;
    const y = p[vertex * 3 + 1]! - symmetry.y;
    // A copy's inverse is its transpose.
    const hit = copies.some(({ a, b, c, d }) => inside(symmetry.x + a * x + c * y, symmetry.y + b * x + d * y));
    return hit ? (way === 'add' ? 1 : 0) : now;
  });
}

function insideOf(shape: MaskShape): (x: number, y: number) => boolean {
  if (shape.kind === 'lasso') return insideLasso(shape.points);
  const c = Math.cos(shape.turnRad);
  const s = Math.sin(shape.turnRad);
  const { halfWidth: w, halfHeight: h } = shape;
  return (x, y) => {
    const dx = x - shape.x;
    const dy = y - shape.y;
    const u = dx * c + dy * s;
    const v = dy * c - dx * s;
    return shape.kind === 'rectangle' ? Math.abs(u) <= w && Math.abs(v) <= h : (u / w) ** 2 + (v / h) ** 2 <= 1;
  };
}

/** Even–odd rule. */
function insideLasso(points: readonly number[]): (x: number, y: number) => boolean {
  const count = points.length / 2;
  const xs = points.filter((_, i) => i % 2 === 0);
  const ys = points.filter((_, i) => i % 2 === 1);
  const left = Math.min(...xs);
  const right = Math.max(...xs);
  const low = Math.min(...ys);
  const high = Math.max(...ys);
  return (x, y) => {
    if (x < left || x > right || y < low || y > high) return false;
    let inside = false;
    for (let i = 0, j = count - 1; i < count; j = i++) {
      if (ys[i]! > y !== ys[j]! > y && x < ((xs[j]! - xs[i]!) * (y - ys[i]!)) / (ys[j]! - ys[i]!) + xs[i]!) inside = !inside;
    }
    return inside;
  };
}
