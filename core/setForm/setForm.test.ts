import { body } from '#core/mesh';
import type { RawMesh } from '#core/mesh';
import { PART_CELLS, PART_UPS, SetFormSchema } from '#core/settings';
import { partHeights, setFormHeight, setFormPlaces, setFormReach } from './index';

/** A block from the origin to (a, b, c). */
const block = (a: number, b: number, c: number): RawMesh => ({
  positions: Float32Array.from([0, 0, 0, a, 0, 0, a, b, 0, 0, b, 0, 0, 0, c, a, 0, c, a, b, c, 0, b, c]),
  triangles: Uint32Array.from([
    0, 2, 1, 0, 3, 2, 4, 5, 6, 4, 6, 7, 0, 1, 5, 0, 5, 4, 1, 2, 6, 1, 6, 5, 2, 3, 7, 2, 7, 6, 3, 0, 4, 3, 4, 7,
  ]),
});
const at = (heights: { data: Float32Array }, i: number, j: number): number => heights.data[j * PART_CELLS + i];
const setForm = (change: object) =>
  SetFormSchema.parse({ id: '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', form: 'part', ...change });

describe('a part from above', () => {
  test('a ball: a half circle over its lowest point, as high as it is wide', () => {
    const { heights, proportion } = partHeights(body('ball', 60), '+z');
    expect(proportion).toBeCloseTo(2, 2);
    expect(at(heights, 128, 128)).toBeCloseTo(1, 2);
    // At 0.6 of the radius the surface stands at (1 + 0.8) / 2.
    expect(at(heights, 128 + 77, 128)).toBeCloseTo(0.9, 1.5);
    expect(at(heights, 1, 1)).toBe(0);
  });

  test.each([
    ['+z', [4, 2, 1]],
    ['-z', [4, 2, 1]],
    ['+y', [4, 1, 2]],
    ['-y', [4, 1, 2]],
    ['+x', [2, 1, 4]],
    ['-x', [2, 1, 4]],
  ] as const)('%s up: width, depth and height of a block', (up, [wide, deep, high]) => {
    const { heights, proportion } = partHeights(block(4, 2, 1), up);
    const longer = Math.max(wide, deep);
    expect(proportion).toBeCloseTo((2 * high) / longer, 5);
    const cover = heights.data.reduce((sum, h) => sum + (h > 0.5 ? 1 : 0), 0) / PART_CELLS ** 2;
    expect(cover).toBeCloseTo((wide * deep) / longer ** 2, 1.5);
  });

  test('the side that is up is up: a pyramid has its tip only one way', () => {
    const pyramid: RawMesh = {
      positions: Float32Array.from([-1, -1, 0, 1, -1, 0, 1, 1, 0, -1, 1, 0, 0, 0, 1]),
      triangles: Uint32Array.from([0, 1, 4, 1, 2, 4, 2, 3, 4, 3, 0, 4, 0, 2, 1, 0, 3, 2]),
    };
    const tip = partHeights(pyramid, '+z').heights;
    expect(at(tip, 128, 128)).toBeGreaterThan(0.97);
    expect(at(tip, 64, 128)).toBeCloseTo(0.5, 1.5);
    const foot = partHeights(pyramid, '-z').heights;
    expect(at(foot, 128, 128)).toBeCloseTo(1, 5);
    expect(at(foot, 10, 10)).toBeCloseTo(1, 5);
  });

  test('a flat sheet has no height, and none at all seen from its edge', () => {
    const sheet: RawMesh = {
      positions: Float32Array.from([0, 0, 0, 0, 1, 0, 0, 0, 1]),
      triangles: Uint32Array.from([0, 1, 2]),
    };
    expect(() => partHeights(sheet, '+x')).toThrow('no height');
    for (const up of PART_UPS.filter((u) => u !== '+x' && u !== '-x'))
      expect(() => partHeights(sheet, up)).not.toThrow();
  });
});

describe('heights of a setForm', () => {
  test('a part reads its heights upright, scaled by its own', () => {
    const { heights } = partHeights(block(4, 2, 1), '+z');
    const p = setForm({ size: 0.5, height: 0.3 });
    expect(setFormHeight(p, 0, 0, heights)).toBeCloseTo(0.3, 5);
    expect(setFormHeight(p, 0.45, 0.2, heights)).toBeCloseTo(0.3, 5);
    expect(setFormHeight(p, 0, 0.3, heights)).toBe(0);
    expect(setFormHeight(p, 0.6, 0, heights)).toBe(0);
    expect(setFormHeight(p, 0, 0)).toBe(0);
    expect(setFormReach(p)).toBeCloseTo(Math.hypot(0.5, 0.5), 12);
  });

  test.each(['dome', 'disc', 'ring', 'hex', 'pin', 'bar', 'wedge'] as const)(
    '%s never stands outside its reach or over its height',
    (form) => {
      const p = setForm({ form, size: 0.4, height: 0.1, turn: 20 });
      const reach = setFormReach(p);
      for (let i = 0; i < 400; i++) {
        const angle = i * 2.4;
        const d = (i / 400) * reach * 1.5;
        const h = setFormHeight(p, Math.cos(angle) * d, Math.sin(angle) * d);
        expect(h).toBeGreaterThanOrEqual(0);
        expect(h).toBeLessThanOrEqual(0.1 + 1e-12);
        if (d > reach) expect(h).toBe(0);
      }
    },
  );

  test('a row goes along its turn and a ring round its middle', () => {
    const row = setFormPlaces(setForm({ repeat: 'row', count: 3, pitch: 0.5, turn: 90, x: 1 }));
    expect(row.map((p) => [Number(p.x.toFixed(6)), Number(p.y.toFixed(6))])).toEqual([
      [1, -0.5],
      [1, 0],
      [1, 0.5],
    ]);
    const ring = setFormPlaces(setForm({ repeat: 'ring', count: 4, pitch: 0.5 }));
    expect(ring.every((p) => Math.abs(Math.hypot(p.x, p.y) - 0.5) < 1e-12)).toBe(true);
  });
});
