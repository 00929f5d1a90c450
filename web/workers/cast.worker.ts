/** Casts a body that another worker owns, looking at its memory; never changes it. */
import * as Comlink from 'comlink';
import { CastCancelled, castSlab, castVector, fitFrame, FlatCastError } from '#core/cast';
import { ringLoss, type Check, type MarginReport } from '#core/checks';
import { meshView, positionsOut, type MeshArrays, type MeshLayout } from '#core/mesh';
import { toUint16, usedRange } from '#core/picture';
import { SLAB_SIDE, type CastSettings, type Frame } from '#core/settings';

export interface CastResult {
  /** Pixels a side. */
  size: number;
  greys: Uint16Array;
  /** The same in float32, for casts that are kept so. */
  floats: Float32Array;
  floor: number;
  crown: number;
  relief: number;
  ground: number;
  margin: MarginReport;
  ringLoss: number;
  usedRange: number;
  /** Heights between which nearly all pixels lie. */
  used: { floor: number; crown: number };
  levelFloor: number;
  undercutShare: number;
  /** 1 where something is hidden from above. */
  undercut: Uint8Array;
  checks: Check[];
  /** Counts over the heights, lowest to highest. */
  histogram: Uint32Array;
  milliseconds: number;
}

/** What there is to say when everything lies at one height. */
export interface FlatCast {
  flat: string;
  floor: number;
}

export interface VectorResult {
  size: number;
  offsets: Float32Array;
  relief: number;
}

let mesh: MeshArrays | null = null;
let givenUp: Int32Array | null = null;

/** The cast was given up before it was done. */
export interface Cancelled {
  cancelled: true;
}

const going =
  (call: number, onProgress: ((share: number) => void) | null) =>
  (share: number): boolean => {
    onProgress?.(share);
    return !givenUp || Atomics.load(givenUp, 0) < call;
  };

function current(): MeshArrays {
  if (!mesh) throw new Error('Nothing is open to cast.');
  return mesh;
}

const api = {
  /** `word` is one shared number: calls up to it are given up. */
  open(buffer: SharedArrayBuffer, layout: MeshLayout, word: SharedArrayBuffer): void {
    mesh = meshView(buffer, layout);
    givenUp = new Int32Array(word);
  },

  cast(
    call: number,
    settings: CastSettings,
    onProgress: ((share: number) => void) | null,
  ): CastResult | FlatCast | Cancelled {
    const began = performance.now();
    try {
      const made = castSlab(current(), settings, going(call, onProgress));
      const { picture, ground, undercut } = made;
      const out: CastResult = {
        size: settings.size,
        greys: toUint16(picture),
        floats: picture.data,
        floor: made.floor,
        crown: made.crown,
        relief: made.relief,
        ground,
        margin: made.margin,
        ringLoss: ringLoss(picture, 1, ground),
        usedRange: usedRange(picture),
        used: made.used,
        levelFloor: made.levelFloor,
        undercutShare: undercut.share,
        undercut: undercut.pixels,
        checks: made.checks,
        histogram: made.histogram,
        milliseconds: performance.now() - began,
      };
      return Comlink.transfer(out, [
        out.greys.buffer,
        out.floats.buffer,
        out.undercut.buffer,
        out.histogram.buffer,
      ] as ArrayBuffer[]);
    } catch (error) {
      if (error instanceof FlatCastError) return { flat: error.message, floor: error.height };
      if (error instanceof CastCancelled) return { cancelled: true };
      throw error;
    }
  },

  vector(call: number, settings: CastSettings, onProgress: ((share: number) => void) | null): VectorResult | Cancelled {
    const from = current();
    const cells = Math.round(Math.sqrt(from.vertexCount)) - 1;
    try {
      const made = castVector(
        positionsOut(from),
        cells,
        SLAB_SIDE,
        settings.frame,
        settings.size,
        going(call, onProgress),
      );
      return Comlink.transfer(made, [made.offsets.buffer as ArrayBuffer]);
    } catch (error) {
      if (error instanceof CastCancelled) return { cancelled: true };
      throw error;
    }
  },

  fit(turn: number, margin: number, inside: 'square' | 'ring'): Frame | null {
    return fitFrame(current(), turn, margin, inside);
  },
};

export type CastWorker = typeof api;
Comlink.expose(api);
