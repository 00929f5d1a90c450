import { seeded } from '#core/random';
import { BodyEye, type Pose } from './bodyEye';
import { seenSides, SIDES } from './sides';
import type { ClayView } from './clayView';

/** An eye over a view of that size, without a screen. */
function eyeOver(width: number, height: number) {
  let stale = 0;
  const view = {
    width,
    height,
    camera: null,
    stale: () => stale++,
    setParallel: () => undefined,
    onBeforeDraw: () => undefined,
  } as unknown as ClayView & { onBeforeDraw: () => void };
  const deaf = { addEventListener: () => undefined, removeEventListener: () => undefined };
  const surface = {
    ...deaf,
    style: {},
    getRootNode: () => deaf,
    ownerDocument: deaf,
    clientHeight: height,
    clientWidth: width,
  };
  const eye = new BodyEye(view, surface as unknown as HTMLElement);
  return { eye, view, stale: () => stale };
}
const dot = (a: readonly number[], b: readonly number[]): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
/** Distance of a point from a ray. */
function away(
  { origin, direction }: { origin: readonly number[]; direction: readonly number[] },
  p: readonly number[],
): number {
  const d = p.map((c, k) => c - origin[k]);
  const t = dot(d, direction);
  return Math.hypot(...d.map((c, k) => c - direction[k] * t));
}
const points = (count: number, seed: number): [number, number, number][] => {
  const random = seeded(seed);
  return Array.from({ length: count }, () => [random() * 2 - 1, random() * 2 - 1, random() * 2 - 1]);
};
const POSES: readonly Pose[] = [false, true].flatMap((parallel): Pose[] => [
  { position: [0, 0.3, 4.95], target: [0, -0.02, 0], parallel },
  { position: [3, 2, -1], target: [0.2, 0.1, -0.3], parallel },
  { position: [-0.5, -4, 0.6], target: [0, 0, 0], parallel },
]);

test.each([
  [900, 700],
  [400, 900],
  [1600, 300],
])('a view of %d × %d: the ray through where a point is seen goes through the point', (width, height) => {
  const { eye } = eyeOver(width, height);
  for (const pose of POSES) {
    eye.look(pose);
    eye.ray(0, 0);
    for (const p of points(40, 5)) {
      const at = eye.seen(p);
      expect(away(eye.ray(at.x, at.y), p)).toBeLessThan(1e-6);
    }
  }
});

test('the middle of the view looks at the target, along the way that the basis calls away from the eye', () => {
  const { eye } = eyeOver(900, 700);
  for (const pose of POSES) {
    eye.look(pose);
    const ray = eye.ray(450, 350);
    expect(away(ray, pose.target)).toBeLessThan(1e-6);
    const { right, up, toward } = eye.basis();
    expect(dot(ray.direction, toward)).toBeCloseTo(-1, 9);
    const lengths = [right, up, toward].map((v) => Math.hypot(...v));
    for (const length of lengths) expect(length).toBeCloseTo(1, 9);
    for (const [a, b] of [
      [right, up],
      [up, toward],
      [toward, right],
    ] as const)
      expect(dot(a, b)).toBeCloseTo(0, 9);
    // Right-handed, as the stamps are.
    expect(
      dot(
        [
          up[1] * toward[2] - up[2] * toward[1],
          up[2] * toward[0] - up[0] * toward[2],
          up[0] * toward[1] - up[1] * toward[0],
        ],
        right,
      ),
    ).toBeCloseTo(1, 9);
  }
});

test.each([
  [900, 700],
  [500, 500],
  [300, 900],
])('from the front a body of size 2 is seen whole in a view of %d × %d', (width, height) => {
  const { eye } = eyeOver(width, height);
  eye.ray(0, 0);
  for (let a = 0; a < 360; a += 10) {
    const at = eye.seen([Math.cos((a * Math.PI) / 180), Math.sin((a * Math.PI) / 180), 0]);
    expect(at.x).toBeGreaterThan(0);
    expect(at.x).toBeLessThan(width);
    expect(at.y).toBeGreaterThan(0);
    expect(at.y).toBeLessThan(height);
  }
});

test('the home view is found again, and every look asks for a picture', () => {
  const { eye, stale } = eyeOver(900, 700);
  const home = eye.pose;
  const before = stale();
  eye.look({ position: [3, 2, -1], target: [0.2, 0.1, -0.3], parallel: false });
  expect(eye.pose.position).toEqual([3, 2, -1]);
  eye.home();
  expect(stale()).toBeGreaterThan(before + 1);
  for (let k = 0; k < 3; k++) expect(eye.pose.position[k]).toBeCloseTo(home.position[k], 9);
  expect(eye.pose.target).toEqual(home.target);
});

