/** The page's side of a scan: its mesh in memory that both see, and the worker that mends and casts it. */
import * as Comlink from 'comlink';
import { meshView, type MeshArrays } from '#core/mesh';
import type { ScanReport } from '#core/scan';
import type { Patch } from '#core/settings';
import { CastQueue } from './castQueue';
import type { FlatCast, VectorResult } from './castResult';
import type { Capture, Mend, Mended, PatchResult, ScanWorker } from './scan.worker';
import { startThread } from './thread';

export class ScanThread {
  mesh: MeshArrays | null = null;

  private readonly thread = startThread<ScanWorker>(
    new Worker(new URL('./scan.worker.ts', import.meta.url), { type: 'module' }),
  );
  private readonly worker = this.thread.worker;
  readonly casts = new CastQueue<Patch, PatchResult | FlatCast>({
    cast: (call, patch) => this.worker.cast(call, patch, null),
    end: () => this.thread.end(),
  });

  /** Gives the bytes away. Fails with a sentence when they are no mesh, or the worker can’t be had. */
  async open(bytes: ArrayBuffer): Promise<void> {
    const word = this.casts.givenUp.buffer as SharedArrayBuffer;
    const opened = await this.answered(this.worker.open(Comlink.transfer(bytes, [bytes]), word));
    this.mesh = meshView(opened.buffer, opened.layout);
  }

  report(): Promise<ScanReport> {
    return this.answered(this.worker.report());
  }

  mend(mend: Mend): Promise<Mended> {
    return this.answered(this.worker.mend(mend));
  }

  /** A part as core/formats packs it. Fails with a sentence when there is nothing to capture. */
  capture(what: Capture): Promise<ArrayBuffer> {
    return this.answered(this.worker.capture(what));
  }

  /** Throws CastCancelled after `cancel`. */
  cast(patch: Patch, onProgress: (share: number) => void): Promise<PatchResult | FlatCast> {
    return this.casts.full<PatchResult | FlatCast>(async (call) =>
      this.answered(this.worker.cast(call, patch, Comlink.proxy(onProgress))),
    );
  }

  vector(patch: Patch, onProgress: (share: number) => void): Promise<VectorResult | FlatCast> {
    return this.casts.full<VectorResult | FlatCast>(async (call) =>
      this.answered(this.worker.vector(call, patch, Comlink.proxy(onProgress))),
    );
  }

  /** Red, green, blue and cover of each pixel; null where the scan has no colours. */
  colours(patch: Patch, size: number): Promise<Uint8ClampedArray | null> {
    return this.answered(this.worker.colours(patch, size));
  }

  close(): void {
    this.casts.close();
    this.mesh = null;
  }

  private answered<T>(answer: T): Promise<Awaited<T>> {
    return Promise.race([answer, this.thread.broken]);
  }
}
