import type { DabFrame } from '#core/brush';
import { cross } from '#core/vector';
import { seeded } from '#core/random';
import { copiesOf, copyFrame, copyPoint, inverse, NO_SYMMETRY, steadied, type Sample, type Steady } from './index';

const frame: DabFrame = {
  origin: [0.3, 0.1, 0.05],
  normal: [0, 0, 1],
  tangent: [0.6, 0.8, 0],
  bitangent: [-0.8, 0.6, 0],
  radius: 0.2,
};

test('no symmetry is one copy that changes nothing', () => {
  const [only, ...rest] = copiesOf(NO_SYMMETRY);
  expect(rest).toHaveLength(0);
  expect(copyFrame(frame, only!, NO_SYMMETRY)).toEqual(frame);
});

test('mirroring twice gives the frame back, once turns its hand', () => {
  const symmetry = { ...NO_SYMMETRY, mirrorX: true };
  const mirror = copiesOf(symmetry)[1];
  const once = copyFrame(frame, mirror, symmetry);
  expect(once.origin).toEqual([-0.3, 0.1, 0.05]);
  expect(copyFrame(once, mirror, symmetry)).toEqual(frame);
  const hand = cross(once.normal, once.tangent);
  once.bitangent.forEach((c, k) => expect(c).toBeCloseTo(-hand[k], 12));
});

test.each([
  [{ copies: 12 }, 12],
  [{ copies: 12, mirrorX: true }, 24],
  [{ copies: 5, mirrorX: true, mirrorY: true }, 20],
  // An even number of turns already holds half a turn, which is both mirrors at once.
  [{ copies: 2, mirrorX: true, mirrorY: true }, 4],
  [{ copies: 4, mirrorX: true, mirrorY: true }, 8],
  [{ copies: 128 }, 128],
  [{ mirrorX: true, mirrorY: true, mirrorZ: true }, 8],
  [{ axis: 'y', copies: 5 }, 5],
  [{ axis: 'x', copies: 3, mirrorX: true, mirrorZ: true }, 12],
] as const)('%p makes %p different copies', (change, count) => {
  const symmetry = { ...NO_SYMMETRY, ...change };
  const places = copiesOf(symmetry).map((copy) =>
    copyPoint([0.31, 0.17, 0.43], copy, symmetry)
      .map((c) => c.toFixed(6))
      .join(),
  );
  expect(new Set(places).size).toBe(count);
  expect(places).toHaveLength(count);
});

test('radial copies stand about the chosen point, each a turn of the one before', () => {
  const symmetry = { ...NO_SYMMETRY, copies: 12, x: 0.2, y: -0.1 };
  const copies = copiesOf(symmetry);
  copies.forEach((copy, k) => {
    const at = copyPoint(frame.origin, copy, symmetry);
    const angle = (2 * Math.PI * k) / 12;
    expect(at[0]).toBeCloseTo(0.2 + 0.1 * Math.cos(angle) - 0.2 * Math.sin(angle), 12);
    expect(at[1]).toBeCloseTo(-0.1 + 0.1 * Math.sin(angle) + 0.2 * Math.cos(angle), 12);
  });
});

test.each([
  { axis: 'x', copies: 3, mirrorX: true },
  { axis: 'y', copies: 4, mirrorX: true, mirrorZ: true },
  { axis: 'z', copies: 5, mirrorY: true, mirrorZ: true },
] as const)('copies are a group: what is copied twice under %p is where a copy is; a way back leads back', (change) => {
  const symmetry = { ...NO_SYMMETRY, ...change, x: 0.1, y: -0.2, z: 0.3 };
  const copies = copiesOf(symmetry);
  const point = [0.31, 0.17, 0.43] as const;
  const key = (p: readonly number[]): string => p.map((c) => (Math.round(c * 1e6) / 1e6 + 0).toFixed(5)).join();
  const places = new Set(copies.map((copy) => key(copyPoint(point, copy, symmetry))));
  for (const one of copies) {
    for (const other of copies)
      expect(places).toContain(key(copyPoint(copyPoint(point, one, symmetry), other, symmetry)));
    copyPoint(copyPoint(point, one, symmetry), inverse(one), symmetry).forEach((c, k) =>
      expect(c).toBeCloseTo(point[k], 12),
    );
  }
});

test('copies about the upright axis stand at one height and one distance from it', () => {
  const symmetry = { ...NO_SYMMETRY, axis: 'y', copies: 7 } as const;
  for (const copy of copiesOf(symmetry)) {
    const [x, y, z] = copyPoint([0.3, 0.2, 0.4], copy, symmetry);
    expect(y).toBe(0.2);
    expect(Math.hypot(x, z)).toBeCloseTo(0.5, 12);
  }
});

describe('steady', () => {
  const at = (x: number, y: number): Sample => ({ origin: [x, y, 5], direction: [0, 0, -1], pressure: 0.5 });
  const run = (length: number, samples: Sample[]): Sample[] => {
    const state: Steady = { length, toward: [0, 0, 1], tip: null };
    return samples.map((s) => steadied(state, s, [0, 0, 0])).filter((s) => s !== null);
  };

  test('without a string the hand is followed as it is', () => {
    const samples = [at(0, 0), at(0.1, 0.3)];
    expect(run(0, samples)).toEqual(samples);
  });

  test('the dab rests while the string is slack and then follows at its length', () => {
    const out = run(0.2, [at(0, 0), at(0.1, 0), at(0.15, 0.1), at(1, 0)]);
    expect(out).toHaveLength(2);
    expect(out[1].origin[0]).toBeCloseTo(0.8, 12);
    expect(out[1].pressure).toBe(0.5);
  });

  test('a shaking hand draws a smoother line, however often it is asked', () => {
    const random = seeded(4);
    const hand = Array.from({ length: 200 }, (_, i) => at(i * 0.01, (random() - 0.5) * 0.06));
    const wobble = (list: Sample[]): number =>
      list.slice(20).reduce((sum, s) => sum + s.origin[1] ** 2, 0) / (list.length - 20);
    const steady = run(0.3, hand);
    expect(wobble(steady)).toBeLessThan(wobble(hand) * 0.2);
    const twice = hand.flatMap((s, i) => {
      const next = hand[i + 1] ?? s;
      return [s, at((s.origin[0] + next.origin[0]) / 2, (s.origin[1] + next.origin[1]) / 2)];
    });
    expect(run(0.3, twice).at(-1)!.origin[0]).toBeCloseTo(steady.at(-1)!.origin[0], 2);
  });
});
