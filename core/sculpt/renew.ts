/** After vertices have moved: normals where touched and one ring round, boxes of the leaves concerned, the list for the view. */
import { faceNormal, leafOfTriangle, refitLeaves, vertexNormal, LEAF, LEAF_SHIFT } from '#core/mesh';
import type { Surface } from './surface';

/** Renews round the vertices in `s.touched`. */
export function renewTouched(s: Surface): void {
  renewAround(s, markFaces(s, s.touched, s.touchedCount));
}

/** Renews round every vertex of the leaves listed. */
export function renewLeaves(s: Surface, leaves: Uint32Array, count: number): void {
  const { mesh } = s;
  const vertices = new Uint32Array(count * LEAF);
  let n = 0;
  for (let i = 0; i < count; i++) {
    const first = leaves[i]! * LEAF;
    const end = Math.min(first + LEAF, mesh.vertexCount);
    for (let v = first; v < end; v++) vertices[n++] = v;
  }
  renewAround(s, markFaces(s, vertices, n));
}

/** Recomputes the face normals round the vertices; returns how many faces stand in `s.triangleList`. */
function markFaces(s: Surface, vertices: Uint32Array, count: number): number {
  const { mesh, triangleMark } = s;
  const { fanStarts, fans } = mesh;
  const mark = ++s.mark;
  let faces = 0;
  for (let i = 0; i < count; i++) {
    const v = vertices[i]!;
    const end = fanStarts[v + 1]!;
    for (let k = fanStarts[v]!; k < end; k++) {
      const t = fans[k]!;
      if (triangleMark[t] === mark) continue;
      triangleMark[t] = mark;
      if (faces >= s.triangleList.length) {
        const more = new Uint32Array(s.triangleList.length * 2);
        more.set(s.triangleList);
        s.triangleList = more;
      }
      s.triangleList[faces++] = t;
      faceNormal(mesh, t);
    }
  }
  return faces;
}

function renewAround(s: Surface, faces: number): void {
  const { mesh, triangleList, vertexMark, leafMark, leaves } = s;
  const { triangles } = mesh;
  const mark = s.mark;
  let leafCount = 0;
  for (let i = 0; i < faces; i++) {
    const face = triangleList[i]!;
    const t = face * 3;
    for (let k = 0; k < 3; k++) {
      const v = triangles[t + k]!;
      if (vertexMark[v] === mark) continue;
      vertexMark[v] = mark;
      vertexNormal(mesh, v);
      const leaf = v >> LEAF_SHIFT;
      if (leafMark[leaf] !== mark) {
        leafMark[leaf] = mark;
        leaves[leafCount++] = leaf;
      }
    }
    // The leaf that holds the triangle may hold none of the vertices that moved.
    const holder = leafOfTriangle(mesh, face);
    if (leafMark[holder] !== mark) {
      leafMark[holder] = mark;
      leaves[leafCount++] = holder;
    }
  }
  refitLeaves(mesh, leaves, leafCount, s.nodes, s.start);
  for (let i = 0; i < leafCount; i++) {
    const leaf = leaves[i]!;
    if (s.isChanged[leaf]) continue;
    s.isChanged[leaf] = 1;
    s.changed[s.changedCount++] = leaf;
  }
}
