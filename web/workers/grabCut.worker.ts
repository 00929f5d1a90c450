/**
 * Cuts pictures into inside and outside. Alone, for two reasons: what it runs makes functions of text, which the page's
 * policy rightly forbids and the server allows this file alone; and it can be ended when it takes too long.
 */
import * as Comlink from 'comlink';
import { loadGrabCut, type SegmentJob } from '#core/segment';

const loaded = loadGrabCut();

const api = {
  async segment(job: SegmentJob): Promise<Uint8Array> {
    return (await loaded)(job);
  },
};

export type GrabCutWorker = typeof api;
Comlink.expose(api);
