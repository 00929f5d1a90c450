/**
 * The texels of a triangle: those whose middles lie in it. One on an edge that two triangles share is one’s alone, by
 * the top-left rule, so that none is painted twice and none is left out.
 */
import { boundsOf, type Atlas } from './atlas';

/** Shares of the corners of the triangle at the texel’s middle. */
export type Visit = (x: number, y: number, a: number, b: number, c: number) => void;

export interface Window {
  left: number;
  top: number;
  /** Not part of it. */
  right: number;
  bottom: number;
}

/** One side of a triangle: over 0 on its inner side. */
interface Edge {
  /** Where it begins, and which way it runs. */
  x: number;
  y: number;
  along: number;
  down: number;
  /** Whether the texels on it are this triangle’s. */
  own: boolean;
}

export interface Edges extends Window {
  /** Against the first, the second and the third corner. */
  a: Edge;
  b: Edge;
  c: Edge;
  /** What makes the three values of a place its shares of the corners. */
  whole: number;
}

/** The sides of triangle `t`, and the texels that it may have inside the window; null of one without area. */
export function edgesOf({ corners, size }: Pick<Atlas, 'corners' | 'size'>, t: number, inside?: Window): Edges | null {
  const k = t * 6;
  const [ax, ay, bx, by] = [corners[k], corners[k + 1], corners[k + 2], corners[k + 3]];
  const [cx, cy] = [corners[k + 4], corners[k + 5]];
  const twice = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
  if (twice === 0 || !Number.isFinite(twice)) return null;
  // A mirrored island runs the other way round.
  const turn = twice < 0 ? -1 : 1;
  const edge = (x: number, y: number, toX: number, toY: number): Edge => {
    const [along, down] = [(toX - x) * turn, (toY - y) * turn];
    // Top and left sides are the triangle's own; y runs down.
    return { x, y, along, down, own: down < 0 || (down === 0 && along > 0) };
  };
  const bounds = boundsOf(corners, t);
  return {
    left: Math.max(inside?.left ?? 0, bounds[0], 0),
    top: Math.max(inside?.top ?? 0, bounds[1], 0),
    right: Math.min(inside?.right ?? size, bounds[2] + 1, size),
    bottom: Math.min(inside?.bottom ?? size, bounds[3] + 1, size),
    a: edge(bx, by, cx, cy),
    b: edge(cx, cy, ax, ay),
    c: edge(ax, ay, bx, by),
    whole: 1 / Math.abs(twice),
  };
}

/** Texels of triangle `t` inside the window; nothing of one without area. */
export function eachTexel(of: Pick<Atlas, 'corners' | 'size'>, t: number, visit: Visit, inside?: Window): void {
  const edges = edgesOf(of, t, inside);
  if (!edges) return;
  const { left, right, top, bottom, a, b, c, whole } = edges;
  const at = ({ x, y, along, down }: Edge, px: number, py: number): number => along * (py - y) - down * (px - x);
  for (let y = top; y < bottom; y++)
    for (let x = left; x < right; x++) {
      const [px, py] = [x + 0.5, y + 0.5];
      const [ea, eb, ec] = [at(a, px, py), at(b, px, py), at(c, px, py)];
      if (ea < 0 || eb < 0 || ec < 0) continue;
      if ((ea === 0 && !a.own) || (eb === 0 && !b.own) || (ec === 0 && !c.own)) continue;
      visit(x, y, ea * whole, eb * whole, ec * whole);
    }
}
