/**
 * A mesh that is being sculpted: the mesh, its copies, its work lists, and what has changed since it was last drawn.
 */
import { giveBack, allocate, allocateFloats, allocateWords, type Block } from '#core/memory';
import { leafCopies, meanSpacing, type LeafCopies, type Mesh } from '#core/mesh';
import { compiledLoops } from './compiled';
import type { Loops } from './loops';
import { plainLoops } from './plain';

export interface Surface {
  mesh: Mesh;
  /** The loops that a dab is made of: compiled, or their plain twins. */
  loops: Loops;
  /** Mean distance from vertex to vertex when the surface was made, body units. */
  spacing: number;
  /** The surface at the beginning of the running stroke. */
  start: LeafCopies;
  /** Whether the running span changes masks. */
  changesMask: boolean;
  /** Whether copies hold normals too. */
  keepsNormals: boolean;
  /** Vertices of the running dab, their place in it in radii, and how much each takes of it. */
  touched: Uint32Array;
  u: Float32Array;
  v: Float32Array;
  amount: Float32Array;
  touchedCount: number;
  /** Vertices whose normals are to be renewed. */
  list: Uint32Array;
  vertexMark: Uint32Array;
  leafMark: Uint32Array;
  mark: number;
  /** Leaves met by the last query, and a work list of tree nodes. */
  leaves: Uint32Array;
  nodes: Uint32Array;
  /**
   * A dab's frame for the compiled loops: centre, normal, tangent, bitangent, what a loop answers, and maps of
   * pictures.
   */
  scratch: Float64Array;
  /** Where each array lies, in the order the compiled loops know. */
  header: Uint32Array;
  /** Pictures and tables that lie in the room because a dab reads them there; the oldest goes first. */
  lent: Map<Float32Array, Block>;
  /** Leaves whose positions, normals or masks changed since the last drain. */
  changed: Uint32Array;
  changedCount: number;
  isChanged: Uint8Array;
}

export function surface(mesh: Mesh, options: { plain: boolean } = { plain: false }): Surface {
  const { room, vertexCount, leafCount } = mesh;
  const words = (count: number): Uint32Array => allocateWords(room, count);
  const touched = words(vertexCount);
  // u, v and the list lie behind each other: while vertices are relaxed, their displacements stand there.
  // Each has room for three more, as loops work on four at a time.
  const stride = Math.ceil(vertexCount / 4) * 16;
  const three = allocate(room, stride * 3).at;
  const { buffer } = room.memory;
  const u = new Float32Array(buffer, three, vertexCount);
  const v = new Float32Array(buffer, three + stride, vertexCount);
  const list = new Uint32Array(buffer, three + stride * 2, vertexCount);
  const amount = allocateFloats(room, vertexCount);
  const vertexMark = words(vertexCount);
  const leafMark = words(leafCount);
  const leaves = words(leafCount);
  const nodes = words(leafCount + 1);
  const changed = words(leafCount);
  const flags = words(Math.ceil(leafCount / 4));
  const isChanged = new Uint8Array(flags.buffer, flags.byteOffset, leafCount);
  const block = words(64);
  const scratch = new Float64Array(block.buffer, block.byteOffset, 32);
  const start = leafCopies(mesh);
  const o = mesh.offsets;
  const header = words(32);
  header.set([
    o.positions,
    o.normals,
    o.mask,
    o.triangles,
    o.ringStarts,
    o.rings,
    o.leafTriangles,
    o.strayStarts,
    o.strays,
    o.boxes,
    touched.byteOffset,
    u.byteOffset,
    v.byteOffset,
    amount.byteOffset,
    list.byteOffset,
    vertexMark.byteOffset,
    leafMark.byteOffset,
    leaves.byteOffset,
    nodes.byteOffset,
    changed.byteOffset,
    isChanged.byteOffset,
    start.copyAt.byteOffset,
    start.leaves.byteOffset,
    start.records.byteOffset,
    scratch.byteOffset,
    vertexCount,
    leafCount,
    mesh.leafBase,
  ]);
  return {
    mesh,
    loops: options.plain ? plainLoops : compiledLoops(room.memory),
    spacing: meanSpacing(mesh),
    start,
    changesMask: false,
    keepsNormals: false,
    touched,
    u,
    v,
    amount,
    touchedCount: 0,
    list,
    vertexMark,
    leafMark,
    mark: 0,
    leaves,
    nodes,
    scratch,
    header,
    lent: new Map(),
    changed,
    changedCount: 0,
    isChanged,
  };
}

/** Normals and boxes of a mesh that was left unfinished. */
export function finish(s: Surface): Surface {
  const { mesh, touched } = s;
  for (let v = 0; v < mesh.vertexCount; v++) touched[v] = v;
  s.loops.renew(s, touched, mesh.vertexCount);
  drainChanged(s);
  return s;
}

/** x, y, z of the displacement of each touched vertex, over u, v and the list. */
export function displacementsOf(s: Surface): Float32Array {
  return new Float32Array(s.u.buffer, s.u.byteOffset, s.touchedCount * 3);
}

/** At most this many pictures and tables stay in the room; a call of the loops reads far fewer. */
const MOST_LENT = 24;

/**
 * Address of a copy of `data` in the room. It holds until MOST_LENT others were asked for: the one that was asked for
 * longest ago goes first, never one that the same call of the loops reads.
 */
export function lend(s: Surface, data: Float32Array): number {
  const known = s.lent.get(data);
  if (known) {
    s.lent.delete(data);
    s.lent.set(data, known);
    return known.at;
  }
  if (s.lent.size >= MOST_LENT) {
    const [oldest, block] = s.lent.entries().next().value!;
    giveBack(s.mesh.room, block);
    s.lent.delete(oldest);
  }
  // One more than there is may be read, with a share of 0.
  const block = allocate(s.mesh.room, (data.length + 1) * 4);
  const copy = new Float32Array(s.mesh.room.memory.buffer, block.at, data.length + 1);
  copy.set(data);
  copy[data.length] = 0;
  s.lent.set(data, block);
  return block.at;
}

/** Leaves changed since the last call, ascending. */
export function drainChanged(s: Surface): Uint32Array {
  const out = s.changed.slice(0, s.changedCount).sort();
  for (let i = 0; i < s.changedCount; i++) s.isChanged[s.changed[i]] = 0;
  s.changedCount = 0;
  return out;
}

/** Notes a leaf for the view. */
export function noteChanged(s: Surface, leaf: number): void {
  if (s.isChanged[leaf]) return;
  s.isChanged[leaf] = 1;
  s.changed[s.changedCount++] = leaf;
}
