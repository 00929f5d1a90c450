/** The page's side of casting: live previews where only the latest counts, and one full cast with progress and cancel. */
import * as Comlink from 'comlink';
import type { CastSettings } from '#core/settings';
import type { CastResult, CastWorker, FlatCast } from './cast.worker';
import type { Opened } from './sculpt.worker';

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

  async cast(settings: CastSettings, onProgress: (share: number) => void): Promise<CastResult | FlatCast> {
    Atomics.store(new Int32Array(this.cancelWord), 0, 0);
    return this.worker.cast(settings, Comlink.proxy(onProgress));
  }

  cancel(): void {
    Atomics.store(new Int32Array(this.cancelWord), 0, 1);
  }

  close(): void {
    this.thread.terminate();
  }

  private async run(): Promise<void> {
    this.running = true;
    while (this.wanted) {
      const settings = this.wanted;
      this.wanted = null;
      Atomics.store(new Int32Array(this.cancelWord), 0, 0);
      this.onPreview(await this.worker.cast(settings, null));
    }
    this.running = false;
  }
}
