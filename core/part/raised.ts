/** A slab's form as a part: what stands out of the clay within the frame, with a flat back. O(triangles). */
import type { RawMesh } from '#core/mesh';
import { withTriangles } from '#core/scan';
import type { Frame } from '#core/settings';
import { withBack } from './back';
import { tidyRim } from './rim';

/** What rises by less than this share of the highest is ground. */
const GROUND_SHARE = 0.03;

/** Throws a sentence when nothing stands out. The slab's untouched plane is z = 0. */
export function raisedPart(clay: RawMesh, frame: Pick<Frame, 'x' | 'y' | 'turn' | 'side'>): RawMesh {
  const { positions: p, triangles } = clay;
  const turn = (frame.turn * Math.PI) / 180;
  const [c, s, half] = [Math.cos(turn), Math.sin(turn), frame.side / 2];
  const within = (v: number): boolean => {
    const [x, y] = [p[v * 3] - frame.x, p[v * 3 + 1] - frame.y];
    return Math.abs(x * c + y * s) <= half && Math.abs(y * c - x * s) <= half;
  };
  let highest = 0;
  for (let v = 0; v < p.length / 3; v++) if (p[v * 3 + 2] > highest && within(v)) highest = p[v * 3 + 2];
  const level = highest * GROUND_SHARE;
  const stands = (v: number): boolean => p[v * 3 + 2] > level && within(v);
  const sheet = withTriangles({ positions: p, triangles }, (t) => [0, 1, 2].every((k) => stands(triangles[t * 3 + k])));
  if (sheet.triangles.length === 0)
    throw new Error('Nothing in the frame stands out of the slab, so there is no part.');
  return withBack(tidyRim(sheet), { down: [0, 0, -1], level: 0, under: 0 });
}
