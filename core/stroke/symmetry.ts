/**
 * The copies of a dab under mirrors and radial symmetry: the group made by turning by 1/n of a full turn and by
 * mirroring in x and in y, each about a point of the slab. The dab itself comes first; copies that coincide are one.
 */
import type { DabFrame, Vec3 } from '#core/brush';
import type { Symmetry } from '#core/settings';

export const NO_SYMMETRY: Symmetry = { mirrorX: false, mirrorY: false, copies: 1, x: 0, y: 0 };

/** x' = a·x + b·y, y' = c·x + d·y, about the symmetry's point. */
export interface Copy {
  a: number;
  b: number;
  c: number;
  d: number;
}

export function copiesOf(symmetry: Symmetry): Copy[] {
  const { copies, mirrorX, mirrorY } = symmetry;
  const out: Copy[] = [];
  const seen = new Set<string>();
  for (const [flipX, flipY] of [
    [1, 1],
    [-1, 1],
    [1, -1],
    [-1, -1],
  ] as const) {
    if ((flipX < 0 && !mirrorX) || (flipY < 0 && !mirrorY)) continue;
    for (let k = 0; k < copies; k++) {
      const angle = (2 * Math.PI * k) / copies;
      const cos = quarter(Math.cos(angle));
      const sin = quarter(Math.sin(angle));
      const copy = { a: cos * flipX, b: -sin * flipY, c: sin * flipX, d: cos * flipY };
      const key = [copy.a, copy.b, copy.c, copy.d].map((n) => Math.round(n * 1e6)).join();
      if (seen.has(key)) continue;
      seen.add(key);
      out.push(copy);
    }
  }
  return out;
}

/** Quarter turns are exact, so that a mirrored stroke stays mirrored to the bit. */
function quarter(n: number): number {
  const whole = Math.round(n);
  return Math.abs(n - whole) < 1e-12 ? whole : n;
}

export function copyPoint(v: Vec3, copy: Copy, symmetry: Symmetry): Vec3 {
  const x = v[0] - symmetry.x;
  const y = v[1] - symmetry.y;
  return [symmetry.x + copy.a * x + copy.b * y, symmetry.y + copy.c * x + copy.d * y, v[2]];
}

export function copyVector(v: Vec3, copy: Copy): Vec3 {
  return [copy.a * v[0] + copy.b * v[1], copy.c * v[0] + copy.d * v[1], v[2]];
}

/** The frame of a copy; a mirrored frame is left-handed, so that the picture is mirrored with it. */
export function copyFrame(frame: DabFrame, copy: Copy, symmetry: Symmetry): DabFrame {
  return {
    origin: copyPoint(frame.origin, copy, symmetry),
    normal: copyVector(frame.normal, copy),
    tangent: copyVector(frame.tangent, copy),
    bitangent: copyVector(frame.bitangent, copy),
    radius: frame.radius,
  };
}
