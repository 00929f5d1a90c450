/**
 * Strokes on pieces: those that are named are joined to one surface, which is sculpted as a body is, and each becomes
 * a piece with a shape of its own. What the body hides isn't met.
 */
import type { ResolvedBrush } from '#core/brush';
import { buildMesh, LEAF, type MeshArrays } from '#core/mesh';
import { joined, reshaped, type Piece, type Pieces, type Run } from '#core/scene';
import { drainChanged, finish, surface, type Surface } from '#core/sculpt';
import { clayTarget } from './clayTarget';
import type { Target } from './target';

export interface PieceClay {
  surface: Surface;
  runs: readonly Run[];
}

/** Null where none of them is on the body. O(vertices of these pieces). */
export function pieceClay(pieces: Pieces, ids: readonly string[], body: MeshArrays): PieceClay | null {
  const all = joined(
    ids.flatMap((id) => pieces.get(id) ?? []),
    (hash) => pieces.meshOf(hash),
  );
  if (!all) return null;
  const mesh = buildMesh(all.raw, { unfinished: true });
  mesh.hiddenBy = body;
  return { surface: finish(surface(mesh)), runs: all.runs };
}

/** The pieces as what takes the dabs: they are shown as they become while the stroke is drawn. */
export function pieceClayTarget({ surface: s, runs }: PieceClay, pieces: Pieces, brush: ResolvedBrush): Target {
  const clay = clayTarget(s, brush);
  const { order, positions: p, vertexCount } = s.mesh;
  const began = p.slice();
  const place = new Uint32Array(vertexCount);
  const runOf = new Uint32Array(vertexCount);
  order.forEach((of, v) => (place[of] = v));
  runs.forEach(({ first, count }, i) => runOf.fill(i, first, first + count));
  const changed = new Map<number, Piece>();
  drainChanged(s);

  function placeOf(of: number): readonly [number, number, number] | null {
    const at = place[of] * 3;
    const still = p[at] === began[at] && p[at + 1] === began[at + 1] && p[at + 2] === began[at + 2];
    return still ? null : [p[at], p[at + 1], p[at + 2]];
  }

  /** The pieces whose vertices changed become what they are now. */
  function follow(): void {
    const met = new Set<number>();
    for (const leaf of drainChanged(s))
      for (let v = leaf * LEAF; v < Math.min((leaf + 1) * LEAF, vertexCount); v++) met.add(runOf[order[v]]);
    for (const i of met) {
      const now = reshaped(runs[i], placeOf);
      if (now === runs[i].piece && !changed.has(i)) continue;
      changed.set(i, runs[i].piece);
      pieces.make([[now.id, now]]);
    }
  }

  return {
    gather: (dabs, sign, dabBrush) => clay.gather(dabs, sign, dabBrush),
    apply() {
      clay.apply();
      follow();
    },
    rewind() {
      clay.rewind();
      follow();
    },
    end() {
      clay.end();
      const back = [...changed].filter(([i, was]) => pieces.get(was.id) !== was && runs[i].count > 0);
      return back.length > 0 ? [{ kind: 'pieces', pieces: back.map(([, was]) => [was.id, was] as const) }] : [];
    },
  };
}
