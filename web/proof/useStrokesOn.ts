/** What strokes go on: the body, the chosen pieces, or all of them; and the surface that the pointer meets then. */
import { storeToRefs } from 'pinia';
import { computed, watch, type ComputedRef } from 'vue';
import { buildMesh, type MeshArrays, type RawMesh } from '#core/mesh';
import { joined, type Piece } from '#core/scene';
import { usePieceChoice } from '../stores/pieceChoice';
import { usePartMeshes } from '../stores/partMeshes';
import type { Sculptor } from '../workers/sculptor';

export interface StrokesOnOptions {
  sculptor: Sculptor;
  listed: () => readonly Piece[];
  chosen: () => ReadonlySet<string>;
  meshOf: (hash: string) => RawMesh | null;
  /** A stroke is drawn: what it began on stays under the pointer. */
  stroking: () => boolean;
  failed: (error: unknown) => void;
}

export function useStrokesOn(o: StrokesOnOptions) {
  const meshes = usePartMeshes();
  const { strokesOn: wanted } = storeToRefs(usePieceChoice());
  /** Pieces that strokes go on; null while they go on the body. */
  const on: ComputedRef<readonly Piece[] | null> = computed(() => {
    const [all, chosen] = [o.listed(), o.chosen()];
    const taken = wanted.value === 'chosen' ? all.filter(({ id }) => chosen.has(id)) : all;
    return wanted.value === 'body' || taken.length === 0 ? null : taken;
  });
  let met: { of: readonly Piece[]; body: MeshArrays | null; mesh: MeshArrays | null } | null = null;

  /** What the pointer meets; null is the body. */
  function ground(): MeshArrays | null {
    const of = on.value;
    if (!of) return null;
    const body = o.sculptor.mesh;
    const same = met !== null && (o.stroking() || (met.body === body && alike(met.of, of)));
    if (!same) {
      const all = joined(of, o.meshOf);
      const mesh = all && buildMesh(all.raw);
      if (mesh && body) mesh.hiddenBy = body;
      met = { of, body, mesh };
    }
    return met!.mesh;
  }

  watch(
    on,
    (pieces) => {
      if (!pieces) return void (met = null);
      const hashes = pieces.map(({ mesh }) => mesh);
      void o.sculptor.pieceOrders.know(hashes, (hash) => meshes.of(hash)).catch(o.failed);
    },
    { immediate: true },
  );

  return { wanted, on, ground, ids: () => on.value?.map(({ id }) => id) ?? null };
}

function alike(a: readonly Piece[], b: readonly Piece[]): boolean {
  return a.length === b.length && a.every((piece, i) => piece === b[i]);
}
