/** A part that was set down on a body: still separate, and movable. */
import type { RawMesh } from '#core/mesh';
import type { Seat } from '#core/part';
import { cross, dot, plus, scaled, type Vec3 } from '#core/vector';

/** Where a piece stands: its rest point, and where a unit across, forward and up of its part goes. */
export interface Placement {
  origin: Vec3;
  across: Vec3;
  forward: Vec3;
  up: Vec3;
}

/** Never changed: another one takes its place. */
export interface Piece {
  id: string;
  partId: string;
  /** Name of its mesh among what is stored. */
  mesh: string;
  name: string;
  /** How its part sat when it was set down: what becomes of the part later changes no piece. */
  seat: Seat;
  at: Placement;
  /** Places of its vertices on its seat, where they are not its part's: it was bent to the surface. */
  shape: Float32Array | null;
  /** “#rrggbb”; null for the clay's. */
  colour: string | null;
  hidden: boolean;
}

/** Where a place of the part on its seat lies on the body. */
export function placed({ origin, across, forward, up }: Placement, x: number, y: number, z: number): Vec3 {
  return [
    origin[0] + across[0] * x + forward[0] * y + up[0] * z,
    origin[1] + across[1] * x + forward[1] * y + up[1] * z,
    origin[2] + across[2] * x + forward[2] * y + up[2] * z,
  ];
}

/** A mirrored piece has its faces turned, so that they still look outward. */
export function isMirrored({ across, forward, up }: Placement): boolean {
  return dot(cross(across, forward), up) < 0;
}

/** The piece as a mesh in the body's own coordinates. */
export function pieceMesh(piece: Pick<Piece, 'at' | 'shape'>, stood: RawMesh): RawMesh {
  const from = piece.shape ?? stood.positions;
  const positions = new Float32Array(from.length);
  for (let v = 0; v < from.length; v += 3) positions.set(placed(piece.at, from[v], from[v + 1], from[v + 2]), v);
  const triangles = stood.triangles.slice();
  if (isMirrored(piece.at))
    for (let t = 0; t < triangles.length; t += 3)
      [triangles[t + 1], triangles[t + 2]] = [triangles[t + 2], triangles[t + 1]];
  return { positions, triangles };
}

/** From the body's coordinates to those of the part on its seat; null where the piece has no extent along an axis. */
export function intoPiece({ origin, across, forward, up }: Placement) {
  const volume = dot(cross(across, forward), up);
  if (volume === 0) return null;
  const rows = [cross(forward, up), cross(up, across), cross(across, forward)].map((row) => scaled(row, 1 / volume));
  const direction = (of: Vec3): Vec3 => [dot(rows[0], of), dot(rows[1], of), dot(rows[2], of)];
  return { direction, place: (at: Vec3): Vec3 => direction(plus(at, scaled(origin, -1))) };
}
