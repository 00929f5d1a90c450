/**
 * The page's side of a sculpting session: one worker, its shared memory seen as a mesh, strokes with samples that
 * wait while the worker is busy, and replay where only the latest settings count.
 */
import * as Comlink from 'comlink';
import { reactive } from 'vue';
import { meshView, type MeshArrays } from '#core/mesh';
import type { Alpha, Brush, Piece } from '#core/settings';
import type { LevelWay } from '#core/slab';
import type { RefineUnder, Sample } from '#core/stroke';
import { getBlob } from '../api/client';
import type { BrushAlphas } from '../stores/library';
import { plain } from '../stores/plain';
import type { SculptWorker } from './sculpt.worker';
import type { Begin, Change, ClayBytes, EditOrder, KeptStep, LevelState, Opened, Opening } from './sculpt/messages';

export interface SculptorState {
  busy: boolean;
  strokes: number;
  canUndo: boolean;
  canRedo: boolean;
  vertices: number;
  triangles: number;
  /** Mean distance from vertex to vertex, body units. */
  spacing: number;
  /** Radius of the dab being laid. */
  dabRadius: number | null;
  stroking: boolean;
  /** Of a slab. */
  level: LevelState | null;
}

/** Settings that don't change for so long rest. */
const REST_MS = 500;

export class Sculptor {
  readonly state: SculptorState = reactive({
    busy: false, strokes: 0, canUndo: false, canRedo: false, vertices: 0, triangles: 0, spacing: 0, dabRadius: null, stroking: false, level: null,
  });
  mesh: MeshArrays | null = null;
  spacing = 0;
  opened: Opened | null = null;
  /** Called with the leaves that changed. */
  onChange: (leaves: Uint32Array) => void = () => undefined;
  /** How triangles are split and joined under strokes; null leaves them. */
  refine: RefineUnder | null = null;
  /** Called with what a call to the worker threw; whoever waits for the call hears of it too. */
  onProblem: (error: unknown) => void = (error) => reportError(error);
  /** Called when another mesh takes the place of the one that was open. */
  onReopen: (opened: Opened) => void = () => undefined;

  private readonly thread = new Worker(new URL('./sculpt.worker.ts', import.meta.url), { type: 'module' });
  private readonly worker = Comlink.wrap<SculptWorker>(this.thread);
  private readonly known = new Map<string, string>();
  private readonly parts = new Set<string>();
  private chain: Promise<unknown> = Promise.resolve();
  private waiting: Sample[] = [];
  private sending = false;
  private tracing: Sample[] | null = null;
  private traceRun: Promise<void> | null = null;
  private trying: EditOrder | null = null;
  private tryRun: Promise<void> | null = null;
  private replayWith: (() => Promise<void>) | null = null;
  private replayRun: Promise<void> | null = null;
  private refineLater: number | undefined;

  async open(opening: Opening): Promise<void> {
    await this.queue(async () => {
      this.lookAt(await this.worker.open(opening));
      this.state.stroking = false;
      this.take(await this.worker.state());
    });
  }

  /** Makes the brush, and the alphas it needs, known to the worker. */
  async use(brush: Brush, alphas: BrushAlphas): Promise<void> {
    for (const alpha of [alphas.form, alphas.tooth]) if (alpha) await this.know(alpha);
    await this.queue(() => this.worker.setBrush(plain(brush)));
  }

  /** Makes an alpha known to the worker; again when it was cast anew. */
  async know(alpha: Alpha): Promise<void> {
    if (this.known.get(alpha.id) === alpha.blob) return;
    const bytes = await getBlob(alpha.blob);
    const kind = { format: alpha.format, size: alpha.size, relief: alpha.relief };
    await this.queue(() => this.worker.setForm(alpha.id, kind, Comlink.transfer(bytes, [bytes])));
    this.known.set(alpha.id, alpha.blob);
  }

  begin(start: Begin, samples: Sample[]): void {
    this.state.stroking = true;
    this.waiting = [];
    this.changing(() => this.worker.begin(start, samples, this.refine)).catch(() => undefined);
  }

  /** Samples that come while the worker is busy go out together when it is free. */
  extend(samples: readonly Sample[]): void {
    if (!this.state.stroking) return;
    this.waiting.push(...samples);
    if (this.sending) return;
    this.sending = true;
    this.queue(async () => {
      this.sending = false;
      const batch = this.waiting.splice(0);
      if (batch.length > 0 && this.state.stroking) this.take(await this.worker.extend(batch));
    }).catch(() => undefined);
  }

  /** Lays the running stroke along other samples; while one is worked out only the latest waits. */
  retrace(samples: readonly Sample[]): Promise<void> {
    this.tracing = [...samples];
    this.traceRun ??= this.queue(async () => {
      const latest = this.tracing;
      this.tracing = null;
      this.traceRun = null;
      if (latest && this.state.stroking) this.take(await this.worker.retrace(latest));
    });
    return this.traceRun;
  }

  /** Masks what the last stroke raised. */
  maskRaised(): Promise<void> {
    return this.changing(() => this.worker.maskRaised());
  }

  /** Cuts what is masked off the body; null when nothing whole is masked. */
  cutOff(thickness: number): Promise<ArrayBuffer | null> {
    return this.queue(async () => {
      const { change, piece } = await this.worker.cutOff(thickness);
      this.take(change);
      return piece;
    });
  }

  /** The untouched body with the triangles it has now, as kept bytes. */
  untouched(): Promise<ArrayBuffer> {
    return this.queue(() => this.worker.untouched());
  }

