import { FALLOFF_KINDS, type FalloffSettings } from '#core/settings';
import { FALLOFF_STEPS, falloffAt, falloffTable } from './falloff';

const settings = (kind: FalloffSettings['kind'], more: Partial<FalloffSettings> = {}): FalloffSettings => ({
  kind,
  hold: 0.5,
  nodes: [
    { x: 0, y: 1, corner: true },
    { x: 1, y: 0, corner: true },
  ],
  ...more,
});

test.each([
  ['full', 0.5, 1],
  ['full', 1, 1],
  ['plateau', 0.5, 1],
  ['plateau', 0.75, 0.5],
  ['plateau', 1, 0],
  ['dome', 0.6, 0.8],
  ['dome', 1, 0],
  ['bell', 0.5, 0.5625],
  ['cone', 0.25, 0.75],
  ['needle', 0.5, 0.125],
] as const)('%s at %p is %p', (kind, rho, value) => {
  expect(falloffAt(settings(kind), rho)).toBeCloseTo(value, 12);
});

test.each(FALLOFF_KINDS)('%s is 1 in the middle, never rises towards the rim, stays in 0–1', (kind) => {
  expect(falloffAt(settings(kind), 0)).toBe(1);
  let last = 1;
  for (let i = 0; i <= 500; i++) {
    const f = falloffAt(settings(kind), i / 500);
    expect(f).toBeLessThanOrEqual(last + 1e-12);
    expect(f).toBeGreaterThanOrEqual(0);
    last = f;
  }
});

test.each(FALLOFF_KINDS)('the table of %s reads within 0.006 of the formula', (kind) => {
  const table = falloffTable(settings(kind));
  let worst = 0;
  for (let i = 0; i < 20_000; i++) {
    const rho = i / 20_000;
    const x = rho * FALLOFF_STEPS;
    const k = Math.floor(x);
    const read = table[k] + (table[k + 1] - table[k]) * (x - k);
    worst = Math.max(worst, Math.abs(read - falloffAt(settings(kind), rho)));
  }
  expect(worst).toBeLessThan(0.006);
});

describe('own curve', () => {
  test('is straight between corners', () => {
    const own = settings('own', {
      nodes: [
        { x: 0, y: 1, corner: true },
        { x: 0.5, y: 0.2, corner: true },
        { x: 1, y: 0, corner: true },
      ],
    });
    expect(falloffAt(own, 0.25)).toBeCloseTo(0.6, 12);
    expect(falloffAt(own, 0.75)).toBeCloseTo(0.1, 12);
  });

  test('goes through its nodes and never overshoots between smooth ones', () => {
    const nodes = [
      [0, 1],
      [0.2, 0.95],
      [0.3, 0.3],
      [0.7, 0.25],
      [1, 0],
    ].map(([x, y]) => ({ x: x, y: y, corner: false }));
    const own = settings('own', { nodes });
    for (const node of nodes) expect(falloffAt(own, node.x)).toBeCloseTo(node.y, 12);
    for (let i = 0; i + 1 < nodes.length; i++) {
      for (let t = 0; t <= 1; t += 0.05) {
        const y = falloffAt(own, nodes[i].x + (nodes[i + 1].x - nodes[i].x) * t);
        expect(y).toBeLessThanOrEqual(nodes[i].y + 1e-12);
        expect(y).toBeGreaterThanOrEqual(nodes[i + 1].y - 1e-12);
      }
    }
  });

  test('is continuous and level where a smooth curve begins', () => {
    const own = settings('own', {
      nodes: [
        { x: 0, y: 1, corner: false },
        { x: 0.5, y: 0.5, corner: false },
        { x: 1, y: 0, corner: false },
      ],
    });
    expect((1 - falloffAt(own, 1e-4)) / 1e-4).toBeLessThan(0.01);
  });

  test('nodes out of order are sorted; two at one place keep the last', () => {
    const own = settings('own', {
      nodes: [
        { x: 1, y: 0, corner: true },
        { x: 0, y: 0.3, corner: true },
        { x: 0, y: 1, corner: true },
      ],
    });
    expect(falloffAt(own, 0)).toBe(1);
  });
});
