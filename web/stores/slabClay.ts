/** A slab's clay on its way to the server and back. */
import type { Slab } from '#core/settings';
import type { ClayBytes } from '#core/slab';
import * as api from '../api/client';
import type { Opening } from '../workers/sculpt/messages';

/** Sends the clay's bytes and answers the names they are kept under. */
export async function sent(clay: ClayBytes): Promise<Pick<Slab, 'blob' | 'mask' | 'upper' | 'history'>> {
  const put = (bytes: ArrayBuffer | null): Promise<string | null> =>
    bytes ? api.putBlob(new Uint8Array(bytes)) : Promise.resolve(null);
  const floats = (values: Float32Array): Promise<string> => api.putBlob(new Uint8Array(values.slice().buffer));
  const upper: Slab['upper'] = [];
  for (const level of clay.upper)
    upper.push({ cells: level.cells as Slab['cells'], fine: await floats(level.fine), base: await floats(level.base) });
  return { blob: await put(clay.places), mask: await put(clay.mask), upper, history: await put(clay.history) };
}

/** The clay of a slab as it is saved. */
export async function savedClay(slab: Slab): Promise<Extract<Opening, { kind: 'slab' }>> {
  const bytes = (hash: string | null): Promise<ArrayBuffer | null> =>
    hash ? api.getBlob(hash) : Promise.resolve(null);
  const [places, mask, history] = await Promise.all([bytes(slab.blob), bytes(slab.mask), bytes(slab.history)]);
  const upper = await Promise.all(
    slab.upper.map(async (level) => ({
      cells: level.cells,
      fine: new Float32Array(await api.getBlob(level.fine)),
      base: new Float32Array(await api.getBlob(level.base)),
    })),
  );
  return { kind: 'slab', cells: slab.cells, places, mask, upper, history };
}
