import { plane, positionsOut } from '#core/mesh';
import { newPicture, pyramid } from '#core/picture';
import { NO_SYMMETRY } from '#core/stroke';
import { beginStroke, endStroke, extendStroke, type Session } from './index';
import { down, heightNear, slabSession, start, stroke, testBrush, type BrushChange } from './testKit';

const bytes = (s: Session) => s.surface.mesh.positions.slice();
const press: BrushChange = {
  stroke: { type: 'press', size: 0.4 },
  touch: { falloff: { kind: 'full', hold: 0.5, nodes: [] } },
};
const trail: BrushChange = { stroke: { type: 'trail', size: 0.2 }, touch: { strength: 40 } };

describe('strokes', () => {
  test('a trail lays a dab each spacing, however its samples are grouped', () => {
    const brush = testBrush({ stroke: { type: 'trail', size: 0.05, spacing: 50 }, form: { depth: 0 } });
    const straight = stroke(slabSession(), brush, [
      [-0.5, 0],
      [0.51, 0],
    ]);
    expect(straight.dabs).toBe(21);
    const one = slabSession();
    const many = slabSession();
    const lifting = testBrush(trail);
    const points = Array.from({ length: 30 }, (_, i) => [-0.6 + i * 0.04, 0.3 * Math.sin(i / 4)] as const);
    stroke(one, lifting, points);
    beginStroke(many, start(lifting));
    for (const [x, y] of points) extendStroke(many, [down(x, y)]);
    endStroke(many);
    expect(bytes(many)).toEqual(bytes(one));
  });

  test('a trail that leaves the slab goes on where it comes back', () => {
    const brush = testBrush({ stroke: { type: 'trail', size: 0.05, spacing: 100 }, form: { depth: 0 } });
    expect(
      stroke(slabSession(), brush, [
        [0.8, 0],
        [1.5, 0],
        [0.8, 0.5],
      ]).dabs,
    ).toBe(2);
    expect(
      stroke(slabSession(), brush, [
        [3, 0],
        [4, 0],
      ]).dabs,
    ).toBe(0);
  });

  test('Even has no peak where dabs overlap, Add up has', () => {
    const points = [
      [-0.5, 0],
      [0.5, 0],
    ] as const;
    const change: BrushChange = {
      stroke: { size: 0.2, spacing: 5 },
      touch: { strength: 100, falloff: { kind: 'dome', hold: 0, nodes: [] } },
    };
    const even = slabSession(plane(128, 2));
    stroke(even, testBrush({ ...change, touch: { ...change.touch, overlaps: 'even' } }), points);
    expect(heightNear(even, 0, 0)).toBeCloseTo(0.04, 3);
    const add = slabSession(plane(128, 2));
    stroke(add, testBrush({ ...change, touch: { ...change.touch, overlaps: 'add' } }), points);
    expect(heightNear(add, 0, 0)).toBeGreaterThan(0.2);
  });

  test('Grow takes its size and turn from the drag', () => {
    const s = slabSession(plane(128, 2));
    const picture = newPicture(32);
    for (let j = 12; j < 20; j++) for (let i = 16; i < 32; i++) picture.data[j * 32 + i] = 1;
    const brush = testBrush(
      { ...press, stroke: { type: 'grow' } },
      { pyramid: pyramid(picture), relief: 0.1, vector: null },
    );
    stroke(s, brush, [
      [0, 0],
      [0.1, 0.2],
      [0, 0.5],
    ]);
    // The bar points right in the picture, so it points where the drag went.
    expect(heightNear(s, 0, 0.3)).toBeCloseTo(0.1, 5);
    expect(heightNear(s, 0.3, 0)).toBe(0);
    expect(heightNear(s, 0, 0.53)).toBe(0);
  });

  test('a Press slides: only the place of release is stamped', () => {
    const s = slabSession();
    stroke(s, testBrush({ ...press, stroke: { type: 'press', size: 0.1 } }), [
      [-0.5, 0],
      [0, 0.2],
      [0.5, 0],
    ]);
    const t = slabSession();
    stroke(t, testBrush({ ...press, stroke: { type: 'press', size: 0.1 } }), [[0.5, 0]]);
    expect(bytes(s)).toEqual(bytes(t));
  });

  test('Move carries the clay with the pointer', () => {
    const s = slabSession();
    const before = bytes(s);
    stroke(s, testBrush({ touch: { action: 'move' }, stroke: { size: 0.4 } }), [
      [0, 0],
      [0.5, 0.5],
      [0.1, 0],
    ]);
    const p = bytes(s);
    const middle = before.findIndex((x, i) => i % 3 === 0 && Math.abs(x) < 1e-6 && Math.abs(before[i + 1]) < 1e-6);
    expect(p[middle]).toBeCloseTo(0.1, 5);
    expect(p[middle + 1]).toBeCloseTo(0, 5);
  });

  test('Smooth keeps a slope, flattens a spike and leaves the border alone', () => {
    const s = slabSession();
    stroke(s, testBrush({ stroke: { type: 'press', size: 0.05 } }), [[0, 0]]);
    const spike = heightNear(s, 0, 0);
    const border = bytes(s).filter((_, i, p) => Math.abs(p[i - (i % 3)]) === 1);
    stroke(
      s,
      testBrush({ touch: { action: 'smooth', falloff: { kind: 'full', hold: 0, nodes: [] } }, stroke: { size: 1.2 } }),
      [
        [-0.5, 0],
        [0.5, 0],
      ],
    );
    expect(heightNear(s, 0, 0)).toBeLessThan(spike * 0.5);
    expect(heightNear(s, 0.8, 0.8)).toBeCloseTo(0, 6);
    expect(bytes(s).filter((_, i, p) => Math.abs(p[i - (i % 3)]) === 1)).toEqual(border);
  });

  test('Crease cuts along the stroke and draws the clay together', () => {
    const s = slabSession(plane(128, 2));
    stroke(
      s,
      testBrush({
        touch: { action: 'crease', pinch: 40, falloff: { kind: 'needle', hold: 0, nodes: [] } },
        stroke: { size: 0.2, spacing: 10 },
      }),
      [
        [-0.6, 0],
        [0.6, 0],
      ],
    );
    expect(heightNear(s, 0, 0)).toBeLessThan(-0.01);
    const p = bytes(s);
    const moved = p.findIndex((y, i) => i % 3 === 1 && Math.abs(p[i - 1]) < 0.01 && y > 0.02 && y < 0.045);
    expect(moved).toBeGreaterThan(-1);
  });

  test('scatter is seeded: same seed same bytes, other seed other bytes, all near the path', () => {
    const brush = testBrush({ stroke: { size: 0.08, spacing: 80 }, drift: { along: 150, across: 150 } });
    const run = (seed: number) => {
      const s = slabSession();
      stroke(
        s,
        brush,
        [
          [-0.5, 0],
          [0.5, 0],
        ],
        { seed },
      );
      return bytes(s);
    };
    expect(run(5)).toEqual(run(5));
    expect(run(5)).not.toEqual(run(6));
    const far = run(5).filter((z, i, p) => i % 3 === 2 && z !== 0 && Math.abs(p[i - 1]) > 0.08 * 2.5 + 1e-6);
    expect(far).toHaveLength(0);
  });

  test.each([
    [true, false],
    [false, true],
    [true, true],
  ])('mirror x %p, y %p: symmetric input gives symmetric output', (mirrorX, mirrorY) => {
    const s = slabSession();
    stroke(
      s,
      testBrush(trail),
      [
        [0.2, 0.3],
        [0.5, 0.4],
        [0.4, 0.7],
      ],
      { symmetry: { ...NO_SYMMETRY, mirrorX, mirrorY } },
    );
    stroke(
      s,
      testBrush({ touch: { action: 'crease' }, stroke: { size: 0.1 } }),
      [
        [0.3, 0.1],
        [0.6, 0.5],
      ],
      { symmetry: { ...NO_SYMMETRY, mirrorX, mirrorY } },
    );
    stroke(
      s,
      testBrush({ touch: { action: 'move' }, stroke: { size: 0.3 } }),
      [
        [0.4, 0.4],
        [0.5, 0.35],
      ],
      { symmetry: { ...NO_SYMMETRY, mirrorX, mirrorY } },
    );
    const grid = positionsOut(s.surface.mesh);
    let worst = 0;
    let moved = 0;
    for (let j = 0; j <= 64; j++) {
      for (let i = 0; i <= 64; i++) {
        const a = (j * 65 + i) * 3;
        const b = ((mirrorY ? 64 - j : j) * 65 + (mirrorX ? 64 - i : i)) * 3;
        worst = Math.max(
          worst,
          Math.abs(grid[a] * (mirrorX ? -1 : 1) - grid[b]),
          Math.abs(grid[a + 1] * (mirrorY ? -1 : 1) - grid[b + 1]),
          Math.abs(grid[a + 2] - grid[b + 2]),
        );
        if (grid[a + 2] !== 0) moved++;
      }
    }
    expect(moved).toBeGreaterThan(200);
    expect(worst).toBeLessThan(1e-6);
  });
});
