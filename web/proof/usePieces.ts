/** Pieces in the view of a body: shown as they are now, and the one that would be set down next, seen through. */
import { shallowRef, watch } from 'vue';
import { resolveParts, type DabFrame, type PartForm } from '#core/brush';
import { Color } from 'three';
import type { RawMesh } from '#core/mesh';
import { stood } from '#core/part';
import { chanceOf, placementOf, whichPart } from '#core/session';
import type { Piece } from '#core/scene';
import type { Brush } from '#core/settings';
import type { BrushAlphas } from '#core/stored';
import { plain } from '../api/plain';
import { usePartMeshes } from '../stores/partMeshes';
import type { Sculptor } from '../workers/sculptor';
import type { ClayView } from '../viewport/clayView';

export interface PiecesOptions {
  view: () => ClayView | null;
  sculptor: Sculptor;
  brush: () => Brush;
  alphas: () => BrushAlphas;
  /** The seed of the next stroke. */
  seed: () => number;
  digs: () => boolean;
  /** Which part was picked by hand. */
  picked: () => number | null;
  /** Whether a piece is chosen. */
  isChosen: (id: string) => boolean;
  failed: (error: unknown) => void;
}

/** Verdigris, as far as clay takes it. */
const CHOSEN = new Color('#6fae9f');

/** Null for the clay's own colour. */
function tintOf({ colour }: Piece, chosen: boolean): Color | null {
  if (!colour) return chosen ? CHOSEN : null;
  const own = new Color(colour);
  return chosen ? own.lerp(CHOSEN, 0.5) : own;
}

const keyOf = ({ mesh, seat }: Pick<Piece, 'mesh' | 'seat'>): string => `${mesh} ${JSON.stringify(seat)}`;

export function usePieces(o: PiecesOptions) {
  const meshes = usePartMeshes();
  const loaded = new Map<string, RawMesh>();
  /** The parts of the brush at hand, as far as their meshes are here. */
  const forms = shallowRef<readonly PartForm[]>([]);

  /** Shows these pieces as they are when their meshes have come, whatever they were when it was asked for. */
  function show(ids: readonly string[]): void {
    for (const id of ids) void showOne(id).catch(o.failed);
  }

  async function showOne(id: string): Promise<void> {
    const piece = o.sculptor.pieces.get(id);
    if (piece && !(loaded.has(piece.mesh) && o.view()?.pieces.has(keyOf(piece)))) {
      const mesh = await meshes.of(piece.mesh);
      loaded.set(piece.mesh, mesh);
      o.view()?.pieces.know(keyOf(piece), stood(mesh, piece.seat));
    }
    const [view, now] = [o.view(), o.sculptor.pieces.get(id)];
    if (!view) return;
    if (!now) view.pieces.remove(id);
    else if (view.pieces.has(keyOf(now))) view.pieces.put(now, keyOf(now), tintOf(now, o.isChosen(id)));
    else await showOne(id);
  }

  /** Shows a piece otherwise than it is, while it is dragged. */
  function preview(id: string, piece: Piece | null): void {
    const view = o.view();
    if (!piece) show([id]);
    else if (view?.pieces.has(keyOf(piece))) view.pieces.put(piece, keyOf(piece), tintOf(piece, true));
  }

  function showAll(): void {
    o.view()?.pieces.clear();
    show([...o.sculptor.pieces.keys()]);
  }

  async function load(): Promise<void> {
    const heads = o.brush().touch.action === 'insert' ? o.alphas().parts.map((head) => plain(head)) : [];
    const got = await Promise.allSettled(heads.map(async (head) => ({ head, mesh: await meshes.of(head.mesh) })));
    forms.value = got.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []));
  }
  watch(
    () => [o.brush().touch.action, ...o.alphas().parts.map(({ mesh, seat }) => mesh + JSON.stringify(seat))],
    load,
    {
      immediate: true,
    },
  );

  /** What would be set down where the dab lies; null hides it. */
  function hover(frame: DabFrame | null): void {
    const view = o.view();
    if (!view) return;
    const parts =
      frame && o.brush().touch.action === 'insert'
        ? resolveParts(o.brush().parts, (id) => forms.value.find(({ head }) => head.id === id) ?? null)
        : null;
    if (!frame || !parts) return view.pieces.setGhost(null, null);
    const next = { dab: 0, random: chanceOf(o.seed()), picked: o.picked() ?? undefined, seed: o.seed() };
    const part = parts.parts[whichPart(parts, next)];
    const key = keyOf(part);
    view.pieces.know(key, part.stood);
    view.pieces.setGhost(key, placementOf(part, frame, o.digs() ? -1 : 1));
  }

  /** The mesh of a part, where it was shown. */
  const meshOf = (hash: string): RawMesh | null => loaded.get(hash) ?? null;

  return { show, showAll, preview, hover, meshOf };
}
