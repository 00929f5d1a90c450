/** Holds a scan: lays it out for looking and pointing, reports, mends, and casts its patches. */
import * as Comlink from 'comlink';
import { CastCancelled, FlatCastError } from '#core/cast';
import { packMesh, readMesh } from '#core/formats';
import { buildMesh, layoutOf, merged, type Mesh, type MeshLayout, type RawMesh } from '#core/mesh';
import {
  agreed,
  castColours,
  castPatch,
  castPatchVector,
  ClosedPatchError,
  EmptyPatchError,
  fillHoles,
  scanReport,
  surfaceOf,
  thinned,
  withoutLoose,
  type PatchSurface,
  type ScanReport,
} from '#core/scan';
import { componentAt, lassoed, withBack, extentsOf, type Lasso } from '#core/part';
import type { Patch } from '#core/settings';
import type { Vec3 } from '#core/vector';
import { buffersOf, resultOf, type Cancelled, type CastResult, type FlatCast, type VectorResult } from './castResult';

export interface OpenedScan {
  buffer: SharedArrayBuffer;
  layout: MeshLayout;
}

/** What is done to a scan at a click. Lengths in body units. */
export type Mend =
  | { kind: 'weld'; near: number }
  | { kind: 'loose' }
  | { kind: 'holes'; longest: number }
  | { kind: 'agree' }
  | { kind: 'thin'; triangles: number };

/** What becomes a part: all of it, what hangs together with a triangle as it is laid out, or what a lasso holds. */
export type Capture =
  { kind: 'whole' } | { kind: 'component'; triangle: number } | { kind: 'region'; lasso: Lasso; toEye: Vec3 };

/** How thick a region is under its lowest rim, of its size. */
const BACK_UNDER = 0.02;

export interface Mended {
  mesh: ArrayBuffer;
  vertices: number;
  triangles: number;
}

export interface PatchResult extends CastResult {
  /** The overall shape that was found, small, body units; `side` pixels a side. */
  shape: { side: number; heights: Float32Array };
  /** Share of the frame that was missing. */
  filled: number;
}

let raw: RawMesh | null = null;
let mesh: Mesh | null = null;
let givenUp: Int32Array | null = null;
/** The surface of the patch that was cast last: its tones change more often than its place. */
let last: { key: string; surface: PatchSurface } | null = null;

function current(): { raw: RawMesh; mesh: Mesh } {
  if (!raw || !mesh) throw new Error('No scan is open.');
  return { raw, mesh };
}

function surfaceFor(patch: Patch): PatchSurface {
  const key = JSON.stringify([patch.at, patch.normal, patch.cast.frame.turn, patch.cast.frame.side]);
  if (last?.key !== key) last = { key, surface: surfaceOf(current().mesh, patch) };
  return last.surface;
}

const going =
  (call: number, onProgress: ((share: number) => void) | null) =>
  (share: number): boolean => {
    onProgress?.(share);
    return !givenUp || Atomics.load(givenUp, 0) < call;
  };

/** What can't be cast is said; anything else is thrown. */
function refusal(error: unknown): FlatCast | Cancelled {
  if (error instanceof FlatCastError) return { flat: error.message, floor: error.height };
  if (error instanceof EmptyPatchError || error instanceof ClosedPatchError) return { flat: error.message, floor: 0 };
  if (error instanceof CastCancelled) return { cancelled: true };
  throw error;
}

const api = {
  /** `word` is one shared number: calls up to it are given up. */
  open(bytes: ArrayBuffer, word: SharedArrayBuffer): OpenedScan {
    givenUp = new Int32Array(word);
    last = null;
    raw = readMesh(bytes);
    mesh = buildMesh(raw, { ringless: true });
    return { buffer: mesh.buffer, layout: layoutOf(mesh) };
  },

  report(): ScanReport {
    return scanReport(current().raw);
  },

  /** The scan as it would be; it becomes so when it is opened. */
  async mend(mend: Mend): Promise<Mended> {
    const made = await mended(current().raw, mend);
    const packed = packMesh(made);
    const counts = { vertices: made.positions.length / 3, triangles: made.triangles.length / 3 };
    return Comlink.transfer({ mesh: packed, ...counts }, [packed]);
  },

  /** A part as core/formats packs it. */
  capture(what: Capture): ArrayBuffer {
    const packed = packMesh(captured(current(), what));
    return Comlink.transfer(packed, [packed]);
  },

  cast(call: number, patch: Patch, onProgress: ((share: number) => void) | null): PatchResult | FlatCast | Cancelled {
    const began = performance.now();
    try {
      const made = castPatch(surfaceFor(patch), patch, going(call, onProgress));
      const out: PatchResult = {
        ...resultOf(made, patch.cast.size, performance.now() - began),
        shape: { side: made.shape.width, heights: made.shape.data },
        filled: made.filled,
      };
      return Comlink.transfer(out, [...buffersOf(out), out.shape.heights.buffer as ArrayBuffer]);
    } catch (error) {
      return refusal(error);
    }
  },

  async vector(
    call: number,
    patch: Patch,
    onProgress: ((share: number) => void) | null,
  ): Promise<VectorResult | FlatCast | Cancelled> {
    try {
      const made = await castPatchVector(current().mesh, patch, going(call, onProgress));
      return Comlink.transfer(made, [made.offsets.buffer as ArrayBuffer]);
    } catch (error) {
      return refusal(error);
    }
  },

  /** Red, green, blue and cover of each pixel as bytes; null where the scan has no colours. */
  colours(patch: Patch, size: number): Uint8ClampedArray | null {
    const { colours } = current().raw;
    if (!colours) return null;
    const out = castColours(surfaceFor(patch), { order: current().mesh.order, colours }, patch, size);
    return Comlink.transfer(out, [out.buffer as ArrayBuffer]);
  },
};

function captured(open: { raw: RawMesh; mesh: Mesh }, what: Capture): RawMesh {
  switch (what.kind) {
    case 'whole':
      return { positions: open.raw.positions, triangles: open.raw.triangles };
    case 'component':
      return componentAt({ positions: open.mesh.positions, triangles: open.mesh.triangles }, what.triangle);
    case 'region': {
      const sheet = lassoed(open.mesh, what.lasso);
      const [x, y, z] = what.toEye;
      return withBack(sheet, { down: [-x, -y, -z], level: null, under: extentsOf(sheet.positions).size * BACK_UNDER });
    }
  }
}

async function mended(from: RawMesh, mend: Mend): Promise<RawMesh> {
  switch (mend.kind) {
    case 'weld':
      return merged(from, mend.near).mesh;
    case 'loose':
      return withoutLoose(from);
    case 'holes':
      return fillHoles(from, { longest: mend.longest }).mesh;
    case 'agree':
      return agreed(from);
    case 'thin':
      return (await thinned(from, mend.triangles)).mesh;
  }
}

export type ScanWorker = typeof api;
Comlink.expose(api);
