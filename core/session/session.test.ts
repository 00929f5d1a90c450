import { resolveBrush } from '#core/brush';
import { body, buildMesh, fitLeaf, plane, type Mesh } from '#core/mesh';
import { seeded } from '#core/random';
import { ACTIONS, MAPPINGS, newBrush, STROKE_TYPES } from '#core/settings';
import { drainChanged, surface } from '#core/sculpt';
import { NO_SYMMETRY } from '#core/stroke';
import {
  abandon,
  beginStroke,
  canUndo,
  clearStrokes,
  endStroke,
  extendStroke,
  redo,
  replay,
  session,
  undo,
  type Session,
} from './index';
import { BRUSH_ID, down, slabSession, start, stroke, testBrush, type BrushChange } from './testKit';

const bytes = (s: Session) => s.surface.mesh.positions.slice();
const press: BrushChange = {
  stroke: { type: 'press', size: 0.4 },
  touch: { falloff: { kind: 'full', hold: 0.5, nodes: [] } },
};
const trail: BrushChange = { stroke: { type: 'trail', size: 0.2 }, touch: { strength: 40 } };

describe('undo, redo, abandon', () => {
  test('undo restores the exact bytes of places, normals and boxes; redo the exact bytes of the stroke', () => {
    const s = slabSession();
    const states = [s.surface.mesh].map(allBytes);
    const brushes = [
      testBrush(press),
      testBrush(trail),
      testBrush({ touch: { action: 'smooth' } }),
      testBrush({ touch: { action: 'move' } }),
    ];
    for (const brush of brushes) {
      stroke(s, brush, [
        [-0.3, 0.1],
        [0.2, 0.3],
        [0.4, -0.2],
      ]);
      states.push(allBytes(s.surface.mesh));
    }
    for (let i = brushes.length - 1; i >= 0; i--) {
      expect(undo(s)).toBe(true);
      expect(same(allBytes(s.surface.mesh), states[i])).toBe(true);
    }
    expect(undo(s)).toBe(false);
    for (let i = 1; i <= brushes.length; i++) {
      expect(redo(s)).toBe(true);
      expect(same(allBytes(s.surface.mesh), states[i])).toBe(true);
    }
    expect(redo(s)).toBe(false);
  });

  test('an abandoned stamp leaves no trace', () => {
    const s = slabSession();
    const before = allBytes(s.surface.mesh);
    beginStroke(s, start(testBrush(press)));
    extendStroke(s, [down(0, 0), down(0.2, 0.1)]);
    expect(same(allBytes(s.surface.mesh), before)).toBe(false);
    abandon(s);
    expect(same(allBytes(s.surface.mesh), before)).toBe(true);
    expect(undo(s)).toBe(false);
  });

  test('a stroke that missed leaves no undo step; a new stroke clears redo', () => {
    const s = slabSession();
    stroke(s, testBrush(trail), [
      [5, 5],
      [6, 6],
    ]);
    expect(s.done).toHaveLength(0);
    stroke(s, testBrush(trail), [[0, 0]]);
    undo(s);
    stroke(s, testBrush(trail), [[0.5, 0]]);
    expect(redo(s)).toBe(false);
  });

  const strokes = (s: Session): void => {
    for (let i = 0; i < 6; i++)
      stroke(s, testBrush({ stroke: { size: 0.5 } }), [
        [i / 10, 0],
        [0, i / 10],
      ]);
  };

  test('what undo keeps beyond the limit is dropped, oldest first; without an untouched body it ends there', () => {
    const s = session(surface(buildMesh(plane(64, 2))), { replay: false, undoLimit: 100_000 });
    strokes(s);
    expect(s.undoBytes).toBeLessThanOrEqual(100_000);
    expect(s.done[0].before).toBeNull();
    let steps = 0;
    while (undo(s)) steps++;
    expect(steps).toBeGreaterThan(0);
    expect(steps).toBeLessThan(6);
    expect(canUndo(s)).toBe(false);
  });

  test('with an untouched body what was dropped is made again: every step is taken back', () => {
    const s = session(surface(buildMesh(plane(64, 2))), { replay: true, undoLimit: 100_000 });
    const untouched = bytes(s);
    strokes(s);
    const done = bytes(s);
    let steps = 0;
    while (undo(s)) steps++;
    expect(steps).toBe(6);
    expect(bytes(s)).toEqual(untouched);
    while (redo(s)) steps--;
    expect(bytes(s)).toEqual(done);
    expect(s.undoBytes).toBeLessThanOrEqual(100_000);
    clearStrokes(s);
    expect(bytes(s)).toEqual(untouched);
    expect(s.undoBytes).toBe(0);
  });
});

