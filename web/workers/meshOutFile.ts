/** The page’s side of writing mesh files: a worker that is ended when it has answered. */
import * as Comlink from 'comlink';
import type { MeshEnding } from './meshOut';
import type { MeshOutWorker, PackedOut } from './meshOut.worker';
import { startThread } from './thread';

const TYPES: Record<MeshEnding, string> = {
  glb: 'model/gltf-binary',
  obj: 'model/obj',
  stl: 'model/stl',
  ply: 'application/octet-stream',
};

/** Gives the meshes’ bytes away. */
export async function meshFile(ending: MeshEnding, things: PackedOut[]): Promise<Blob> {
  const thread = startThread<MeshOutWorker>(
    new Worker(new URL('./meshOut.worker.ts', import.meta.url), { type: 'module' }),
  );
  try {
    const meshes = [...new Set(things.map(({ mesh }) => mesh))];
    const bytes = await Promise.race([thread.worker.write(ending, Comlink.transfer(things, meshes)), thread.broken]);
    return new Blob([bytes], { type: TYPES[ending] });
  } finally {
    thread.end();
  }
}
