/**
 * The page's side of a sculpting session: one worker, its shared memory seen as a mesh, and orders that are carried out
 * in the order in which they were given. What the page shows follows from the worker's answers alone.
 */
import * as Comlink from 'comlink';
import { reactive } from 'vue';
import { meshView, type MeshArrays } from '#core/mesh';
import type { Piece, PieceChange } from '#core/scene';
import type { AlphaHead, BrushAlphas } from '#core/stored';
import type { Brush, Frame } from '#core/settings';
import type { ClayBytes, LevelDirection } from '#core/slab';
import type { RefineUnder, Sample } from '#core/stroke';
import { StepCancelled } from '#core/timeline';
import { plain } from '../api/plain';
import { BrushSender } from './brushSender';
import { Orders, type OrderOptions } from './orders';
import { PaintOrders } from './paintOrders';
import { PieceOrders } from './pieceOrders';
import { EditOrders, type OrdersOfEdits } from './editOrders';
import type { SculptWorker } from './sculpt.worker';
import type { Cancelled } from './castResult';
import type { Begin, Change, Followed, StepSnapshot, LevelState, Opened, Opening, Painted } from './sculpt/messages';
import { startThread } from './thread';

export interface SculptorState {
  busy: boolean;
  strokes: number;
  canUndo: boolean;
  canRedo: boolean;
  /** Parts set down, still separate. */
  pieces: number;
  /** Pieces were merged into the body since it was opened. */
  merged: boolean;
  vertices: number;
  triangles: number;
  /** Mean distance from vertex to vertex, body units. */
  spacing: number;
  /** Radius of the dab being laid. */
  dabRadius: number | null;
  stroking: boolean;
  /** Of a slab. */
  level: LevelState | null;
  /** Texels a side of the texture, 0 while there is none, and its layers from the lowest. */
  textureSize: number;
  layers: NonNullable<Painted['layers']>;
  /** Counts changes of the painting. */
  painted: number;
  /** The body has coordinates that the texture lies by. */
  textureFits: boolean;
}

/** Who follows long work. */
export interface FollowingHand {
  report(share: number): void;
  /** Takes what gives it up. */
  onCancel(stop: () => void): void;
}

const nothing = (): void => undefined;

/** Settings that don't change for so long rest. */
const REST_MS = 500;

export class Sculptor {
  readonly state: SculptorState = reactive({
    busy: false,
    strokes: 0,
    canUndo: false,
    canRedo: false,
    pieces: 0,
    merged: false,
    vertices: 0,
    triangles: 0,
    spacing: 0,
    dabRadius: null,
    stroking: false,
    level: null,
    textureSize: 0,
    layers: [],
    painted: 0,
    textureFits: true,
  });
  mesh: MeshArrays | null = null;
  spacing = 0;
  opened: Opened | null = null;
  /** Called with the leaves that changed. */
  onChange: (leaves: Uint32Array) => void = nothing;
  /** How triangles are split and joined under strokes; null leaves them. */
  refine: RefineUnder | null = null;
  /** Called with what a call to the worker threw; whoever waits for the call hears of it too. */
  onProblem: (error: unknown) => void = (error) => reportError(error);
  /** Called when another mesh takes the place of the one that was open. */
  onReopen: (opened: Opened) => void = nothing;

  /** On the body now. */
  readonly pieces = new Map<string, Piece>();
  /** Called with the ids of pieces that changed. */
  onPieces: (ids: readonly string[]) => void = nothing;

  /** Called with what changed of the painting. */
  onPainted: (painted: Painted) => void = nothing;

  /** Called with what lies beside the clay when undo or redo changed it. */
  onBeside: (state: string) => void = nothing;

  private readonly thread = startThread<SculptWorker>(
    new Worker(new URL('./sculpt.worker.ts', import.meta.url), { type: 'module' }),
  );
  private readonly worker = this.thread.worker;
  private readonly orders = new Orders();
  private calls = 0;
  /** The call that the worker gives up. */
  private readonly givenUp = new Int32Array(new SharedArrayBuffer(4));
  private readonly own: OrdersOfEdits = {
    worker: this.worker,
    give: (call) => this.orders.give(call),
    changing: (call, options) => this.changing(call, options),
    apply: (change) => this.apply(change),
  };
  /** What is painted on it. */
  readonly paint = new PaintOrders(this.own);
  /** Edits of the whole, and set forms. */
  readonly edits = new EditOrders(this.own);
  readonly pieceOrders = new PieceOrders(this.own);
  private readonly sender = new BrushSender(this.worker);
  /** The stroke that the hand draws, from its begin to its end. */
  private drawn: { id: number; pending: Sample[] } | null = null;
  private strokeIds = 0;
  private refineLater: number | undefined;

  constructor() {
    this.orders.onBusy = (busy) => (this.state.busy = busy);
    this.orders.onProblem = (error) => {
      if (!(error instanceof StepCancelled)) this.onProblem(error);
    };
    void this.worker.watch(this.givenUp.buffer as SharedArrayBuffer);
    this.thread.broken.catch((error: unknown) => this.orders.fail(error));
  }

