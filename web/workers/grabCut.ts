/**
 * Masks of what recipes pick out, by what they were cut of. Cutting takes its time, a recipe runs through at once: a
 * mask that isn't there yet is noted, cut, and the recipe run again, whose earlier steps are still known.
 */
import { LRUCache } from 'lru-cache';
import { StepError } from '#core/recipe';
import type { Segment, SegmentJob } from '#core/segment';
import type { GrabCutWorker } from './grabCut.worker';
import { startThread, type Thread } from './thread';

/** Each is up to 320² bytes. */
const MOST = 64;
/** An answer comes within two seconds; the package is fetched before the first. */
const MOST_MS = 30_000;

/** Cuts one picture; it may take its time, and may fail. */
export type Cut = (job: SegmentJob) => Promise<Uint8Array>;

export class Masks {
  private readonly masks = new LRUCache<string, Uint8Array>({ max: MOST });
  private missing: { key: string; job: SegmentJob } | null = null;
  /** Said in a mask's place by the run that is under way; the next run tries again. */
  private failed: ReadonlyMap<string, StepError> = new Map();

  constructor(private readonly cut: Cut) {}

  /** For the steps of a recipe: a mask that is known, or a sentence in its place. */
  readonly segment: Segment = (job) => {
    const key = keyOf(job);
    const known = this.masks.get(key);
    if (known) return known;
    const failed = this.failed.get(key);
    if (failed) throw failed;
    this.missing = { key, job };
    throw new StepError('The thing is being looked for.');
  };

  /** Runs until nothing is missing. Runs may go on beside each other; `run` itself goes through at once. */
  async complete<T>(run: () => T): Promise<T> {
    const failed = new Map<string, StepError>();
    for (;;) {
      this.missing = null;
      this.failed = failed;
      const done = run();
      const missing = this.missing as { key: string; job: SegmentJob } | null;
      if (!missing) return done;
      try {
        this.masks.set(missing.key, await this.cut(missing.job));
      } catch (error) {
        failed.set(missing.key, new StepError(`The thing can’t be picked out. ${(error as Error).message}`));
      }
    }
  }
}

function keyOf({ width, height, rgb, known }: SegmentJob): string {
  // FNV-1a over both, twice with other beginnings.
  let [a, b] = [0x811c9dc5, 0x01000193];
  for (const bytes of [rgb, known])
    for (const byte of bytes) {
      a = Math.imul(a ^ byte, 0x01000193);
      b = Math.imul(b ^ byte, 0x85ebca6b) ^ (b >>> 13);
    }
  return `${width} ${height} ${a >>> 0} ${b >>> 0}`;
}

/** In a worker of its own, begun when it is first needed and ended when it takes too long. */
export function cutAside(): Cut {
  let thread: Thread<GrabCutWorker> | null = null;
  return async (job) => {
    const own = (thread ??= startThread<GrabCutWorker>(
      new Worker(new URL('./grabCut.worker.ts', import.meta.url), { type: 'module' }),
    ));
    let timer: ReturnType<typeof setTimeout> | undefined;
    const late = new Promise<never>((_, fail) => {
      timer = setTimeout(() => fail(new Error('It took too long: draw more strokes, or crop the picture.')), MOST_MS);
    });
    try {
      return await Promise.race([own.worker.segment(job), own.broken, late]);
    } catch (error) {
      own.end();
      if (thread === own) thread = null;
      throw error;
    } finally {
      clearTimeout(timer);
    }
  };
}
