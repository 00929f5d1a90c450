/**
 * Pieces taken in hand: chosen by a press or a box, moved along the surface by a drag or freely by handles, sized and
 * turned, copied, mirrored, replaced, coloured, named, hidden and taken away. What is dragged is seen at once and is
 * one step of history when it is let go.
 */
import { storeToRefs } from 'pinia';
import { computed, shallowRef, watch } from 'vue';
import { faceNormal, pick, type RawMesh } from '#core/mesh';
import { seatedExtents, stood } from '#core/part';
import { piecePicker, solidOf, type Piece, type PieceChange, type Placement, type Solid } from '#core/scene';
import { length, plus, scaled, unit } from '#core/vector';
import { usePieceChoice } from '../stores/pieceChoice';
import type { BodyEye } from '../viewport/bodyEye';
import type { Gizmo } from '../viewport/gizmo';
import type { Sculptor } from '../workers/sculptor';
import { acrossMiddle, carried, resized, transformed, turned, turnOf } from './pieceMoves';

export interface PieceHandsOptions {
  eye: () => BodyEye | null;
  gizmo: () => Gizmo | null;
  surface: () => HTMLElement;
  sculptor: Sculptor;
  /** All of them; another list when one changed. */
  listed: () => readonly Piece[];
  /** The mesh of a part where it is here. */
  meshOf: (hash: string) => RawMesh | null;
  /** Shows a piece otherwise than it is; null as it is again. */
  preview: (id: string, piece: Piece | null) => void;
  /** What is chosen changed. */
  chose: (ids: readonly string[]) => void;
  failed: (error: unknown) => void;
}

const STILL_PX = 3;
const SIZE_STEP = 1.06;
const TURN_STEP = Math.PI / 36;
const RAD = Math.PI / 180;

interface Spot {
  x: number;
  y: number;
}

/** What the pressed pointer does. */
type Held = { kind: 'piece'; id: string; from: Spot } | { kind: 'handle' } | { kind: 'box'; from: Spot; to: Spot };