  async end(): Promise<void> {
    if (!this.state.stroking) return;
    const rest = this.waiting.splice(0);
    await this.changing(async () => {
      if (rest.length > 0) this.take(await this.worker.extend(rest));
      return this.worker.end(this.refine);
    });
    this.state.stroking = false;
  }

  async abandon(): Promise<void> {
    this.waiting = [];
    this.state.stroking = false;
    await this.changing(() => this.worker.abandon());
  }

  undo(): Promise<void> {
    this.state.stroking = false;
    return this.changing(() => this.worker.undo());
  }

  redo(): Promise<void> {
    return this.changing(() => this.worker.redo());
  }

  clear(): Promise<void> {
    return this.changing(() => this.worker.clear());
  }

  /**
   * Takes over the brush's settings and runs the strokes again. While one run goes on only the latest settings wait;
   * every caller hears when the last of them is done.
   */
  replay(settings: () => Promise<void>): Promise<void> {
    this.replayWith = settings;
    this.replayRun ??= this.replayLatest().finally(() => {
      this.replayRun = null;
    });
    return this.replayRun;
  }

  private async replayLatest(): Promise<void> {
    while (this.replayWith) {
      const settings = this.replayWith;
      this.replayWith = null;
      await settings();
      if (this.state.strokes > 0 && !this.state.stroking) await this.changing(() => this.worker.replay());
    }
    window.clearTimeout(this.refineLater);
    if (this.refine && this.state.strokes > 0) this.refineLater = window.setTimeout(() => this.refineAgain(), REST_MS);
  }

  /** Settings that rest a moment may have brought strokes onto clay that is coarse or too fine. */
  private refineAgain(): void {
    if (this.replayWith || this.state.stroking || this.state.strokes === 0) return;
    this.changing(() => this.worker.refineAgain()).catch(() => undefined);
  }

  /** What was done to the body. */
  steps(): Promise<KeptStep[]> {
    return this.queue(() => this.worker.steps());
  }

  /** Lays these steps in place of all that is on the body. */
  lay(steps: readonly KeptStep[], instead: string): Promise<void> {
    const sent = plain([...steps]);
    return this.changing(() => this.worker.lay(sent, instead));
  }

  /** Strokes of one brush go on as strokes of its copy. */
  adopt(from: string, to: string): Promise<void> {
    return this.queue(() => this.worker.adopt(from, to));
  }

  /** Everything that is kept of a slab. */
  bytes(): Promise<ClayBytes> {
    return this.queue(() => this.worker.bytes());
  }

  /** Shows what an edit would do; while one is worked out only the latest waits. */
  tryEdit(order: EditOrder): Promise<void> {
    this.trying = plain(order);
    this.tryRun ??= this.queue(async () => {
      const latest = this.trying;
      this.trying = null;
      this.tryRun = null;
      if (latest) this.take(await this.worker.tryEdit(latest));
    });
    return this.tryRun;
  }

  keepEdit(): Promise<void> {
    return this.changing(() => this.worker.keepEdit());
  }

  dropEdit(): Promise<void> {
    this.trying = null;
    return this.changing(() => this.worker.dropEdit());
  }

  makeEdit(order: EditOrder): Promise<void> {
    const sent = plain(order);
    return this.changing(() => this.worker.makeEdit(sent));
  }

  async setPieces(pieces: readonly Piece[]): Promise<void> {
    const next = plain([...pieces]);
    for (const { part } of next) {
      if (!part || this.parts.has(part.heights)) continue;
      const bytes = await getBlob(part.heights);
      await this.queue(() => this.worker.setPart(part.heights, Comlink.transfer(bytes, [bytes])));
      this.parts.add(part.heights);
    }
    return this.changing(() => this.worker.setPieces(next));
  }

  bakePieces(): Promise<void> {
    return this.changing(() => this.worker.bakePieces());
  }

  step(way: LevelWay): Promise<void> {
    return this.changing(() => this.worker.step(way));
  }

  close(): void {
    window.clearTimeout(this.refineLater);
    this.thread.terminate();
  }

  /** Strokes have nobody who waits for them; what went wrong is told by `onProblem`. */
  private changing(call: () => Promise<Change>): Promise<void> {
    return this.queue(async () => this.take(await call()));
  }

  private lookAt(opened: Opened): void {
    this.opened = opened;
    this.mesh = meshView(opened.buffer, opened.layout);
    this.spacing = opened.spacing;
    Object.assign(this.state, { vertices: opened.layout.vertexCount, triangles: opened.layout.triangleCount, spacing: opened.spacing });
  }

  private take(change: Change): void {
    if (change.reopened) {
      this.lookAt(change.reopened);
      this.onReopen(change.reopened);
    }
    Object.assign(this.state, {
      level: change.level, strokes: change.strokes, canUndo: change.canUndo, canRedo: change.canRedo, dabRadius: change.dab?.radius ?? null });
    if (change.leaves.length > 0) this.onChange(change.leaves);
  }

  /** Calls go to the worker one after the other, in the order in which they were made. */
  private queue<T>(call: () => Promise<T>): Promise<T> {
    this.state.busy = true;
    const mine = this.chain.then(call);
    const settled = mine.then(() => undefined, (error: unknown) => this.onProblem(error));
    this.chain = settled;
    void settled.then(() => {
      if (this.chain === settled) this.state.busy = false;
    });
    return mine;
  }
}
