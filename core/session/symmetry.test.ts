import { body, buildMesh } from '#core/mesh';
import { ACTIONS } from '#core/settings';
import { surface } from '#core/sculpt';
import { copiesOf, copyPoint, NO_SYMMETRY } from '#core/stroke';
import { beginStroke, endStroke, extendStroke, session } from './index';
import { start, testBrush } from './testKit';

/** Height of the ball's clay along a direction from its middle, from the vertices nearest to it. */
function reachAlong(positions: Float32Array, direction: readonly number[]): number {
  let best = -2;
  let reach = 0;
  for (let v = 0; v < positions.length; v += 3) {
    const [x, y, z] = [positions[v], positions[v + 1], positions[v + 2]];
    const length = Math.hypot(x, y, z);
    const along = (x * direction[0] + y * direction[1] + z * direction[2]) / length;
    if (along > best) [best, reach] = [along, length];
  }
  return reach;
}

test.each(ACTIONS.filter((action) => !['mask', 'smooth', 'flatten'].includes(action)))(
  '%s on a ball under mirrors in all three and copies round the upright axis: each copy stands where it should',
  (action) => {
    const s = session(surface(buildMesh(body('ball', 64))), { replay: false });
    const brush = testBrush({ touch: { action }, stroke: { type: 'press', size: 0.16 }, form: { depth: 60 } });
    const symmetry = { ...NO_SYMMETRY, mirrorX: true, mirrorY: true, mirrorZ: true, axis: 'y', copies: 4 } as const;
    const at = [0.45, 0.4, Math.sqrt(1 - 0.45 ** 2 - 0.4 ** 2)] as const;
    beginStroke(s, start(brush, { symmetry }));
    extendStroke(s, [
      { origin: [at[0], at[1], 5], direction: [0, 0, -1] },
      { origin: [at[0] + 0.05, at[1], 5], direction: [0, 0, -1] },
    ]);
    endStroke(s);
    const { positions } = s.surface.mesh;
    const copies = copiesOf(symmetry);
    expect(copies).toHaveLength(16);
    const reaches = copies.map((copy) => reachAlong(positions, copyPoint(at, copy, symmetry)));
    // Vertices don't lie symmetric themselves, so the copies are alike but for the mesh.
    for (const reach of reaches) expect(Math.abs(reach - reaches[0])).toBeLessThan(0.02);
    if (action === 'lift') expect(reaches[0]).toBeGreaterThan(1.01);
  },
);
