/** Each stroke type's dabs, from recorded input, against lists worked out by hand. */
import type { DabFrame, ResolvedBrush } from '#core/brush';
import { body, buildMesh, plane } from '#core/mesh';
import { surface } from '#core/sculpt';
import { pathSamples, type PathNode, type Sample, type StrokeStart } from '#core/stroke';
import { beginStroke, endStroke, extendStroke, redo, replay, retrace, session, undo, type Session } from './index';
import { down, heightNear, slabSession, start, stroke, testBrush, type BrushChange } from './testKit';

const bytes = (s: Session) => s.surface.mesh.positions.slice();
const row: BrushChange = { stroke: { type: 'trail', size: 0.1, spacing: 50 }, form: { depth: 20 } };

function dabsOf(
  s: Session,
  brush: ResolvedBrush,
  samples: readonly Sample[],
  more: Partial<StrokeStart> = {},
): DabFrame[] {
  beginStroke(s, start(brush, more));
  const { runner } = s.running!;
  extendStroke(s, samples);
  endStroke(s);
  return runner.frames;
}

const xs = (frames: readonly DabFrame[]): number[] => frames.map((f) => Number(f.origin[0].toFixed(4)) + 0);
const ys = (frames: readonly DabFrame[]): number[] => frames.map((f) => Number(f.origin[1].toFixed(4)) + 0);

describe('Trail', () => {
  test('a dab each tenth, at 50 % of a diameter of 0.2', () => {
    expect(xs(dabsOf(slabSession(), testBrush(row), [down(0, 0), down(0.35, 0)]))).toEqual([0, 0.1, 0.2, 0.3]);
  });

  test('spacing stays true under changing size: each step is half the diameter of the dab before it', () => {
    const brush = testBrush({ ...row, pen: { ...testPen(), pressureSize: { ...testPen().pressureSize, low: 10 } } });
    const samples = Array.from({ length: 41 }, (_, i) => ({
      ...down(-0.8 + i * 0.04, 0),
      pressure: 0.5 + 0.5 * Math.sin(i / 4),
    }));
    const frames = dabsOf(slabSession(), brush, samples);
    expect(frames.length).toBeGreaterThan(14);
    for (let i = 1; i < frames.length; i++)
      expect(frames[i].origin[0] - frames[i - 1].origin[0]).toBeCloseTo(frames[i - 1].radius, 4);
  });

  test('a sample that is no number is left out, a jump across the body lays its line', () => {
    const jumped = [down(-0.9, 0), { ...down(NaN, 0) }, down(0.9, 0), { ...down(0.9, 0), pressure: NaN }];
    expect(dabsOf(slabSession(), testBrush(row), jumped)).toHaveLength(19);
  });

  test('a taper at the end is laid at release, and the same again by replay and redo', () => {
    const brush = testBrush({ ...row, stroke: { ...row.stroke, taperEnd: 4, tipSize: 20 } });
    const s = slabSession();
    const frames = dabsOf(s, brush, [down(-0.5, 0), down(0, 0), down(0.5, 0)]);
    const [first, last] = [frames[0], frames.at(-1)!];
    expect(first.radius).toBeCloseTo(0.1, 6);
    expect(last.radius).toBeLessThan(0.04);
    for (let i = 1; i < frames.length; i++) expect(frames[i].radius).toBeLessThanOrEqual(frames[i - 1].radius + 1e-9);
    const once = bytes(s);
    replay(s, new Map());
    expect(bytes(s)).toEqual(once);
    undo(s);
    redo(s);
    expect(bytes(s)).toEqual(once);
  });
});

