/** The compiled loops on a room's memory. */
import type { DabFrame } from '#core/brush';
import { faceBefore, reserveCopies } from '#core/mesh';
import { gatherReach, type Loops } from './loops';
import { LOOPS } from './loops.generated';
import { lend, type Surface } from './surface';

/** What the module exports; addresses and counts are unsigned 32-bit, the rest float64. */
interface Exports {
  leavesInSphere(s: number, x: number, y: number, z: number, radius: number): number;
  footing(
    s: number,
    found: number,
    sx: number,
    sy: number,
    sz: number,
    x: number,
    y: number,
    z: number,
    reach: number,
  ): void;
  gather(
    s: number,
    found: number,
    copied: number,
    radius: number,
    reach: number,
    square: boolean,
    fromStart: boolean,
    strongest: boolean,
    mask: boolean,
    normals: boolean,
  ): number;
  weigh(
    s: number,
    count: number,
    table: number,
    square: boolean,
    picture: number,
    width: number,
    height: number,
    fit: number,
    ground: number,
    masked: boolean,
  ): void;
  repeat(s: number, count: number, picture: number, width: number, height: number, gain: number, base: number): void;
  wrap(
    s: number,
    count: number,
    picture: number,
    width: number,
    height: number,
    cos: number,
    sin: number,
    gain: number,
    base: number,
  ): void;
  stencil(s: number, count: number, picture: number, width: number, height: number, gain: number, base: number): void;
  pushOut(s: number, count: number, scale: number, even: boolean): void;
  push(s: number, count: number, x: number, y: number, z: number, scale: number, even: boolean): void;
  inflate(s: number, count: number, scale: number): void;
  crease(s: number, count: number, scale: number, together: number): void;
  meanHeight(s: number, count: number): number;
  level(s: number, count: number, to: number, share: number, most: number, from: number): void;
  carry(s: number, count: number, x: number, y: number, z: number, share: number): void;
  relax(s: number, count: number, share: number, displacements: number): void;
  shift(s: number, count: number, displacements: number): void;
  paintMask(s: number, count: number, scale: number, even: boolean): void;
  refit(s: number, count: number): void;
  renew(s: number, vertices: number, count: number, mark: number, noted: number): number;
}

/** Where a map lies in the scratch. */
const MAP = 16;

// The module's bytes never change, and a memory has its own instance: nothing of a caller stays here.
/* eslint-disable no-restricted-syntax */
let compiled: WebAssembly.Module | null = null;
const known = new WeakMap<WebAssembly.Memory, Loops>();
/* eslint-enable no-restricted-syntax */

export function compiledLoops(memory: WebAssembly.Memory): Loops {
  let loops = known.get(memory);
  if (!loops) {
    compiled ??= new WebAssembly.Module(Uint8Array.from(atob(LOOPS), (c) => c.charCodeAt(0)));
    loops = bind(new WebAssembly.Instance(compiled, { env: { memory } }).exports as unknown as Exports);
    known.set(memory, loops);
  }
  return loops;
}

function bind(e: Exports): Loops {
  const at = (s: Surface): number => s.header.byteOffset;
  return {
    footing(s, triangle, place, reach) {
      const [sx, sy, sz] = faceBefore(s.mesh, triangle, s.start);
      const found = e.leavesInSphere(at(s), place[0], place[1], place[2], reach);
      e.footing(at(s), found, sx, sy, sz, place[0], place[1], place[2], reach);
      return [s.scratch[12], s.scratch[13], s.scratch[14]];
    },
    gather(s, frame, brush, fromStart) {
      const { origin: o, radius } = frame;
      putFrame(s, frame);
      const found = e.leavesInSphere(at(s), o[0], o[1], o[2], gatherReach(frame, brush.square, brush.reach));
      reserveCopies(s.start, s.mesh, found);
      s.touchedCount = e.gather(
        at(s),
        found,
        s.start.count,
        radius,
        brush.reach,
        brush.square,
        fromStart,
        brush.even,
        s.changesMask,
        s.keepsNormals,
      );
      s.start.count = s.scratch[15];
      return s.touchedCount;
    },
    weigh(s, brush, form, masked) {
      const picture = form?.picture ?? null;
      e.weigh(
        at(s),
        s.touchedCount,
        lend(s, brush.falloff),
        brush.square,
        picture ? lend(s, picture.data) : 0,
        picture?.width ?? 0,
        picture?.height ?? 0,
        form?.fit ?? 1,
        form?.ground ?? 0,
        masked,
      );
    },
    repeat(s, picture, map, { gain, base }) {
      s.scratch.set(map, MAP);
      e.repeat(at(s), s.touchedCount, lend(s, picture.data), picture.width, picture.height, gain, base);
    },
    wrap(s, picture, { side, turnRad }, { gain, base }) {
      e.wrap(
        at(s),
        s.touchedCount,
        lend(s, picture.data),
        picture.width,
        picture.height,
        Math.cos(turnRad) / side,
        Math.sin(turnRad) / side,
        gain,
        base,
      );
    },
    stencil(s, picture, rows, { gain, base }) {
      s.scratch.set([...rows.u, ...rows.v, ...rows.w], MAP);
      e.stencil(at(s), s.touchedCount, lend(s, picture.data), picture.width, picture.height, gain, base);
    },
    pushOut: (s, scale, even) => e.pushOut(at(s), s.touchedCount, scale, even),
    push: (s, along, scale, even) => e.push(at(s), s.touchedCount, along[0], along[1], along[2], scale, even),
    inflate: (s, scale) => e.inflate(at(s), s.touchedCount, scale),
    crease: (s, frame, scale, together) => {
      putFrame(s, frame);
      e.crease(at(s), s.touchedCount, scale, together);
    },
    meanHeight: (s, frame) => {
      putFrame(s, frame);
      return e.meanHeight(at(s), s.touchedCount);
    },
    level: (s, frame, to, share, most, from) => {
      putFrame(s, frame);
      e.level(at(s), s.touchedCount, to, share, most, from);
    },
    carry: (s, by, share) => e.carry(at(s), s.touchedCount, by[0], by[1], by[2], share),
    relax: (s, share) => e.relax(at(s), s.touchedCount, share, s.u.byteOffset),
    shift: (s) => e.shift(at(s), s.touchedCount, s.u.byteOffset),
    paintMask: (s, scale, even) => e.paintMask(at(s), s.touchedCount, scale, even),
    renew(s, vertices, count) {
      s.changedCount = e.renew(at(s), vertices.byteOffset, count, ++s.mark, s.changedCount);
    },
    refit(s, count) {
      e.refit(at(s), count);
    },
  };
}

function putFrame(s: Surface, frame: DabFrame): void {
  s.scratch.set(frame.origin, 0);
  s.scratch.set(frame.normal, 3);
  s.scratch.set(frame.tangent, 6);
  s.scratch.set(frame.bitangent, 9);
}
