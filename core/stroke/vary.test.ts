import { resolveBrush, type ResolvedBrush } from '#core/brush';
import { buildMesh, pick, plane } from '#core/mesh';
import { seeded } from '#core/random';
import { newBrush, type Brush } from '#core/settings';
import { stepAt, vary, type Place, type PlacedDab, type Sample, type Variation } from './index';

const mesh = buildMesh(plane(32, 8));
const sample: Sample = { origin: [0, 0, 3], direction: [0, 0, -1] };
const hit = pick(mesh, sample)!;
const view = { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] } as const;

function resolved(change: (b: Brush) => void): ResolvedBrush {
  const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Drift');
  brush.stroke.size = 0.5;
  change(brush);
  return resolveBrush(brush, null);
}

function variation(change: (b: Brush) => void, more: Partial<Variation> = {}): Variation {
  const brush = resolved(change);
  return { brush, radius: brush.radius, view, random: seeded(7), total: null, drawn: null, ...more };
}

const place = (more: Partial<Place> = {}): Place => ({ hit, direction: [0, 1, 0], sample, travelled: 0, ...more });

function dabs(v: Variation, count: number): PlacedDab[] {
  return Array.from({ length: count }, () => vary(v, mesh, place())).flat();
}

/** Lowest, highest and mean of a list. */
function of(values: readonly number[]): { low: number; high: number; mean: number } {
  return {
    low: Math.min(...values),
    high: Math.max(...values),
    mean: values.reduce((a, b) => a + b, 0) / values.length,
  };
}

describe('drift over 10 000 dabs', () => {
  const many = dabs(
    variation((b) => {
      Object.assign(b.drift, { along: 60, across: 30, size: 40, leastSize: 75, turn: 50, squash: 60, flip: 25 });
    }),
    10_000,
  );

  test('places are even within their limits, along the stroke and across it', () => {
    const y = of(many.map((d) => d.hit.y));
    const x = of(many.map((d) => d.hit.x));
    expect(y.high).toBeCloseTo(0.3, 2);
    expect(y.low).toBeCloseTo(-0.3, 2);
    expect(x.high).toBeCloseTo(0.15, 2);
    expect(x.low).toBeCloseTo(-0.15, 2);
    expect(Math.abs(y.mean)).toBeLessThan(0.006);
    // An even spread has a mean square of a third of its limit's.
    expect(of(many.map((d) => d.hit.y ** 2)).mean).toBeCloseTo(0.3 ** 2 / 3, 2);
  });

  test('sizes lie between the least and the most', () => {
    const size = of(many.map((d) => d.radius / 0.5));
    expect(size.low).toBeCloseTo(0.75, 2);
    expect(size.high).toBeCloseTo(1.4, 2);
    expect(size.mean).toBeCloseTo((0.75 + 1.4) / 2, 2);
  });

  test('turns, squash and flips', () => {
    const turn = of(many.map((d) => (d.turnRad * 180) / Math.PI));
    expect(turn.low).toBeCloseTo(-50, 0);
    expect(turn.high).toBeCloseTo(50, 0);
    expect(Math.abs(turn.mean)).toBeLessThan(1);
    const squash = of(many.map((d) => d.squash));
    expect(squash.low).toBeCloseTo(0.4, 2);
    expect(squash.high).toBeCloseTo(1, 2);
    expect(of(many.map((d) => (d.mirrored ? 1 : 0))).mean).toBeCloseTo(0.25, 1);
  });

  test('what varies does so by itself: size tells nothing of place', () => {
    const size = many.map((d) => d.radius);
    const x = many.map((d) => d.hit.x);
    const [ms, mx] = [of(size).mean, of(x).mean];
    const together = size.reduce((sum, s, i) => sum + (s - ms) * (x[i] - mx), 0);
    const apart = Math.sqrt(
      size.reduce((sum, s) => sum + (s - ms) ** 2, 0) * x.reduce((sum, v) => sum + (v - mx) ** 2, 0),
    );
    expect(Math.abs(together / apart)).toBeLessThan(0.04);
  });

  test('repeats with the seed, and with another seed doesn’t', () => {
    const drift = (b: Brush): void => void Object.assign(b.drift, { across: 100, size: 50 });
    expect(dabs(variation(drift), 50)).toEqual(dabs(variation(drift), 50));
    expect(dabs(variation(drift, { random: seeded(8) }), 50)).not.toEqual(dabs(variation(drift), 50));
  });
});

test('without drift a dab is the brush itself', () => {
  const [dab, ...rest] = vary(
    variation(() => undefined),
    mesh,
    place(),
  );
  expect(rest).toEqual([]);
  expect(dab).toMatchObject({
    hit,
    radius: 0.5,
    strength: 1,
    squash: 1,
    mirrored: false,
    turnRad: 0,
    along: [1, 0, 0],
  });
});

test('count lays that many at each step', () => {
  expect(
    vary(
      variation((b) => (b.drift.count = 7)),
      mesh,
      place(),
    ),
  ).toHaveLength(7);
});

