/** All that the proof does with pieces: shown, taken in hand, stroked on, merged, kept as parts, and written. */
import { computed, onBeforeUnmount, shallowRef, type Ref, type ShallowRef } from 'vue';
import { packMesh } from '#core/formats';
import { seatOf, stood } from '#core/part';
import type { Piece } from '#core/scene';
import { addParts, paints, setsParts, type Brush } from '#core/settings';
import type { BrushAlphas } from '#core/stored';
import { useShortcuts } from '../keys/shortcuts';
import { saveFile } from '../controls/saveFile';
import { failNotice, tellNotice } from '../controls/undoNotice';
import { sentence } from '../stores/connection';
import { useLibrary } from '../stores/library';
import { useNewPart } from '../stores/newPart';
import { usePartMeshes } from '../stores/partMeshes';
import { useProof } from '../stores/proof';
import { useWork } from '../stores/work';
import type { BodyEye } from '../viewport/bodyEye';
import type { ClayView } from '../viewport/clayView';
import { Gizmo } from '../viewport/gizmo';
import type { StrokeInput } from '../viewport/strokeInput';
import type { MeshEnding } from '../workers/meshOut';
import { meshFile } from '../workers/meshOutFile';
import type { BecomePart } from '../workers/merger';
import { MergeCancelled, mergePieces } from './mergePieces';
import { usePieceHands } from './usePieceHands';
import { usePieces } from './usePieces';
import { useStrokesOn } from './useStrokesOn';
import { writtenPiece } from './writtenPiece';
import { usePreferences } from '../stores/preferences';

export interface ProofPiecesOptions {
  surface: Ref<HTMLElement | undefined>;
  view: ShallowRef<ClayView | null>;
  eye: () => BodyEye | null;
  input: () => StrokeInput | null;
  brush: () => Brush;
  alphas: () => BrushAlphas;
  /** Which of the brush's parts was picked by hand. */
  picked: () => number | null;
  edit: (change: (brush: Brush) => void) => void;
  problem: Ref<string | null>;
}

/** What the body is worked on by, while it is. */
const MERGING = 'merge into the body';

