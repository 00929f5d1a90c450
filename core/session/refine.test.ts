import type { ResolvedBrush } from '#core/brush';
import { body, buildMesh, plane, weld } from '#core/mesh';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY, type RefineUnder, type StrokeStart } from '#core/stroke';
import {
  abandon,
  beginStroke,
  canUndo,
  endStroke,
  extendStroke,
  makeEdit,
  maskLastRaised,
  redo,
  refineRunning,
  refineUnderAll,
  refineUnderLast,
  replay,
  retrace,
  session,
  takeUpSteps,
  undo,
  type Session,
  type StrokeSummary,
} from './index';
import { down, start, testBrush } from './testKit';

const bell = (size: number): ResolvedBrush =>
  testBrush({
    touch: { falloff: { kind: 'bell', hold: 0, nodes: [] } },
    form: { depth: 40 },
    stroke: { type: 'press', size },
  });
const fine = bell(0.3);
const asked: RefineUnder = { edge: 0.03, most: 1e6 };

function ball(density = 12): Session {
  return session(surface(buildMesh(body('ball', density))), { replay: true });
}

function stamp(
  s: Session,
  x: number,
  y: number,
  refine: RefineUnder | null,
  more: Partial<StrokeStart> = {},
): StrokeSummary {
  beginStroke(s, start(fine, more));
  extendStroke(s, [down(x, y)]);
  return endStroke(s, refine);
}

/** A body and the same one with a stroke for which its triangles were split and joined. */
function stamped(): { coarse: Session; s: Session } {
  const s = ball();
  const { under } = stamp(s, 0.1, 0.1, asked);
  expect(refineUnderLast(s, under!)).toBe(true);
  return { coarse: ball(), s };
}

const bytes = ({ surface: { mesh } }: Session): unknown[] => [
  mesh.positions.slice(),
  mesh.normals.slice(),
  mesh.mask.slice(),
  mesh.triangles.slice(),
];

const places = (s: Session): number[][] =>
  Array.from({ length: s.surface.mesh.vertexCount }, (_, v) =>
    Array.from(s.surface.mesh.positions.subarray(v * 3, v * 3 + 3)),
  );
const near = (s: Session, x: number, y: number, reach: number): number =>
  places(s).filter(([a, b, c]) => c > 0 && Math.hypot(a - x, b - y) < reach).length;

test('the stroke lies on finer clay, the rest of the body is as it was, to the number', () => {
  const { coarse, s } = stamped();
  expect(s.done).toHaveLength(1);
  expect(s.surface.mesh.vertexCount).toBeGreaterThan(coarse.surface.mesh.vertexCount + 100);
  const behind = (of: Session): string[] =>
    places(of)
      .filter(([, , z]) => z < -0.3)
      .map(String)
      .sort();
  expect(behind(s)).toEqual(behind(coarse));
  expect(s.surface.mesh.positions.every(Number.isFinite)).toBe(true);
  const { open } = weld({ positions: s.surface.mesh.positions.slice(), triangles: s.surface.mesh.triangles });
  expect(open).toBe(0);
});

test('undo takes the stroke off and brings the former triangles back, redo the finer ones, to the byte', () => {
  const s = ball();
  const untouched = bytes(s);
  stamp(s, -0.5, 0.2, null);
  makeEdit(s, { kind: 'mask-invert' });
  makeEdit(s, { kind: 'mask-clear' });
  const before = bytes(s);
  refineUnderLast(s, stamp(s, 0.1, 0.1, asked).under!);
  const finer = bytes(s);
  refineUnderLast(s, stamp(s, 0.3, 0.1, asked).under!);
  const finest = bytes(s);
  undo(s);
  expect(bytes(s)).toEqual(finer);
  undo(s);
  expect(bytes(s)).toEqual(before);
  while (undo(s));
  expect(bytes(s)).toEqual(untouched);
  while (redo(s));
  expect(bytes(s)).toEqual(finest);
});

test('a mask stays where it was on the finer clay', () => {
  const s = ball();
  beginStroke(s, start(testBrush({ touch: { action: 'mask' }, stroke: { type: 'press', size: 0.5 } })));
  extendStroke(s, [down(-0.2, 0)]);
  endStroke(s);
  const masked = (of: Session): number =>
    of.surface.mesh.mask.reduce((sum, m) => sum + (m > 0.5 ? 1 : 0), 0) / of.surface.mesh.vertexCount;
  const before = masked(s);
  expect(before).toBeGreaterThan(0.02);
  refineUnderLast(s, stamp(s, 0.1, 0.1, { edge: 0.06, most: 1e6 }).under!);
  const { positions: p, mask } = s.surface.mesh;
  const inside = Array.from(mask, (m, v) => [m, Math.hypot(p[v * 3] + 0.2, p[v * 3 + 1]), p[v * 3 + 2]] as const)
    .filter(([, r, z]) => z > 0 && r < 0.15)
    .map(([m]) => m);
  expect(inside.length).toBeGreaterThan(5);
  expect(Math.min(...inside)).toBeGreaterThan(0.5);
});

