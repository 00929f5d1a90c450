/**
 * Refine: splits and joins triangles where a stroke went, until their edges are about as long as asked.
 *
 * After M. Botsch and L. Kobbelt, on remeshing while a surface is modelled, SGP 2004: edges longer than 4/3 of the
 * aim are split, edges shorter than 4/5 of it are joined where that neither opens the surface nor turns a face over.
 * All splits of a pass are made at once, each triangle by the pattern of its long edges, so that no hole can appear.
 * New points follow the curvature (T. Boubekeur and M. Alexa, "Phong tessellation", 2008); across sharp edges they lie
 * straight between their ends. Texture coordinates run straight across a triangle; seams and the borders of groups are
 * split, never joined or turned. Borders and edges of more than two triangles are split, never joined. Passes cost what
 * may change, not what the mesh weighs.
 */
import type { RawMesh } from '../mesh';
import { joinPass } from './join';
import { patchOf, stitched } from './patch';
import { splitPass } from './split';
import { turnEdges } from './turn';
import type { Companions, RefineOptions, Working } from './working';

export type { Companions, RefineOptions } from './working';

export interface Refined {
  mesh: RawMesh;
  along: Companions;
  split: number;
  joined: number;
}

const MOST_PASSES = 12;
/** Rings of faces round the region that may change; splits go on to longer edges beside it, so it may take more. */
const RINGS = 4;

export function refine(mesh: RawMesh, along: Companions, options: RefineOptions): Refined {
  for (let rings = RINGS; ; rings *= 2) {
    const patch = patchOf(mesh, along, options.inside, rings);
    if (!patch) return { mesh, along, split: 0, joined: 0 };
    const done = refined(patch.working, { ...options, most: options.most - patch.rest.length / 3 });
    if (!done) continue;
    return { ...stitched(mesh, along, patch, done.working), split: done.split, joined: done.joined };
  }
}

/** Null when it would have to change more than this region. */
function refined(region: Working, options: RefineOptions): { working: Working; split: number; joined: number } | null {
  let at = region;
  let split = 0;
  let joined = 0;
  for (let pass = 0; pass < MOST_PASSES; pass++) {
    const next = splitPass(at, options);
    if (next === 'out') return null;
    if (!next) break;
    split += (next.positions.length - at.positions.length) / 3;
    at = turnEdges(next, everyVertex(next), options);
  }
  let fresh = everyVertex(at);
  for (let pass = 0; pass < MOST_PASSES; pass++) {
    const next = joinPass(at, fresh, options);
    if (!next) break;
    joined += (at.positions.length - next.working.positions.length) / 3;
    fresh = next.fresh;
    at = turnEdges(next.working, fresh, options);
  }
  return { working: at, split, joined };
}

function everyVertex({ ids }: Working): Uint8Array {
  return new Uint8Array(ids.length).fill(1);
}
