/** Brings a part down to its budget, stands it on its ground, and looks it over; and captures parts of other meshes. */
import * as Comlink from 'comlink';
import { pictureChecks } from '#core/checks';
import { packMesh, readMesh } from '#core/formats';
import { buildMesh, edgesOf, layoutOf, type MeshLayout, type RawMesh } from '#core/mesh';
import {
  cleaned,
  deviation,
  fillRims,
  lostDetail,
  lostGreys,
  lostNormals,
  outward,
  partReport,
  reduced,
  seatOf,
  standOnGround,
  type Deviation,
  type GroundShape,
  type PartReport,
} from '#core/part';
import { usedRange } from '#core/picture';
import type { Alpha, Budget, PartSeat } from '#core/settings';
import { encode } from 'fast-png';

export interface Reduced {
  /** As core/formats packs it. */
  mesh: ArrayBuffer;
  triangles: number;
  error: Deviation;
}

export interface Stood {
  buffer: SharedArrayBuffer;
  layout: MeshLayout;
  /** Ends of the part's edges, x, y, z each; none of a part that is too fine to show them. */
  edges: Float32Array;
}

/** Parts of more faces are shown without their edges. */
const MOST_EDGED = 30_000;

export interface LostAlpha extends Pick<Alpha, 'relief' | 'ground' | 'report'> {
  /** 0–1, row by row from the top. */
  greys: Float32Array;
  /** Units of the part's mesh. */
  low: number;
  high: number;
}

export type PartMend = 'close' | 'outward';

/** As it was captured, and as it is set down. */
let whole: RawMesh | null = null;
let mesh: RawMesh | null = null;
/** The whole as it is shown: no heavier than an eye can tell. */
let shown: RawMesh | null = null;
const MOST_SHOWN = 200_000;

function open<T>(one: T | null): T {
  if (!one) throw new Error('No part is open.');
  return one;
}

async function lightEnough(one: RawMesh): Promise<RawMesh> {
  return one.triangles.length / 3 <= MOST_SHOWN ? one : reduced(one, { way: 'shape', faces: MOST_SHOWN });
}

const api = {
  async open(wholeBytes: ArrayBuffer, meshBytes: ArrayBuffer): Promise<void> {
    whole = readMesh(wholeBytes);
    mesh = readMesh(meshBytes);
    shown = await lightEnough(whole);
  },

  /** Another mesh in the one's place that is set down; the whole stays. */
  show(meshBytes: ArrayBuffer): void {
    mesh = readMesh(meshBytes);
  },

  async reduce(budget: Budget): Promise<Reduced> {
    return packed(await reduced(open(whole), budget));
  },

  mend(mend: PartMend): Reduced {
    const from = open(mesh);
    return packed(mend === 'close' ? fillRims(from) : outward(from));
  },

  report(seat: PartSeat): PartReport {
    return partReport(open(mesh), seatOf(seat));
  },

  /** On a ground that is bent so far; `before` as it was captured. Laid out to be looked at. */
  stand(seat: PartSeat, shape: GroundShape, before: boolean): Stood {
    const part = before ? open(shown) : open(mesh);
    const stood = standOnGround(part, seat, shape);
    const laid = buildMesh(stood, { ringless: true });
    const faces = part.triangles.length / 3;
    const edges = before || faces > MOST_EDGED ? new Float32Array(0) : edgeEnds(stood, faces);
    return Comlink.transfer({ buffer: laid.buffer, layout: layoutOf(laid), edges }, [edges.buffer as ArrayBuffer]);
  },

  /** What was lost of what was captured: greys, with what an alpha says of them; or a normal picture as a PNG. */
  lostAlpha(seat: PartSeat, size: number): LostAlpha {
    const { heights, ...lost } = lostDetail(open(shown), open(mesh), { seat: seatOf(seat), size });
    const { greys, relief, ground } = lostGreys({ heights, ...lost });
    const picture = { width: size, height: size, data: greys };
    const { margin, ringLoss } = pictureChecks(picture);
    const report = { marginPx: margin.marginPx, ringLoss, usedRange: usedRange(picture), undercut: 0 };
    return Comlink.transfer({ greys, relief, ground, low: lost.low, high: lost.high, report }, [
      greys.buffer as ArrayBuffer,
    ]);
  },
  lostNormals(seat: PartSeat, size: number): Uint8Array<ArrayBuffer> {
    const data = lostNormals(lostDetail(open(shown), open(mesh), { seat: seatOf(seat), size }));
    const png = new Uint8Array(encode({ width: size, height: size, channels: 3, depth: 16, data }));
    return Comlink.transfer(png, [png.buffer]);
  },

  /** The part itself, for picking its faces and for files. */
  bytes(): ArrayBuffer {
    const out = packMesh(open(mesh));
    return Comlink.transfer(out, [out]);
  },
};

/** Of the first faces of a mesh. */
function edgeEnds({ positions: p, triangles }: RawMesh, faces: number): Float32Array {
  const { count, ends } = edgesOf(triangles.subarray(0, faces * 3), p.length / 3);
  const out = new Float32Array(count * 6);
  for (let i = 0; i < count * 2; i++) out.set(p.subarray(ends[i] * 3, ends[i] * 3 + 3), i * 3);
  return out;
}

function packed(made: RawMesh): Reduced {
  const error = deviation(cleaned(open(shown)), made);
  const bytes = packMesh(made);
  return Comlink.transfer({ mesh: bytes, triangles: made.triangles.length / 3, error }, [bytes]);
}

export type PartWorker = typeof api;
Comlink.expose(api);