export function usePieceHands(o: PieceHandsOptions) {
  const { on, chosen, handles } = storeToRefs(usePieceChoice());
  const held = shallowRef<Held | null>(null);
  const pieces = (): Piece[] => [...chosen.value].flatMap((id) => o.sculptor.pieces.get(id) ?? []);
  const solids = new Map<string, Solid>();
  const shapes = new WeakMap<Float32Array, Solid>();
  /** Pieces as the hand has moved them, until it lets go. */
  let moved: ReadonlyMap<string, Piece> | null = null;

  function solidFor(piece: Piece): Solid | null {
    const { shape } = piece;
    const key = `${piece.mesh} ${JSON.stringify(piece.seat)}`;
    const known = shape ? shapes.get(shape) : solids.get(key);
    if (known) return known;
    const raw = o.meshOf(piece.mesh);
    if (!raw) return null;
    const solid = solidOf(shape ? { positions: shape, triangles: raw.triangles } : stood(raw, piece.seat));
    if (shape) shapes.set(shape, solid);
    else solids.set(key, solid);
    return solid;
  }

  const pickAny = piecePicker(solidFor);

  function choose(ids: Iterable<string>): void {
    const before = chosen.value;
    chosen.value = new Set([...ids].filter((id) => o.sculptor.pieces.has(id)));
    o.chose([...new Set([...before, ...chosen.value])]);
  }

  const showHandles = (): void =>
    o.gizmo()?.show(
      on.value ? handles.value : null,
      pieces().map(({ at }) => at),
    );
  watch([on, chosen, handles, o.listed], showHandles);

  function under(x: number, y: number): Piece | null {
    const eye = o.eye();
    if (!eye) return null;
    const ray = eye.ray(x, y);
    const hit = pickAny(o.listed(), ray);
    const body = hit && o.sculptor.mesh && pick(o.sculptor.mesh, ray);
    // What the body hides can't be taken.
    return hit && (!body || hit.distance <= body.distance * 1.0001) ? hit.piece : null;
  }

  /** Those that are seen in the box, by their middles. */
  function within({ from, to }: { from: Spot; to: Spot }): Piece[] {
    const eye = o.eye();
    if (!eye) return [];
    const [left, right] = [Math.min(from.x, to.x), Math.max(from.x, to.x)];
    const [top, bottom] = [Math.min(from.y, to.y), Math.max(from.y, to.y)];
    return o.listed().filter((piece) => {
      const solid = piece.hidden ? null : solidFor(piece);
      if (!solid) return false;
      const half = scaled(piece.at.up, solid.middle[2]);
      const { x, y } = eye.seen(plus(piece.at.origin, half));
      return x >= left && x <= right && y >= top && y <= bottom && under(x, y)?.id === piece.id;
    });
  }

  const placeOf = (e: PointerEvent): Spot => {
    const box = o.surface().getBoundingClientRect();
    return { x: e.clientX - box.left, y: e.clientY - box.top };
  };
  /** −1 to 1, upwards. */
  const seenAt = ({ x, y }: Spot): [number, number] => {
    const { clientWidth, clientHeight } = o.surface();
    return [(x / clientWidth) * 2 - 1, 1 - (y / clientHeight) * 2];
  };

  /** Whether the press was one of these hands'. */
  function down(e: PointerEvent): boolean {
    if (!on.value || e.button !== 0) return false;
    const at = placeOf(e);
    held.value = pressed(e, at);
    o.eye()?.leftTurns(held.value === null);
    if (held.value) o.surface().setPointerCapture(e.pointerId);
    return true;
  }

  function pressed(e: PointerEvent, at: Spot): Held | null {
    if (o.gizmo()?.press(...seenAt(at))) return { kind: 'handle' };
    const piece = under(at.x, at.y);
    if (!piece) {
      if (e.shiftKey) return { kind: 'box', from: at, to: at };
      choose([]);
      return null;
    }
    if (e.shiftKey) {
      const next = new Set(chosen.value);
      if (!next.delete(piece.id)) next.add(piece.id);
      choose(next);
    } else if (!chosen.value.has(piece.id)) choose([piece.id]);
    return { kind: 'piece', id: piece.id, from: at };
  }

  function move(e: PointerEvent): boolean {
    const at = placeOf(e);
    switch (held.value?.kind) {
      case undefined:
        if (on.value) o.gizmo()?.hover(...seenAt(at));
        return on.value;
      case 'box':
        held.value = { ...held.value, to: at };
        return true;
      case 'handle': {
        const by = o.gizmo()!.drag(...seenAt(at));
        show((piece) => transformed(piece.at, by));
        return true;
      }
      case 'piece':
        slide(held.value, at);
        return true;
    }
  }

  /** Along the surface, with all that are chosen. */
  function slide({ id, from }: { id: string; from: Spot }, at: Spot): void {
    if (!moved && Math.hypot(at.x - from.x, at.y - from.y) < STILL_PX) return;
    const lead = o.sculptor.pieces.get(id);
    const [eye, mesh] = [o.eye(), o.sculptor.mesh];
    const hit = eye && mesh && pick(mesh, eye.ray(at.x, at.y));
    if (!lead || !hit) return;
    const normal = unit(faceNormal(mesh, hit.triangle));
    show((piece) => carried(piece.at, lead.at, [hit.x, hit.y, hit.z], normal), lead);
  }

  /** The chosen ones, or the one in hand, as the hand has them now. */
  function show(place: (piece: Piece) => Placement, instead?: Piece): void {
    const taken = pieces();
    const all = taken.length > 0 || !instead ? taken : [instead];
    moved = new Map(all.map((piece) => [piece.id, { ...piece, at: place(piece) }]));
    for (const [id, piece] of moved) o.preview(id, piece);
  }

  function up(): boolean {
    const was = held.value;
    const changes = moved;
    held.value = null;
    moved = null;
    if (was?.kind === 'handle') o.gizmo()?.release();
    if (was?.kind === 'box') choose([...chosen.value, ...within(was).map(({ id }) => id)]);
    // One that was taken away under the hand stays away.
    if (changes) void change([...changes].filter(([id]) => o.sculptor.pieces.has(id)));
    return was !== null || on.value;
  }

  function abandon(): boolean {
    if (!held.value) return false;
    if (held.value.kind === 'handle') o.gizmo()?.release();
    for (const id of moved?.keys() ?? []) o.preview(id, null);
    held.value = null;
    moved = null;
    showHandles();
    return true;
  }

  function change(changes: readonly PieceChange[]): Promise<void> {
    return o.sculptor.pieceOrders.change(changes).catch((error: unknown) => {
      for (const [id] of changes) o.preview(id, null);
      o.failed(error);
    });
  }

  const edit = (by: (piece: Piece) => Piece | null): void => {
    const all = pieces();
    if (all.length > 0) void change(all.map((piece) => [piece.id, by(piece)]));
  };
  const put = (by: (at: Placement) => Placement): void => edit((piece) => ({ ...piece, at: by(piece.at) }));

  function remove(): void {
    edit(() => null);
    choose([]);
  }

  /** Copies of the chosen ones, which are chosen then. */
  async function copied(by: (at: Placement) => Placement): Promise<void> {
    const copies = pieces().map((piece): Piece => ({ ...piece, id: crypto.randomUUID(), at: by(piece.at) }));
    if (copies.length === 0) return;
    await change(copies.map((piece) => [piece.id, piece]));
    choose(copies.map(({ id }) => id));
  }

  /** Another part in the place of the chosen ones, as wide as they were. */
  function replace(part: Pick<Piece, 'partId' | 'mesh' | 'name' | 'seat'>, mesh: RawMesh): void {
    const now = wideOf(mesh, part.seat);
    edit((piece) => {
      const was = o.meshOf(piece.mesh);
      return { ...piece, ...part, at: resized(piece.at, was ? wideOf(was, piece.seat) / now : 1), shape: null };
    });
  }

  /** Where one piece lies, how far it is turned, degrees, and half of its width, as of a brush. */
  function numbersOf({ at, mesh, seat }: Piece): PieceNumbers {
    const [x, y, z] = at.origin;
    const part = o.meshOf(mesh);
    const size = part ? (wideOf(part, seat) * length(at.across)) / 2 : 0;
    return { x, y, z, turn: turnOf(at) / RAD, size };
  }

  function setNumber(key: keyof PieceNumbers, to: number): void {
    edit((piece) => {
      const { at } = piece;
      const was = numbersOf(piece);
      if (key === 'turn') return { ...piece, at: turned(at, to * RAD - turnOf(at)) };
      if (key === 'size') return was.size > 0 && to > 0 ? { ...piece, at: resized(at, to / was.size) } : piece;
      const { x, y, z }: PieceNumbers = { ...was, [key]: to };
      return { ...piece, at: { ...at, origin: [x, y, z] } };
    });
  }

  /** What was taken back or away is chosen no longer. */
  function changed(ids: readonly string[]): void {
    if (ids.some((id) => chosen.value.has(id) && !o.sculptor.pieces.has(id))) choose(chosen.value);
  }

  return {
    on,
    chosen,
    handles,
    held,
    count: computed(() => chosen.value.size),
    pieces,
    choose,
    down,
    move,
    up,
    abandon,
    larger: () => put((at) => resized(at, SIZE_STEP)),
    smaller: () => put((at) => resized(at, 1 / SIZE_STEP)),
    left: () => put((at) => turned(at, TURN_STEP)),
    right: () => put((at) => turned(at, -TURN_STEP)),
    remove,
    copy: () => copied((at) => ({ ...at, origin: plus(at.origin, scaled(at.across, 0.6)) })),
    mirror: () => copied(acrossMiddle),
    replace,
    numbersOf,
    setNumber,
    rename: (name: string) => edit((piece) => ({ ...piece, name: name.trim().slice(0, 80) || piece.name })),
    colour: (colour: string | null) => edit((piece) => ({ ...piece, colour })),
    hide: () => edit((piece) => ({ ...piece, hidden: true })),
    changed,
  };
}

export interface PieceNumbers {
  x: number;
  y: number;
  z: number;
  turn: number;
  size: number;
}

/** How wide a part is on its seat, in its own units. */
function wideOf(of: RawMesh, seat: Piece['seat']): number {
  const { size } = seatedExtents(of, seat);
  return Math.max(size[0], size[1], 1e-9);
}

export type PieceHands = ReturnType<typeof usePieceHands>;
