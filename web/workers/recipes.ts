/**
 * The page's side of recipes: live previews where only the latest counts, and bakes in a worker of their own that can
 * be stopped at once.
 */
import * as Comlink from 'comlink';
import type { AlphaHead } from '#core/stored';
import type { Base, Lettering, Pattern } from '#core/settings';
import type { RecipeAnswer, RecipeWish, RecipeWorker } from './recipe.worker';
import { startThread, type Thread } from './thread';

const begin = (): Thread<RecipeWorker> =>
  startThread<RecipeWorker>(new Worker(new URL('./recipe.worker.ts', import.meta.url), { type: 'module' }));

export type Made = Lettering | Pattern | null;

export interface RecipeFrom {
  base: Base;
  made: Made;
  /** Alphas that steps combine with. */
  others: readonly AlphaHead[];
}

/** Bases are read at up to so many pixels a side. */
export const MOST_BASE_SIDE = 4096;

export class Recipes {
  /** With what it was asked of: another may wait by then. */
  onAnswer: (answer: RecipeAnswer, from: RecipeFrom) => void = () => undefined;
  onFail: (error: unknown) => void = () => undefined;

  private readonly thread = begin();
  private readonly worker = this.thread.worker;
  private wanted: { from: RecipeFrom; wish: RecipeWish; side: number } | null = null;
  private running = false;
  private closed = false;

  /** Runs as soon as the last preview is done; the base is read at `side` pixels. */
  preview(from: RecipeFrom, wish: RecipeWish, side: number): void {
    this.wanted = { from, wish, side };
    if (!this.running) void this.run();
  }

  /** A newer preview waits than the one that was answered last. */
  get pending(): boolean {
    return this.wanted !== null;
  }

  /** The picture before the first step, as it was last loaded. */
  bare(size: number): Promise<Float32Array> {
    return this.worker.bare(size);
  }

  close(): void {
    this.closed = true;
    this.wanted = null;
    this.thread.end();
  }

  private async run(): Promise<void> {
    this.running = true;
    while (this.wanted) {
      const { from, wish, side } = this.wanted;
      this.wanted = null;
      try {
        await this.worker.load(from.base, from.made, side);
        for (const alpha of from.others) await this.worker.other(alpha);
        const answer = await this.worker.run(wish, null);
        if (!this.closed) this.onAnswer(answer, from);
      } catch (error) {
        if (!this.closed) this.onFail(error);
      }
    }
    this.running = false;
  }
}

export interface Bake {
  answer: RecipeAnswer;
  bytes: Uint8Array<ArrayBuffer>;
}

export interface Baking {
  done: Promise<Bake>;
  /** Ends the worker; `done` is rejected. */
  cancel(): void;
}

export class BakeCancelled extends Error {
  constructor() {
    super('The bake was cancelled.');
  }
}

/** Runs a recipe at full size. */
export function bake(
  from: RecipeFrom,
  wish: RecipeWish,
  format: 'grey16' | 'grey32f',
  onProgress: (share: number) => void,
): Baking {
  const thread = begin();
  const { worker } = thread;
  let stop: (error: Error) => void = () => undefined;
  const stopped = new Promise<never>((_, reject) => (stop = reject));
  const work = async (): Promise<Bake> => {
    // Drawn things are made at the size that is wanted, sheets are read as fine as they are.
    const side = from.base.kind === 'lettering' || from.base.kind === 'pattern' ? wish.size : MOST_BASE_SIDE;
    await worker.load(from.base, from.made, side);
    for (const alpha of from.others) await worker.other(alpha);
    onProgress(0.1);
    const answer = await worker.run(
      wish,
      Comlink.proxy((share: number) => onProgress(0.1 + 0.85 * share)),
    );
    const bytes = new Uint8Array(await worker.bytes(answer.heights, answer.size, format));
    return { answer, bytes };
  };
  const done = Promise.race([work(), stopped, thread.broken]).finally(() => thread.end());
  return { done, cancel: () => stop(new BakeCancelled()) };
}
