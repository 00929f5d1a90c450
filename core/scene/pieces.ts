/** The pieces on a body, and which of them changed since the page was told last. */
import type { RawMesh } from '#core/mesh';
import type { Piece } from './piece';

/** What a piece becomes; null takes it away. */
export type PieceChange = readonly [id: string, piece: Piece | null];

export class Pieces {
  private readonly all = new Map<string, Piece>();
  private changed = new Set<string>();

  /** `meshes` are those of parts, by their names, as far as they are here; whoever has them goes on adding. */
  constructor(private readonly meshes: ReadonlyMap<string, RawMesh> = new Map()) {}

  get count(): number {
    return this.all.size;
  }

  get(id: string): Piece | null {
    return this.all.get(id) ?? null;
  }

  meshOf(hash: string): RawMesh | null {
    return this.meshes.get(hash) ?? null;
  }

  list(): Piece[] {
    return [...this.all.values()];
  }

  /** Makes the changes; answers those that take them back. */
  make(changes: readonly PieceChange[]): PieceChange[] {
    const back = changes.map(([id]): PieceChange => [id, this.get(id)]).reverse();
    for (const [id, piece] of changes) {
      if (piece) this.all.set(id, piece);
      else this.all.delete(id);
      this.changed.add(id);
    }
    return back;
  }

  clear(): void {
    this.make([...this.all.keys()].map((id) => [id, null]));
  }

  /** What changed since it was asked last, as it is now. */
  drain(): PieceChange[] {
    const out = [...this.changed].map((id): PieceChange => [id, this.get(id)]);
    this.changed = new Set();
    return out;
  }
}

/** Memory that a change takes while it is kept. */
export function piecesBytes(changes: readonly PieceChange[]): number {
  return changes.reduce((sum, [, piece]) => sum + PIECE_BYTES + (piece?.shape?.byteLength ?? 0), 0);
}

const PIECE_BYTES = 400;
