/**
 * The page's side of a sculpting session: one worker, its shared memory seen as a mesh, strokes with samples that
 * wait while the worker is busy, and replay where only the latest settings count.
 */
import * as Comlink from 'comlink';
import { reactive } from 'vue';
import { meshView, type MeshArrays } from '#core/mesh';
import type { Brush } from '#core/settings';
import type { Sample } from '#core/stroke';
import { getBlob } from '../api/client';
import type { Begin, Change, Opened, Opening, SculptWorker } from './sculpt.worker';

export interface SculptorState {
  busy: boolean;
  strokes: number;
  canUndo: boolean;
  canRedo: boolean;
  vertices: number;
  /** Radius of the dab being laid. */
  dabRadius: number | null;
  stroking: boolean;
}

export interface AlphaRef {
  id: string;
  size: number;
  blob: string;
  relief: number;
}

export class Sculptor {
  readonly state: SculptorState = reactive({
    busy: false, strokes: 0, canUndo: false, canRedo: false, vertices: 0, dabRadius: null, stroking: false,
  });
  mesh: MeshArrays | null = null;
  spacing = 0;
  opened: Opened | null = null;
  /** Called with the leaves that changed. */
  onChange: (leaves: Uint32Array) => void = () => undefined;

  private readonly thread = new Worker(new URL('./sculpt.worker.ts', import.meta.url), { type: 'module' });
  private readonly worker = Comlink.wrap<SculptWorker>(this.thread);
  private readonly known = new Set<string>();
  private chain: Promise<unknown> = Promise.resolve();
  private waiting: Sample[] = [];
  private sending = false;
  private replayWith: (() => Promise<void>) | null = null;
  private replayRun: Promise<void> | null = null;

  async open(opening: Opening): Promise<void> {
    await this.queue(async () => {
      const opened = await this.worker.open(opening);
      this.opened = opened;
      this.mesh = meshView(opened.buffer, opened.layout);
      this.spacing = opened.spacing;
      Object.assign(this.state, { strokes: 0, canUndo: false, canRedo: false, vertices: opened.layout.vertexCount, stroking: false });
    });
  }

  /** Makes the brush, and the alpha it needs, known to the worker. */
  async use(brush: Brush, alpha: AlphaRef | null): Promise<void> {
    if (alpha && !this.known.has(alpha.id)) {
      const greys = await getBlob(alpha.blob);
      await this.queue(() => this.worker.setForm(alpha.id, alpha.size, Comlink.transfer(greys, [greys]), alpha.relief));
      this.known.add(alpha.id);
    }
    await this.queue(() => this.worker.setBrush(JSON.parse(JSON.stringify(brush)) as Brush));
  }

  begin(start: Begin, samples: Sample[]): void {
    this.state.stroking = true;
    this.waiting = [];
    void this.changing(() => this.worker.begin(start, samples));
  }

  /** Samples that come while the worker is busy go out together when it is free. */
  extend(samples: readonly Sample[]): void {
    if (!this.state.stroking) return;
    this.waiting.push(...samples);
    if (this.sending) return;
    this.sending = true;
    void this.queue(async () => {
      this.sending = false;
      const batch = this.waiting.splice(0);
      if (batch.length > 0 && this.state.stroking) this.take(await this.worker.extend(batch));
    });
  }

  async end(): Promise<void> {
    if (!this.state.stroking) return;
    const rest = this.waiting.splice(0);
    await this.changing(async () => {
      if (rest.length > 0) this.take(await this.worker.extend(rest));
      return this.worker.end();
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
  }

  /** Strokes of one brush go on as strokes of its copy. */
  adopt(from: string, to: string): Promise<void> {
    return this.queue(() => this.worker.adopt(from, to));
  }

  positions(): Promise<ArrayBuffer> {
    return this.queue(() => this.worker.positions());
  }

  close(): void {
    this.thread.terminate();
  }

  private changing(call: () => Promise<Change>): Promise<void> {
    return this.queue(async () => this.take(await call()));
  }

  private take(change: Change): void {
    Object.assign(this.state, { strokes: change.strokes, canUndo: change.canUndo, canRedo: change.canRedo, dabRadius: change.dab?.radius ?? null });
    if (change.leaves.length > 0) this.onChange(change.leaves);
  }

  /** Calls go to the worker one after the other, in the order in which they were made. */
  private queue<T>(call: () => Promise<T>): Promise<T> {
    this.state.busy = true;
    const mine = this.chain.then(call);
    const settled = mine.then(() => undefined, () => undefined);
    this.chain = settled;
    void settled.then(() => {
      if (this.chain === settled) this.state.busy = false;
    });
    return mine;
  }
}
