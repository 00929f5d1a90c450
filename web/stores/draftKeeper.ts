/** Writes drafts of what is open: when the hand rests, or at once when asked, one after the other. */

export interface DraftKeeperOptions {
  /** From a change to its draft, ms. */
  restMs: number;
  /** Writes the draft of what is open now, or drops it where nothing is unsaved. */
  write(): Promise<void>;
  /**
   * Keeps the draft of what is open now in the same breath; answers whether it could. Without it, and until what is
   * written is written, a page that is closed loses it.
   */
  stash?(): boolean;
  failed(error: unknown): void;
}

export class DraftKeeper {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private writing: Promise<void> = Promise.resolve();
  private running = 0;
  /** Whether all that is on its way is stashed. */
  private stashed = false;

  constructor(private readonly o: DraftKeeperOptions) {}

  /** Whether a change has no draft yet and none is being written. */
  get pending(): boolean {
    return this.timer !== undefined;
  }

  /** It was changed: a draft is written when the hand rests. */
  later(): void {
    clearTimeout(this.timer);
    this.stashed = false;
    this.timer = setTimeout(() => void this.now(), this.o.restMs);
  }

  now(): Promise<void> {
    this.cancel();
    this.stashed = false;
    this.running++;
    this.writing = this.writing
      .then(() => this.o.write())
      .catch((error: unknown) => this.o.failed(error))
      .finally(() => this.running--);
    return this.writing;
  }

  /** The page may be gone next. */
  hurry(): void {
    if (!this.underWay) return;
    void this.flush();
    this.stashed = this.o.stash?.() ?? false;
  }

  /** Whether a page that is closed now loses a change. */
  atRisk(): boolean {
    return this.underWay && !this.stashed;
  }

  private get underWay(): boolean {
    return this.pending || this.running > 0;
  }

  /** Writes what is still on its way, and waits for what is being written. */
  async flush(): Promise<void> {
    if (this.pending) void this.now();
    await this.writing;
  }

  /** What is on its way is done with; what is being written ends. */
  cancel(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
  }

  async written(): Promise<void> {
    await this.writing;
  }
}