test('varying by the stroke, shapes are alike and places differ', () => {
  const list = dabs(
    variation((b) => Object.assign(b.drift, { per: 'stroke', size: 60, turn: 90, across: 100 })),
    40,
  );
  expect(new Set(list.map((d) => d.radius)).size).toBe(1);
  expect(new Set(list.map((d) => d.turnRad)).size).toBe(1);
  expect(new Set(list.map((d) => d.hit.x)).size).toBeGreaterThan(30);
});

test('turn from the stroke, from the pen’s lean, by chance', () => {
  const along = (change: (b: Brush) => void, more: Partial<Place> = {}) =>
    vary(variation(change), mesh, place(more))[0];
  expect(along((b) => (b.stroke.turnFrom = 'stroke')).along).toEqual([0, 1, 0]);
  const lean = along((b) => (b.stroke.turnFrom = 'lean'), { sample: { ...sample, lean: Math.PI / 6 } }).along;
  expect(lean[0]).toBeCloseTo(Math.cos(Math.PI / 6), 9);
  expect(lean[1]).toBeCloseTo(0.5, 9);
  expect(along((b) => (b.stroke.turnFrom = 'lean')).along).toEqual([1, 0, 0]);
  const turns = of(
    dabs(
      variation((b) => (b.stroke.turnFrom = 'random')),
      2000,
    ).map((d) => d.turnRad),
  );
  expect(turns.low).toBeLessThan(-3.1);
  expect(turns.high).toBeGreaterThan(3.1);
});

describe('pen, taper and fade', () => {
  const one = (change: (b: Brush) => void, more: Partial<Place> = {}, given: Partial<Variation> = {}) =>
    vary(variation(change, given), mesh, place(more))[0];

  test.each([
    [0, 0.2],
    [0.5, 0.6],
    [1, 1],
  ])('pressure %p takes size from 20 to 100 %: %p', (pressure, share) => {
    expect(one((b) => (b.pen.pressureSize.low = 20), { sample: { ...sample, pressure } }).radius).toBeCloseTo(
      0.5 * share,
      9,
    );
  });

  test('the curve bends what lies between the limits', () => {
    const bent = (b: Brush): void => {
      b.pen.pressureStrength = {
        low: 0,
        high: 100,
        curve: [
          { x: 0, y: 0, corner: true },
          { x: 0.5, y: 0.1, corner: true },
          { x: 1, y: 1, corner: true },
        ],
      };
    };
    expect(one(bent, { sample: { ...sample, pressure: 0.5 } }).strength).toBeCloseTo(0.1, 9);
    expect(one(bent, { sample: { ...sample, pressure: 0.75 } }).strength).toBeCloseTo(0.55, 9);
  });

  test('speed counts up to what is called fast', () => {
    const quick = (b: Brush): void => {
      b.pen.speedSize.high = 40;
      b.pen.fast = 2;
    };
    expect(one(quick, { sample: { ...sample, speed: 1 } }).radius).toBeCloseTo(0.5 * 0.7, 9);
    expect(one(quick, { sample: { ...sample, speed: 9 } }).radius).toBeCloseTo(0.5 * 0.4, 9);
  });

  test('a taper begins at its tip and is done after its length; the end needs the whole length', () => {
    const tapered = (b: Brush): void =>
      void Object.assign(b.stroke, { taperStart: 4, taperEnd: 2, tipSize: 10, tipStrength: 50 });
    expect(one(tapered)).toMatchObject({ radius: expect.closeTo(0.05, 9), strength: expect.closeTo(0.5, 9) });
    expect(one(tapered, { travelled: 1 }).radius).toBeCloseTo(0.5 * 0.55, 9);
    expect(one(tapered, { travelled: 2 }).radius).toBeCloseTo(0.5, 9);
    expect(one(tapered, { travelled: 9.5 }).radius).toBeCloseTo(0.5, 9);
    expect(one(tapered, { travelled: 9.5 }, { total: 10 }).radius).toBeCloseTo(0.5 * 0.55, 9);
    expect(one(tapered, { travelled: 10 }, { total: 10 }).strength).toBeCloseTo(0.5, 9);
  });

  test('a stroke fades to nothing, and nothing is laid after that', () => {
    const fading = (b: Brush): void => void (b.stroke.fade = 8);
    expect(one(fading, { travelled: 1 }).strength).toBeCloseTo(0.75, 9);
    expect(one(fading, { travelled: 4 })).toBeUndefined();
  });

  test('the step to the next dab follows the size, and never stands still', () => {
    const v = variation((b) => {
      b.stroke.spacing = 50;
      b.pen.pressureSize.low = 0;
    });
    expect(stepAt(v, { sample: { ...sample, pressure: 0.5 }, travelled: 0 })).toBeCloseTo(0.25, 9);
    expect(stepAt(v, { sample: { ...sample, pressure: 0 }, travelled: 0 })).toBeCloseTo(0.01, 9);
  });
});
