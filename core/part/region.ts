/** Regions of a mesh that become parts: one component, and what a lasso holds as it is seen. O(triangles). */
import { pick, type Mesh, type RawMesh } from '#core/mesh';
import { componentLabels, withTriangles } from '#core/scan';
import { tidyRim } from './rim';
import { cross, dot, length, minus, plus, scaled, type Vec3 } from '#core/vector';

/** What hangs together with this triangle. */
export function componentAt(mesh: RawMesh, triangle: number): RawMesh {
  const labels = componentLabels(mesh);
  return withTriangles(mesh, (t) => labels[t] === labels[triangle]);
}

/** A lasso as it was drawn, and how the eye saw the mesh. */
export interface Lasso {
  /** Closed, in the view's own coordinates: −1 to 1 from left to right and from below to above. */
  outline: readonly (readonly [number, number])[];
  /** From body units to the view's coordinates, column by column, 4 × 4. */
  matrix: readonly number[];
  /** Where the eye is; where all of the view is seen along one way, the way to it. */
  eye: Vec3;
  parallel: boolean;
}

const LEAST_TRIANGLES = 4;
/** Looks from the surface to the eye begin this far off it, body units. */
const OFF = 2e-4;

/**
 * The sheet that the lasso holds: faces turned to the eye, with all their corners inside it and nothing before them; of
 * several sheets the largest. Throws a sentence when it holds nothing.
 */
export function lassoed(mesh: Mesh, lasso: Lasso): RawMesh {
  const { positions: p, triangles, vertexCount } = mesh;
  const inside = new Uint8Array(vertexCount);
  const box = boxOf(lasso.outline);
  for (let v = 0; v < vertexCount; v++) {
    const at = place(p, v);
    const seen = seenAt(lasso, at);
    if (!seen || !inBox(seen, box) || !within(seen, lasso.outline)) continue;
    inside[v] = isSeen(mesh, at, toEye(lasso, at)) ? 1 : 0;
  }
  const raw: RawMesh = { positions: p, triangles };
  const held = withTriangles(raw, (t) => {
    const [a, b, c] = [triangles[t * 3], triangles[t * 3 + 1], triangles[t * 3 + 2]];
    if (!inside[a] || !inside[b] || !inside[c]) return false;
    const at = place(p, a);
    return dot(cross(minus(place(p, b), at), minus(place(p, c), at)), toEye(lasso, at)) > 0;
  });
  const largest = largestSheet(held);
  if (!largest)
    throw new Error('The lasso holds no whole faces. Draw it larger, or look at the mesh from where they face you.');
  return tidyRim(largest);
}

function isSeen(mesh: Mesh, at: Vec3, toward: Vec3): boolean {
  return pick(mesh, { origin: plus(at, scaled(toward, OFF / length(toward))), direction: toward }) === null;
}

function largestSheet(mesh: RawMesh): RawMesh | null {
  const labels = componentLabels(mesh);
  const sizes = new Map<number, number>();
  for (const label of labels) sizes.set(label, (sizes.get(label) ?? 0) + 1);
  let [largest, most] = [-1, LEAST_TRIANGLES - 1];
  for (const [label, size] of sizes) if (size > most) [largest, most] = [label, size];
  return largest < 0 ? null : withTriangles(mesh, (t) => labels[t] === largest);
}

/** Null where the place lies behind the eye. */
function seenAt({ matrix: m }: Lasso, [x, y, z]: Vec3): readonly [number, number] | null {
  const w = m[3] * x + m[7] * y + m[11] * z + m[15];
  if (!(w > 0)) return null;
  return [(m[0] * x + m[4] * y + m[8] * z + m[12]) / w, (m[1] * x + m[5] * y + m[9] * z + m[13]) / w];
}

/** From a place to the eye; its length counts where the eye is a place. */
const toEye = ({ eye, parallel }: Lasso, at: Vec3): Vec3 => (parallel ? eye : minus(eye, at));

const place = (p: Float32Array, v: number): Vec3 => [p[v * 3], p[v * 3 + 1], p[v * 3 + 2]];

type Box = [number, number, number, number];

function boxOf(outline: Lasso['outline']): Box {
  const box: Box = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of outline) {
    box[0] = Math.min(box[0], x);
    box[1] = Math.min(box[1], y);
    box[2] = Math.max(box[2], x);
    box[3] = Math.max(box[3], y);
  }
  return box;
}

const inBox = ([x, y]: readonly [number, number], [left, low, right, high]: Box): boolean =>
  x >= left && x <= right && y >= low && y <= high;

/** By how often a line to the right meets the outline. */
function within([x, y]: readonly [number, number], outline: Lasso['outline']): boolean {
  let inside = false;
  for (let i = 0, j = outline.length - 1; i < outline.length; j = i++) {
    const [[ax, ay], [bx, by]] = [outline[i], outline[j]];
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  }
  return inside;
}