test.each([
  [900, 700, false],
  [400, 800, false],
  [900, 700, true],
])(
  'a stencil in a view of %d × %d (parallel %p) lies where its sheet is drawn: middle, sides and turn',
  (width, height, parallel) => {
    const { eye } = eyeOver(width, height);
    eye.look({ position: [1, 1.5, 4], target: [0, 0.1, 0], parallel });
    const place = { x: 0.3, y: -0.2, half: 0.5, turnRad: 0.4 };
    const { u, v, w } = eye.stencil(place);
    const at = (p: readonly [number, number, number]): [number, number] => {
      const row = (r: readonly [number, number, number, number]): number =>
        r[0] * p[0] + r[1] * p[1] + r[2] * p[2] + r[3];
      return [row(u) / row(w), row(v) / row(w)];
    };
    for (const p of points(30, 8)) {
      const seen = eye.seen(p);
      // From the middle of the view, in half heights of it, y upwards.
      const x = (seen.x - width / 2) / (height / 2) - place.x;
      const y = (height / 2 - seen.y) / (height / 2) - place.y;
      const [c, s] = [Math.cos(place.turnRad) / place.half, Math.sin(place.turnRad) / place.half];
      const [atU, atV] = at(p);
      expect(atU).toBeCloseTo(x * c + y * s, 6);
      expect(atV).toBeCloseTo(y * c - x * s, 6);
    }
  },
);

test('a left drag turns the body only when it may', () => {
  const { eye } = eyeOver(900, 700);
  const { controls } = eye as unknown as { controls: { mouseButtons: { LEFT: unknown } } };
  expect(controls.mouseButtons.LEFT).toBeNull();
  eye.leftTurns(true);
  expect(controls.mouseButtons.LEFT).not.toBeNull();
  eye.leftTurns(false);
  expect(controls.mouseButtons.LEFT).toBeNull();
});

test.each(SIDES)('$label: that side faces the eye, and nothing else moved', ({ name, toward }) => {
  const { eye } = eyeOver(900, 700);
  eye.look({ position: [1, 2, 3], target: [0.2, 0, 0.1], parallel: false });
  const far = Math.hypot(0.8, 2, 2.9);
  eye.from(name);
  const { position, target } = eye.pose;
  expect(target).toEqual([0.2, 0, 0.1]);
  position.forEach((c, k) => expect(c - target[k]).toBeCloseTo(toward[k] * far, 2));
  const basis = eye.basis();
  expect(dot(basis.toward, toward)).toBeCloseTo(1, 6);
  // From above and below, right stays right; from the back and the sides, up stays up.
  if (toward[1] === 0) expect(basis.up[1]).toBeCloseTo(1, 6);
  else expect(basis.right[0]).toBeCloseTo(1, 6);
  expect(seenSides(basis).at(-1)!.side.name).toBe(name);
});

test('a parallel eye sees near and far alike, and as large as the other one where it looks', () => {
  const { eye } = eyeOver(900, 700);
  const across = (z: number): number => eye.seen([0.5, 0, z]).x - eye.seen([-0.5, 0, z]).x;
  eye.look({ position: [0, 0, 5], target: [0, 0, 0], parallel: false });
  const middle = across(0);
  expect(across(1)).toBeGreaterThan(middle * 1.1);
  eye.setParallel(true);
  for (const z of [-1, 0, 1]) expect(across(z)).toBeCloseTo(middle, 6);
  // However near it stands, nothing of the body lies behind it.
  eye.look({ position: [0, 0, 0.7], target: [0, 0, 0], parallel: true });
  expect(eye.ray(450, 350).origin[2]).toBeGreaterThan(2);
});

test('a drag turns the body with the hand and stops over its poles; looking at a place keeps the way it looks', () => {
  const { eye } = eyeOver(900, 700);
  eye.from('front');
  eye.turn(40, 0);
  expect(eye.seen([0, 0, 1]).x).toBeGreaterThan(450);
  eye.turn(0, 5000);
  expect(eye.basis().toward[1]).toBeCloseTo(1, 5);
  eye.turn(0, -10000);
  expect(eye.basis().toward[1]).toBeCloseTo(-1, 5);
  eye.from('left');
  const { toward } = eye.basis();
  eye.lookAt([0.3, 0.4, -0.5]);
  expect(eye.pose.target).toEqual([0.3, 0.4, -0.5]);
  eye.basis().toward.forEach((c, k) => expect(c).toBeCloseTo(toward[k], 6));
});

test('under a held key a left drag moves the eye; let go, it strokes again', () => {
  const { eye } = eyeOver(900, 700);
  const { controls } = eye as unknown as { controls: { mouseButtons: { LEFT: unknown } } };
  eye.hold('turn');
  const turns = controls.mouseButtons.LEFT;
  eye.hold('nearer');
  expect([turns, controls.mouseButtons.LEFT].every((hand) => hand !== null)).toBe(true);
  expect(controls.mouseButtons.LEFT).not.toBe(turns);
  eye.hold(null);
  expect(controls.mouseButtons.LEFT).toBeNull();
});
