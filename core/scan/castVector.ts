/**
 * A patch as offsets, so that what overhangs survives: for each pixel the way from where its point of the surface would
 * rest on the flat frame to where it is, in frame sides and the frame's axes.
 *
 * Where nothing overhangs, a point rests straight under itself; round an overhang points are spread out (restPlaces.ts)
 * until no two rest at one place. The overall shape is taken out as for heights.
 */
import { castHeights, CastCancelled } from '#core/cast';
import type { MeshArrays } from '#core/mesh';
import type { Picture } from '#core/picture';
import type { Patch } from '#core/settings';
import { patchFrame } from './axes';
import { EmptyPatchError } from './castPatch';
import { detrend } from './detrend';
import { fillSmoothly } from './fill';
import { restPlaces } from './restPlaces';
import { allFaces, patchSurface } from './surface';

export interface PatchVector {
  size: number;
  /** x, y, z of each pixel in frame sides, row by row from the top. */
  offsets: Float32Array;
  /** Largest out less smallest, in frame sides. */
  relief: number;
  /** Faces of the surface that could not be spread out and still rest on others; 0 as a rule. */
  folded: number;
}

/** Throws EmptyPatchError, ClosedPatchError and CastCancelled. */
export async function castPatchVector(
  mesh: MeshArrays,
  patch: Patch,
  onProgress: (share: number) => boolean = () => true,
): Promise<PatchVector> {
  const { size } = patch.cast;
  const { side } = patch.cast.frame;
  const surface = patchSurface(mesh, patchFrame(patch));
  if (!surface) throw new EmptyPatchError();
  const { positions: p } = surface;
  const triangles = allFaces(surface);
  const spread = await restPlaces({ positions: p, triangles, side }, (share) => onProgress(share * 0.7));
  if (!spread) throw new CastCancelled();
  const { rest, folded } = spread;
  const flat = (values: (v: number) => number): Picture => {
    const positions = rest.slice();
    for (let v = 0; v < positions.length / 3; v++) positions[v * 3 + 2] = values(v);
    return castHeights({ positions, triangles }, { frame: { x: 0, y: 0, turn: 0, side }, size, samples: 1 });
  };
  const x = fillSmoothly(flat((v) => p[v * 3] - rest[v * 3]));
  if (!onProgress(0.8)) throw new CastCancelled();
  const y = fillSmoothly(flat((v) => p[v * 3 + 1] - rest[v * 3 + 1]));
  const z = fillSmoothly(
    detrend(
      flat((v) => p[v * 3 + 2]),
      patch.detrend,
    ).heights,
  );
  if (!onProgress(0.95)) throw new CastCancelled();
  // The ground, the median of the border, is where nothing is moved.
  const ground = borderMedian(z);
  const offsets = new Float32Array(size * size * 3);
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < size * size; i++) {
    offsets[i * 3] = x.data[i] / side;
    offsets[i * 3 + 1] = y.data[i] / side;
    const out = (z.data[i] - ground) / side;
    offsets[i * 3 + 2] = out;
    low = Math.min(low, out);
    high = Math.max(high, out);
  }
  return { size, offsets, relief: high - low, folded };
}

function borderMedian({ width, height, data }: Picture): number {
  const border: number[] = [];
  for (let i = 0; i < width; i++) border.push(data[i], data[(height - 1) * width + i]);
  for (let j = 0; j < height; j++) border.push(data[j * width], data[j * width + width - 1]);
  return Float32Array.from(border).sort()[border.length >> 1];
}
