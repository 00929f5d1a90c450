/** The first piece along a ray: by spheres round them all, then by the triangles of those that are met. */
import { buildMesh, pick, type Mesh, type RawMesh, type Ray } from '#core/mesh';
import { length, type Vec3 } from '#core/vector';
import { intoPiece, placed, type Piece } from './piece';

/** A part's mesh on its seat, laid out to be met by rays, and the ball round it. */
export interface Solid {
  mesh: Mesh;
  middle: Vec3;
  radius: number;
}

export function solidOf({ positions, triangles }: RawMesh): Solid {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < positions.length; i++) {
    low[i % 3] = Math.min(low[i % 3], positions[i]);
    high[i % 3] = Math.max(high[i % 3], positions[i]);
  }
  const middle = low.map((l, k) => (l + high[k]) / 2) as unknown as Vec3;
  let radius = 0;
  for (let v = 0; v < positions.length; v += 3)
    radius = Math.max(
      radius,
      Math.hypot(positions[v] - middle[0], positions[v + 1] - middle[1], positions[v + 2] - middle[2]),
    );
  return { mesh: buildMesh({ positions, triangles }, { ringless: true }), middle, radius };
}

export interface PieceHit {
  piece: Piece;
  /** In units of the ray's direction. */
  distance: number;
}

/** `solidFor` answers null for a piece whose mesh isn't here. Hidden ones are passed through. */
export function pickPiece(
  pieces: Iterable<Piece>,
  solidFor: (piece: Piece) => Solid | null,
  ray: Ray,
): PieceHit | null {
  const { origin: o, direction: d } = ray;
  const dd = d[0] * d[0] + d[1] * d[1] + d[2] * d[2];
  let best: PieceHit | null = null;
  for (const piece of pieces) {
    if (piece.hidden) continue;
    const solid = solidFor(piece);
    if (!solid) continue;
    const { at } = piece;
    const [x, y, z] = placed(at, ...solid.middle);
    const wide = solid.radius * Math.max(length(at.across), length(at.forward), length(at.up));
    const [px, py, pz] = [x - o[0], y - o[1], z - o[2]];
    const along = (px * d[0] + py * d[1] + pz * d[2]) / dd;
    const off = px * px + py * py + pz * pz - along * along * dd;
    const half = Math.sqrt(Math.max(0, wide * wide - off) / dd);
    if (off > wide * wide || along + half < 0 || (best && along - half > best.distance)) continue;
    const into = intoPiece(at);
    // A direction goes as it is, its length with it: distances are the ray's own.
    const hit = into && pick(solid.mesh, { origin: into.place(o), direction: into.way(d) });
    if (hit && (!best || hit.distance < best.distance)) best = { piece, distance: hit.distance };
  }
  return best;
}
