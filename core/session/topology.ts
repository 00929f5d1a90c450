/** A session on another mesh of the same body: triangles split and joined where its last stroke went. */
import type { DabFrame } from '#core/brush';
import { buildMesh, refine } from '#core/mesh';
import { finish, surface } from '#core/sculpt';
import { session, takeUp, type Session } from './session';

export interface RefineUnder {
  /** Length that edges take, body units. */
  edge: number;
  /** No more than this many triangles. */
  most: number;
}

/** A hair more than the dab, so that its rim is fine too. */
const ROOM = 1.08;

/**
 * The untouched body is refined where the dabs lie, as the clay stands now, and every step is run again on it. Null when
 * nothing had to be changed. The session must keep its untouched body; its own mesh stays as it is.
 */
export function refinedUnder(s: Session, frames: readonly DabFrame[], { edge, most }: RefineUnder): Session | null {
  if (!s.base) throw new Error('This session keeps no untouched body to refine.');
  const { mesh } = s.surface;
  const { mesh: { triangles }, along, split, joined } = refine(
    { positions: mesh.positions.slice(), triangles: mesh.triangles.slice() }, s.base, { edge, most, inside: insideOf(frames) },
  );
  if (split === 0 && joined === 0) return null;
  const next = session(finish(surface(buildMesh({ positions: along, triangles }, { unfinished: true }))), { replay: true });
  // Alphas are read as finely as the finest clay can show them.
  next.surface.spacing = Math.min(s.surface.spacing, edge);
  takeUp(next, s.done.map((d) => d.step));
  return next;
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
    return frames.some(({ origin: o, radius }) => (x - o[0]) ** 2 + (y - o[1]) ** 2 + (z - o[2]) ** 2 < (radius * ROOM) ** 2);
  };
}
