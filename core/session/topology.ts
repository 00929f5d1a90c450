/** A session on another mesh of the same body: triangles split and joined where its strokes ask for it. */
import type { DabFrame } from '#core/brush';
import { buildMesh, refine, type Refined } from '#core/mesh';
import { finish, surface } from '#core/sculpt';
import type { RefineUnder } from '#core/stroke';
import { beginStroke, extendStroke, session, takeUp, underRunning, type Session, type Under } from './session';

/** A hair more than the dab, so that its rim is fine too. */
const ROOM = 1.08;

/**
 * The untouched body is refined where the dabs lie, as the clay stands now, and every step is run again on it. Null
 * when nothing had to be changed. The session must keep its untouched body; its own mesh stays as it is.
 */
export function refinedUnder(s: Session, places: readonly Under[]): Session | null {
  if (!s.base) throw new Error('This session keeps no untouched body to refine.');
  const { mesh } = s.surface;
  let now: Pick<Refined, 'mesh' | 'along'> = {
    mesh: { positions: mesh.positions.slice(), triangles: mesh.triangles.slice(), carried: mesh.carried },
    along: { places: [s.base], values: [] },
  };
  let changed = false;
  // From coarse to fine, so that where strokes cross the finest stays.
  for (const [edge, { frames, most }] of [...byEdge(places)].sort((a, b) => b[0] - a[0])) {
    const next = refine(now.mesh, now.along, { edge, most, inside: insideOf(frames) });
    if (next.split > 0 || next.joined > 0) changed = true;
    now = next;
  }
  if (!changed) return null;
  const next = session(
    finish(surface(buildMesh({ ...now.mesh, positions: now.along.places[0]! }, { unfinished: true }))),
    { replay: true },
  );
  // Alphas are read as finely as the finest clay can show them.
  next.surface.spacing = Math.min(s.surface.spacing, ...places.map(({ refine: { edge } }) => edge));
  takeUp(
    next,
    s.done.map((d) => d.step),
  );
  next.undone = s.undone.slice();
  return next;
}

/**
 * The running stroke on clay that is refined under what was laid of it so far, everything before it run again; null
 * when nothing had to be changed. The session itself goes on as it was.
 */
export function refinedWhile(s: Session, refine: RefineUnder): Session | null {
  const under = underRunning(s, refine);
  const next = under && refinedUnder(s, [under]);
  if (!next) return null;
  const { samples, ...start } = s.running!.record;
  beginStroke(next, start);
  extendStroke(next, samples);
  return next;
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
      low[k] = Math.min(low[k]!, origin[k]! - radius * ROOM);
      high[k] = Math.max(high[k]!, origin[k]! + radius * ROOM);
    }
  }
  return (x, y, z) => {
    if (x < low[0]! || y < low[1]! || z < low[2]! || x > high[0]! || y > high[1]! || z > high[2]!) return false;
    return frames.some(
      ({ origin: o, radius }) => (x - o[0]) ** 2 + (y - o[1]) ** 2 + (z - o[2]) ** 2 < (radius * ROOM) ** 2,
    );
  };
}
