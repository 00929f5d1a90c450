/** The page's side of casting a slab: its worker looks at the memory that the sculpting worker owns. */
import * as Comlink from 'comlink';
import type { CastSettings, Frame } from '#core/settings';
import type { CastWorker } from './cast.worker';
import { CastQueue } from './castQueue';
import type { CastResult, FlatCast, VectorResult } from './castResult';
import type { Opened } from './sculpt/messages';
import { startThread } from './thread';

export class Caster {
  private readonly thread = startThread<CastWorker>(
    new Worker(new URL('./cast.worker.ts', import.meta.url), { type: 'module' }),
  );
  private readonly worker = this.thread.worker;
  private readonly queue = new CastQueue<CastSettings>({
    cast: (call, settings) => this.worker.cast(call, settings, null),
    end: () => this.thread.end(),
  });

  set onPreview(told: (result: CastResult | FlatCast) => void) {
    this.queue.onPreview = told;
  }

  /** Called with what a preview threw. */
  set onProblem(told: (error: unknown) => void) {
    this.queue.onProblem = told;
  }

  async open(opened: Opened): Promise<void> {
    await this.worker.open(opened.buffer, opened.layout, this.queue.givenUp.buffer as SharedArrayBuffer);
  }

  preview(settings: CastSettings): void {
    this.queue.preview(settings);
  }

  /** Throws CastCancelled after `cancel`. */
  cast(settings: CastSettings, onProgress: (share: number) => void): Promise<CastResult | FlatCast> {
    return this.queue.full<CastResult | FlatCast>(async (call) =>
      this.worker.cast(call, settings, Comlink.proxy(onProgress)),
    );
  }

  vector(settings: CastSettings, onProgress: (share: number) => void): Promise<VectorResult> {
    return this.queue.full<VectorResult>(async (call) => this.worker.vector(call, settings, Comlink.proxy(onProgress)));
  }

  fit(turn: number, margin: number, inside: 'square' | 'ring'): Promise<Frame | null> {
    return this.worker.fit(turn, margin, inside);
  }

  cancel(): void {
    this.queue.cancel();
  }

  close(): void {
    this.queue.close();
  }
}
