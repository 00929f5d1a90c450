/**
 * An own falloff curve through nodes: straight through corner nodes, monotone cubic through smooth ones.
 *
 * Source: Fritsch and Carlson, "Monotone piecewise cubic interpolation", SIAM J. Numer. Anal. 17 (1980).
 * A span ends straight at a corner: the slope there is the span's own.
 */
import type { CurveNode } from '#core/settings';

export interface Curve {
  nodes: readonly CurveNode[];
  /** Slope leaving and entering each node. */
  out: readonly number[];
  in: readonly number[];
}

/** Sorts the nodes by x; nodes at the same x keep the last. */
export function prepareCurve(input: readonly CurveNode[]): Curve {
  const sorted = [...input].sort((a, b) => a.x - b.x);
  const nodes = sorted.filter((node, i) => i === sorted.length - 1 || sorted[i + 1].x - node.x > 1e-6);
  const spans = nodes.length - 1;
  const slope: number[] = [];
  for (let i = 0; i < spans; i++) slope.push((nodes[i + 1].y - nodes[i].y) / (nodes[i + 1].x - nodes[i].x));
  const outgoing = nodes.map((_, i) => slope[Math.min(i, spans - 1)] ?? 0);
  const incoming = nodes.map((_, i) => slope[Math.max(i - 1, 0)] ?? 0);
  for (let i = 1; i < spans; i++) {
    if (nodes[i].corner) continue;
    const before = slope[i - 1];
    const after = slope[i];
    const m = before * after <= 0 ? 0 : (2 * before * after) / (before + after);
    outgoing[i] = m;
    incoming[i] = m;
  }
  // A smooth end node is met flat, so that a dab's middle and rim have no kink.
  if (spans > 0 && !nodes[0].corner) outgoing[0] = 0;
  if (spans > 0 && !nodes[spans].corner) incoming[spans] = 0;
  return { nodes, out: outgoing, in: incoming };
}

/** Value at x; constant before the first node and after the last, clamped to [0, 1]. */
export function curveAt(curve: Curve, x: number): number {
  const { nodes } = curve;
  const last = nodes.length - 1;
  if (x <= nodes[0].x) return nodes[0].y;
  if (x >= nodes[last].x) return nodes[last].y;
  let i = 0;
  while (nodes[i + 1].x < x) i++;
  const a = nodes[i];
  const b = nodes[i + 1];
  const h = b.x - a.x;
  const t = (x - a.x) / h;
  const t2 = t * t;
  const t3 = t2 * t;
  const y =
    (2 * t3 - 3 * t2 + 1) * a.y +
    (t3 - 2 * t2 + t) * h * curve.out[i] +
    (3 * t2 - 2 * t3) * b.y +
    (t3 - t2) * h * curve.in[i + 1];
  return y < 0 ? 0 : y > 1 ? 1 : y;
}
