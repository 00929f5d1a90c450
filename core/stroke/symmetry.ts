/**
 * The copies of a dab under mirrors and radial symmetry: the group made by mirroring in x, y and z and by turning by
 * 1/n of a full turn about an axis, all through one point. The dab itself comes first; copies that coincide are one.
 */
import type { DabFrame, Vec3 } from '#core/brush';
import { SymmetrySchema, type Axis, type Symmetry } from '#core/settings';

export const NO_SYMMETRY: Symmetry = SymmetrySchema.parse({});

/** Rows of a matrix about the symmetry's point; its inverse is its transpose. */
export type Copy = readonly [
  xx: number,
  xy: number,
  xz: number,
  yx: number,
  yy: number,
  yz: number,
  zx: number,
  zy: number,
  zz: number,
];

const SIDES = [1, -1] as const;

export function copiesOf({ copies, mirrorX, mirrorY, mirrorZ, axis }: Symmetry): Copy[] {
  const out: Copy[] = [];
  const seen = new Set<string>();
  for (const z of SIDES) {
    for (const y of SIDES) {
      for (const x of SIDES) {
        if ((x < 0 && !mirrorX) || (y < 0 && !mirrorY) || (z < 0 && !mirrorZ)) continue;
        for (let k = 0; k < copies; k++) {
          const copy = turned(axis, (2 * Math.PI * k) / copies, [x, y, z]);
          const key = copy.map((n) => Math.round(n * 1e6)).join();
          if (seen.has(key)) continue;
          seen.add(key);
          out.push(copy);
        }
      }
    }
  }
  return out;
}

/** Mirrored where a sign is negative, then turned about the axis. */
function turned(axis: Axis, angleRad: number, [x, y, z]: Vec3): Copy {
  const c = quarter(Math.cos(angleRad));
  const s = quarter(Math.sin(angleRad));
  switch (axis) {
    case 'x':
      return [x, 0, 0, 0, c * y, -s * z, 0, s * y, c * z];
    case 'y':
      return [c * x, 0, s * z, 0, y, 0, -s * x, 0, c * z];
    case 'z':
      return [c * x, -s * y, 0, s * x, c * y, 0, 0, 0, z];
  }
}

/** Quarter turns are exact, so that a mirrored stroke stays mirrored to the bit. */
function quarter(n: number): number {
  const whole = Math.round(n);
  return Math.abs(n - whole) < 1e-12 ? whole : n;
}

export function copyPoint(v: Vec3, copy: Copy, { x, y, z }: Symmetry): Vec3 {
  const [dx, dy, dz] = copyVector([v[0] - x, v[1] - y, v[2] - z], copy);
  return [x + dx, y + dy, z + dz];
}

export function copyVector([x, y, z]: Vec3, m: Copy): Vec3 {
  return [m[0] * x + m[1] * y + m[2] * z, m[3] * x + m[4] * y + m[5] * z, m[6] * x + m[7] * y + m[8] * z];
}

/** The way back from a copy. */
export function inverse(m: Copy): Copy {
  return [m[0], m[3], m[6], m[1], m[4], m[7], m[2], m[5], m[8]];
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
