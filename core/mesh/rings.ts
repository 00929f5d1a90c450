/**
 * The ordered neighbours round each vertex, made from triangles in any order.
 *
 * Each triangle (v, b, c) is a step from b to c round v. Steps are strung into chains; a chain that comes back to
 * its beginning is closed. O(n · k²) for k triangles round a vertex.
 */
import { RING_BREAK } from './mesh';

export interface Rings {
  starts: Uint32Array;
  rings: Uint32Array;
}

export function ringsOf(triangles: Uint32Array, vertexCount: number): Rings {
  const fanStarts = new Uint32Array(vertexCount + 1);
  for (let i = 0; i < triangles.length; i++) fanStarts[triangles[i] + 1]++;
  for (let v = 0; v < vertexCount; v++) fanStarts[v + 1] += fanStarts[v];
  const fans = new Uint32Array(triangles.length);
  const next = fanStarts.slice(0, vertexCount);
  for (let i = 0; i < triangles.length; i++) fans[next[triangles[i]]++] = i;
  // From and to of each step round one vertex.
  let most = 0;
  for (let v = 0; v < vertexCount; v++) most = Math.max(most, fanStarts[v + 1] - fanStarts[v]);
  const from = new Uint32Array(most);
  const to = new Uint32Array(most);
  // A chain has one neighbour more than it has triangles; nearly every vertex has one chain.
  let rings = new Uint32Array(triangles.length + vertexCount);
  const starts = new Uint32Array(vertexCount + 1);
  let out = 0;
  for (let v = 0; v < vertexCount; v++) {
    starts[v] = out;
    const fan = fanStarts[v];
    const end = fanStarts[v + 1] - fan;
    for (let i = 0; i < end; i++) {
      const corner = fans[fan + i];
      const k = corner % 3;
      from[i] = triangles[k === 2 ? corner - 2 : corner + 1];
      to[i] = triangles[k === 0 ? corner + 2 : corner - 1];
    }
    if (out + end * 2 > rings.length) {
      const more = new Uint32Array(rings.length * 2 + end * 2);
      more.set(rings);
      rings = more;
    }
    let first = 0;
    while (first < end) {
      // An open chain begins where no step arrives; a closed one anywhere.
      let head = first;
      for (let i = first; i < end; i++) {
        let arrives = false;
        for (let j = first; j < end && !arrives; j++) arrives = to[j] === from[i];
        if (!arrives) {
          head = i;
          break;
        }
      }
      rings[out] = out === starts[v] ? from[head] : from[head] + RING_BREAK;
      out++;
      for (;;) {
        const at = to[head];
        rings[out++] = at;
        // Steps that are used move to the front of the list.
        from[head] = from[first];
        to[head] = to[first];
        first++;
        head = first;
        while (head < end && from[head] !== at) head++;
        if (head >= end) break;
      }
    }
  }
  starts[vertexCount] = out;
  return { starts, rings: rings.subarray(0, out) };
}
