/**
 * Unwraps a mesh. Alone, for two reasons: the package makes functions of text, which the page’s policy rightly forbids
 * and the server allows this file; and it can be ended, since it doesn’t look up while it works.
 */
import * as Comlink from 'comlink';
import * as watlas from 'watlas';
import { packMesh, readMesh } from '#core/formats';
import { unwrap, type UnwrapKit, type UnwrapStep } from '#core/paint';

const api = {
  async unwrap(mesh: ArrayBuffer, step: UnwrapStep): Promise<{ mesh: ArrayBuffer; charts: number }> {
    await watlas.Initialize();
    const raw = readMesh(mesh);
    const { coordinates, charts } = await unwrap(watlas as unknown as UnwrapKit, raw, step);
    const packed = packMesh({ ...raw, carried: { coordinates, groups: raw.carried?.groups ?? null } });
    return Comlink.transfer({ mesh: packed, charts }, [packed]);
  },
};

export type UnwrapWorker = typeof api;
Comlink.expose(api);