test('what the stroke raised is masked on the finer clay too', () => {
  const { s } = stamped();
  expect(maskLastRaised(s)).toBe(true);
  expect(s.surface.mesh.mask.some((m) => m === 1)).toBe(true);
});

test('a body that is fine already is left alone', () => {
  const dense = session(surface(buildMesh(plane(64, 2))), { replay: true });
  const { under } = stamp(dense, 0, 0, { edge: 0.035, most: 1e6 });
  expect(refineUnderLast(dense, under!)).toBe(false);
});

test('a stroke that asks for nothing says nothing, and so does one that touched nothing', () => {
  expect(stamp(ball(), 0, 0, null).under).toBeNull();
  expect(stamp(ball(), 3, 3, asked).under).toBeNull();
});

test('the clay under a mirrored copy becomes as fine as under the stroke', () => {
  const s = ball(24);
  const coarse = ball(24);
  refineUnderLast(s, stamp(s, 0.45, 0, asked, { symmetry: { ...NO_SYMMETRY, mirrorX: true } }).under!);
  expect(near(s, 0.45, 0, 0.15)).toBeGreaterThan(near(coarse, 0.45, 0, 0.15) * 3);
  expect(near(s, -0.45, 0, 0.15) / near(s, 0.45, 0, 0.15)).toBeCloseTo(1, 0);
});

test('a stroke that was undone can still be redone when all are refined anew', () => {
  const s = ball();
  const { under } = stamp(s, 0.1, 0.1, asked);
  stamp(s, -0.3, 0, null);
  undo(s);
  expect(refineUnderAll(s, [under!])).toBe(true);
  expect(redo(s)).toBe(true);
  expect(s.done).toHaveLength(2);
});

test('on the same body at another density the strokes ask for it again', () => {
  const { s } = stamped();
  const denser = ball(20);
  const under = takeUpSteps(
    denser,
    s.done.map((d) => d.step),
  );
  expect(under).toHaveLength(1);
  refineUnderAll(denser, under);
  expect(near(denser, 0.1, 0.1, 0.2) / near(s, 0.1, 0.1, 0.2)).toBeCloseTo(1, 0);
  expect(denser.surface.spacing).toBeLessThanOrEqual(asked.edge);
});

test('a brush that has grown asks for more when its strokes are run again; run once more, for hardly any', () => {
  const { s } = stamped();
  const larger = bell(0.5);
  const before = near(s, 0.1, 0.1, 0.45);
  expect(refineUnderAll(s, replay(s, new Map([[larger.id, larger]])))).toBe(true);
  expect(near(s, 0.1, 0.1, 0.45)).toBeGreaterThan(before * 1.5);
  const grown = s.surface.mesh.vertexCount;
  refineUnderAll(s, replay(s, new Map()));
  expect(s.surface.mesh.vertexCount / grown).toBeCloseTo(1, 1);
});

test('where two strokes cross that ask for different edges, the finer holds', () => {
  const edges = [0.02, 0.06];
  const crossed = (order: readonly number[], most: number): number => {
    const s = ball();
    const under = edges.map((edge, i) => stamp(s, i / 10, 0, { edge, most: 1e6 }).under!);
    refineUnderAll(
      s,
      order.map((i) => under[i]).filter(({ refine: { edge } }) => edge <= most),
    );
    return near(s, 0, 0, 0.15);
  };
  const both = crossed([0, 1], 1);
  expect(crossed([1, 0], 1)).toBe(both);
  const s = ball();
  stamp(s, 0, 0, null);
  refineUnderAll(s, [stamp(s, 0.1, 0, { edge: 0.06, most: 1e6 }).under!]);
  expect(both).toBeGreaterThan(near(s, 0, 0, 0.15) * 4);
});

describe('beyond the budget of undo', () => {
  test('what was dropped is made again from the untouched body, refined as it was', () => {
    const s = session(surface(buildMesh(body('ball', 12))), { replay: true, undoLimit: 1 });
    const states = [bytes(s)];
    for (const [x, y, refine] of [
      [0.1, 0.1, asked],
      [-0.3, 0.2, null],
      [0.2, -0.3, asked],
    ] as const) {
      const { under } = stamp(s, x, y, refine);
      if (under) refineUnderLast(s, under);
      states.push(bytes(s));
    }
    expect(s.done.map(({ before }) => before === null)).toEqual([true, true, false]);
    for (let n = 2; n >= 0; n--) {
      expect(canUndo(s)).toBe(true);
      expect(undo(s)).toBe(true);
      expect(bytes(s)).toEqual(states[n]);
    }
    expect(canUndo(s)).toBe(false);
    for (let n = 1; n <= 3; n++) {
      expect(redo(s)).toBe(true);
      expect(bytes(s)).toEqual(states[n]);
    }
  });
});

