/**
 * Triangles split and joined where strokes ask for it: another mesh takes the place of the one that is sculpted, and
 * that is part of the stroke's step. Under the hand, at release and for all strokes at once it is the same change.
 */
import type { DabFrame } from '#core/brush';
import { COPY_MASK, COPY_PLACES, LEAF, refine, type Companions, type RawMesh } from '#core/mesh';
import { restore, type Before } from '#core/sculpt';
import type { RefineUnder } from '#core/stroke';
import { snapshot, stageOf, replaceLast, type MeshSnapshot, type Stage } from '#core/timeline';
import { changesOf, rewind, runSamples, runWhole } from './runner';
import { begun, underOf, type Session } from './session';
import type { Under } from './steps';

/** A hair more than the dab, so that its rim is fine too. */
const ROOM = 1.08;

/**
 * The clay under the last stroke, which asked for it, is refined as it stands now, and the stroke laid on it again; its
 * undo brings the former mesh back. False when nothing had to be changed. Throws OutOfMemory and changes nothing.
 */
export function refineUnderLast(s: Session, under: Under): boolean {
  const last = s.done.at(-1);
  const change = last?.before?.[0];
  if (last?.step.kind !== 'stroke' || change?.kind !== 'leaves') return false;
  const { record } = last.step;
  const finer = refinedMesh(s, stoodBefore(s, change.leaves), [under]);
  if (!finer) return false;
  const next = stageOf(finer);
  const [on] = changesOf(runWhole(next.surface, record));
  restore(s.surface, change.leaves);
  const mesh = snapshot(s);
  s.origin ??= { ...mesh, places: null, mask: null };
  Object.assign(s, next);
  replaceLast(s, [{ kind: 'mesh', mesh, on: on?.kind === 'leaves' ? on.leaves : null }]);
  return true;
}

/**
 * Shows the running stroke on clay that is refined under what was laid of it so far; false when nothing had to be
 * changed. At its end, or given up, it is on the clay that it began on again.
 */
export function refineRunning(s: Session, asked: RefineUnder): boolean {
  const { running } = s;
  if (!running || running.whole || running.record.on || !s.base) return false;
  const under = underOf(running.runner, { ...running.record, refine: asked });
  const finer = under && refinedMesh(s, startOf(s), [under]);
  if (!finer) return false;
  const next = stageOf(finer);
  const again = begun(
    { ...s, surface: next.surface },
    running.record,
    running.began ?? { surface: s.surface, base: s.base },
  );
  runSamples(again.runner, running.record.samples);
  if (!running.began) rewind(running.runner);
  Object.assign(s, next, { running: again });
  return true;
}

/** How the clay stood before a step: places and masks in the order of the mesh. */
interface Stood {
  places: Float32Array;
  /** Null for no mask. */
  mask: Float32Array | null;
}

function stoodBefore({ surface: { mesh } }: Stage, { leaves, positions, mask }: Before): Stood {
  const out = { places: mesh.positions.slice(), mask: mesh.mask.slice() };
  leaves.forEach((leaf, i) => {
    const first = leaf * LEAF;
    const own = Math.min(LEAF, mesh.vertexCount - first);
    out.places.set(positions.subarray(i * LEAF * 3, (i * LEAF + own) * 3), first * 3);
    if (mask) out.mask.set(mask.subarray(i * LEAF, i * LEAF + own), first);
  });
  return out;
}

/** How the clay stood when the running stroke began. */
function startOf({ surface: { mesh, start } }: Stage): Stood {
  const out = { places: mesh.positions.slice(), mask: mesh.mask.slice() };
  for (const leaf of start.leaves.subarray(0, start.count)) {
    const first = leaf * LEAF;
    const own = Math.min(LEAF, mesh.vertexCount - first);
    const word = start.copyAt[leaf] >> 2;
    out.places.set(start.heap.subarray(word + COPY_PLACES, word + COPY_PLACES + own * 3), first * 3);
    out.mask.set(start.heap.subarray(word + COPY_MASK, word + COPY_MASK + own), first);
  }
  return out;
}

/** The mesh refined where the dabs lie, with the clay as it stood; null when nothing had to be changed. */
export function refinedMesh({ surface, base }: Stage, stood: Stood, places: readonly Under[]): MeshSnapshot | null {
  const { positions, triangles, carried, vertexCount } = surface.mesh;
  const fresh = stood.places.every((x, i) => x === base![i]);
  let now: { mesh: RawMesh; along: Companions } = {
    mesh: { positions: positions.slice(), triangles: triangles.slice(), carried },
    along: { places: fresh ? [base!] : [base!, stood.places], values: [stood.mask ?? new Float32Array(vertexCount)] },
  };
  let changed = false;
  // From coarse to fine, so that where strokes cross the finest stays.
  for (const [edge, { frames, most }] of [...byEdge(places)].sort((a, b) => b[0] - a[0])) {
    const next = refine(now.mesh, now.along, { edge, most, inside: insideOf(frames) });
    if (next.split > 0 || next.joined > 0) changed = true;
    now = next;
  }
  if (!changed) return null;
  const [untouched, before = null] = now.along.places as [Float32Array, Float32Array?];
  return {
    raw: { ...now.mesh, positions: untouched },
    places: before,
    mask: now.along.values[0],
    base: untouched,
    // Alphas are read as finely as the finest clay can show them.
    spacing: Math.min(surface.spacing, ...places.map(({ refine: { edge } }) => edge)),
    level: null,
  };
}

function byEdge(places: readonly Under[]): Map<number, { frames: DabFrame[]; most: number }> {
  const out = new Map<number, { frames: DabFrame[]; most: number }>();
  for (const {
    frames,
    refine: { edge, most },
  } of places) {
    const same = out.get(edge);
    out.set(
      edge,
      same ? { frames: [...same.frames, ...frames], most: Math.max(same.most, most) } : { frames: [...frames], most },
    );
  }
  return out;
}

/** Whether a point lies under one of the dabs. */
function insideOf(frames: readonly DabFrame[]): (x: number, y: number, z: number) => boolean {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (const { origin, radius } of frames) {
    for (let k = 0; k < 3; k++) {
      low[k] = Math.min(low[k], origin[k] - radius * ROOM);
      high[k] = Math.max(high[k], origin[k] + radius * ROOM);
    }
  }
  return (x, y, z) => {
    if (x < low[0] || y < low[1] || z < low[2] || x > high[0] || y > high[1] || z > high[2]) return false;
    return frames.some(
      ({ origin: o, radius }) => (x - o[0]) ** 2 + (y - o[1]) ** 2 + (z - o[2]) ** 2 < (radius * ROOM) ** 2,
    );
  };
}
