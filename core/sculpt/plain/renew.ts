import { COPY_BOX, fitLeaf, joinChildren, LEAF_SHIFT, RING_VERTEX, vertexNormal } from '#core/mesh';
import { noteChanged, type Surface } from '../surface';

export function renew(s: Surface, vertices: Uint32Array, count: number): void {
  const { mesh, vertexMark, leafMark, leaves, list } = s;
  const { ringStarts, rings } = mesh;
  const mark = ++s.mark;
  let n = 0;
  let leafCount = 0;
  const add = (v: number): void => {
    vertexMark[v] = mark;
    list[n++] = v;
    const leaf = v >> LEAF_SHIFT;
    if (leafMark[leaf] === mark) return;
    leafMark[leaf] = mark;
    leaves[leafCount++] = leaf;
  };
  for (let i = 0; i < count; i++) add(vertices[i]);
  for (let i = 0; i < count; i++) {
    const v = vertices[i];
    for (let k = ringStarts[v], end = ringStarts[v + 1]; k < end; k++) {
      const w = rings[k] & RING_VERTEX;
      if (vertexMark[w] !== mark) add(w);
    }
  }
  for (let i = 0; i < n; i++) vertexNormal(mesh, list[i]);
  // The leaf that holds a triangle holds its lowest vertex, which is touched or a neighbour of what is.
  refit(s, leafCount);
  for (let i = 0; i < leafCount; i++) noteChanged(s, leaves[i]);
}

export function refit(s: Surface, count: number): void {
  const { mesh, leaves, nodes, start } = s;
  const { boxes, leafBase } = mesh;
  for (let i = 0; i < count; i++) {
    const leaf = leaves[i];
    fitLeaf(mesh, leaf);
    const copy = start.copyAt[leaf];
    if (copy !== 0) widen(boxes, (leafBase + leaf) * 6, start.heap, (copy >> 2) + COPY_BOX);
    nodes[i] = (leafBase + leaf) >> 1;
  }
  let n = count;
  while (n > 0 && nodes[0] >= 1) {
    let kept = 0;
    let last = 0;
    for (let i = 0; i < n; i++) {
      const node = nodes[i];
      if (node === last) continue;
      last = node;
      joinChildren(boxes, node);
      nodes[kept++] = node >> 1;
    }
    n = kept;
  }
}

function widen(boxes: Float32Array, to: number, by: Float32Array, from: number): void {
  for (let k = 0; k < 3; k++) {
    boxes[to + k] = Math.min(boxes[to + k], by[from + k]);
    boxes[to + 3 + k] = Math.max(boxes[to + 3 + k], by[from + 3 + k]);
  }
}
