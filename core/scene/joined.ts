/** Pieces as one mesh in the body's coordinates, so that strokes go on them as on a body; and back again. */
import { together, type RawMesh } from '#core/mesh';
import { stood } from '#core/part';
import { intoPiece, pieceMesh, type Piece } from './piece';

/** The vertices of one piece among those of all: `count` from `first` on. */
export interface Run {
  piece: Piece;
  first: number;
  count: number;
  /** Its vertices on its seat, as they were when it was joined. */
  shape: Float32Array;
}

export interface Joined {
  raw: RawMesh;
  runs: Run[];
}

/** Hidden pieces, and those whose mesh isn't here, are left out; null where none is left. */
export function joined(pieces: readonly Piece[], meshOf: (hash: string) => RawMesh | null): Joined | null {
  const runs: Run[] = [];
  const meshes: RawMesh[] = [];
  let vertices = 0;
  for (const piece of pieces) {
    const part = piece.hidden ? null : meshOf(piece.mesh);
    if (!part) continue;
    const seated = stood(part, piece.seat);
    const mesh = pieceMesh(piece, seated);
    runs.push({ piece, first: vertices, count: mesh.positions.length / 3, shape: piece.shape ?? seated.positions });
    meshes.push(mesh);
    vertices += mesh.positions.length / 3;
  }
  return runs.length > 0 ? { raw: together(meshes), runs } : null;
}

/**
 * A piece as its vertices lie now. `placeOf` answers a vertex's place in the body's coordinates, null where it hasn't
 * moved: that one stays to the bit. The piece itself where none has.
 */
export function reshaped({ piece, first, count, shape }: Run, placeOf: (v: number) => Placed | null): Piece {
  const into = intoPiece(piece.at);
  if (!into) return piece;
  let out: Float32Array | null = null;
  for (let v = 0; v < count; v++) {
    const place = placeOf(first + v);
    if (!place) continue;
    out ??= shape.slice();
    out.set(into.place(place), v * 3);
  }
  return out ? { ...piece, shape: out } : piece;
}

type Placed = readonly [number, number, number];
