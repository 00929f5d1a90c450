/**
 * Lays a maker's mesh into one buffer: vertices along a space-filling curve, triangles beside the leaf of
 * their first vertex, the triangles round each vertex, normals and the box tree.
 *
 * Throws when an index is out of bounds or a coordinate isn't finite. O(n).
 */
import { meshLayout } from './layout';
import { meshView, type Mesh, type RawMesh } from './mesh';
import { mortonOrder, radixOrder } from './order';
import { allNormals } from './normals';
import { fitLeaf, refitAll } from './boxes';

/** Makes the memory a mesh lives in: a SharedArrayBuffer in the application, a plain one in tests. */
export type Allocate = (bytes: number) => ArrayBufferLike;

export function buildMesh(raw: RawMesh, allocate: Allocate = (bytes) => new ArrayBuffer(bytes)): Mesh {
  check(raw);
  const vertexCount = raw.positions.length / 3;
  const triangleCount = raw.triangles.length / 3;
  const layout = meshLayout(vertexCount, triangleCount);
  const mesh = meshView(allocate(layout.bytes), layout);

  const order = mortonOrder(raw.positions);
  mesh.order.set(order);
  const place = new Uint32Array(vertexCount);
  for (let i = 0; i < vertexCount; i++) {
    const from = order[i]! * 3;
    place[order[i]!] = i;
    mesh.positions[i * 3] = raw.positions[from]!;
    mesh.positions[i * 3 + 1] = raw.positions[from + 1]!;
    mesh.positions[i * 3 + 2] = raw.positions[from + 2]!;
  }

  layTriangles(mesh, raw.triangles, place);
  layFans(mesh);
  allNormals(mesh);
  mesh.boxes.fill(Infinity);
  for (let node = 0; node < mesh.leafBase * 2; node++) mesh.boxes.fill(-Infinity, node * 6 + 3, node * 6 + 6);
  for (let leaf = 0; leaf < mesh.leafCount; leaf++) fitLeaf(mesh, leaf);
  refitAll(mesh);
  return mesh;
}

/** A triangle belongs to the leaf of its lowest vertex. */
export function leafOfTriangle(mesh: Mesh, triangle: number): number {
  const t = triangle * 3;
  const { triangles } = mesh;
  return Math.min(triangles[t]!, triangles[t + 1]!, triangles[t + 2]!) >> 8;
}

function layTriangles(mesh: Mesh, triangles: Uint32Array, place: Uint32Array): void {
  const lowest = new Uint32Array(mesh.triangleCount);
  for (let t = 0; t < mesh.triangleCount; t++) {
    lowest[t] = Math.min(place[triangles[t * 3]!]!, place[triangles[t * 3 + 1]!]!, place[triangles[t * 3 + 2]!]!);
  }
  const order = radixOrder(lowest, 32 - Math.clz32(mesh.vertexCount));
  for (let i = 0; i < order.length; i++) {
    const from = order[i]! * 3;
    for (let k = 0; k < 3; k++) mesh.triangles[i * 3 + k] = place[triangles[from + k]!]!;
  }
  let t = 0;
  for (let leaf = 0; leaf <= mesh.leafCount; leaf++) {
    while (t < mesh.triangleCount && leafOfTriangle(mesh, t) < leaf) t++;
    mesh.leafTriangles[leaf] = t;
  }
}

function layFans(mesh: Mesh): void {
  const { fanStarts, fans, triangles } = mesh;
  for (let i = 0; i < triangles.length; i++) fanStarts[triangles[i]! + 1]!++;
  for (let v = 0; v < mesh.vertexCount; v++) fanStarts[v + 1]! += fanStarts[v]!;
  const next = fanStarts.slice(0, mesh.vertexCount);
  for (let i = 0; i < triangles.length; i++) fans[next[triangles[i]!]!++] = (i / 3) | 0;
}

function check(raw: RawMesh): void {
  const vertices = raw.positions.length / 3;
  if (!Number.isInteger(vertices) || !Number.isInteger(raw.triangles.length / 3)) {
    throw new Error('A mesh needs three coordinates a vertex and three vertices a triangle.');
  }
  if (raw.triangles.length === 0) throw new Error('The mesh has no triangles.');
  for (let i = 0; i < raw.positions.length; i++) {
    if (!Number.isFinite(raw.positions[i]!)) throw new Error(`Vertex ${Math.floor(i / 3)} of ${vertices} is not a number.`);
  }
  for (let i = 0; i < raw.triangles.length; i++) {
    if (raw.triangles[i]! >= vertices) {
      throw new Error(`Triangle ${Math.floor(i / 3)} names vertex ${raw.triangles[i]!} of ${vertices}.`);
    }
  }
}
