/** Casts a body that another worker owns, looking at its memory; never changes it. */
import * as Comlink from 'comlink';
import { castHeights, castTones, FlatCastError, heightRange } from '#core/cast';
import { measureMargin, ringLoss, type MarginReport } from '#core/checks';
import { meshView, type MeshArrays, type MeshLayout } from '#core/mesh';
import { edgeGround, histogram, toUint16, usedRange } from '#core/picture';
import type { CastSettings } from '#core/settings';

export interface CastResult {
  /** Pixels a side. */
  size: number;
  greys: Uint16Array;
  floor: number;
  crown: number;
  relief: number;
  ground: number;
  margin: MarginReport;
  ringLoss: number;
  usedRange: number;
  /** Counts over the greys, black to white. */
  histogram: Uint32Array;
  milliseconds: number;
}

/** What there is to say when everything lies at one height. */
export interface FlatCast {
  flat: string;
  floor: number;
}

let mesh: MeshArrays | null = null;
let cancelled: Int32Array | null = null;

const api = {
  /** `cancel` is one shared word; setting it to 1 abandons the running cast. */
  open(buffer: SharedArrayBuffer, layout: MeshLayout, cancel: SharedArrayBuffer): void {
    mesh = meshView(buffer, layout);
    cancelled = new Int32Array(cancel);
  },

  cast(settings: CastSettings, onProgress: ((share: number) => void) | null): CastResult | FlatCast {
    if (!mesh) throw new Error('Nothing is open to cast.');
    const began = performance.now();
    const heights = castHeights(mesh, {
      frame: settings.frame, size: settings.size, samples: settings.samples,
      onProgress: (share) => {
        onProgress?.(share);
        return !cancelled || Atomics.load(cancelled, 0) === 0;
      },
    });
    let tones;
    try {
      tones = castTones(heights, settings.frame.side, settings.floor, settings.crown);
    } catch (error) {
      if (error instanceof FlatCastError) return { flat: error.message, floor: heightRange(heights)?.floor ?? 0 };
      throw error;
    }
    const { picture } = tones;
    const ground = edgeGround(picture);
    const out: CastResult = {
      size: settings.size, greys: toUint16(picture), floor: tones.floor, crown: tones.crown, relief: tones.relief, ground,
      margin: measureMargin(picture, ground), ringLoss: ringLoss(picture, 1, ground), usedRange: usedRange(picture),
      histogram: histogram(picture, 96), milliseconds: performance.now() - began,
    };
    return Comlink.transfer(out, [out.greys.buffer as ArrayBuffer, out.histogram.buffer as ArrayBuffer]);
  },
};

export type CastWorker = typeof api;
Comlink.expose(api);
