/**
 * Lays a maker's mesh into a room: vertices along a space-filling curve, triangles beside the leaf of their first
 * vertex, the ring round each vertex, normals and the box tree.
 *
 * Throws when an index is out of bounds or a coordinate isn't finite, and OutOfMemory. O(n).
 */
import { room as newRoom, sharedBuffer, allocate, type Room } from '#core/memory';
import { carriedBy, checkCarried } from './carried';
import { LEAF, LEAF_SHIFT, meshLayout } from './layout';
import { meshView, type Mesh, type RawMesh } from './mesh';
import { mortonOrder, radixOrder } from './order';
import { allNormals, normalsOfFaces } from './normals';
import { fitLeaf, refitAll } from './boxes';
import { ringsOf } from './rings';

export interface BuildOptions {
  /** Where the mesh is to live; a room of its own when left out. */
  into?: Room;
  /**
   * Places in the maker's order that take the maker's own, e.g. of a slab that was sculpted; memory is still laid out
   * by the maker's.
   */
  places?: Float32Array;
  /** Only to be looked at and pointed at, never sculpted: without the rings round the vertices, which take longest. */
  ringless?: boolean;
  /** Leaves normals and boxes to the surface that is made of it, whose loops find them several times faster. */
  unfinished?: boolean;
}

export function buildMesh(raw: RawMesh, options: BuildOptions = {}): Mesh {
  check(raw);
  const places = options.places ?? raw.positions;
  if (places !== raw.positions) checkPlaces(places, raw.positions.length / 3);
  const vertexCount = raw.positions.length / 3;
  const triangleCount = raw.triangles.length / 3;
  const order = mortonOrder(raw.positions);
  const place = new Uint32Array(vertexCount);
  for (let i = 0; i < vertexCount; i++) place[order[i]] = i;
  const { triangles, from } = placedTriangles(raw.triangles, place);
  const rings = options.ringless
    ? { starts: new Uint32Array(vertexCount + 1), rings: new Uint32Array(0) }
    : ringsOf(triangles, vertexCount);
  const stray = straysOf(triangles, vertexCount);

  const counts = { vertexCount, triangleCount, ringCount: rings.rings.length, strayCount: stray.strays.length };
  const home = options.into ?? newRoom(meshLayout(counts, 0).bytes);
  const block = allocate(home, meshLayout(counts, 0).bytes);
  const mesh: Mesh = {
    ...meshView(sharedBuffer(home), meshLayout(counts, block.at)),
    room: home,
    carried: carriedBy(raw.carried, from),
  };
  mesh.order.set(order);
  mesh.triangles.set(triangles);
  mesh.ringStarts.set(rings.starts);
  mesh.rings.set(rings.rings);
  mesh.leafTriangles.set(stray.leafTriangles);
  mesh.strayStarts.set(stray.starts);
  mesh.strays.set(stray.strays);
  for (let i = 0; i < vertexCount; i++) {
    const from = order[i] * 3;
    mesh.positions[i * 3] = places[from];
    mesh.positions[i * 3 + 1] = places[from + 1];
    mesh.positions[i * 3 + 2] = places[from + 2];
  }
  mesh.mask.fill(0);
  mesh.boxes.fill(Infinity);
  for (let node = 0; node < mesh.leafBase * 2; node++) mesh.boxes.fill(-Infinity, node * 6 + 3, node * 6 + 6);
  if (options.unfinished) return mesh;
  if (options.ringless) normalsOfFaces(mesh);
  else allNormals(mesh);
  for (let leaf = 0; leaf < mesh.leafCount; leaf++) fitLeaf(mesh, leaf);
  refitAll(mesh);
  return mesh;
}

/**
 * Triangles with their vertices' new places, ordered by the lowest: a triangle belongs to the leaf of that one. `from`
 * is each one's number in the maker's order.
 */
function placedTriangles(triangles: Uint32Array, place: Uint32Array): { triangles: Uint32Array; from: Uint32Array } {
  const count = triangles.length / 3;
  const lowest = new Uint32Array(count);
  for (let t = 0; t < count; t++) {
    lowest[t] = Math.min(place[triangles[t * 3]], place[triangles[t * 3 + 1]], place[triangles[t * 3 + 2]]);
  }
  const order = radixOrder(lowest, 32 - Math.clz32(place.length));
  const out = new Uint32Array(triangles.length);
  for (let i = 0; i < count; i++) {
    const from = order[i] * 3;
    out[i * 3] = place[triangles[from]];
    out[i * 3 + 1] = place[triangles[from + 1]];
    out[i * 3 + 2] = place[triangles[from + 2]];
  }
  return { triangles: out, from: order };
}

/** Which triangles each leaf holds, and which vertices of later leaves they name. */
function straysOf(
  triangles: Uint32Array,
  vertexCount: number,
): { leafTriangles: Uint32Array; starts: Uint32Array; strays: Uint32Array } {
  const leafCount = Math.ceil(vertexCount / LEAF);
  const leafTriangles = new Uint32Array(leafCount + 1);
  const starts = new Uint32Array(leafCount + 1);
  const seen = new Int32Array(vertexCount).fill(-1);
  const strays: number[] = [];
  let t = 0;
  for (let leaf = 0; leaf < leafCount; leaf++) {
    leafTriangles[leaf] = t;
    starts[leaf] = strays.length;
    const end = (leaf + 1) * LEAF;
    for (; t * 3 < triangles.length; t++) {
      const a = triangles[t * 3];
      const b = triangles[t * 3 + 1];
      const c = triangles[t * 3 + 2];
      if ((a < b ? (a < c ? a : c) : b < c ? b : c) >> LEAF_SHIFT !== leaf) break;
      for (let k = 0; k < 3; k++) {
        const v = triangles[t * 3 + k];
        if (v < end || seen[v] === leaf) continue;
        seen[v] = leaf;
        strays.push(v);
      }
    }
  }
  leafTriangles[leafCount] = t;
  starts[leafCount] = strays.length;
  return { leafTriangles, starts, strays: Uint32Array.from(strays) };
}

function check(raw: RawMesh): void {
  const vertices = raw.positions.length / 3;
  if (!Number.isInteger(vertices) || !Number.isInteger(raw.triangles.length / 3)) {
    throw new Error('A mesh needs three coordinates a vertex and three vertices a triangle.');
  }
  if (raw.triangles.length === 0) throw new Error('The mesh has no triangles.');
  checkPlaces(raw.positions, vertices);
  for (let i = 0; i < raw.triangles.length; i++) {
    if (raw.triangles[i] >= vertices) {
      throw new Error(`Triangle ${Math.floor(i / 3)} names vertex ${raw.triangles[i]} of ${vertices}.`);
    }
  }
  if (raw.carried) checkCarried(raw.carried, raw.triangles.length / 3);
}

/** Throws when the count differs or a coordinate isn't finite. */
export function checkPlaces(places: Float32Array, vertices: number): void {
  if (places.length !== vertices * 3) throw new Error(`Expected ${vertices} vertices, found ${places.length / 3}.`);
  for (let i = 0; i < places.length; i++) {
    // Only NaN and infinities differ from themselves when taken from themselves.
    if (places[i] - places[i] !== 0) throw new Error(`Vertex ${Math.floor(i / 3)} of ${vertices} is not a number.`);
  }
}
