import { body, buildMesh, plane, type Ray } from '#core/mesh';
import type { View } from '#core/stroke';
import { Settling, type GuideLook, type SettlingEye } from './settling';

const SCALE = 200;
/** An eye far away that looks along one axis at a view of 800 × 800. */
function eyeAlong(toward: View['toward'], right: View['right'], up: View['up']): SettlingEye {
  const across = (p: readonly number[], axis: readonly number[]): number =>
    p[0] * axis[0] + p[1] * axis[1] + p[2] * axis[2];
  return {
    basis: () => ({ right, up, toward }),
    seen: (p) => ({ x: 400 + across(p, right) * SCALE, y: 400 - across(p, up) * SCALE }),
    ray: (x, y): Ray => {
      const [u, v] = [(x - 400) / SCALE, (400 - y) / SCALE];
      const at = [0, 1, 2].map((k) => right[k] * u + up[k] * v + toward[k] * 9) as [number, number, number];
      return { origin: at, direction: [-toward[0], -toward[1], -toward[2]] };
    },
  };
}
const front = eyeAlong([0, 0, 1], [1, 0, 0], [0, 1, 0]);
const left = eyeAlong([-1, 0, 0], [0, 0, 1], [0, 1, 0]);
const grid: GuideLook = { centre: false, grid: true, step: 0.25 };
const none: GuideLook = { centre: false, grid: false, step: 0.25 };
const on = (eye: SettlingEye, guides: GuideLook, mesh = buildMesh(plane(32, 2))): Settling => {
  const settling = new Settling({ eye, mesh: () => mesh, guides: () => guides });
  settling.held = true;
  return settling;
};

test('without the key, and beside the clay, a place stays where it is', () => {
  const settling = on(front, grid);
  expect(settling.settle({ x: 790, y: 10 })).toEqual({ x: 790, y: 10 });
  settling.held = false;
  expect(settling.settle({ x: 431, y: 377 })).toEqual({ x: 431, y: 377 });
});

test('on a grid it goes to the nearest crossing as seen', () => {
  expect(on(front, grid).settle({ x: 431, y: 377 })).toEqual({ x: 450, y: 400 });
});

test('seen from the side the guides are those that lie across the view', () => {
  const ball = buildMesh(body('ball', 24));
  const settling = on(left, { centre: true, grid: false, step: 1 }, ball);
  expect(settling.axes()).toEqual([2, 1]);
  const to = settling.settle({ x: 409, y: 340 });
  expect(to.x).toBeCloseTo(400, 6);
  expect(to.y).toBeCloseTo(340, 0);
});

test('the third stamp lies on the line through the two before; a later pair takes its place', () => {
  const settling = on(front, none);
  settling.stamped([-0.5, -0.5, 0]);
  expect(settling.settle({ x: 410, y: 398 })).toEqual({ x: 410, y: 398 });
  settling.stamped([0, 0, 0]);
  const to = settling.settle({ x: 450, y: 356 });
  expect(to.x - 400).toBeCloseTo(400 - to.y, 6);
  settling.stamped([0.5, 0, 0]);
  expect(settling.settle({ x: 450, y: 396 }).y).toBeCloseTo(400, 6);
});

test('a typed place is found on the clay; beside it there is none', () => {
  const settling = on(front, none);
  expect(settling.typed(0.5, -0.25)).toEqual({ x: 500, y: 450 });
  expect(settling.typed(3, 0)).toBeNull();
});