describe('Linger', () => {
  const brush = testBrush({ ...row, stroke: { ...row.stroke, type: 'linger', rate: 10 }, touch: { overlaps: 'add' } });
  const at = (x: number, time: number): Sample => ({ ...down(x, 0), time });

  test('ten a second while the hand rests: at 0, 100 and 200 ms', () => {
    expect(xs(dabsOf(slabSession(), brush, [at(0, 5000), at(0, 5060), at(0, 5120), at(0, 5260)]))).toEqual([0, 0, 0]);
  });

  test('while it moves it lays by the spacing, and its clock begins anew', () => {
    expect(xs(dabsOf(slabSession(), brush, [at(0, 0), at(0.25, 90), at(0.25, 180), at(0.25, 230)]))).toEqual([
      0, 0.1, 0.2, 0.25,
    ]);
  });

  test('a page that slept for a minute lays a second’s worth at most', () => {
    expect(dabsOf(slabSession(), brush, [at(0, 0), at(0, 60_000)]).length).toBeLessThanOrEqual(12);
  });

  test('how often the hand is asked makes no difference', () => {
    const often = Array.from({ length: 51 }, (_, i) => at(0, i * 10));
    expect(dabsOf(slabSession(), brush, often)).toHaveLength(
      dabsOf(slabSession(), brush, [at(0, 0), at(0, 250), at(0, 500)]).length,
    );
  });
});

describe('Ruler', () => {
  const brush = testBrush({ ...row, stroke: { ...row.stroke, type: 'ruler' } });

  test('only press and release count, not the way between them', () => {
    const frames = dabsOf(slabSession(), brush, [down(-0.2, 0.1), down(0.3, 0.6), down(-0.4, -0.2), down(0.2, 0.1)]);
    expect(xs(frames)).toEqual([-0.2, -0.1, 0, 0.1, 0.2]);
    expect(ys(frames)).toEqual([0.1, 0.1, 0.1, 0.1, 0.1]);
  });

  test('on a ball the dabs lie evenly along the surface', () => {
    const s = session(surface(buildMesh(body('ball', 64))), { replay: true });
    const frames = dabsOf(s, testBrush({ stroke: { type: 'ruler', size: 0.05, spacing: 100 }, form: { depth: 5 } }), [
      down(-0.8, 0),
      down(0.8, 0),
    ]);
    const angles = frames.map((f) => Math.atan2(f.origin[0], f.origin[2]));
    expect(frames.length).toBeGreaterThan(16);
    for (let i = 1; i < angles.length; i++) expect(angles[i] - angles[i - 1]).toBeCloseTo(0.1, 2);
  });

  test('knows its length from the start, so both its ends taper while it is drawn', () => {
    const tapered = testBrush({
      ...row,
      stroke: { ...row.stroke, type: 'ruler', spacing: 20, taperStart: 2, taperEnd: 2, tipSize: 50 },
    });
    const frames = dabsOf(slabSession(), tapered, [down(-0.4, 0), down(0.4, 0)]);
    expect(frames[0].radius).toBeCloseTo(0.05, 6);
    expect(frames.at(-1)!.radius).toBeLessThan(0.06);
    expect(Math.max(...frames.map((f) => f.radius))).toBeCloseTo(0.1, 6);
  });
});

