/**
 * Dab frame: where a dab sits on the surface and which way it faces.
 *
 * Origin the hit point; n the area-weighted mean, over footing × radius, of faces turned the same way as the
 * face that was hit; t and b in its plane, turned anticlockwise by the dab's turn. Right-handed: b = n × t.
 * The normal is that of the surface the stroke began on, or a given one (mapping From view).
 */
import { faceNormal, leavesInSphere, type Hit, type MeshArrays } from '#core/mesh';
import { cross, type Vec3 } from '#core/vector';

export type { Vec3 } from '#core/vector';

export interface DabFrame {
  origin: Vec3;
  normal: Vec3;
  tangent: Vec3;
  bitangent: Vec3;
  /** Body units. */
  radius: number;
}

export interface DabPlace {
  /** Where the dab sits. */
  origin: Vec3;
  /** Where the point under the pointer stood when the stroke began; the normal is taken there. */
  stood: Vec3;
  triangle: number;
  radius: number;
  /** Share of the radius over which the normal is averaged; 0 takes the face that was hit. */
  footing: number;
  /** Direction that a turn of 0 points to; laid into the dab's plane. */
  along: Vec3;
  /** Stands in where `along` is parallel to the normal. */
  instead: Vec3;
  turnRad: number;
  /** Takes the place of the surface's normal. */
  facing: Vec3 | null;
}

export interface Ground {
  face(triangle: number): Vec3;
  /** Sum of the area-weighted normals of faces within `reach` of `at` that are turned as the struck one is. */
  footing(triangle: number, at: Vec3, reach: number): Vec3;
}

/** `ground` answers for the surface the stroke began on: the struck face's normal, and their sum within a reach. */
export function dabFrame(place: DabPlace, ground: Ground): DabFrame {
  const { radius } = place;
  const normal = place.facing ?? footingNormal(place, ground);
  const flat = intoPlane(place.along, normal) ?? intoPlane(place.instead, normal) ?? anyAcross(normal);
  const side = cross(normal, flat);
  const c = Math.cos(place.turnRad);
  const s = Math.sin(place.turnRad);
  return {
    origin: place.origin,
    normal,
    tangent: [flat[0] * c + side[0] * s, flat[1] * c + side[1] * s, flat[2] * c + side[2] * s],
    bitangent: [side[0] * c - flat[0] * s, side[1] * c - flat[1] * s, side[2] * c - flat[2] * s],
    radius,
  };
}

function unit(v: Vec3): Vec3 | null {
  const length = Math.hypot(v[0], v[1], v[2]);
  return length > 1e-20 ? [v[0] / length, v[1] / length, v[2] / length] : null;
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

function footingNormal(place: DabPlace, ground: Ground): Vec3 {
  const reach = place.radius * place.footing;
  const mean = reach > 0 ? unit(ground.footing(place.triangle, place.stood, reach)) : null;
  return mean ?? unit(ground.face(place.triangle)) ?? [0, 0, 1];
}

/** The surface as it is now, for a cursor that hovers over it. `leaves` is a work list. */
export function groundNow(mesh: MeshArrays, leaves: Uint32Array): Ground {
  return {
    face: (triangle) => faceNormal(mesh, triangle),
    footing(triangle, at, reach) {
      const struck = faceNormal(mesh, triangle);
      const { positions: p, triangles, leafTriangles } = mesh;
      const count = leavesInSphere(mesh, at[0], at[1], at[2], reach, leaves);
      let x = 0;
      let y = 0;
      let z = 0;
      for (let i = 0; i < count; i++) {
        const leaf = leaves[i];
        for (let t = leafTriangles[leaf], end = leafTriangles[leaf + 1]; t < end; t++) {
          const a = triangles[t * 3] * 3;
          const b = triangles[t * 3 + 1] * 3;
          const c = triangles[t * 3 + 2] * 3;
          const ux = p[b] - p[a];
          const uy = p[b + 1] - p[a + 1];
          const uz = p[b + 2] - p[a + 2];
          const vx = p[c] - p[a];
          const vy = p[c + 1] - p[a + 1];
          const vz = p[c + 2] - p[a + 2];
          const dx = p[a] + (ux + vx) / 3 - at[0];
          const dy = p[a + 1] + (uy + vy) / 3 - at[1];
          const dz = p[a + 2] + (uz + vz) / 3 - at[2];
          if (dx * dx + dy * dy + dz * dz > reach * reach) continue;
          const nx = uy * vz - uz * vy;
          const ny = uz * vx - ux * vz;
          const nz = ux * vy - uy * vx;
          if (nx * struck[0] + ny * struck[1] + nz * struck[2] <= 0) continue;
          x += nx;
          y += ny;
          z += nz;
        }
      }
      return [x, y, z];
    },
  };
}

/** Where a hover's dab would sit. */
export function placeAt(hit: Hit): Pick<DabPlace, 'origin' | 'stood' | 'triangle'> {
  const at: Vec3 = [hit.x, hit.y, hit.z];
  return { origin: at, stood: at, triangle: hit.triangle };
}
