/**
 * Unwraps a mesh. Alone, for two reasons: the package makes functions of text, which the page’s policy rightly forbids
 * and the server allows this file; and it can be ended, since it doesn’t look up while it works.
 */
import * as Comlink from 'comlink';
import * as watlas from 'watlas';
import { packMesh, readMesh } from '#core/formats';
import { carriedPaint, unwrap, type Layer, type UnwrapKit, type UnwrapStep } from '#core/paint';
import { packedPainting, type PackedPainting } from './storedPainting';

export interface Unwrapped {
  /** As core/formats packs it. */
  mesh: ArrayBuffer;
  charts: number;
  /** What was painted, by the new coordinates; null where nothing was. */
  painting: PackedPainting | null;
}

const api = {
  async unwrap(
    mesh: ArrayBuffer,
    painting: { size: number; layers: readonly Layer[] } | null,
    step: UnwrapStep,
  ): Promise<Unwrapped> {
    await watlas.Initialize();
    const raw = readMesh(mesh);
    const { coordinates, charts } = await unwrap(watlas as unknown as UnwrapKit, raw, step);
    const packed = packMesh({ ...raw, carried: { coordinates, groups: raw.carried?.groups ?? null } });
    const from = raw.carried?.coordinates ?? null;
    const layers =
      painting &&
      from &&
      carriedPaint({ mesh: raw, from, to: coordinates, ...painting }, (share) =>
        step('Carrying the paint over', share),
      );
    const kept = painting && layers && (await packedPainting(painting.size, layers));
    return Comlink.transfer({ mesh: packed, charts, painting: kept }, [packed]);
  },
};

export type UnwrapWorker = typeof api;
Comlink.expose(api);