describe('Path', () => {
  const brush = testBrush({ ...row, stroke: { ...row.stroke, type: 'path' } });
  const node = (x: number, y: number) => ({ point: [x, y, 0], normal: [0, 0, 1] }) as const;

  function laid(s: Session, nodes: ReturnType<typeof node>[], closed = false): DabFrame[] {
    if (!s.running) beginStroke(s, start(brush));
    retrace(s, pathSamples(nodes, closed));
    return s.running!.runner.frames;
  }

  test('nodes in a line give an even row', () => {
    const s = slabSession();
    expect(xs(laid(s, [node(-0.2, 0), node(0, 0), node(0.2, 0)]))).toEqual([-0.2, -0.1, 0, 0.1, 0.2]);
  });

  test('moving a node lays the row anew; keeping it is one step of undo', () => {
    const s = slabSession();
    laid(s, [node(-0.2, 0), node(0.2, 0)]);
    const moved = laid(s, [node(-0.2, 0.3), node(0.2, 0.3)]);
    expect(new Set(ys(moved))).toEqual(new Set([0.3]));
    expect(heightNear(s, 0, 0)).toBe(0);
    endStroke(s);
    expect(s.done).toHaveLength(1);
    const once = bytes(s);
    undo(s);
    expect(bytes(s).every((c, i) => i % 3 !== 2 || c === 0)).toBe(true);
    redo(s);
    expect(bytes(s)).toEqual(once);
  });

  test('goes through its nodes; closed, it comes back', () => {
    const nodes = [node(-0.3, -0.3), node(0.3, -0.3), node(0.3, 0.3), node(-0.3, 0.3)];
    const open = pathSamples(nodes, false);
    const closed = pathSamples(nodes, true);
    for (const n of nodes)
      expect(open.some((s) => Math.hypot(s.origin[0] - n.point[0], s.origin[1] - n.point[1]) < 1e-9)).toBe(true);
    expect(open.at(-1)!.origin[1]).toBeCloseTo(0.3, 9);
    expect(closed.at(-1)!.origin[0]).toBeCloseTo(closed[0].origin[0], 9);
    expect(closed.at(-1)!.origin[1]).toBeCloseTo(closed[0].origin[1], 9);
  });

  describe('spaced to its ends', () => {
    const fitted = testBrush({ ...row, stroke: { ...row.stroke, type: 'path', toEnds: true } });
    const framesOf = (nodes: PathNode[], closed = false): DabFrame[] => {
      const s = slabSession();
      beginStroke(s, start(fitted));
      retrace(s, pathSamples(nodes, closed));
      return s.running!.runner.frames;
    };
    const corner = (x: number, y: number): PathNode => ({ ...node(x, y), corner: true });

    test('a row of any length has a dab at both ends and the rest evenly between', () => {
      for (const length of [0.07, 0.13, 0.26, 0.34, 0.41, 0.555]) {
        const at = framesOf([node(-0.2, 0), node(length - 0.2, 0)]).map(({ origin }) => origin[0]);
        expect(at[0]).toBeCloseTo(-0.2, 6);
        expect(at.at(-1)).toBeCloseTo(length - 0.2, 6);
        const steps = at.slice(1).map((x, i) => x - at[i]!);
        expect(steps).toHaveLength(Math.max(1, Math.round(length / 0.1)));
        for (const step of steps) expect(step).toBeCloseTo(length / steps.length, 5);
      }
    });

    test('each corner has a dab of its own that looks halfway round it; the curve is straight up to it', () => {
      const frames = framesOf([node(-0.3, 0), corner(0.02, 0), node(0.02, 0.33)]);
      const at = frames.findIndex(({ origin: [x, y] }) => Math.hypot(x - 0.02, y) < 1e-6);
      expect(at).toBeGreaterThan(0);
      for (const { origin } of frames.slice(0, at)) expect(origin[1]).toBeCloseTo(0, 6);
      for (const { origin } of frames.slice(at)) expect(origin[0]).toBeCloseTo(0.02, 6);
      const turned = testBrush({ ...row, stroke: { ...row.stroke, type: 'path', toEnds: true, turnFrom: 'stroke' } });
      const s = slabSession();
      beginStroke(s, start(turned));
      retrace(s, pathSamples([node(-0.3, 0), corner(0.02, 0), node(0.02, 0.33)], false));
      const [tx, ty] = s.running!.runner.frames[at]!.tangent;
      expect(tx).toBeCloseTo(ty, 4);
    });

    test('closed, it has no two dabs at one place', () => {
      const square = [corner(-0.3, -0.3), corner(0.3, -0.3), corner(0.3, 0.3), corner(-0.3, 0.3)];
      for (const nodes of [square, square.map(({ point: [x, y] }) => node(x, y))]) {
        const frames = framesOf(nodes, true);
        frames.forEach(({ origin: a }, i) =>
          frames.slice(i + 1).forEach(({ origin: b }) => {
            expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeGreaterThan(0.06);
          }),
        );
        if (nodes === square) expect(frames).toHaveLength(24);
      }
    });
  });

  test('one node is one stamp; two at one place are one', () => {
    expect(laid(slabSession(), [node(0.1, 0)])).toHaveLength(1);
    expect(laid(slabSession(), [node(0.1, 0), node(0.1, 0)])).toHaveLength(1);
    expect(pathSamples([], true)).toEqual([]);
  });
});

