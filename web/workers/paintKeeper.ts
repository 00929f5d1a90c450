/**
 * Keeps what is painted in the browser’s store while one works: a moment after a change, at most one draft on its way.
 *
 * What is to be kept is asked of the sculpting worker each time, so nothing is lost by a change that comes while a
 * draft is written. One that couldn’t be kept makes the next one whole.
 */
import type { DraftOfPaint } from '../api/paintDrafts';

/** What asks for drafts, and what takes them. */
export interface PaintKeeping {
  /** What isn’t kept yet, and of which body; null where all is. */
  draft(): Promise<{ body: string; draft: DraftOfPaint } | null>;
  /** The next draft is whole. */
  forget(): Promise<void>;
  /** False where another window wrote this body’s since. */
  keep(body: string, draft: DraftOfPaint): Promise<boolean>;
  problem(error: unknown): void;
  /** Whether all is kept, as far as is known. */
  drafted?(all: boolean): void;
}

const REST_MS = 1200;

export class PaintKeeper {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private wanted = false;
  /** Something was painted since the last draft was asked for. */
  private waits = false;
  private running: Promise<void> | null = null;

  constructor(
    private readonly o: PaintKeeping,
    private readonly restMs = REST_MS,
  ) {}

  /** Something was painted. */
  changed(): void {
    this.o.drafted?.(false);
    this.waits = true;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), this.restMs);
  }

  /** Done once everything that was painted before is kept, or couldn’t be. */
  flush(): Promise<void> {
    clearTimeout(this.timer);
    this.waits = false;
    this.wanted = true;
    this.running ??= this.run().finally(() => {
      this.running = null;
      this.o.drafted?.(!this.waits);
    });
    return this.running;
  }

  private async run(): Promise<void> {
    let refused = 0;
    while (this.wanted) {
      this.wanted = false;
      const found = await this.o.draft().catch(() => null);
      if (!found) continue;
      try {
        if (await this.o.keep(found.body, found.draft)) continue;
        // Two windows that take turns aren’t fought over for ever.
        this.wanted = ++refused < 3;
      } catch (error) {
        this.o.problem(error);
      }
      await this.o.forget().catch(() => undefined);
    }
  }
}
