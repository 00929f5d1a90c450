/** The page’s side of merging pieces: a worker that is ended when it has answered, or when nobody waits any more. */
import * as Comlink from 'comlink';
import type { MergeWorker, PackedNamed } from './merge.worker';
import { startThread } from './thread';

/** `merge` cuts them into one closed mesh; `join` puts their faces beside the body’s as they are. */
export type BecomePart = 'merge' | 'join';

export interface Merging {
  how: BecomePart;
  step: (share: number) => void;
  /** Settles when it isn't wanted any more. */
  stopped: Promise<never>;
}

/** The body and its pieces in one, as core/formats packs it. Gives the bytes away. */
export async function mergedMesh(body: PackedNamed, pieces: PackedNamed[], on: Merging): Promise<ArrayBuffer> {
  const thread = startThread<MergeWorker>(
    new Worker(new URL('./merge.worker.ts', import.meta.url), { type: 'module' }),
  );
  try {
    const given = [
      Comlink.transfer(body, [body.mesh]),
      Comlink.transfer(
        pieces,
        pieces.map(({ mesh }) => mesh),
      ),
    ] as const;
    const { worker } = thread;
    const asked = on.how === 'join' ? worker.join(...given) : worker.merge(...given, Comlink.proxy(on.step));
    return await Promise.race([asked, thread.broken, on.stopped]);
  } finally {
    thread.end();
  }
}
