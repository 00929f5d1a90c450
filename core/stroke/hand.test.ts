import type { Vec3 } from '#core/brush';
import {
  between,
  copiesOf,
  copyPoint,
  copyStencil,
  isSound,
  NO_SYMMETRY,
  paced,
  stencilRows,
  stencilSide,
  straight,
  type Pace,
  type Sample,
  type StencilRows,
} from './index';

const at = (x: number, y: number, time?: number): Sample => ({
  origin: [x, y, 5],
  direction: [0, 0, -1],
  pressure: 0.5,
  ...(time === undefined ? {} : { time }),
});

describe('speed of the hand', () => {
  const run = (samples: Sample[]): number[] => {
    const pace: Pace = { toward: [0, 0, 1], at: null, time: 0, speed: 0 };
    return samples.map((s) => paced(pace, s, [0, 0, 0]).speed ?? -1);
  };

  test('a hand that rests has none; one that moves evenly comes to its own', () => {
    expect(run([at(0, 0, 0), at(0, 0, 50), at(0, 0, 100)])).toEqual([0, 0, 0]);
    // A hundredth every 10 ms is one body unit a second.
    expect(run(Array.from({ length: 60 }, (_, i) => at(i * 0.01, 0, i * 10))).at(-1)).toBeCloseTo(1, 3);
  });

  test('how often the hand is asked makes little difference', () => {
    const often = run(Array.from({ length: 41 }, (_, i) => at(i * 0.005, 0, i * 5))).at(-1)!;
    const seldom = run(Array.from({ length: 11 }, (_, i) => at(i * 0.02, 0, i * 20))).at(-1)!;
    expect(seldom).toBeCloseTo(often, 9);
  });

  test('two samples of one moment, or none at all, change nothing', () => {
    expect(run([at(0, 0, 0), at(0.1, 0, 100), at(0.2, 0, 100)])[2]).toBe(run([at(0, 0, 0), at(0.1, 0, 100)])[1]);
    expect(run([at(0, 0)])).toEqual([-1]);
  });
});

test('between two samples everything goes evenly, and the pen’s lean jumps to the nearer', () => {
  const half = between({ ...at(0, 0, 0), pressure: 0.2, lean: 1 }, { ...at(1, 2, 100), pressure: 1, lean: 3 }, 0.75);
  expect(half).toMatchObject({ origin: [0.75, 1.5, 5], time: 75, lean: 3 });
  expect(half.pressure).toBeCloseTo(0.8, 12);
  expect(
    straight(at(0, 0), at(1, 0))
      .map((s) => s.origin[0])
      .at(32),
  ).toBeCloseTo(0.5, 12);
});

test.each([
  [{ pressure: NaN }, false],
  [{ time: Infinity }, false],
  [{ origin: [0, NaN, 0] as Vec3 }, false],
  [{}, true],
])('a sample with %p is sound: %p', (wrong, sound) => {
  expect(isSound({ ...at(0, 0, 0), ...wrong })).toBe(sound);
});

describe('stencil', () => {
  const clip = { x: [1, 0, 0, 0], y: [0, 1, 0, 0], w: [0, 0, -0.2, 1] } as const;
  const read = (rows: StencilRows, [x, y, z]: Vec3): [number, number] => {
    const row = (r: StencilRows['u']): number => r[0] * x + r[1] * y + r[2] * z + r[3];
    return [row(rows.u) / row(rows.w), row(rows.v) / row(rows.w)];
  };

  test('its middle is where it was put and its sides are at one, turned anticlockwise, whatever the view’s shape', () => {
    const rows = stencilRows(clip, 1.5, { x: 0.3, y: -0.2, half: 0.5, turnRad: Math.PI / 2 });
    // Across a view half as wide again, x of the body is 1.5 half heights.
    const [u, v] = read(rows, [0.2, -0.2, 0]);
    expect([u, v].map((c) => Math.abs(c) < 1e-12)).toEqual([true, true]);
    const [u1, v1] = read(rows, [0.2, 0.3, 0]);
    expect(u1).toBeCloseTo(1, 12);
    expect(v1).toBeCloseTo(0, 12);
  });

  test('its side on the body is what the eye sees of it: nearer clay gets less', () => {
    const rows = stencilRows(clip, 1, { x: 0, y: 0, half: 0.25, turnRad: 0.4 });
    expect(stencilSide(rows, [0, 0, 0], [1, 0, 0], [0, 1, 0])).toBeCloseTo(0.5, 6);
    expect(stencilSide(rows, [0, 0, 1], [1, 0, 0], [0, 1, 0])).toBeCloseTo(0.4, 6);
  });

  test('a copy under symmetry reads what the dab itself reads', () => {
    const rows = stencilRows(clip, 1, { x: 0.1, y: 0.2, half: 0.4, turnRad: 0.7 });
    const symmetries = [
      { ...NO_SYMMETRY, mirrorX: true, copies: 3, x: 0.2, y: -0.1 },
      { ...NO_SYMMETRY, axis: 'y', mirrorZ: true, copies: 3, x: 0.2, y: -0.1, z: 0.1 } as const,
    ];
    for (const [copy, symmetry] of symmetries.flatMap((s) => copiesOf(s).map((c) => [c, s] as const))) {
      const p: Vec3 = [0.15, 0.3, 0.2];
      const [u, v] = read(rows, p);
      const [cu, cv] = read(copyStencil(rows, copy, symmetry), copyPoint(p, copy, symmetry));
      expect(cu).toBeCloseTo(u, 9);
      expect(cv).toBeCloseTo(v, 9);
    }
  });
});
