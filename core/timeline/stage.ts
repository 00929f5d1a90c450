/** What the steps of a history change: a surface, what is known of it untouched, and what lies beside it. */
import { buildMesh, maskIn, maskOut, plane, positionsOut, type RawMesh } from '#core/mesh';
import { atlas, Places, type Painting } from '#core/paint';
import type { Pieces } from '#core/scene';
import { SLAB_SIDE } from '#core/settings';
import { finish, surface, type Surface } from '#core/sculpt';
import { follow, unwatched } from './following';

export interface Stage {
  surface: Surface;
  /** Places of the untouched body, ordered as the surface's vertices; null where nobody will ask for them. */
  base: Float32Array | null;
  /** Of a slab. */
  level: Level | null;
  /** Parts that were set down on it. */
  pieces: Pieces;
  /** What is painted on it; null while nothing is. */
  painting: Painting | null;
  /** Where texels lie on the surface, once a stroke asked for it. */
  places: Places | null;
  /** What lies beside the clay, as text that whoever opened it reads: placements, references, the frame. */
  beside: string | null;
}

/** The level of a slab that is sculpted: a square grid of (cells + 1)² vertices. */
export interface Level {
  cells: number;
  /** Those that were stepped down from, finest first. */
  upper: readonly UpperLevel[];
}

/** Where texels of the painting lie on the surface now. Throws a sentence where it can’t be painted on. */
export function placesOn(stage: Pick<Stage, 'surface' | 'painting' | 'places'>): Places {
  const { surface, painting } = stage;
  const { mesh } = surface;
  if (!painting) throw new Error('This body has no texture yet.');
  if (stage.places?.atlas.mesh !== mesh || stage.places.atlas.size !== painting.size)
    stage.places = new Places(atlas(mesh, mesh.carried?.coordinates, painting.size));
  return stage.places;
}

export interface UpperLevel {
  cells: number;
  /** Places of this level when it was left. */
  fine: Float32Array;
  /** Places of the level below as they were then. */
  base: Float32Array;
}

/** A mesh as it stood, from which it is fitted out again to the byte. Arrays are in its maker's order. */
export interface MeshSnapshot {
  /** Null for the grid of the level. */
  raw: RawMesh | null;
  /** Null where the clay lies as its maker gave it. */
  places: Float32Array | null;
  /** Null where nothing is masked. */
  mask: Float32Array | null;
  base: Float32Array | null;
  /** Mean distance from vertex to vertex that alphas are read for; null for the mesh's own. */
  spacing: number | null;
  level: Level | null;
}

/** The mesh of the stage as it stands. */
export function snapshot({ surface: { mesh, spacing }, base, level }: Stage): MeshSnapshot {
  const masked = mesh.mask.some((m) => m !== 0);
  if (level)
    return {
      raw: null,
      places: positionsOut(mesh),
      mask: masked ? maskOut(mesh) : null,
      base: null,
      spacing: null,
      level,
    };
  const positions = mesh.positions.slice();
  // A body is fitted out by its untouched places, so that it comes out in the order in which it lies now.
  return {
    raw: { positions: base ?? positions, triangles: mesh.triangles.slice(), carried: mesh.carried },
    places: base && positions,
    mask: masked ? mesh.mask.slice() : null,
    base,
    spacing,
    level: null,
  };
}

/** Lays a kept mesh out. Throws OutOfMemory and StepCancelled, and changes nothing. */
export function stageOf(snapshot: MeshSnapshot, onProgress = unwatched): Pick<Stage, 'surface' | 'base' | 'level'> {
  const { raw, places, mask, base, spacing, level } = snapshot;
  const mesh = buildMesh(raw ?? plane(level!.cells, SLAB_SIDE), { unfinished: true, ...(places ? { places } : {}) });
  if (mask) maskIn(mesh, mask);
  follow(onProgress, 0.7);
  const fitted = finish(surface(mesh));
  follow(onProgress, 1);
  if (spacing !== null) fitted.spacing = spacing;
  return { surface: fitted, base: base && inOrder(base, mesh.order), level };
}

export function snapshotBytes({ raw, places, mask, base }: MeshSnapshot): number {
  const arrays = [raw?.triangles, raw && raw.positions !== base ? raw.positions : null, places, mask, base];
  return arrays.reduce((sum, array) => sum + (array?.byteLength ?? 0), 0);
}

function inOrder(places: Float32Array, order: Uint32Array): Float32Array {
  const out = new Float32Array(places.length);
  for (let i = 0; i < order.length; i++) {
    const from = order[i] * 3;
    out[i * 3] = places[from];
    out[i * 3 + 1] = places[from + 1];
    out[i * 3 + 2] = places[from + 2];
  }
  return out;
}
