/**
 * A mesh as a set form for the slab: seen from above along the axis that points up, as heights over its lowest point.
 */
import { castHeights } from '#core/cast';
import type { RawMesh } from '#core/mesh';
import type { Picture } from '#core/picture';
import { PART_CELLS, type PartUp } from '#core/settings';

export interface PartFromAbove {
  /** 0–1, PART_CELLS a side; 0 where there is nothing. */
  heights: Picture;
  /** Height ÷ half the longer side seen from above: what gives a set form its true proportion. */
  proportion: number;
}

/** Throws a sentence when nothing of it is seen from above, or it has no height. O(vertices + triangles). */
export function partHeights(mesh: RawMesh, up: PartUp): PartFromAbove {
  const turned = upright(mesh, up);
  const [low, high] = bounds(turned.positions);
  const side = Math.max(high[0] - low[0], high[1] - low[1]);
  const height = high[2] - low[2];
  if (!(side > 0)) throw new Error('Seen along that axis the part is a line. Choose another side to point up.');
  if (!(height > side * 1e-4))
    throw new Error('Seen along that axis the part has no height. Choose another side to point up.');
  const frame = { x: (low[0] + high[0]) / 2, y: (low[1] + high[1]) / 2, side, turn: 0 };
  const heights = castHeights(turned, { frame, size: PART_CELLS, samples: 4 });
  for (let i = 0; i < heights.data.length; i++) {
    const z = heights.data[i];
    heights.data[i] = Number.isNaN(z) ? 0 : (z - low[2]) / height;
  }
  return { heights, proportion: (2 * height) / side };
}

/** Columns of x, y and z that become x, y and z; a second sign turns the part over without mirroring it. */
const TURNS: Record<
  PartUp,
  readonly [readonly [number, number], readonly [number, number], readonly [number, number]]
> = {
  '+z': [
    [0, 1],
    [1, 1],
    [2, 1],
  ],
  '-z': [
    [0, 1],
    [1, -1],
    [2, -1],
  ],
  '+y': [
    [0, 1],
    [2, -1],
    [1, 1],
  ],
  '-y': [
    [0, 1],
    [2, 1],
    [1, -1],
  ],
  '+x': [
    [1, 1],
    [2, 1],
    [0, 1],
  ],
  '-x': [
    [1, -1],
    [2, 1],
    [0, -1],
  ],
};

function upright(mesh: RawMesh, up: PartUp): RawMesh {
  if (up === '+z') return mesh;
  const { positions: p } = mesh;
  const out = new Float32Array(p.length);
  TURNS[up].forEach(([from, sign], to) => {
    for (let v = 0; v < p.length; v += 3) out[v + to] = sign * p[v + from];
  });
  return { positions: out, triangles: mesh.triangles };
}

function bounds(p: Float32Array): [number[], number[]] {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < p.length; i++) {
    const c = i % 3;
    if (p[i] < low[c]) low[c] = p[i];
    if (p[i] > high[c]) high[c] = p[i];
  }
  return [low, high];
}
