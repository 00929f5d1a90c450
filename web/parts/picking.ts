/** What a press on the part picks, and where it lies. */
import type { Hit, MeshArrays, RawMesh } from '#core/mesh';
import type { Seat } from '#core/part';
import { dot, minus, scaled, type Vec3 } from '#core/vector';

/** The face that the part rests on, or the point; null picks nothing. */
export type Picking = 'face' | 'rest' | null;

/** The rest point under a place of the part: as high as it was. */
export function restUnder({ up, rest }: Pick<Seat, 'up' | 'rest'>, place: Vec3): Vec3 {
  return minus(place, scaled(up, dot(minus(place, rest), up)));
}

/**
 * The place of the part itself that was hit where it stands: its vertices are the first of `standing`'s, in the order
 * of `part`. Null on the ground.
 */
export function placeOnPart(part: RawMesh, standing: MeshArrays, { triangle, x, y, z }: Hit): Vec3 | null {
  const { triangles, order, positions: p } = standing;
  const corners = [0, 1, 2].map((k) => triangles[triangle * 3 + k]);
  const own = corners.map((v) => order[v]);
  if (own.some((v) => v >= part.positions.length / 3)) return null;
  const at = ([i, j]: readonly [number, number]): number => {
    const of = (v: number): Vec3 => [p[v * 3] - x, p[v * 3 + 1] - y, p[v * 3 + 2] - z];
    const [a, b] = [of(corners[i]), of(corners[j])];
    return Math.hypot(a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]);
  };
  const areas = (
    [
      [1, 2],
      [2, 0],
      [0, 1],
    ] as const
  ).map(at);
  const sum = areas[0] + areas[1] + areas[2] || 1;
  return [0, 1, 2].map((k) =>
    own.reduce((all, v, i) => all + (part.positions[v * 3 + k] * areas[i]) / sum, 0),
  ) as unknown as Vec3;
}
