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
 * Picks pieces again and again. The balls round them lie in one row of numbers, by their order: another list is looked
 * through for pieces that have changed, the same one isn't. `solidFor` answers null for a piece whose mesh isn't here.
 * Hidden ones are passed through.
 */
export function piecePicker(solidFor: (piece: Piece) => Solid | null) {
  const known: (Piece | undefined)[] = [];
  const solids: (Solid | null)[] = [];
  let balls = new Float64Array(256 * 4);
  /** The list that the balls are of, once every mesh of it was here. */
  let fitted: readonly Piece[] | null = null;

  function fitBall(i: number, piece: Piece): void {
    const solid = piece.hidden ? null : solidFor(piece);
    // One whose mesh isn't here is asked for again.
    known[i] = solid || piece.hidden ? piece : undefined;
    solids[i] = solid;
    const { at } = piece;
    balls.set(solid ? placed(at, ...solid.middle) : at.origin, i * 4);
    balls[i * 4 + 3] = solid ? solid.radius * Math.max(length(at.across), length(at.forward), length(at.up)) : -1;
  }

  function fit(pieces: readonly Piece[]): void {
    if (pieces === fitted) return;
    if (pieces.length * 4 > balls.length) {
      const grown = new Float64Array(pieces.length * 8);
      grown.set(balls);
      balls = grown;
    }
    pieces.forEach((piece, i) => {
      if (known[i] !== piece) fitBall(i, piece);
    });
    fitted = pieces.every((piece, i) => known[i] === piece) ? pieces : null;
  }

  /** Those whose balls the ray meets, the nearest first. */
  function met(count: number, ray: Ray): { i: number; near: number }[] {
    const [ox, oy, oz] = ray.origin;
    const [dx, dy, dz] = ray.direction;
    const dd = dx * dx + dy * dy + dz * dz;
    const out: { i: number; near: number }[] = [];
    for (let i = 0; i < count; i++) {
      const px = balls[i * 4] - ox;
      const py = balls[i * 4 + 1] - oy;
      const pz = balls[i * 4 + 2] - oz;
      const radius = balls[i * 4 + 3];
      const along = (px * dx + py * dy + pz * dz) / dd;
      const off = px * px + py * py + pz * pz - along * along * dd;
      if (radius < 0 || off > radius * radius) continue;
      const half = Math.sqrt((radius * radius - off) / dd);
      if (along + half >= 0) out.push({ i, near: along - half });
    }
    return out.sort((a, b) => a.near - b.near);
  }

  return (pieces: readonly Piece[], ray: Ray): PieceHit | null => {
    fit(pieces);
    let best: PieceHit | null = null;
    for (const { i, near } of met(pieces.length, ray)) {
      // What lies behind the first hit is never looked at.
      if (best && near > best.distance) break;
      const piece = pieces[i];
      const into = intoPiece(piece.at);
      if (!into) continue;
      // A direction goes as it is, its length with it: distances are the ray's own.
      const hit = pick(solids[i]!.mesh, {
        origin: into.place(ray.origin as Vec3),
        direction: into.direction(ray.direction as Vec3),
      });
      if (hit && (!best || hit.distance < best.distance)) best = { piece, distance: hit.distance };
    }
    return best;
  };
}
