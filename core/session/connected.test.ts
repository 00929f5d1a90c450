import { plane, type RawMesh } from '#core/mesh';
import { STROKE_TYPES } from '#core/settings';
import { NO_SYMMETRY } from '#core/stroke';
import { slabSession, start, stroke, testBrush } from './testKit';
import { beginStroke, endStroke, extendStroke, type Session } from './index';

/** Two tiles that face up, one under the other, and don’t hang together. */
function twoTiles(): RawMesh {
  const { positions, triangles } = plane(48, 2);
  const below = positions.map((c, i) => (i % 3 === 2 ? -0.05 : c));
  const count = positions.length / 3;
  return {
    positions: Float32Array.from([...positions, ...below]),
    triangles: Uint32Array.from([...triangles, ...triangles.map((v) => v + count)]),
  };
}

/** A sheet folded like an S: two ledges that face up, one over the other, and between them one that faces down. */
function folded(): RawMesh {
  const { positions, triangles } = plane(48, 2);
  const out = positions.slice();
  for (let v = 0; v < out.length; v += 3) {
    const along = (positions[v] + 1) / 2;
    const fold = Math.max(0, Math.min(1, (along - 0.4) / 0.2));
    const forward = along < 0.4 ? along : along < 0.6 ? 0.4 - (along - 0.4) : along - 0.4;
    out[v] = forward * 2 - 0.4;
    out[v + 2] = fold * 0.1;
  }
  return { positions: out, triangles };
}

const risen = (s: Session, under: number): { above: number; below: number } => {
  const { positions: p } = s.surface.mesh;
  let [above, below] = [0, 0];
  for (let v = 0; v < p.length; v += 3) {
    if (p[v + 2] > 1e-6) above++;
    else if (p[v + 2] > under + 1e-6 && p[v + 2] < -1e-6) below++;
  }
  return { above, below };
};
const brush = (takes: 'auto' | 'connected' | 'all', type: (typeof STROKE_TYPES)[number] = 'press') =>
  testBrush({ touch: { takes }, stroke: { type, size: 0.3 }, form: { depth: 3 } });

test.each([
  ['connected', 'press', false],
  ['all', 'press', true],
  ['auto', 'press', false],
  ['auto', 'trail', true],
  ['connected', 'trail', false],
] as const)('takes %s with %s: the tile below moves: %p', (takes, type, moves) => {
  const s = slabSession(twoTiles());
  stroke(s, brush(takes, type), [
    [0.1, 0.1],
    [0.15, 0.1],
  ]);
  const { above, below } = risen(s, -0.05);
  expect(above).toBeGreaterThan(20);
  expect(below > 0).toBe(moves);
});

test('grow and pull take by themselves only what hangs together', () => {
  for (const type of ['grow', 'pull'] as const) {
    const s = slabSession(twoTiles());
    beginStroke(s, start(brush('auto', type)));
    extendStroke(s, [
      { origin: [0, 0, 5], direction: [0, 0, -1] },
      { origin: [0.2, 0.2, 5], direction: [0, 0, -1] },
    ]);
    endStroke(s);
    expect(risen(s, -0.05)).toMatchObject({ below: 0 });
    expect(risen(s, -0.05).above).toBeGreaterThan(0);
  }
});

test('each copy under symmetry takes what hangs together at its own place', () => {
  const s = slabSession(twoTiles());
  stroke(s, brush('connected'), [[0.4, 0.1]], { symmetry: { ...NO_SYMMETRY, mirrorX: true } });
  const { positions: p } = s.surface.mesh;
  const sides = [0, 0];
  for (let v = 0; v < p.length; v += 3) if (p[v + 2] > 1e-6) sides[p[v] > 0 ? 1 : 0]++;
  expect(sides[0]).toBeGreaterThan(20);
  expect(sides[0]).toBe(sides[1]);
  expect(risen(s, -0.05).below).toBe(0);
});

test('what hangs together over a fold that is turned away is taken on both ledges', () => {
  const counts = (['connected', 'all'] as const).map((takes) => {
    const s = slabSession(folded());
    return stroke(s, brush(takes), [[0.3, 0]]).touched;
  });
  expect(counts[0]).toBeGreaterThan(50);
  expect(counts[0]).toBe(counts[1]);
});

test('on one sheet it makes no difference, whatever the stroke', () => {
  for (const type of STROKE_TYPES.filter((t) => t !== 'path')) {
    const [one, other] = (['connected', 'all'] as const).map((takes) => {
      const s = slabSession();
      stroke(s, brush(takes, type), [
        [-0.3, 0],
        [0.1, 0.2],
        [0.4, -0.1],
      ]);
      return s.surface.mesh.positions;
    });
    expect(one).toEqual(other);
  }
});
