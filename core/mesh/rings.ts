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
  for (let i = 0; i < triangles.length; i++) fanStarts[triangles[i]! + 1]!++;
  for (let v = 0; v < vertexCount; v++) fanStarts[v + 1]! += fanStarts[v]!;
  // From and to of each step round each vertex.
  const from = new Uint32Array(triangles.length);
  const to = new Uint32Array(triangles.length);
  const next = fanStarts.slice(0, vertexCount);
  for (let t = 0; t < triangles.length; t += 3) {
    const a = triangles[t]!;
    const b = triangles[t + 1]!;
    const c = triangles[t + 2]!;
    let at = next[a]!++;
    from[at] = b;
    to[at] = c;
    at = next[b]!++;
    from[at] = c;
    to[at] = a;
    at = next[c]!++;
    from[at] = a;
    to[at] = b;
  }
  // A chain has one neighbour more than it has triangles; at most as many chains as triangles.
  const rings = new Uint32Array(triangles.length * 2);
  const starts = new Uint32Array(vertexCount + 1);
  let out = 0;
  for (let v = 0; v < vertexCount; v++) {
    starts[v] = out;
    const end = fanStarts[v + 1]!;
    let first = fanStarts[v]!;
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
      rings[out] = out === starts[v]! ? from[head]! : from[head]! + RING_BREAK;
      out++;
      for (;;) {
        const at = to[head]!;
        rings[out++] = at;
        // Steps that are used move to the front of the list.
        from[head] = from[first]!;
        to[head] = to[first]!;
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
