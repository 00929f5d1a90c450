/** A part as it stands on a ground that is bent: to be looked at before it is set down. */
import { buildMesh, together, type Mesh, type RawMesh } from '#core/mesh';
import type { PartSeat } from '#core/settings';
import { conformed, groundUnder } from './conform';
import { extentsOf } from './measure';
import { seatOf, stood } from './seat';
import type { Vec3 } from '#core/vector';

export interface GroundShape {
  /** From −1, as hollow as the part is wide, by 0, flat, to 1, as round. */
  bend: number;
}

/** Rings and sectors of the disc that is shown. */
const RINGS = 24;
const SECTORS = 64;
/** Of the part's reach. */
const WIDE = 1.5;
/** How large everything is shown: the disc's radius, body units. */
const SHOWN_RADIUS = 1.05;
/** How far the ground goes down at its rim, so that it looks like a slab and not like a sheet; of its radius. */
const RIM = 0.08;
/** From the middle to the edge a ground that is bent all the way turns by so much, radians. */
const MOST_BEND = 0.9;

/**
 * The part on its seat, sunk and scaled by it, on a disc that is bent, in one mesh with y up; its rest point stands in
 * the middle of the disc.
 */
export function standOnGround(mesh: RawMesh, seat: PartSeat, { bend }: GroundShape): RawMesh {
  const { positions, triangles } = stood(mesh, seatOf(seat));
  const { low, high } = extentsOf(positions);
  const reach = Math.max(Math.hypot(Math.max(-low[0], high[0]), Math.max(-low[1], high[1])), (high[2] - low[2]) / 2);
  const scale = reach > 0 ? SHOWN_RADIUS / (reach * WIDE) : 1;
  const sunk = (seat.sink / 100) * (high[2] - low[2]);
  const disc = discOf(bend);
  const out = new Float32Array(positions.length);
  const bent = seat.base === 'bent' && bend !== 0 ? bentOver(disc, scale * reach) : null;
  for (let v = 0; v < positions.length; v += 3) {
    const at = [positions[v] * scale, positions[v + 1] * scale, (positions[v + 2] - sunk) * scale] as const;
    // Across, forward and up are x, −z and y in the view.
    out.set(bent ? bent(at) : [at[0], at[2], -at[1]], v);
  }
  return together([{ positions: out, triangles }, disc]);
}

function bentOver(disc: RawMesh, reach: number): (at: readonly [number, number, number]) => readonly number[] {
  const laid: Mesh = buildMesh(disc);
  const ground = groundUnder(laid, { origin: [0, 0, 0], normal: [0, 1, 0], forward: [0, 0, -1] }, reach);
  return (at) => conformed(ground, at);
}

/** A place of the bent disc: so far out of its middle, of its radius, and in a direction. y is up. */
function onDisc(bend: number, share: number, turn: number): Vec3 {
  const curve = bend * MOST_BEND;
  const angle = curve * share;
  const far = curve === 0 ? share * SHOWN_RADIUS : (SHOWN_RADIUS / curve) * Math.sin(angle);
  const down = curve === 0 ? 0 : (SHOWN_RADIUS / curve) * (1 - Math.cos(angle));
  return [far * Math.cos(turn), -down, far * Math.sin(turn)];
}

/** Where its edge is taken hold of. */
export function groundRim(bend: number): Vec3 {
  return onDisc(bend, 1, 0);
}

/** A disc bent to a ball's side, y up, with a short wall round it. */
function discOf(bend: number): RawMesh {
  const positions: number[] = [0, 0, 0];
  for (let ring = 1; ring <= RINGS; ring++)
    for (let i = 0; i < SECTORS; i++) positions.push(...onDisc(bend, ring / RINGS, (i / SECTORS) * 2 * Math.PI));
  for (let i = 0; i < SECTORS; i++) {
    const [x, y, z] = onDisc(bend, 1, (i / SECTORS) * 2 * Math.PI);
    positions.push(x, y - RIM * SHOWN_RADIUS, z);
  }
  const triangles: number[] = [];
  const at = (ring: number, i: number): number => 1 + (ring - 1) * SECTORS + (i % SECTORS);
  for (let i = 0; i < SECTORS; i++) {
    triangles.push(0, at(1, i + 1), at(1, i));
    for (let ring = 1; ring <= RINGS; ring++) {
      const [a, b, c, d] = [at(ring, i), at(ring, i + 1), at(ring + 1, i), at(ring + 1, i + 1)];
      triangles.push(a, b, d, a, d, c);
    }
  }
  return { positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) };
}
