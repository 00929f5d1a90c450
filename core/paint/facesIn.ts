/** Faces near a place, by the mesh’s box tree. */
import type { MeshArrays } from '#core/mesh';

/** Those of leaves whose boxes come within the distance: some of them lie beyond it. */
export function* facesIn(
  { boxes, leafBase, leafTriangles, leafCount }: MeshArrays,
  [x, y, z]: readonly [number, number, number],
  within: number,
): Generator<number> {
  const waiting = [1];
  for (;;) {
    const node = waiting.pop();
    if (node === undefined) return;
    const b = node * 6;
    const off = (low: number, high: number, at: number): number => Math.max(low - at, at - high, 0);
    const [dx, dy, dz] = [
      off(boxes[b], boxes[b + 3], x),
      off(boxes[b + 1], boxes[b + 4], y),
      off(boxes[b + 2], boxes[b + 5], z),
    ];
    if (!(dx * dx + dy * dy + dz * dz <= within * within)) continue;
    if (node < leafBase) waiting.push(node * 2, node * 2 + 1);
    else if (node - leafBase < leafCount)
      for (let t = leafTriangles[node - leafBase]; t < leafTriangles[node - leafBase + 1]; t++) yield t;
  }
}
