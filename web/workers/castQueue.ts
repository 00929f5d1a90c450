/**
 * Casts that a worker makes: live previews where only the latest counts, and full ones with progress and cancel. A
 * worker is ended when it is closed and its full cast is done.
 */
import { CastCancelled } from '#core/cast';
import type { Cancelled, CastResult, FlatCast } from './castResult';

export type Answer = CastResult | FlatCast;

export interface CastQueueOptions<S, A extends Answer> {
  /** Asks the worker; `call` is the number by which it can be given up. */
  cast: (call: number, settings: S) => Promise<A | Cancelled>;
  end: () => void;
}

export class CastQueue<S, A extends Answer = Answer> {
  onPreview: (result: A) => void = () => undefined;
  /** Called with what a preview threw. */
  onProblem: (error: unknown) => void = (error) => reportError(error);
  /** One number that the worker looks at: calls up to it are given up. */
  readonly givenUp = new Int32Array(new SharedArrayBuffer(4));

  private calls = 0;
  /** The full cast that runs. */
  private running: number | null = null;
  private wanted: S | null = null;
  private showing = false;
  private closed = false;

  constructor(private readonly options: CastQueueOptions<S, A>) {}

  /** Casts as soon as the last preview is done. */
  preview(settings: S): void {
    this.wanted = settings;
    if (!this.showing) void this.show();
  }

  /** Throws CastCancelled after `cancel`. */
  async full<T>(make: (call: number) => Promise<T | Cancelled>): Promise<T> {
    const call = ++this.calls;
    this.running = call;
    try {
      return finished(await make(call));
    } finally {
      if (this.running === call) this.running = null;
      if (this.closed && this.running === null) this.options.end();
    }
  }

  /** Gives up the full cast that runs, and no other. */
  cancel(): void {
    if (this.running !== null) Atomics.store(this.givenUp, 0, this.running);
  }

  /** A full cast that runs is still finished: what is cast stays as it was left. */
  close(): void {
    this.closed = true;
    this.wanted = null;
    this.onPreview = () => undefined;
    if (this.running === null) this.options.end();
  }

  private async show(): Promise<void> {
    this.showing = true;
    try {
      while (this.wanted && !this.closed) {
        const settings = this.wanted;
        this.wanted = null;
        const cast = await this.options.cast(++this.calls, settings);
        // One that was waiting behind a cast that was given up is wanted all the same.
        if (!('cancelled' in cast)) this.onPreview(cast);
        else this.wanted ??= settings;
      }
    } catch (error) {
      this.onProblem(error);
    } finally {
      this.showing = false;
    }
  }
}

function finished<T>(answer: T | Cancelled): T {
  if (typeof answer === 'object' && answer !== null && 'cancelled' in answer) throw new CastCancelled();
  return answer;
}