  /** Throws StepCancelled where it is given up: what was open stays. */
  open(opening: Opening, hand: FollowingHand | null = null): Promise<void> {
    const followed = this.followed(hand);
    return this.orders.give(async () => {
      this.lookAt(await followed((call, told) => this.worker.open(opening, call, told)));
      // Those of the body before are gone; strokes that were run again have set theirs down anew.
      this.takePieces([...this.pieces.keys()].map((id) => [id, null]));
      this.apply(await this.worker.state());
    });
  }

  /**
   * Makes the brush, and the alphas it needs, known to the worker. Without an alpha that can't be had it works as a
   * plain form, and that is told.
   */
  use(brush: Brush, alphas: BrushAlphas): Promise<void> {
    return this.orders.give(this.sender.settings(brush, alphas));
  }

  /** What strokes may keep in memory for undo; the oldest that no longer fit can’t be undone any more. */
  limitUndo(bytes: number): Promise<void> {
    return this.orders.give(async () => {
      const change = await this.worker.limitUndo(bytes);
      if (change) this.apply(change);
    });
  }

  /** Makes an alpha known to the worker; again when it was cast anew. */
  know(alpha: AlphaHead): Promise<void> {
    return this.orders.give(this.sender.alpha(alpha));
  }

  begin(start: Begin, samples: Sample[]): void {
    const stroke = { id: ++this.strokeIds, pending: [] };
    // A hand draws one stroke: one that was never released ends here.
    if (this.drawn) void this.end();
    this.drawn = stroke;
    this.orders.standAside();
    const { refine } = this;
    void this.changing(() => this.worker.begin(stroke.id, start, samples, refine), { ofStroke: true });
  }

  /** Samples that come while the worker is busy go out together when it is free. */
  extend(samples: readonly Sample[]): void {
    const stroke = this.drawn;
    if (!stroke) return;
    stroke.pending.push(...samples);
    void this.changing(() => this.worker.extend(stroke.id, stroke.pending.splice(0)), {
      ofStroke: true,
      key: `extend ${stroke.id}`,
    });
  }

  /** Ends the stroke that is drawn; what was asked for meanwhile follows. */
  end(): Promise<void> {
    const stroke = this.drawn;
    if (!stroke) return Promise.resolve();
    this.drawn = null;
    const { refine } = this;
    const ended = this.changing(() => this.worker.end(stroke.id, refine), { ofStroke: true });
    this.orders.goOn();
    return ended;
  }

  /** Takes back the stroke that is drawn. */
  abandon(): Promise<void> {
    const stroke = this.drawn;
    if (!stroke) return Promise.resolve();
    this.drawn = null;
    const gone = this.changing(() => this.worker.abandon(), { ofStroke: true });
    this.orders.goOn();
    return gone;
  }

  /**
   * Shows a stroke that is laid as a whole, along a path, in place of the one shown before; other orders take it off
   * again.
   */
  drawPath(start: Begin, samples: readonly Sample[]): Promise<void> {
    const sent = [...samples];
    return this.changing(() => this.worker.drawPath(start, sent), { key: 'path' });
  }

  /** Lays it and keeps it. */
  keepPath(start: Begin, samples: readonly Sample[]): Promise<void> {
    const sent = [...samples];
    const { refine } = this;
    return this.changing(() => this.worker.keepPath(start, sent, refine));
  }

  dropPath(): Promise<void> {
    return this.changing(() => this.worker.abandon());
  }

  /** Masks what the last stroke raised. */
  maskRaised(): Promise<void> {
    return this.changing(() => this.worker.maskRaised());
  }

  /** Cuts what is masked off the body; null when nothing whole is masked. */
  cutOff(thickness: number): Promise<ArrayBuffer | null> {
    return this.orders.give(async () => {
      const { change, cut } = await this.worker.cutOff(thickness);
      this.apply(change);
      return cut;
    });
  }

  /** Takes back a cut that can't be kept; false when more was done since, and it stays. */
  uncut(): Promise<boolean> {
    return this.orders.give(async () => {
      const { change, undone } = await this.worker.uncut();
      this.apply(change);
      return undone;
    });
  }

  /** The body as it is sculpted, as kept bytes; when what was ordered before has been done. */
  sculpted(): Promise<ArrayBuffer> {
    return this.orders.give(() => this.worker.sculpted());
  }

  /** The untouched body with the triangles it has now, as kept bytes. */
  untouched(): Promise<ArrayBuffer> {
    return this.orders.give(() => this.worker.untouched());
  }

  /** Takes back the stroke that is drawn, else the last step. */
  undo(): Promise<void> {
    return this.drawn ? this.abandon() : this.changing(() => this.worker.undo());
  }

  redo(): Promise<void> {
    return this.changing(() => this.worker.redo());
  }

  clear(): Promise<void> {
    return this.changing(() => this.worker.clear());
  }

