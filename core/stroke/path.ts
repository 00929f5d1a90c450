/**
 * Path: a curve through nodes that lie on the surface, read as the samples of a hand that follows it.
 *
 * Source: C. Yuksel, S. Schaefer, J. Keyser, "Parameterization and applications of Catmull–Rom curves", 2011:
 * centripetal, so that it has no loops between near nodes. Each sample looks at the surface along the normal between
 * its nodes' normals, so that the curve stays where it was put when the body is turned.
 */
import type { Vec3 } from '#core/brush';
import type { Sample } from './record';

export interface PathNode {
  point: Vec3;
  /** Unit normal of the surface there. */
  normal: Vec3;
  /** The curve turns sharply here. */
  corner?: boolean;
}

/** Samples a span. */
const STEPS = 32;
const LEAST = 1e-6;

/** One node is one sample; a closed curve comes back to its first node. At a corner the curve has a sharp turn. */
export function pathSamples(nodes: readonly PathNode[], closed: boolean): Sample[] {
  const apart = nodes.filter((node, i) => i === 0 || distance(node.point, nodes[i - 1].point) > LEAST);
  const count = apart.length;
  if (count === 0) return [];
  if (count === 1) return [looking(apart[0].point, apart[0].normal, 1)];
  const around = closed && count > 2;
  const spans = around ? count : count - 1;
  const at = (i: number): PathNode => apart[((i % count) + count) % count];
  const isEnd = (i: number): boolean => !around && (i === 0 || i === count - 1);
  const out: Sample[] = [];
  for (let i = 0; i < spans; i++) {
    const [from, to] = [at(i), at(i + 1)];
    const before = isEnd(i) || from.corner ? beyond(from, to) : at(i - 1);
    const after = isEnd(i + 1) || to.corner ? beyond(to, from) : at(i + 2);
    const four = [before.point, from.point, to.point, after.point] as const;
    const over = distance(from.point, to.point);
    for (let k = i === 0 ? 0 : 1; k <= STEPS; k++) {
      const t = k / STEPS;
      out.push(looking(k < STEPS ? catmullRom(four, t) : to.point, mix(from.normal, to.normal, t), over));
    }
    if (i === 0) Object.assign(out[0], stopAt(0));
    Object.assign(out[out.length - 1], stopAt(i + 1));
  }
  return out;

  function stopAt(i: number): Pick<Sample, 'stop' | 'way'> {
    if (isEnd(i)) return { stop: 'end' };
    const corner = at(i).corner ?? false;
    const back = around && i === count;
    if (!corner && !back) return {};
    const way = corner && (around || i > 0) ? { way: halfway(at(i - 1), at(i), at(i + 1)) } : {};
    return { stop: back ? 'join' : 'corner', ...way };
  }
}

/** Unit way through a corner: between the way that comes and the way that goes. */
function halfway(before: PathNode, at: PathNode, after: PathNode): Vec3 {
  const along = (a: Vec3, b: Vec3): Vec3 => {
    const long = distance(a, b) || 1;
    return [(b[0] - a[0]) / long, (b[1] - a[1]) / long, (b[2] - a[2]) / long];
  };
  const [comes, goes] = [along(before.point, at.point), along(at.point, after.point)];
  const sum: Vec3 = [comes[0] + goes[0], comes[1] + goes[1], comes[2] + goes[2]];
  const long = Math.hypot(...sum);
  return long > LEAST ? [sum[0] / long, sum[1] / long, sum[2] / long] : goes;
}

/** Barry and Goldman's pyramid with knots at the square roots of the distances. */
function catmullRom([a, b, c, d]: readonly [Vec3, Vec3, Vec3, Vec3], share: number): Vec3 {
  const t1 = Math.sqrt(Math.max(distance(a, b), LEAST));
  const t2 = t1 + Math.sqrt(Math.max(distance(b, c), LEAST));
  const t3 = t2 + Math.sqrt(Math.max(distance(c, d), LEAST));
  const t = t1 + (t2 - t1) * share;
  const a1 = mix(a, b, t / t1);
  const a2 = mix(b, c, (t - t1) / (t2 - t1));
  const a3 = mix(c, d, (t - t2) / (t3 - t2));
  return mix(mix(a1, a2, t / t2), mix(a2, a3, (t - t1) / (t3 - t1)), (t - t1) / (t2 - t1));
}

function looking(point: Vec3, normal: Vec3, over: number): Sample {
  const length = Math.hypot(...normal) || 1;
  const n: Vec3 = [normal[0] / length, normal[1] / length, normal[2] / length];
  return {
    origin: [point[0] + n[0] * over, point[1] + n[1] * over, point[2] + n[2] * over],
    direction: [-n[0], -n[1], -n[2]],
    pressure: 1,
  };
}

/** The neighbour's mirror image, so that a curve's end is straight. */
function beyond(end: PathNode, next: PathNode): PathNode {
  return { point: mix(end.point, next.point, -1), normal: end.normal };
}

function mix(a: Vec3, b: Vec3, t: number): Vec3 {
  return [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t, a[2] + (b[2] - a[2]) * t];
}

function distance(a: Vec3, b: Vec3): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}
