/**
 * Where each point of a surface rests on the flat frame, so that no two rest at one place.
 *
 * Where nothing overhangs, a point rests straight under itself. Round an overhang the surface is spread out over a
 * zone: what lies under it, and so far round it (by distance, whatever the mesh) that the zone has room for its
 * surface. In the zone each point is the weighted mean of its neighbours while those at the rim stay (Tutte, "How to
 * draw a graph", 1963), which turns no face over; neighbours where the surface comes out thin weigh less until the
 * stretch is even (Yoshizawa, Belyaev and Seidel, "A fast and simple stretch-minimizing mesh parameterization",
 * 2004). That is solved on a coarse copy and carried to finer ones, each relaxed in turn.
 *
 * Measured on a mushroom (testMushroom.ts): with the weights of the first round alone the cap, whose way to the rim is
 * the longest, gets a tenth of the room it needs; successive over-relaxation and mean value weights, which aren't
 * symmetric, diverge on coarse copies; copies whose pinned points stay are all rim.
 */
import { MeshoptSimplifier } from 'meshoptimizer/simplifier';
import { distanceFromOverhangs, outerRim, roomRound, zoneOf } from './overhangZone';
import { spread, turnedOver, type Surface } from './spreadOut';

export interface RestPlaces {
  /** x and y of each vertex on the frame; z is nought. */
  rest: Float32Array;
  /** Faces that still lie over others; 0 unless an overhang reaches out of the frame. */
  folded: number;
}

/** Throws ClosedPatchError; null when it was cancelled. `going` is told the share done. O(faces). */
export async function restPlaces(
  { positions: p, triangles, side }: Surface,
  going: (share: number) => boolean,
): Promise<RestPlaces | null> {
  const flat = new Float32Array(p.length);
  for (let v = 0; v < p.length; v += 3) {
    flat[v] = p[v];
    flat[v + 1] = p[v + 1];
  }
  const away = distanceFromOverhangs(p, triangles, side);
  if (!away) return { rest: flat, folded: 0 };
  await MeshoptSimplifier.ready;
  const rim = outerRim(p, triangles, side / 2);
  let best: RestPlaces | null = null;
  let round = roomRound(p, triangles, away, side);
  for (let attempt = 0; attempt < 3; attempt++, round *= 1.6) {
    const rest = spread({ positions: p, triangles, side }, flat, zoneOf(p, away, round, rim), (share) =>
      going((attempt + share) / 3),
    );
    if (!rest) return null;
    const folded = turnedOver(rest, triangles);
    if (!best || folded < best.folded) best = { rest, folded };
    if (folded === 0) break;
  }
  return best;
}