  /**
   * Takes over the brush's settings and runs the strokes again. Of runs that wait one behind the other only the latest
   * is made.
   */
  replay(brush: Brush, alphas: BrushAlphas): Promise<void> {
    const settings = this.sender.settings(brush, alphas);
    const run = this.changing(
      async () => {
        await settings();
        return this.worker.replay();
      },
      { key: `replay ${brush.id}` },
    );
    window.clearTimeout(this.refineLater);
    void run.then(
      () => {
        window.clearTimeout(this.refineLater);
        // Settings that rest a moment may have brought strokes onto clay that is coarse or too fine.
        if (this.refine)
          this.refineLater = window.setTimeout(
            () => void this.changing(() => this.worker.refineAgain(), { key: 'refine' }),
            REST_MS,
          );
      },
      () => undefined,
    );
    return run;
  }

  /** Strokes keep the settings they were drawn with, or follow their brushes with the next replay. */
  letStay(stays: boolean): Promise<void> {
    return this.orders.give(() => this.worker.letStay(stays));
  }

  /** What was done to the body. */
  steps(): Promise<StepSnapshot[]> {
    return this.orders.give(() => this.worker.steps());
  }

  /** Lays these steps in place of all that is on the body. */
  drawSteps(steps: readonly StepSnapshot[], instead: string): Promise<void> {
    const sent = plain([...steps]);
    return this.changing(() => this.worker.drawSteps(sent, instead));
  }

  /** Strokes of one brush go on as strokes of its copy. */
  adopt(from: string, to: string): Promise<void> {
    return this.orders.give(() => this.worker.adopt(from, to));
  }

  /** Everything that is kept of a slab, when the stroke that is drawn has ended. */
  bytes(): Promise<ClayBytes> {
    return this.orders.give(() => this.worker.bytes());
  }

  /** What stands out of the clay in the frame, as a part. Fails with a sentence when nothing does. */
  raised(frame: Frame): Promise<ArrayBuffer> {
    const sent = plain(frame);
    return this.orders.give(() => this.worker.raised(sent));
  }

  /** Throws StepCancelled where it is given up: the level stays. */
  step(direction: LevelDirection, hand: FollowingHand | null = null): Promise<void> {
    const followed = this.followed(hand);
    return this.changing(() => followed((call, told) => this.worker.step(direction, call, told)));
  }

  /** How a call is carried out that the hand hears of and may give up: before its turn, or while it runs. */
  private followed(hand: FollowingHand | null) {
    const call = ++this.calls;
    let [running, cancelled] = [false, false];
    hand?.onCancel(() => {
      cancelled = true;
      if (running) Atomics.store(this.givenUp, 0, call);
    });
    return async <T extends object>(
      carryOut: (call: number, told: Followed['told']) => Promise<T | Cancelled>,
    ): Promise<T> => {
      if (cancelled) throw new StepCancelled();
      running = true;
      const answer = await carryOut(call, hand && Comlink.proxy((share: number) => hand.report(share)));
      running = false;
      if ('cancelled' in answer) throw new StepCancelled();
      return answer;
    };
  }

  /** No view looks at it any more. */
  unseen(): void {
    this.onChange = nothing;
    this.onPieces = nothing;
    this.onPainted = nothing;
  }

  close(): void {
    window.clearTimeout(this.refineLater);
    this.unseen();
    this.onReopen = nothing;
    this.onBeside = nothing;
    this.orders.close();
    this.thread.end();
  }

  /** An order that changes the clay. When it fails the page looks at what is there now. */
  private changing(call: () => Promise<Change>, options: OrderOptions = {}): Promise<void> {
    return this.orders.give(async () => {
      try {
        this.apply(await call());
      } catch (error) {
        await this.worker.state().then(
          (now) => this.apply(now),
          () => undefined,
        );
        throw error;
      }
    }, options);
  }

  private takePainted(painted: Painted): void {
    this.state.textureSize = painted.size;
    this.state.painted++;
    if (painted.on) this.state.textureFits = painted.size === 0 || painted.on.coordinates !== null;
    if (painted.layers) this.state.layers = painted.layers;
    this.onPainted(painted);
  }

  private takePieces(changes: readonly PieceChange[]): void {
    if (changes.length === 0) return;
    for (const [id, piece] of changes) {
      if (piece) this.pieces.set(id, piece);
      else this.pieces.delete(id);
    }
    this.state.pieces = this.pieces.size;
    this.onPieces(changes.map(([id]) => id));
  }

  private lookAt(opened: Opened): void {
    this.opened = opened;
    this.mesh = meshView(opened.buffer, opened.layout);
    this.spacing = opened.spacing;
    Object.assign(this.state, {
      vertices: opened.layout.vertexCount,
      triangles: opened.layout.triangleCount,
      spacing: opened.spacing,
    });
  }

  private apply(change: Change): void {
    if (change.reopened) {
      this.lookAt(change.reopened);
      this.onReopen(change.reopened);
    }
    const { level, strokes, canUndo, canRedo, stroking, merged, dab } = change;
    Object.assign(this.state, { level, strokes, canUndo, canRedo, stroking, merged, dabRadius: dab?.radius ?? null });
    if (change.leaves.length > 0) this.onChange(change.leaves);
    this.takePieces(change.pieces);
    if (change.painted) this.takePainted(change.painted);
    if (change.beside !== null) this.onBeside(change.beside);
  }
}
