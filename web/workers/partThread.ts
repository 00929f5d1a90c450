/** The page's side of a part: the worker that brings it down, stands it on its ground and looks it over. */
import * as Comlink from 'comlink';
import { readMesh } from '#core/formats';
import { meshView, type MeshArrays, type RawMesh } from '#core/mesh';
import type { GroundShape, PartReport } from '#core/part';
import type { Budget, PartSeat } from '#core/settings';
import { plain } from '../api/plain';
import type { LostAlpha, PartMend, PartWorker, Reduced } from './part.worker';
import { startThread } from './thread';

export interface Standing {
  mesh: MeshArrays;
  /** Ends of the part's edges, x, y, z each. */
  edges: Float32Array;
}

export class PartThread {
  private readonly thread = startThread<PartWorker>(
    new Worker(new URL('./part.worker.ts', import.meta.url), { type: 'module' }),
  );
  private readonly worker = this.thread.worker;

  /** Gives the bytes away. */
  open(whole: ArrayBuffer, mesh: ArrayBuffer): Promise<void> {
    return this.answered(this.worker.open(Comlink.transfer(whole, [whole]), Comlink.transfer(mesh, [mesh])));
  }

  show(mesh: ArrayBuffer): Promise<void> {
    return this.answered(this.worker.show(Comlink.transfer(mesh, [mesh])));
  }

  reduce(budget: Budget): Promise<Reduced> {
    return this.answered(this.worker.reduce(plain(budget)));
  }

  mend(mend: PartMend): Promise<Reduced> {
    return this.answered(this.worker.mend(mend));
  }

  report(seat: PartSeat): Promise<PartReport> {
    return this.answered(this.worker.report(plain(seat)));
  }

  /** Laid out to be looked at. */
  async stand(seat: PartSeat, shape: GroundShape, before: boolean): Promise<Standing> {
    const { buffer, layout, edges } = await this.answered(this.worker.stand(plain(seat), shape, before));
    return { mesh: meshView(buffer, layout), edges };
  }

  lostAlpha(seat: PartSeat, size: number): Promise<LostAlpha> {
    return this.answered(this.worker.lostAlpha(plain(seat), size));
  }

  /** A PNG. */
  lostNormals(seat: PartSeat, size: number): Promise<Uint8Array<ArrayBuffer>> {
    return this.answered(this.worker.lostNormals(plain(seat), size));
  }

  async mesh(): Promise<RawMesh> {
    return readMesh(await this.answered(this.worker.bytes()));
  }

  close(): void {
    this.thread.end();
  }

  private answered<T>(answer: T): Promise<Awaited<T>> {
    return Promise.race([answer, this.thread.broken]);
  }
}
