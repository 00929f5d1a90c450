/** What hangs together in a scan, and leaving out what is loose. O(triangles). */
import { carriedBy, coloursBy, type RawMesh } from '#core/mesh';
import { Sets } from './sets';

export interface Components {
  count: number;
  loose: { components: number; triangles: number };
  /** 1 for each triangle that belongs to a loose bit. */
  looseTriangles: Uint8Array;
}

/** A component with fewer triangles than this share of the largest one is a loose bit. */
const LOOSE = 0.02;

/** Which component each triangle belongs to, by the vertex that stands for it. */
export function componentLabels({ positions, triangles }: RawMesh): Uint32Array {
  const sets = joinedSets(positions.length / 3, triangles);
  const out = new Uint32Array(triangles.length / 3);
  for (let t = 0; t < out.length; t++) out[t] = sets.of(triangles[t * 3]);
  return out;
}

function joinedSets(vertices: number, triangles: Uint32Array): Sets {
  const sets = new Sets(vertices);
  for (let i = 0; i < triangles.length; i += 3) {
    sets.join(triangles[i], triangles[i + 1]);
    sets.join(triangles[i], triangles[i + 2]);
  }
  return sets;
}

export function componentsOf({ positions, triangles }: RawMesh): Components {
  const sets = joinedSets(positions.length / 3, triangles);
  const sizes = new Uint32Array(positions.length / 3);
  for (let i = 0; i < triangles.length; i += 3) sizes[sets.of(triangles[i])]++;
  let most = 0;
  let count = 0;
  for (const size of sizes) {
    if (size === 0) continue;
    count++;
    if (size > most) most = size;
  }
  const limit = most * LOOSE;
  const loose = { components: 0, triangles: 0 };
  for (const size of sizes) {
    if (size === 0 || size >= limit) continue;
    loose.components++;
    loose.triangles += size;
  }
  const looseTriangles = new Uint8Array(triangles.length / 3);
  for (let t = 0; t < looseTriangles.length; t++) looseTriangles[t] = sizes[sets.of(triangles[t * 3])] < limit ? 1 : 0;
  return { count, loose, looseTriangles };
}

/** Without its loose bits. */
export function withoutLoose(mesh: RawMesh): RawMesh {
  const { looseTriangles } = componentsOf(mesh);
  return withTriangles(mesh, (t) => looseTriangles[t] === 0);
}

/** Those of its triangles alone, and the vertices that they name, in the order they were in. */
export function withTriangles(mesh: RawMesh, stays: (triangle: number) => boolean): RawMesh {
  const { positions, triangles } = mesh;
  const named = new Uint8Array(positions.length / 3);
  const from = new Uint32Array(triangles.length / 3);
  let count = 0;
  for (let t = 0; t < from.length; t++) {
    if (!stays(t)) continue;
    from[count++] = t;
    for (let k = 0; k < 3; k++) named[triangles[t * 3 + k]] = 1;
  }
  const number = new Uint32Array(named.length);
  const origin = new Uint32Array(named.length);
  let vertices = 0;
  for (let v = 0; v < named.length; v++) {
    if (!named[v]) continue;
    origin[vertices] = v;
    number[v] = vertices++;
  }
  const faces = new Uint32Array(count * 3);
  for (let i = 0; i < count; i++) for (let k = 0; k < 3; k++) faces[i * 3 + k] = number[triangles[from[i] * 3 + k]];
  const places = new Float32Array(vertices * 3);
  for (let i = 0; i < vertices; i++) for (let k = 0; k < 3; k++) places[i * 3 + k] = positions[origin[i] * 3 + k];
  return {
    positions: places,
    triangles: faces,
    carried: carriedBy(mesh.carried, from.subarray(0, count)),
    colours: coloursBy(mesh.colours, origin.subarray(0, vertices)),
  };
}

/** Without the vertices that no triangle names. */
export function withVertices(mesh: RawMesh): RawMesh {
  return withTriangles(mesh, () => true);
}
