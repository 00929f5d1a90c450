/**
 * Dab frame: where a dab sits on the surface and which way it faces.
 *
 * Origin the hit point; n the area-weighted mean, over footing × radius, of faces turned the same way as the
 * face that was hit; t and b in its plane, turned anticlockwise by the dab's turn. Right-handed: b = n × t.
 * The normal is that of the surface the stroke began on (`before`), or a given one (mapping From view).
 */
import { leavesInSphere, placeBefore, pointBefore, type Hit, type LeafCopies, type Mesh } from '#core/mesh';

export type Vec3 = readonly [number, number, number];

export interface DabFrame {
  origin: Vec3;
  normal: Vec3;
  tangent: Vec3;
  bitangent: Vec3;
  /** Body units. */
  radius: number;
}

export interface DabPlace {
  hit: Hit;
  radius: number;
  /** Share of the radius over which the normal is averaged; 0 takes the face that was hit. */
  footing: number;
  /** Direction that a turn of 0 points to; laid into the dab's plane. */
  along: Vec3;
  /** Stands in where `along` is parallel to the normal. */
  instead: Vec3;
  turnRad: number;
  /** Puts the origin where the point under the hit stood when the stroke began. */
  fromStart: boolean;
  /** Takes the place of the surface's normal. */
  facing: Vec3 | null;
}

export function dabFrame(mesh: Mesh, place: DabPlace, leaves: Uint32Array, before: LeafCopies): DabFrame {
  const { hit, radius } = place;
  const stood = pointBefore(before, mesh, hit);
  const normal = place.facing ?? footingNormal(mesh, hit.triangle, stood, radius * place.footing, leaves, before);
  const flat = intoPlane(place.along, normal) ?? intoPlane(place.instead, normal) ?? anyAcross(normal);
  const side = cross(normal, flat);
  const c = Math.cos(place.turnRad);
  const s = Math.sin(place.turnRad);
  return {
    origin: place.fromStart ? stood : [hit.x, hit.y, hit.z],
    normal,
    tangent: [flat[0] * c + side[0] * s, flat[1] * c + side[1] * s, flat[2] * c + side[2] * s],
    bitangent: [side[0] * c - flat[0] * s, side[1] * c - flat[1] * s, side[2] * c - flat[2] * s],
    radius,
  };
}

/** The frame mirrored in the planes x = 0 and / or y = 0; the picture is mirrored with it. */
export function mirrored(frame: DabFrame, x: boolean, y: boolean): DabFrame {
  const flip = (v: Vec3): Vec3 => [x ? -v[0] : v[0], y ? -v[1] : v[1], v[2]];
  return {
    origin: flip(frame.origin), normal: flip(frame.normal), tangent: flip(frame.tangent), bitangent: flip(frame.bitangent),
    radius: frame.radius,
  };
}

function footingNormal(
  mesh: Mesh, triangle: number, at: Vec3, reach: number, leaves: Uint32Array, before: LeafCopies,
): Vec3 {
  const { leafTriangles } = mesh;
  const { centroid, normal } = faceBefore(mesh, triangle, before);
  const struck: Vec3 = [normal[0]!, normal[1]!, normal[2]!];
  let x = 0;
  let y = 0;
  let z = 0;
  if (reach > 0) {
    const count = leavesInSphere(mesh, at[0], at[1], at[2], reach, leaves);
    for (let i = 0; i < count; i++) {
      const leaf = leaves[i]!;
      for (let t = leafTriangles[leaf]!, end = leafTriangles[leaf + 1]!; t < end; t++) {
        faceBefore(mesh, t, before);
        const dx = centroid[0]! - at[0];
        const dy = centroid[1]! - at[1];
        const dz = centroid[2]! - at[2];
        if (dx * dx + dy * dy + dz * dz > reach * reach) continue;
        if (normal[0]! * struck[0] + normal[1]! * struck[1] + normal[2]! * struck[2] <= 0) continue;
        x += normal[0]!;
        y += normal[1]!;
        z += normal[2]!;
      }
    }
  }
  return unit([x, y, z]) ?? unit(struck) ?? [0, 0, 1];
}

const FACE = { centroid: new Float64Array(3), normal: new Float64Array(3) };

/** Centroid and area-weighted normal of a triangle as it stood when the stroke began. Reuses its result. */
function faceBefore(mesh: Mesh, triangle: number, before: LeafCopies): typeof FACE {
  const { triangles } = mesh;
  if (before.count === 0) return faceNow(mesh, triangle);
  const a = placeBefore(before, mesh, triangles[triangle * 3]!);
  const b = placeBefore(before, mesh, triangles[triangle * 3 + 1]!);
  const c = placeBefore(before, mesh, triangles[triangle * 3 + 2]!);
  const ax = a.from[a.at]!;
  const ay = a.from[a.at + 1]!;
  const az = a.from[a.at + 2]!;
  const ux = b.from[b.at]! - ax;
  const uy = b.from[b.at + 1]! - ay;
  const uz = b.from[b.at + 2]! - az;
  const vx = c.from[c.at]! - ax;
  const vy = c.from[c.at + 1]! - ay;
  const vz = c.from[c.at + 2]! - az;
  FACE.centroid[0] = ax + (ux + vx) / 3;
  FACE.centroid[1] = ay + (uy + vy) / 3;
  FACE.centroid[2] = az + (uz + vz) / 3;
  FACE.normal[0] = uy * vz - uz * vy;
  FACE.normal[1] = uz * vx - ux * vz;
  FACE.normal[2] = ux * vy - uy * vx;
  return FACE;
}

function unit(v: Vec3): Vec3 | null {
  const length = Math.hypot(v[0], v[1], v[2]);
  return length > 1e-20 ? [v[0] / length, v[1] / length, v[2] / length] : null;
}

export function cross(a: Vec3, b: Vec3): Vec3 {
  return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
}

function intoPlane(v: Vec3, normal: Vec3): Vec3 | null {
  const size = Math.hypot(v[0], v[1], v[2]);
  if (size < 1e-20) return null;
  const d = (v[0] * normal[0] + v[1] * normal[1] + v[2] * normal[2]) / size;
  const flat: Vec3 = [v[0] / size - d * normal[0], v[1] / size - d * normal[1], v[2] / size - d * normal[2]];
  return Math.hypot(flat[0], flat[1], flat[2]) > 1e-4 ? unit(flat) : null;
}

function anyAcross(normal: Vec3): Vec3 {
  return intoPlane([1, 0, 0], normal) ?? (intoPlane([0, 1, 0], normal) as Vec3);
}

/** Before a stroke's first dab the surface it began on is the surface as it is. */
function faceNow(mesh: Mesh, triangle: number): typeof FACE {
  const { triangles, positions: p, faceNormals } = mesh;
  const t = triangle * 3;
  const a = triangles[t]! * 3;
  const b = triangles[t + 1]! * 3;
  const c = triangles[t + 2]! * 3;
  for (let k = 0; k < 3; k++) {
    FACE.centroid[k] = (p[a + k]! + p[b + k]! + p[c + k]!) / 3;
    FACE.normal[k] = faceNormals[t + k]!;
  }
  return FACE;
}
