import { setFormAt, setFormReach } from '#core/setForm';
import { SetFormSchema } from '#core/settings';
import { maskDrag, shapeOf } from './maskDrag';
import { fromScreen, toScreen, type SlabEye, type SlabEyeState } from './slabEye';

const eye: SlabEyeState = { x: 0.2, y: -0.1, scale: 310, turnRad: 0.7 };

test('a place on the slab is seen where it is looked for', () => {
  for (const [x, y] of [
    [0, 0],
    [0.9, -0.4],
    [-1, 1],
  ] as const) {
    const [sx, sy] = toScreen(eye, 640, 480, x, y);
    const back = fromScreen(eye, 640, 480, sx, sy);
    expect(back[0]).toBeCloseTo(x, 12);
    expect(back[1]).toBeCloseTo(y, 12);
  }
  expect(toScreen(eye, 640, 480, 0.2, -0.1)).toEqual([320, 240]);
});

test('up on the slab is up on the screen while the view is upright', () => {
  const upright = { ...eye, turnRad: 0 };
  expect(toScreen(upright, 640, 480, 0.2, 0)[1]).toBeLessThan(240);
  expect(toScreen(upright, 640, 480, 0.3, -0.1)[0]).toBeGreaterThan(320);
});

describe('a mask’s outline', () => {
  test('a rectangle drawn corner to corner runs along the view, however it is turned', () => {
    const turn = Math.PI / 6;
    const a = fromScreen({ ...eye, turnRad: turn }, 640, 480, 100, 100);
    const b = fromScreen({ ...eye, turnRad: turn }, 640, 480, 300, 180);
    const shape = shapeOf('rectangle', [a, b], turn);
    expect(shape).toMatchObject({ kind: 'rectangle', turnRad: turn });
    if (shape?.kind !== 'rectangle') throw new Error('It is no rectangle.');
    expect(shape.halfWidth).toBeCloseTo(100 / 310, 9);
    expect(shape.halfHeight).toBeCloseTo(40 / 310, 9);
    expect(shape.x).toBeCloseTo((a[0] + b[0]) / 2, 12);
  });

  test('one without size is none', () => {
    expect(
      shapeOf(
        'ellipse',
        [
          [0, 0],
          [0.3, 0],
        ],
        0,
      ),
    ).toBeNull();
    expect(shapeOf('rectangle', [[0, 0]], 0)).toBeNull();
    expect(
      shapeOf(
        'lasso',
        [
          [0, 0],
          [1, 1],
        ],
        0,
      ),
    ).toBeNull();
    expect(
      shapeOf(
        'lasso',
        [
          [0, 0],
          [1, 1],
          [1, 0],
        ],
        0,
      ),
    ).toEqual({ kind: 'lasso', points: [0, 0, 1, 1, 1, 0] });
  });

  test('a lasso keeps places a few pixels apart, and nothing is left after it ends', () => {
    const drag = maskDrag(
      () => ({ state: eye, onSlab: (x: number, y: number) => fromScreen(eye, 640, 480, x, y) }) as unknown as SlabEye,
    );
    drag.begin('lasso', 10, 10);
    for (let x = 11; x <= 40; x++) drag.move(x, 10);
    expect(drag.state.points).toHaveLength(11);
    drag.move(25, 60);
    expect(drag.end()).toMatchObject({ kind: 'lasso' });
    expect(drag.state.points).toHaveLength(0);
    drag.begin('ellipse', 0, 0);
    drag.drop();
    expect(drag.end()).toBeNull();
  });
});

test('the topmost set form under the pointer is taken, in a ring any of its forms', () => {
  const setForm = (x: number, more = {}) =>
    SetFormSchema.parse({ id: '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', form: 'disc', x, size: 0.1, ...more });
  const setForms = [setForm(0), setForm(0.05), setForm(0, { repeat: 'ring', count: 4, pitch: 0.6 })];
  expect(setFormAt(setForms, 0.02, 0, setFormReach)).toBe(1);
  expect(setFormAt(setForms, -0.08, 0, setFormReach)).toBe(0);
  expect(setFormAt(setForms, 0, -0.6, setFormReach)).toBe(2);
  expect(setFormAt(setForms, 0.4, 0.4, setFormReach)).toBe(-1);
  expect(setFormReach(setForm(0, { form: 'bar', width: 50 }))).toBeCloseTo(0.1 * Math.hypot(1, 0.5), 12);
});