describe('stamps', () => {
  test('Press stays at the last place', () => {
    const frames = dabsOf(slabSession(), testBrush({ ...row, stroke: { type: 'press', size: 0.2 } }), [
      down(-0.3, 0),
      down(0, 0.2),
      down(0.25, 0.5),
    ]);
    expect([xs(frames), ys(frames)]).toEqual([[0.25], [0.5]]);
  });

  test('Grow stays at the press, as large and turned as the drag', () => {
    const [frame] = dabsOf(slabSession(), testBrush({ ...row, stroke: { type: 'grow' } }), [
      down(0.1, 0.1),
      down(0.4, 0.5),
    ]);
    expect(frame!.origin[0]).toBeCloseTo(0.1, 6);
    expect(frame!.radius).toBeCloseTo(0.5, 6);
    expect(frame!.tangent[0]).toBeCloseTo(0.6, 6);
    expect(frame!.tangent[1]).toBeCloseTo(0.8, 6);
  });

  test.each([
    [0.2, 0.2],
    [-0.15, -0.15],
  ])('Pull by %p, seen from straight above, is %p high at its middle', (by, height) => {
    const s = slabSession();
    const [frame] = dabsOf(
      s,
      testBrush({ stroke: { type: 'pull', size: 0.3 }, touch: { falloff: { kind: 'dome', hold: 0, nodes: [] } } }),
      [down(0, 0), down(0.1, by)],
    );
    expect(frame!.radius).toBe(0.3);
    expect(heightNear(s, 0, 0)).toBeCloseTo(height, 6);
  });

  test.each([
    [0.3, 0.12],
    [-0.02, -0.12],
    [0, 0.12],
  ])('Pull with a height of its own, dragged by %p, is %p high', (by, height) => {
    const s = slabSession();
    const falloff = { kind: 'dome', hold: 0, nodes: [] } as const;
    const brush = testBrush({
      stroke: { type: 'pull', size: 0.3, height: 0.12 },
      touch: { falloff: { ...falloff, nodes: [] } },
    });
    dabsOf(s, brush, [down(0, 0), down(0, by)]);
    expect(heightNear(s, 0, 0)).toBeCloseTo(height, 6);
  });

  test('Pull seen from the side follows the pointer along the face’s normal', () => {
    // The eye looks along y at a slab that lies flat: its normal is up in the view.
    const s = slabSession();
    const view = { right: [1, 0, 0], up: [0, 0, 1], toward: [0, -1, 0] } as const;
    const from = (z: number): Sample => ({ origin: [0, -5, 5 + z], direction: [0, 1, -1] });
    dabsOf(
      s,
      testBrush({ stroke: { type: 'pull', size: 0.3 }, touch: { falloff: { kind: 'dome', hold: 0, nodes: [] } } }),
      [from(0), from(0.25)],
      { view },
    );
    expect(heightNear(s, 0, 0)).toBeCloseTo(0.25, 6);
  });

  test('a stroke’s own scale goes with its size', () => {
    const [frame] = dabsOf(slabSession(), testBrush({ stroke: { type: 'press', size: 0.2 } }), [down(0, 0)], {
      scale: 1.5,
    });
    expect(frame!.radius).toBeCloseTo(0.3, 9);
  });

  test('drift of a press draws the same chances however it is slid', () => {
    const brush = testBrush({
      stroke: { type: 'press', size: 0.2 },
      drift: { count: 5, across: 150, size: 50, turn: 90, flip: 50 },
    });
    const slid = slabSession();
    const still = slabSession();
    stroke(
      slid,
      brush,
      [
        [0.3, 0.3],
        [-0.2, 0.4],
        [0, 0],
      ],
      { seed: 5 },
    );
    stroke(still, brush, [[0, 0]], { seed: 5 });
    expect(bytes(slid)).toEqual(bytes(still));
  });
});

test('Even has no peak where a stroke crosses itself', () => {
  const s = slabSession(plane(96, 2));
  const brush = testBrush({
    stroke: { size: 0.15, spacing: 10 },
    touch: { overlaps: 'even', falloff: { kind: 'plateau', hold: 0.5, nodes: [] } },
  });
  stroke(s, brush, [
    [-0.6, 0],
    [0.6, 0],
    [0.6, 0.4],
    [0, 0.4],
    [0, -0.6],
  ]);
  expect(Math.max(...bytes(s).filter((_, i) => i % 3 === 2))).toBeCloseTo(0.03, 6);
});

function testPen() {
  const line = [
    { x: 0, y: 0, corner: true },
    { x: 1, y: 1, corner: true },
  ];
  const link = () => ({ low: 100, high: 100, curve: line });
  return { pressureSize: link(), pressureStrength: link(), speedSize: link(), speedStrength: link(), fast: 3 };
}
