/**
 * The page's side of casting: live previews where only the latest counts, and one full cast with progress and cancel.
 */
import * as Comlink from 'comlink';
import { CastCancelled } from '#core/cast';
import type { CastSettings, Frame } from '#core/settings';
import type { Cancelled, CastResult, CastWorker, FlatCast, VectorResult } from './cast.worker';
import type { Opened } from './sculpt/messages';
import { startThread } from './thread';

export class Caster {
  onPreview: (result: CastResult | FlatCast) => void = () => undefined;
  /** Called with what a preview threw. */
  onProblem: (error: unknown) => void = (error) => reportError(error);

  private readonly thread = startThread<CastWorker>(
    new Worker(new URL('./cast.worker.ts', import.meta.url), { type: 'module' }),
  );
  private readonly worker = this.thread.worker;
  /** The number of the last call that is to be given up; those before it are too. */
  private readonly givenUp = new Int32Array(new SharedArrayBuffer(4));
  private calls = 0;
  /** The full cast that runs. */
  private full: number | null = null;
  private wanted: CastSettings | null = null;
  private running = false;
  private closed = false;

  async open(opened: Opened): Promise<void> {
    await this.worker.open(opened.buffer, opened.layout, this.givenUp.buffer as SharedArrayBuffer);
  }

  /** Casts as soon as the last preview is done. */
  preview(settings: CastSettings): void {
    this.wanted = settings;
    if (!this.running) void this.run();
  }

  /** Throws CastCancelled after `cancel`. */
  cast(settings: CastSettings, onProgress: (share: number) => void): Promise<CastResult | FlatCast> {
    return this.whole<CastResult | FlatCast>(async (call) =>
      this.worker.cast(call, settings, Comlink.proxy(onProgress)),
    );
  }

  vector(settings: CastSettings, onProgress: (share: number) => void): Promise<VectorResult> {
    return this.whole((call) => this.worker.vector(call, settings, Comlink.proxy(onProgress)));
  }

  fit(turn: number, margin: number, inside: 'square' | 'ring'): Promise<Frame | null> {
    return this.worker.fit(turn, margin, inside);
  }

  /** Gives up the full cast that runs, and no other. */
  cancel(): void {
    if (this.full !== null) Atomics.store(this.givenUp, 0, this.full);
  }

  /** A full cast that runs is still finished: the clay's memory stays as it was left. */
  close(): void {
    this.closed = true;
    this.onPreview = () => undefined;
    if (this.full === null) this.thread.end();
  }

  private async whole<T>(make: (call: number) => Promise<T | Cancelled>): Promise<T> {
    const call = ++this.calls;
    this.full = call;
    try {
      return finished(await make(call));
    } finally {
      if (this.full === call) this.full = null;
      if (this.closed && this.full === null) this.thread.end();
    }
  }

  private async run(): Promise<void> {
    this.running = true;
    try {
      while (this.wanted && !this.closed) {
        const settings = this.wanted;
        this.wanted = null;
        const cast = await this.worker.cast(++this.calls, settings, null);
        // One that was waiting behind a cast that was given up is wanted all the same.
        if ('cancelled' in cast) this.wanted ??= settings;
        else this.onPreview(cast);
      }
    } catch (error) {
      this.onProblem(error);
    } finally {
      this.running = false;
    }
  }
}

function finished<T>(answer: T | Cancelled): T {
  if (typeof answer === 'object' && answer !== null && 'cancelled' in answer) throw new CastCancelled();
  return answer;
}
