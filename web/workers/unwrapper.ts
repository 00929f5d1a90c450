/** The page’s side of unwrapping: a worker that is ended when it has answered, or when nobody waits any more. */
import * as Comlink from 'comlink';
import { startThread } from './thread';
import type { Layer } from '#core/paint';
import type { Unwrapped, UnwrapWorker } from './unwrap.worker';

export class UnwrapCancelled extends Error {
  constructor() {
    super('Unwrapping was cancelled; nothing has changed.');
  }
}

/** Who is told how far it is, and says when it isn’t wanted any more. */
export interface UnwrapHand {
  report(share: number, detail?: string): void;
  onCancel(stop: () => void): void;
}

/** The mesh, as core/formats packs it, with coordinates, and its painting by them. Gives the bytes away. */
export async function unwrappedMesh(
  mesh: ArrayBuffer,
  painting: { size: number; layers: readonly Layer[] } | null,
  hand: UnwrapHand,
): Promise<Unwrapped> {
  const thread = startThread<UnwrapWorker>(
    new Worker(new URL('./unwrap.worker.ts', import.meta.url), { type: 'module' }),
  );
  const stopped = new Promise<never>((_, fail) => hand.onCancel(() => fail(new UnwrapCancelled())));
  stopped.catch(() => undefined);
  try {
    const asked = thread.worker.unwrap(
      Comlink.transfer(mesh, [mesh]),
      painting,
      Comlink.proxy((what, share) => hand.report(share, what)),
    );
    return await Promise.race([asked, thread.broken, stopped]);
  } finally {
    thread.end();
  }
}
