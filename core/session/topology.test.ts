import type { ResolvedBrush } from '#core/brush';
import { body, buildMesh, plane, weld } from '#core/mesh';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY, type RefineUnder, type StrokeStart } from '#core/stroke';
import {
  beginStroke,
  endStroke,
  extendStroke,
  redo,
  replay,
  retrace,
  session,
  takeUp,
  undo,
  type Session,
  type StrokeSummary,
} from './session';
import { down, start, testBrush } from './testKit';
import { refinedUnder, refinedWhile } from './topology';

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

function stamped(): { s: Session; next: Session } {
  const s = ball();
  const { under } = stamp(s, 0.1, 0.1, asked);
  return { s, next: refinedUnder(s, [under!])! };
}

const places = (s: Session): number[][] =>
  Array.from({ length: s.surface.mesh.vertexCount }, (_, v) =>
    Array.from(s.surface.mesh.positions.subarray(v * 3, v * 3 + 3)),
  );
const near = (s: Session, x: number, y: number, reach: number): number =>
  places(s).filter(([a, b, c]) => c! > 0 && Math.hypot(a! - x, b! - y) < reach).length;

test('the stroke lies on finer clay, the rest of the body is as it was, to the number', () => {
  const { s, next } = stamped();
  expect(next.done).toHaveLength(1);
  expect(next.surface.mesh.vertexCount).toBeGreaterThan(s.surface.mesh.vertexCount + 100);
  const behind = (of: Session): string[] =>
    places(of)
      .filter(([, , z]) => z! < -0.3)
      .map(String)
      .sort();
  expect(behind(next)).toEqual(behind(s));
  expect(next.surface.mesh.positions.every(Number.isFinite)).toBe(true);
  const { open } = weld({ positions: next.surface.mesh.positions.slice(), triangles: next.surface.mesh.triangles });
  expect(open).toBe(0);
});

test('undo takes the stroke off and leaves a ball; a body that is fine already is left alone', () => {
  const { next } = stamped();
  undo(next);
  for (const place of places(next)) expect(Math.hypot(...place)).toBeGreaterThan(0.97);
  const dense = session(surface(buildMesh(plane(64, 2))), { replay: true });
  const { under } = stamp(dense, 0, 0, { edge: 0.035, most: 1e6 });
  expect(refinedUnder(dense, [under!])).toBeNull();
});

test('a stroke that asks for nothing says nothing, and so does one that touched nothing', () => {
  expect(stamp(ball(), 0, 0, null).under).toBeNull();
  expect(stamp(ball(), 3, 3, asked).under).toBeNull();
});

test('the clay under a mirrored copy becomes as fine as under the stroke', () => {
  const s = ball(24);
  const { under } = stamp(s, 0.45, 0, asked, { symmetry: { ...NO_SYMMETRY, mirrorX: true } });
  const next = refinedUnder(s, [under!])!;
  expect(near(next, 0.45, 0, 0.15)).toBeGreaterThan(near(s, 0.45, 0, 0.15) * 3);
  expect(near(next, -0.45, 0, 0.15) / near(next, 0.45, 0, 0.15)).toBeCloseTo(1, 0);
});

test('a stroke that was undone can still be redone on the finer clay', () => {
  const s = ball();
  const { under } = stamp(s, 0.1, 0.1, asked);
  stamp(s, -0.3, 0, null);
  undo(s);
  const next = refinedUnder(s, [under!])!;
  expect(redo(next)).toBe(true);
  expect(next.done).toHaveLength(2);
});

test('on the same body at another density the strokes ask for it again', () => {
  const { next } = stamped();
  const denser = ball(20);
  const under = takeUp(
    denser,
    next.done.map((d) => d.step),
  );
  expect(under).toHaveLength(1);
  const again = refinedUnder(denser, under)!;
  expect(near(again, 0.1, 0.1, 0.2) / near(next, 0.1, 0.1, 0.2)).toBeCloseTo(1, 0);
  expect(again.surface.spacing).toBeLessThanOrEqual(asked.edge);
});

test('a brush that has grown asks for more when its strokes are run again; run once more, for hardly any', () => {
  const { next } = stamped();
  const larger = bell(0.5);
  const under = replay(next, new Map([[larger.id, larger]]));
  const grown = refinedUnder(next, under)!;
  expect(near(grown, 0.1, 0.1, 0.45)).toBeGreaterThan(near(next, 0.1, 0.1, 0.45) * 1.5);
  const more = refinedUnder(grown, replay(grown, new Map())) ?? grown;
  expect(more.surface.mesh.vertexCount / grown.surface.mesh.vertexCount).toBeCloseTo(1, 1);
});

test('where two strokes cross that ask for different edges, the finer holds', () => {
  const s = ball();
  const under = [stamp(s, 0, 0, { edge: 0.02, most: 1e6 }).under!, stamp(s, 0.1, 0, { edge: 0.06, most: 1e6 }).under!];
  const both = refinedUnder(s, under)!;
  const alone = refinedUnder(s, [under[1]!])!;
  expect(near(both, 0, 0, 0.15)).toBeGreaterThan(near(alone, 0, 0, 0.15) * 4);
  expect(near(refinedUnder(s, [...under].reverse())!, 0, 0, 0.15)).toBe(near(both, 0, 0, 0.15));
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
    const next = under && refinedUnder(s, [under]);
    expect(next?.surface.mesh.positions.every(Number.isFinite) ?? true).toBe(true);
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

  test('it lies on finer clay as if it had been drawn there, and goes on to the same as in one go', () => {
    const s = ball();
    stamp(s, -0.4, -0.4, null);
    beginStroke(s, start(trail));
    extendStroke(s, route(-0.3, 0));
    const next = refinedWhile(s, asked)!;
    expect(next.surface.mesh.vertexCount).toBeGreaterThan(s.surface.mesh.vertexCount + 50);
    expect(next.running!.record.samples).toHaveLength(9);
    const other = session(
      surface(buildMesh({ positions: next.base!.slice(), triangles: next.surface.mesh.triangles.slice() })),
      { replay: true },
    );
    other.surface.spacing = next.surface.spacing;
    takeUp(
      other,
      s.done.map((d) => d.step),
    );
    beginStroke(other, start(trail));
    extendStroke(other, [...route(-0.3, 0), ...route(0.05, 0.3)]);
    extendStroke(next, route(0.05, 0.3));
    expect(places(next).map(String).sort()).toEqual(places(other).map(String).sort());
  });

  test('the session itself goes on as it was', () => {
    const s = ball();
    const alone = ball();
    for (const one of [s, alone]) {
      beginStroke(one, start(trail));
      extendStroke(one, route(-0.3, 0));
    }
    refinedWhile(s, asked);
    for (const one of [s, alone]) {
      extendStroke(one, route(0.05, 0.3));
      endStroke(one);
    }
    expect(places(s)).toEqual(places(alone));
    undo(s);
    expect(s.done).toHaveLength(0);
  });

  test('clay that is fine already, no stroke, and a path that is laid whole are left alone', () => {
    const s = ball();
    expect(refinedWhile(s, asked)).toBeNull();
    beginStroke(s, start(testBrush({ stroke: { type: 'path', size: 0.18 } })));
    retrace(s, route(-0.3, 0.3));
    expect(refinedWhile(s, asked)).toBeNull();
    beginStroke(s, start(trail));
    extendStroke(s, route(-0.3, 0));
    const next = refinedWhile(s, asked)!;
    expect(refinedWhile(next, asked)?.surface.mesh.vertexCount ?? next.surface.mesh.vertexCount).toBeLessThan(
      next.surface.mesh.vertexCount * 1.1,
    );
  });
});
