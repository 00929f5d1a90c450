/** Casts a body that another worker owns, looking at its memory; never changes it. */
import * as Comlink from 'comlink';
import { CastCancelled, castSlab, castVector, fitFrame, FlatCastError } from '#core/cast';
import { meshView, positionsOut, type MeshArrays, type MeshLayout } from '#core/mesh';
import { SLAB_SIDE, type CastSettings, type Frame } from '#core/settings';
import { buffersOf, resultOf, type Cancelled, type CastResult, type FlatCast, type VectorResult } from './castResult';

let mesh: MeshArrays | null = null;
let givenUp: Int32Array | null = null;

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
      const out = resultOf(made, settings.size, performance.now() - began);
      return Comlink.transfer(out, buffersOf(out));
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
