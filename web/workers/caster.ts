/** The page's side of casting: live previews where only the latest counts, and one full cast with progress and cancel. */
import * as Comlink from 'comlink';
import type { CastSettings, Frame } from '#core/settings';
import type { CastResult, CastWorker, FlatCast, VectorResult } from './cast.worker';
import type { Opened } from './sculpt/messages';

export class Caster {
  onPreview: (result: CastResult | FlatCast) => void = () => undefined;

  private readonly thread = new Worker(new URL('./cast.worker.ts', import.meta.url), { type: 'module' });
  private readonly worker = Comlink.wrap<CastWorker>(this.thread);
  private readonly cancelWord = new SharedArrayBuffer(4);
  private wanted: CastSettings | null = null;
  private running = false;

  async open(opened: Opened): Promise<void> {
    await this.worker.open(opened.buffer, opened.layout, this.cancelWord);
  }

  /** Casts as soon as the last preview is done. */
  preview(settings: CastSettings): void {
    this.wanted = settings;
    if (!this.running) void this.run();
  }

  cast(settings: CastSettings, onProgress: (share: number) => void): Promise<CastResult | FlatCast> {
    this.go();
    return this.worker.cast(settings, Comlink.proxy(onProgress));
  }

  vector(settings: CastSettings, onProgress: (share: number) => void): Promise<VectorResult> {
    this.go();
    return this.worker.vector(settings, Comlink.proxy(onProgress));
  }

  fit(turn: number, margin: number, inside: 'square' | 'ring'): Promise<Frame | null> {
    return this.worker.fit(turn, margin, inside);
  }

  cancel(): void {
    Atomics.store(new Int32Array(this.cancelWord), 0, 1);
  }

  close(): void {
    this.thread.terminate();
  }

  private go(): void {
    Atomics.store(new Int32Array(this.cancelWord), 0, 0);
  }

  private async run(): Promise<void> {
    this.running = true;
    while (this.wanted) {
      const settings = this.wanted;
      this.wanted = null;
      this.go();
      this.onPreview(await this.worker.cast(settings, null));
    }
    this.running = false;
  }
}