test.each([
  ['one triangle', [0, 1, 2], [-1, -1, 0, 1, -1, 0, 0, 1, 0]],
  ['two triangles that hang by a corner', [0, 1, 2, 0, 3, 4], [0, 0, 0, 1, 0, 0, 0, 1, 0, -1, 0, 0, 0, -1, 0]],
  ['three triangles on one edge', [0, 1, 2, 0, 1, 3, 0, 1, 4], [0, -1, 0, 0, 1, 0, 1, 0, 0, -1, 0, 0, 0, 0, 1]],
])('%s is a body that can be stroked, refined and undone', (_, triangles, positions) => {
  const s = session(
    surface(buildMesh({ positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) })),
    { replay: true },
  );
  const untouched = s.surface.mesh.positions.slice();
  for (const action of ['lift', 'smooth', 'inflate', 'crease'] as const) {
    beginStroke(s, start(testBrush({ touch: { action }, stroke: { size: 0.8 } })));
    extendStroke(s, [down(0.1, 0.1), down(-0.1, -0.1)]);
    const { under } = endStroke(s, { edge: 0.3, most: 500 });
    expect(s.surface.mesh.positions.every(Number.isFinite)).toBe(true);
    if (under) refineUnderLast(s, under);
    expect(s.surface.mesh.positions.every(Number.isFinite)).toBe(true);
    while (undo(s));
    expect(s.surface.mesh.positions).toEqual(untouched);
  }
});

describe('while a stroke is drawn', () => {
  const route = (from: number, to: number) =>
    Array.from({ length: 9 }, (_, i) => down(from + ((to - from) * i) / 8, 0.1));
  const trail = testBrush({
    touch: { falloff: { kind: 'bell', hold: 0, nodes: [] } },
    form: { depth: 40 },
    stroke: { type: 'trail', size: 0.18, spacing: 40 },
  });

  /** How the clay would be had the stroke been drawn on the mesh that is shown from the beginning. */
  function drawnOn(shown: Session, first: Session, samples: ReturnType<typeof route>): Session {
    const { surface: at, base } = shown;
    const other = session(surface(buildMesh({ positions: base!.slice(), triangles: at.mesh.triangles.slice() })), {
      replay: true,
    });
    other.surface.spacing = at.spacing;
    takeUpSteps(
      other,
      first.done.map((d) => d.step),
    );
    beginStroke(other, start(trail));
    extendStroke(other, samples);
    return other;
  }

  test('it lies on finer clay as if it had been drawn there, and goes on to the same as in one go', () => {
    const s = ball();
    beginStroke(s, start(trail));
    extendStroke(s, route(-0.3, 0));
    const coarse = s.surface.mesh.vertexCount;
    expect(refineRunning(s, asked)).toBe(true);
    expect(s.surface.mesh.vertexCount).toBeGreaterThan(coarse + 50);
    expect(s.running!.record.samples).toHaveLength(9);
    const other = drawnOn(s, ball(), [...route(-0.3, 0), ...route(0.05, 0.3)]);
    extendStroke(s, route(0.05, 0.3));
    expect(places(s).map(String).sort()).toEqual(places(other).map(String).sort());
  });

  test.each([
    ['ended', (s: Session) => void endStroke(s)],
    ['abandoned', (s: Session) => void abandon(s)],
    ['taken back while it is drawn', (s: Session) => void undo(s)],
  ])('%s, the clay is as if it had never been shown on finer clay', (_, leave) => {
    const s = ball();
    const alone = ball();
    for (const one of [s, alone]) {
      stamp(one, -0.4, -0.4, null);
      beginStroke(one, start(trail));
      extendStroke(one, route(-0.3, 0));
    }
    expect(refineRunning(s, asked)).toBe(true);
    extendStroke(s, route(0.05, 0.2));
    refineRunning(s, asked);
    extendStroke(alone, route(0.05, 0.2));
    for (const one of [s, alone]) {
      extendStroke(one, route(0.2, 0.3));
      leave(one);
    }
    expect(bytes(s)).toEqual(bytes(alone));
    while (undo(s));
    expect(bytes(s)).toEqual(bytes(ball()));
  });

  test('clay that is fine already, no stroke, and a path that is laid whole are left alone', () => {
    const s = ball();
    expect(refineRunning(s, asked)).toBe(false);
    beginStroke(s, start(testBrush({ stroke: { type: 'path', size: 0.18 } })));
    retrace(s, route(-0.3, 0.3));
    expect(refineRunning(s, asked)).toBe(false);
    beginStroke(s, start(trail));
    extendStroke(s, route(-0.3, 0));
    refineRunning(s, asked);
    const once = s.surface.mesh.vertexCount;
    refineRunning(s, asked);
    expect(s.surface.mesh.vertexCount).toBeLessThan(once * 1.1);
  });
});
