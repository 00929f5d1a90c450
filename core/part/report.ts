/** What is to be known of a part before it is set down. */
import { polygonArea, polygonHull } from 'd3-polygon';
import { buildMesh, faceNormal, pick, type RawMesh } from '#core/mesh';
import { scanReport } from '#core/scan';
import { dot, length, scaled, unit, type Vec3 } from '#core/vector';
import { crossings } from './crossings';
import { extentsOf } from './measure';
import { restingArea, seatOnFlattest, stood, type Seat } from './seat';

export interface PartReport {
  triangles: number;
  holes: { count: number; edges: number };
  nonManifold: number;
  inward: number;
  /** Pairs of faces that go through each other. */
  crossings: number;
  components: number;
  /** Across, forward and up, units of its mesh. */
  size: [number, number, number];
  /** Of the rectangle that it covers seen from above: how much lies between the points that it rests on. */
  resting: number;
  /** Where its lowest point lies over its rest point, as a share of its height. */
  over: number;
  /** Between its underside and its flattest side, degrees; 0 where nothing is flat. */
  tilt: number;
  /** Of its thinnest places, units of its mesh: a twentieth of its faces is thinner. */
  thickness: number;
}

/** Faces from which its thickness is looked for. */
const MOST_LOOKED = 400;
/** A side counts as flat when it is this share of what the part covers. */
const FLAT_SHARE = 0.08;

export function partReport(mesh: RawMesh, seat: Seat): PartReport {
  const { triangles, holes, nonManifold, inward, components } = scanReport(mesh);
  const { size, low } = seatedExtents(mesh, seat);
  const covered = size[0] * size[1];
  const flattest = seatOnFlattest(mesh, seat.forward);
  const flat = covered > 0 ? restingArea(mesh, scaled(flattest.up, -1)) / covered : 0;
  const turned = (Math.acos(Math.min(1, Math.max(-1, dot(flattest.up, unit(seat.up))))) * 180) / Math.PI;
  return {
    triangles,
    holes: { count: holes.count, edges: holes.edges },
    nonManifold,
    inward,
    components,
    crossings: crossings(mesh),
    size,
    resting: covered > 0 ? Math.min(1, baseArea(mesh, seat) / covered) : 0,
    over: size[2] > 0 ? low / size[2] : 0,
    tilt: flat >= FLAT_SHARE && turned <= NEAR_FLAT_DEG ? turned : 0,
    thickness: thicknessOf(mesh),
  };
}

/** Share of its height within which a point lies on the surface. */
const TOUCHING = 0.005;
/** A side that is turned further away was never meant to be the base. */
const NEAR_FLAT_DEG = 30;

/** What it would stand on, whether a face, a rim or single points: the convex hull of what touches the surface. */
function baseArea(mesh: RawMesh, seat: Seat): number {
  const { positions: p } = stood(mesh, seat);
  const { low, high } = extentsOf(p);
  const limit = low[2] + (high[2] - low[2]) * TOUCHING;
  const touching: [number, number][] = [];
  for (let v = 0; v < p.length; v += 3) if (p[v + 2] <= limit) touching.push([p[v], p[v + 1]]);
  const hull = polygonHull(touching);
  return hull ? Math.abs(polygonArea(hull)) : 0;
}

/** Extents as it stands on its seat, and how far its lowest point lies over the surface. */
export function seatedExtents(mesh: RawMesh, seat: Seat): { size: [number, number, number]; low: number } {
  const { low, high } = extentsOf(stood(mesh, seat).positions);
  return { size: [high[0] - low[0], high[1] - low[1], high[2] - low[2]], low: low[2] };
}

/** From the middle of faces straight inward to the other side. */
function thicknessOf(raw: RawMesh): number {
  const mesh = buildMesh({ positions: raw.positions, triangles: raw.triangles }, { ringless: true });
  const { positions: p, triangles, triangleCount } = mesh;
  const { size } = extentsOf(raw.positions);
  const step = Math.max(1, Math.floor(triangleCount / MOST_LOOKED));
  const found: number[] = [];
  for (let t = 0; t < triangleCount; t += step) {
    const normal = faceNormal(mesh, t);
    if (!(length(normal) > 0)) continue;
    const inward = scaled(unit(normal), -1);
    const middle = [0, 1, 2].map(
      (k) => (p[triangles[t * 3] * 3 + k] + p[triangles[t * 3 + 1] * 3 + k] + p[triangles[t * 3 + 2] * 3 + k]) / 3,
    ) as unknown as Vec3;
    const origin = middle.map((m, k) => m + inward[k] * size * 1e-5) as unknown as Vec3;
    const hit = pick(mesh, { origin, direction: inward });
    if (hit) found.push(hit.distance);
  }
  found.sort((a, b) => a - b);
  return found.length > 0 ? found[Math.floor(found.length / 20)] : 0;
}
