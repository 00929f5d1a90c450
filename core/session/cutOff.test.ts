import { body, buildMesh, plane, weld } from '#core/mesh';
import { surface } from '#core/sculpt';
import { beginStroke, cutOff, endStroke, extendStroke, maskLastRaised, replay, session, undo, type Session } from './session';
import { down, heightNear, slabSession, start, stroke, testBrush } from './testKit';
import { refinedUnder } from './topology';

const bytes = (s: Session) => s.surface.mesh.positions.slice();
const stamp = testBrush({ stroke: { type: 'press', size: 0.4 }, touch: { falloff: { kind: 'full', hold: 0, nodes: [] } } });

function volume(p: Float32Array, t: Uint32Array): number {
  let six = 0;
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [t[i]! * 3, t[i + 1]! * 3, t[i + 2]! * 3];
    six += p[a]! * (p[b + 1]! * p[c + 2]! - p[b + 2]! * p[c + 1]!) - p[a + 1]! * (p[b]! * p[c + 2]! - p[b + 2]! * p[c]!) + p[a + 2]! * (p[b]! * p[c + 1]! - p[b + 1]! * p[c]!);
  }
  return six / 6;
}

describe('cut off', () => {
  test('what a stamp raised is masked, and nothing else', () => {
    const s = slabSession();
    expect(maskLastRaised(s)).toBe(false);
    stroke(s, stamp, [[0, 0]]);
    expect(maskLastRaised(s)).toBe(true);
    const { mask, positions: p } = s.surface.mesh;
    mask.forEach((m, v) => expect(m).toBe(p[v * 3 + 2]! > 0 ? 1 : 0));
  });

  test('the piece is closed and faces outwards; its volume is that of the raised disc and its back', () => {
    const s = slabSession(plane(128, 2));
    stroke(s, stamp, [[0, 0]]);
    maskLastRaised(s);
    const piece = cutOff(s, 0.02)!;
    const { open, pieces, dropped } = weld(piece);
    expect([open, pieces, dropped]).toEqual([0, 1, 0]);
    // Radius 0.4, height 0.08 over the slab and 0.02 under it.
    const disc = Math.PI * 0.16 * 0.1;
    expect(volume(piece.positions, piece.triangles)).toBeGreaterThan(disc * 0.93);
    expect(volume(piece.positions, piece.triangles)).toBeLessThan(disc);
  });

  test('the body is untouched where the piece was; undo brings it back, replay cuts again', () => {
    const s = slabSession();
    const flat = bytes(s);
    stroke(s, stamp, [[0, 0]]);
    const raised = bytes(s);
    maskLastRaised(s);
    cutOff(s, 0.02);
    expect(bytes(s)).toEqual(flat);
    expect(s.surface.mesh.mask.every((m) => m === 0)).toBe(true);
    replay(s, new Map());
    expect(bytes(s)).toEqual(flat);
    undo(s);
    expect(bytes(s)).toEqual(raised);
  });

  test('several letters of one stroke come off together, each closed', () => {
    const s = slabSession(plane(128, 2));
    stroke(s, testBrush({ stroke: { type: 'trail', size: 0.1, spacing: 200 }, touch: { falloff: { kind: 'full', hold: 0, nodes: [] } } }), [[-0.6, 0], [0.6, 0]]);
    maskLastRaised(s);
    const { open, pieces } = weld(cutOff(s, 0.01)!);
    expect([open, pieces]).toEqual([0, 4]);
  });

  test('nothing masked is nothing to cut', () => {
    const s = slabSession();
    stroke(s, stamp, [[0, 0]]);
    expect(cutOff(s, 0.02)).toBeNull();
    expect(heightNear(s, 0, 0)).toBeGreaterThan(0);
  });
});

describe('refine under the brush', () => {
  const fine = testBrush({ stroke: { type: 'press', size: 0.3 }, touch: { falloff: { kind: 'bell', hold: 0, nodes: [] } }, form: { depth: 40 } });
  function stamped(): { s: Session; next: Session } {
    const s = session(surface(buildMesh(body('ball', 12))), { replay: true });
    beginStroke(s, start(fine));
    const { runner } = s.running!;
    extendStroke(s, [down(0.1, 0.1)]);
    endStroke(s);
    return { s, next: refinedUnder(s, runner.frames, { edge: 0.03, most: 1e6 })! };
  }

  test('the stroke lies on finer clay, the rest of the body is as it was', () => {
    const { s, next } = stamped();
    expect(next.done).toHaveLength(1);
    expect(next.surface.mesh.vertexCount).toBeGreaterThan(s.surface.mesh.vertexCount + 100);
    const behind = (of: Session): number => Array.from({ length: of.surface.mesh.vertexCount }, (_, v) => of.surface.mesh.positions[v * 3 + 2]!).filter((z) => z < -0.3).length;
    expect(behind(next)).toBe(behind(s));
    expect(next.surface.mesh.positions.every(Number.isFinite)).toBe(true);
    const { open } = weld({ positions: bytes(next), triangles: next.surface.mesh.triangles });
    expect(open).toBe(0);
  });

  test('undo takes the stroke off and leaves a ball; a body that is fine already is left alone', () => {
    const { next } = stamped();
    undo(next);
    const p = bytes(next);
    for (let i = 0; i < p.length; i += 3) expect(Math.hypot(p[i]!, p[i + 1]!, p[i + 2]!)).toBeGreaterThan(0.97);
    const dense = session(surface(buildMesh(plane(64, 2))), { replay: true });
    stroke(dense, fine, [[0, 0]]);
    expect(refinedUnder(dense, [{ origin: [0, 0, 0], normal: [0, 0, 1], tangent: [1, 0, 0], bitangent: [0, 1, 0], radius: 0.3 }], { edge: 0.035, most: 1e6 })).toBeNull();
  });
});

test.each([
  ['one triangle', [0, 1, 2], [-1, -1, 0, 1, -1, 0, 0, 1, 0]],
  ['two triangles that hang by a corner', [0, 1, 2, 0, 3, 4], [0, 0, 0, 1, 0, 0, 0, 1, 0, -1, 0, 0, 0, -1, 0]],
  ['three triangles on one edge', [0, 1, 2, 0, 1, 3, 0, 1, 4], [0, -1, 0, 0, 1, 0, 1, 0, 0, -1, 0, 0, 0, 0, 1]],
])('%s is a body that can be stroked, refined and undone', (_, triangles, positions) => {
  const s = session(surface(buildMesh({ positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) })), { replay: true });
  const untouched = bytes(s);
  for (const action of ['lift', 'smooth', 'inflate', 'crease'] as const) {
    beginStroke(s, start(testBrush({ touch: { action }, stroke: { size: 0.8 } })));
    const { runner } = s.running!;
    extendStroke(s, [down(0.1, 0.1), down(-0.1, -0.1)]);
    endStroke(s);
    expect(bytes(s).every(Number.isFinite)).toBe(true);
    const next = refinedUnder(s, runner.frames, { edge: 0.3, most: 500 });
    expect(next?.surface.mesh.positions.every(Number.isFinite) ?? true).toBe(true);
    while (undo(s));
    expect(bytes(s)).toEqual(untouched);
  }
});
