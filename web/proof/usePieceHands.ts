/**
 * Pieces taken in hand: chosen by a press, moved along the surface by a drag, sized and turned by keys, copied, hidden
 * and taken away. What is dragged is seen at once and is one step of history when it is let go.
 */
import { computed, ref, shallowRef } from 'vue';
import { faceNormal, pick, type RawMesh } from '#core/mesh';
import { seatedExtents, stood } from '#core/part';
import { piecePicker, solidOf, type Piece, type PieceChange, type Placement, type Solid } from '#core/scene';
import { cross, dot, length, minus, plus, rotated, scaled, unit, type Vec3 } from '#core/vector';
import type { BodyEye } from '../viewport/bodyEye';
import type { Sculptor } from '../workers/sculptor';

export interface PieceHandsOptions {
  eye: () => BodyEye | null;
  surface: () => HTMLElement;
  sculptor: Sculptor;
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

export function usePieceHands(o: PieceHandsOptions) {
  /** The pointer takes pieces, and draws no strokes. */
  const on = ref(false);
  const chosen = shallowRef<ReadonlySet<string>>(new Set());
  const pieces = (): Piece[] => [...chosen.value].flatMap((id) => o.sculptor.pieces.get(id) ?? []);
  const solids = new Map<string, Solid>();
  let held: { id: string; x: number; y: number; moved: Map<string, Piece> | null } | null = null;

  function solidFor(piece: Piece): Solid | null {
    const key = piece.shape ? `${piece.id} ${piece.shape.length}` : `${piece.mesh} ${JSON.stringify(piece.seat)}`;
    const known = piece.shape ? undefined : solids.get(key);
    if (known) return known;
    const raw = o.meshOf(piece.mesh);
    if (!raw) return null;
    const solid = solidOf(piece.shape ? { positions: piece.shape, triangles: raw.triangles } : stood(raw, piece.seat));
    if (!piece.shape) solids.set(key, solid);
    return solid;
  }

  const pickAny = piecePicker(solidFor);

  function choose(ids: Iterable<string>): void {
    const before = chosen.value;
    chosen.value = new Set([...ids].filter((id) => o.sculptor.pieces.has(id)));
    o.chose([...new Set([...before, ...chosen.value])]);
  }

  function under(x: number, y: number): Piece | null {
    const eye = o.eye();
    if (!eye) return null;
    const ray = eye.ray(x, y);
    const hit = pickAny(o.sculptor.pieces.values(), ray);
    const body = hit && o.sculptor.mesh && pick(o.sculptor.mesh, ray);
    // What the body hides can't be taken.
    return hit && (!body || hit.distance <= body.distance * 1.0001) ? hit.piece : null;
  }

  const placeOf = (e: PointerEvent): { x: number; y: number } => {
    const box = o.surface().getBoundingClientRect();
    return { x: e.clientX - box.left, y: e.clientY - box.top };
  };

  /** Whether the press was one of these hands'. */
  function down(e: PointerEvent): boolean {
    if (!on.value || e.button !== 0) return false;
    const at = placeOf(e);
    const piece = under(at.x, at.y);
    o.eye()?.leftTurns(!piece);
    if (!piece) {
      if (!e.shiftKey) choose([]);
      return true;
    }
    if (e.shiftKey) {
      const next = new Set(chosen.value);
      if (!next.delete(piece.id)) next.add(piece.id);
      choose(next);
    } else if (!chosen.value.has(piece.id)) choose([piece.id]);
    held = { id: piece.id, ...at, moved: null };
    o.surface().setPointerCapture(e.pointerId);
    return true;
  }

  function move(e: PointerEvent): boolean {
    if (!held) return on.value;
    const at = placeOf(e);
    if (!held.moved && Math.hypot(at.x - held.x, at.y - held.y) < STILL_PX) return true;
    const lead = o.sculptor.pieces.get(held.id);
    const [eye, mesh] = [o.eye(), o.sculptor.mesh];
    const hit = eye && mesh && pick(mesh, eye.ray(at.x, at.y));
    if (!lead || !hit) return true;
    const normal = unit(faceNormal(mesh, hit.triangle));
    const moved = new Map<string, Piece>();
    for (const piece of pieces().length > 0 ? pieces() : [lead])
      moved.set(piece.id, { ...piece, at: carried(piece.at, lead.at, [hit.x, hit.y, hit.z], normal) });
    held.moved = moved;
    for (const [id, piece] of moved) o.preview(id, piece);
    return true;
  }

  function up(): boolean {
    const { moved } = held ?? {};
    const was = held !== null;
    held = null;
    if (moved) void change([...moved]);
    return was || on.value;
  }

  function abandon(): boolean {
    if (!held) return false;
    for (const id of held.moved?.keys() ?? []) o.preview(id, null);
    held = null;
    return true;
  }

  function change(changes: readonly PieceChange[]): Promise<void> {
    return o.sculptor.changePieces(changes).catch((error: unknown) => {
      for (const [id] of changes) o.preview(id, null);
      o.failed(error);
    });
  }

  const edit = (by: (piece: Piece) => Piece | null): void => {
    const all = pieces();
    if (all.length > 0) void change(all.map((piece) => [piece.id, by(piece)]));
  };
  const resize = (by: number): void =>
    edit((piece) => ({
      ...piece,
      at: {
        ...piece.at,
        across: scaled(piece.at.across, by),
        forward: scaled(piece.at.forward, by),
        up: scaled(piece.at.up, by),
      },
    }));
  const turn = (by: number): void =>
    edit((piece) => {
      const about = unit(piece.at.up);
      return {
        ...piece,
        at: { ...piece.at, across: rotated(piece.at.across, about, by), forward: rotated(piece.at.forward, about, by) },
      };
    });

  function remove(): void {
    edit(() => null);
    choose([]);
  }

  /** Copies beside the chosen ones, which are chosen then. */
  async function copy(): Promise<void> {
    const copies = pieces().map((piece): Piece => {
      const beside = plus(piece.at.origin, scaled(piece.at.across, 0.6));
      return { ...piece, id: crypto.randomUUID(), at: { ...piece.at, origin: beside } };
    });
    if (copies.length === 0) return;
    await change(copies.map((piece) => [piece.id, piece]));
    choose(copies.map(({ id }) => id));
  }

  /** Copies on the other side of the body's middle, left and right; they are chosen then. */
  async function mirror(): Promise<void> {
    const across = ([x, y, z]: Vec3): Vec3 => [-x, y, z];
    const copies = pieces().map((piece): Piece => {
      const { origin, across: a, forward, up } = piece.at;
      const at = { origin: across(origin), across: across(a), forward: across(forward), up: across(up) };
      return { ...piece, id: crypto.randomUUID(), at };
    });
    if (copies.length === 0) return;
    await change(copies.map((piece) => [piece.id, piece]));
    choose(copies.map(({ id }) => id));
  }

  /** Another part in the place of the chosen ones, as wide as they were. */
  function replace(part: Pick<Piece, 'partId' | 'mesh' | 'name' | 'seat'>, mesh: RawMesh): void {
    const wide = (of: RawMesh, seat: Piece['seat']): number => {
      const { size } = seatedExtents(of, seat);
      return Math.max(size[0], size[1], 1e-9);
    };
    const now = wide(mesh, part.seat);
    edit((piece) => {
      const was = o.meshOf(piece.mesh);
      const by = was ? wide(was, piece.seat) / now : 1;
      const { origin, across, forward, up } = piece.at;
      const at = { origin, across: scaled(across, by), forward: scaled(forward, by), up: scaled(up, by) };
      return { ...piece, ...part, at, shape: null };
    });
  }

  /** All that came of one part. */
  function chooseOf(partId: string): void {
    choose([...o.sculptor.pieces.values()].filter((piece) => piece.partId === partId).map(({ id }) => id));
  }

  const count = computed(() => chosen.value.size);
  return {
    on,
    chosen,
    count,
    choose,
    chooseOf,
    down,
    move,
    up,
    abandon,
    edit,
    larger: () => resize(SIZE_STEP),
    smaller: () => resize(1 / SIZE_STEP),
    left: () => turn(TURN_STEP),
    right: () => turn(-TURN_STEP),
    remove,
    copy,
    mirror,
    replace,
    rename: (name: string) => edit((piece) => ({ ...piece, name: name.trim().slice(0, 80) || piece.name })),
    hide: () => edit((piece) => ({ ...piece, hidden: true })),
    /** What was taken back or away is chosen no longer. */
    changed: (ids: readonly string[]) => {
      if (ids.some((id) => chosen.value.has(id) && !o.sculptor.pieces.has(id))) choose(chosen.value);
    },
  };
}

/** Where a piece goes when the one in hand comes to a place of the surface: turned as the surface turns under it. */
function carried(piece: Placement, lead: Placement, to: Vec3, normal: Vec3): Placement {
  const from = unit(lead.up);
  const axis = cross(from, normal);
  const sin = length(axis);
  const angle = Math.atan2(sin, dot(from, normal));
  const about = sin > 1e-9 ? unit(axis) : unit(lead.across);
  const turned = (way: Vec3): Vec3 => (sin > 1e-9 || angle > 1 ? rotated(way, about, angle) : way);
  return {
    origin: plus(to, turned(minus(piece.origin, lead.origin))),
    across: turned(piece.across),
    forward: turned(piece.forward),
    up: turned(piece.up),
  };
}
