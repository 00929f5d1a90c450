/**
 * Refine: splits and joins triangles where a stroke went, until their edges are about as long as asked.
 *
 * After M. Botsch and L. Kobbelt, on remeshing while a surface is modelled, SGP 2004: edges longer than 4/3 of the
 * aim are split, edges shorter than 4/5 of it are joined where that neither opens the surface nor turns a face over. All
 * splits of a pass are made at once, each triangle by the pattern of its long edges, so that no hole can appear. New
 * points follow the curvature (T. Boubekeur and M. Alexa, "Phong tessellation", 2008); across sharp edges they lie straight
 * between their ends. Borders and edges of more than two triangles are split, never joined. O(n) a pass.
 */
import type { RawMesh } from '../mesh';
import { joinPass } from './join';
import { splitPass } from './split';
import { turnEdges } from './turn';
import type { RefineOptions, Working } from './working';

export type { RefineOptions } from './working';

export interface Refined {
  mesh: RawMesh;
  /** Points that go along with the vertices, e.g. where they stood before the strokes. */
  along: Float32Array;
  split: number;
  joined: number;
}

const MOST_PASSES = 12;

/** `along` has three numbers a vertex, like the mesh's own positions. */
export function refine(mesh: RawMesh, along: Float32Array, options: RefineOptions): Refined {
  let at: Working = { positions: mesh.positions, along, triangles: mesh.triangles };
  let split = 0;
  let joined = 0;
  for (let pass = 0; pass < MOST_PASSES; pass++) {
    const next = splitPass(at, options);
    if (!next) break;
    split += (next.positions.length - at.positions.length) / 3;
    at = turnEdges(next, options);
  }
  for (let pass = 0; pass < MOST_PASSES; pass++) {
    const next = joinPass(at, options);
    if (!next) break;
    joined += (at.positions.length - next.positions.length) / 3;
    at = turnEdges(next, options);
  }
  return { mesh: { positions: at.positions, triangles: at.triangles }, along: at.along, split, joined };
}