export function useProofPieces(o: ProofPiecesOptions) {
  const proof = useProof();
  const work = useWork();
  const meshes = usePartMeshes();
  const { sculptor } = proof;
  /** As the list shows them; another array when one changed. */
  const listed = shallowRef<readonly Piece[]>([]);
  let gizmo: Gizmo | null = null;

  const shown = usePieces({
    view: () => o.view.value,
    sculptor,
    brush: o.brush,
    alphas: o.alphas,
    seed: () => o.input()?.seed ?? 1,
    digs: () => o.input()?.dig ?? false,
    picked: o.picked,
    isChosen: (id) => hands.chosen.value.has(id),
    failed: (error) => (o.problem.value = `A piece can’t be shown. ${sentence(error)}`),
  });
  const stay = (error: unknown): void => void (o.problem.value = `The pieces stay as they were. ${sentence(error)}`);
  const hands = usePieceHands({
    eye: o.eye,
    gizmo: () => gizmo,
    surface: () => o.surface.value!,
    sculptor,
    listed: () => listed.value,
    meshOf: shown.meshOf,
    preview: shown.preview,
    chose: shown.show,
    failed: stay,
  });
  const strokes = useStrokesOn({
    sculptor,
    listed: () => listed.value,
    chosen: () => hands.chosen.value,
    meshOf: shown.meshOf,
    stroking: () => o.input()?.stroking ?? false,
    failed: (error) => (o.problem.value = `Strokes can’t go on these pieces. ${sentence(error)}`),
  });

  /** The view is there. */
  function begin(): void {
    gizmo = new Gizmo({ camera: () => o.view.value!.camera, stale: () => o.view.value?.stale() });
    o.view.value!.handles = gizmo;
    sculptor.onPieces = (ids) => {
      list();
      hands.changed(ids);
      shown.show(ids);
    };
  }
  function list(): void {
    listed.value = [...sculptor.pieces.values()];
    // With no piece left to take, the pointer draws.
    if (listed.value.length === 0) hands.on.value = false;
  }
  /** The body is there. */
  function showAll(): void {
    list();
    hands.choose(hands.chosen.value);
    shown.showAll();
  }
  onBeforeUnmount(() => gizmo?.dispose());

  function toggle(): void {
    hands.on.value = !hands.on.value;
    // What strokes go on stays chosen.
    if (!hands.on.value && strokes.wanted.value !== 'chosen') hands.choose([]);
    o.input()?.hover();
  }

  async function replace(partId: string): Promise<void> {
    const head = useLibrary().part(partId);
    if (!head) return;
    try {
      const mesh = await meshes.of(head.mesh);
      hands.replace({ partId, mesh: head.mesh, name: head.card.name, seat: seatOf(head.seat) }, mesh);
    } catch (error) {
      stay(error);
    }
  }

  /** A piece as a part of its own, as it stands: bent or sculpted, if it was. */
  async function keepAsPart(piece: Piece): Promise<string | null> {
    try {
      const whole = stood(await meshes.of(piece.mesh), piece.seat);
      const mesh = packMesh(piece.shape ? { positions: piece.shape, triangles: whole.triangles } : whole);
      const id = await useNewPart().add({
        name: piece.name,
        mesh,
        made: { from: 'cut', sourceId: null, sourceRevision: null },
        millimetres: usePreferences().millimetres() * Math.hypot(...piece.at.up),
        up: { up: [0, 0, 1], forward: [0, 1, 0] },
      });
      tellNotice(`“${piece.name}” is kept as a part, in Sources.`);
      return id;
    } catch (error) {
      proof.problem = `No part was kept. ${sentence(error)}`;
      return null;
    }
  }

  /** A piece, as a part, into the set of the brush at hand. */
  async function addToBrush(piece: Piece): Promise<void> {
    const id = await keepAsPart(piece);
    if (id) o.edit((brush) => addParts(brush.parts, [id]));
  }

  const merging = computed(() => work.find(MERGING));

  /** The chosen ones, or all that are seen, become part of the body. */
  async function merge(how: BecomePart): Promise<void> {
    const chosen = hands.pieces();
    const taken = (chosen.length > 0 ? chosen : listed.value).filter(({ hidden }) => !hidden);
    if (taken.length === 0 || merging.value) return;
    const what = `${how === 'merge' ? 'Merging' : 'Joining'} ${counted(taken.length)}`;
    try {
      const { merged, left } = await work.run(what, MERGING, (hand) =>
        mergePieces(
          taken.map(({ id }) => id),
          { how, sculptor, name: proof.label, meshOf: meshes.of, hand },
        ),
      );
      const done = how === 'merge' ? 'merged into' : 'joined to';
      tellNotice(`${counted(merged)} ${done} the body. Ctrl+Z takes ${merged === 1 ? 'it' : 'them'} out again.`);
      if (left.length > 0) failNotice(`${counted(left.length)} stayed as before. ${left[0]}`);
    } catch (error) {
      if (error instanceof MergeCancelled) tellNotice(error.message);
      else proof.problem = sentence(error);
    }
  }

  /** The chosen ones as a file of their own. */
  async function download(ending: MeshEnding): Promise<void> {
    const taken = hands.pieces();
    const [first] = taken;
    if (!first) return;
    try {
      const things = await Promise.all(taken.map(async (piece) => writtenPiece(piece, await meshes.of(piece.mesh))));
      saveFile(
        `${taken.length === 1 ? first.name : `${proof.label}, pieces`}.${ending}`,
        await meshFile(ending, things),
      );
    } catch (error) {
      failNotice(`No file was written. ${sentence(error)}`);
    }
  }

  function showHidden(): void {
    const hidden = listed.value.filter((piece) => piece.hidden);
    void sculptor.pieceOrders.change(hidden.map((piece) => [piece.id, { ...piece, hidden: false }]));
  }

  const some = (): boolean => hands.on.value && hands.count.value > 0;
  useShortcuts([
    {
      command: 'takeHold',
      what: 'Pieces: a press chooses, a drag moves along the surface; Shift adds, and draws a box beside them',
      when: () => listed.value.length > 0,
      run: toggle,
    },
    { command: 'smaller', what: 'Pieces: smaller', silent: true, when: some, run: hands.smaller },
    { command: 'larger', what: 'Pieces: larger', silent: true, when: some, run: hands.larger },
    { command: 'turnLeft', silent: true, when: some, run: hands.left },
    { command: 'turnRight', silent: true, when: some, run: hands.right },
    {
      command: 'all',
      what: 'Pieces: choose all',
      when: () => hands.on.value,
      run: () => hands.choose(sculptor.pieces.keys()),
    },
    { command: 'copy', what: 'Pieces: copy beside', when: some, run: () => void hands.copy() },
    { command: 'hide', what: 'Pieces: hide', when: some, run: hands.hide },
    { command: 'remove', what: 'Pieces: delete', when: some, run: hands.remove },
  ]);

  return {
    listed,
    hands,
    strokes,
    hover: shown.hover,
    begin,
    showAll,
    toggle,
    replace,
    keepAsPart,
    addToBrush,
    setsParts: () => setsParts(o.brush()),
    paints: () => paints(o.brush()),
    merge,
    merging,
    download,
    showHidden,
    /** Whether keys and brackets are the chosen pieces'. */
    some,
  };
}

export type ProofPieces = ReturnType<typeof useProofPieces>;

const counted = (n: number): string => `${n} ${n === 1 ? 'piece' : 'pieces'}`;