describe('replay', () => {
  test('equals the first run to the byte, and follows a changed setting', () => {
    const s = session(surface(buildMesh(body('ball', 32))), { replay: true });
    const rays = (x: number, y: number) => ({ origin: [x, y, 3], direction: [0, 0, -1] }) as const;
    const draw = (brush: ReturnType<typeof testBrush>) => {
      beginStroke(s, start(brush, { seed: 9 }));
      extendStroke(s, [rays(-0.4, 0), rays(0, 0.3), rays(0.4, 0)]);
      endStroke(s);
    };
    const first = testBrush({ stroke: { size: 0.15 }, drift: { across: 60 } });
    const other = { ...testBrush({ touch: { action: 'smooth' } }), id: 'other' };
    draw(first);
    draw(other);
    const once = bytes(s);
    replay(s, new Map());
    expect(bytes(s)).toEqual(once);
    const deeper = testBrush({ stroke: { size: 0.15 }, drift: { across: 60 }, form: { depth: 200 } });
    replay(s, new Map([[deeper.id, deeper]]));
    expect(bytes(s)).not.toEqual(once);
    const fresh = session(surface(buildMesh(body('ball', 32))), { replay: true });
    for (const brush of [deeper, other]) {
      beginStroke(fresh, start(brush, { seed: 9 }));
      extendStroke(fresh, [rays(-0.4, 0), rays(0, 0.3), rays(0.4, 0)]);
      endStroke(fresh);
    }
    expect(bytes(s)).toEqual(bytes(fresh));
    replay(s, new Map([[first.id, first]]));
    expect(bytes(s)).toEqual(once);
  });
});

test('a brush read from its stored form gives the same dab', () => {
  const brush = { ...newBrush(BRUSH_ID, 'Kept'), drift: { ...newBrush(BRUSH_ID, 'x').drift, across: 40 } };
  const again = JSON.parse(JSON.stringify(brush)) as typeof brush;
  const a = slabSession();
  const b = slabSession();
  stroke(a, resolveBrush(brush, null), [
    [0, 0],
    [0.5, 0.2],
  ]);
  stroke(b, resolveBrush(again, null), [
    [0, 0],
    [0.5, 0.2],
  ]);
  expect(bytes(a)).toEqual(bytes(b));
});

test('random strokes: no NaN, boxes hold what they should, the view hears of every change, undo is exact', () => {
  const random = seeded(11);
  const s = slabSession(plane(48, 2));
  const untouched = allBytes(s.surface.mesh);
  for (let i = 0; i < 40; i++) {
    const before = bytes(s);
    drainChanged(s.surface);
    const brush = testBrush({
      touch: {
        action: ACTIONS[i % ACTIONS.length],
        overlaps: random() < 0.5 ? 'even' : 'add',
        footing: random() * 100,
      },
      stroke: {
        type: STROKE_TYPES[i % STROKE_TYPES.length],
        mapping: MAPPINGS[Math.floor(random() * MAPPINGS.length)],
        size: 0.06 + random() * 0.4,
        spacing: 25 + random() * 100,
        taperStart: random() * 3,
        taperEnd: i % 3,
      },
      drift: { across: random() * 100, size: random() * 50, squash: random() * 60, flip: 50 },
      form: { footprint: random() < 0.5 ? 'round' : 'square', turn: random() * 360 - 180 },
    });
    const points = Array.from({ length: 5 }, () => [random() * 2.4 - 1.2, random() * 2.4 - 1.2] as const);
    stroke(s, brush, points, { seed: i, dig: random() < 0.4, symmetry: { ...NO_SYMMETRY, mirrorX: random() < 0.3 } });
    const heard = new Set(drainChanged(s.surface));
    const p = s.surface.mesh.positions;
    let unheard = 0;
    for (let k = 0; k < p.length; k++) if (p[k] !== before[k] && !heard.has(Math.floor(k / 768))) unheard++;
    expect(unheard).toBe(0);
    expect(p.some(Number.isNaN)).toBe(false);
  }
  const { mesh } = s.surface;
  const before = mesh.boxes.slice();
  for (let leaf = 0; leaf < mesh.leafCount; leaf++) fitLeaf(mesh, leaf);
  expect(mesh.boxes).toEqual(before);
  while (undo(s));
  expect(same(allBytes(mesh), untouched)).toBe(true);
});

/** A copy of everything that strokes change: places, normals, masks, boxes. */
function allBytes(mesh: Mesh): Uint8Array {
  const parts = [mesh.positions, mesh.normals, mesh.mask, mesh.boxes].map(
    (a) => new Uint8Array(a.buffer, a.byteOffset, a.byteLength),
  );
  const out = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}

function same(a: Uint8Array, b: Uint8Array): boolean {
  return a.length === b.length && a.every((x, i) => x === b[i]);
}
