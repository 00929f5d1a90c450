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

/**
 * Picks pieces again and again. The balls round them lie in one row of numbers, by their order: where another piece
 * has come to a place its ball is worked out anew. `solidFor` answers null for a piece whose mesh isn't here. Hidden
 * ones are passed through.
 */
export function piecePicker(solidFor: (piece: Piece) => Solid | null) {
  const known: (Piece | undefined)[] = [];
  const solids: (Solid | null)[] = [];
  let balls = new Float64Array(256 * 4);

  function fitBall(i: number, piece: Piece): void {
    if ((i + 1) * 4 > balls.length) {
      const grown = new Float64Array(balls.length * 2);
      grown.set(balls);
      balls = grown;
    }
    const solid = piece.hidden ? null : solidFor(piece);
    // One whose mesh isn't here is asked for again.
    known[i] = solid || piece.hidden ? piece : undefined;
    solids[i] = solid;
    if (!solid) return;
    const { at } = piece;
    balls.set(placed(at, ...solid.middle), i * 4);
    balls[i * 4 + 3] = solid.radius * Math.max(length(at.across), length(at.forward), length(at.up));
  }

  return (pieces: Iterable<Piece>, ray: Ray): PieceHit | null => {
    const [ox, oy, oz] = ray.origin;
    const [dx, dy, dz] = ray.direction;
    const dd = dx * dx + dy * dy + dz * dz;
    // Those whose balls the ray meets, the nearest first: what lies behind the first hit is never looked at.
    const met: { piece: Piece; solid: Solid; near: number }[] = [];
    let i = -1;
    for (const piece of pieces) {
      i++;
      if (known[i] !== piece) fitBall(i, piece);
      const solid = solids[i];
      if (!solid) continue;
      const px = balls[i * 4] - ox;
      const py = balls[i * 4 + 1] - oy;
      const pz = balls[i * 4 + 2] - oz;
      const along = (px * dx + py * dy + pz * dz) / dd;
      const square = balls[i * 4 + 3] * balls[i * 4 + 3];
      const off = px * px + py * py + pz * pz - along * along * dd;
      if (off > square) continue;
      const half = Math.sqrt((square - off) / dd);
      if (along + half >= 0) met.push({ piece, solid, near: along - half });
    }
    met.sort((a, b) => a.near - b.near);
    let best: PieceHit | null = null;
    for (const { piece, solid, near } of met) {
      if (best && near > best.distance) break;
      const into = intoPiece(piece.at);
      if (!into) continue;
      // A direction goes as it is, its length with it: distances are the ray's own.
      const hit = pick(solid.mesh, {
        origin: into.place(ray.origin as Vec3),
        direction: into.way(ray.direction as Vec3),
      });
      if (hit && (!best || hit.distance < best.distance)) best = { piece, distance: hit.distance };
    }
    return best;
  };
}
