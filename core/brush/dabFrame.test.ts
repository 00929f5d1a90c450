import { body, buildMesh, pick, plane, type Mesh } from '#core/mesh';
import { cross } from '#core/vector';
import { dabFrame, groundNow, placeAt, type DabFrame, type Vec3 } from './index';

const dotted = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

function frameAt(
  mesh: Mesh,
  origin: Vec3,
  direction: Vec3,
  more: Partial<{ footing: number; turnRad: number; along: Vec3; radius: number }> = {},
): DabFrame {
  const hit = pick(mesh, { origin, direction })!;
  return dabFrame(
    {
      ...placeAt(hit),
      radius: more.radius ?? 0.3,
      footing: more.footing ?? 0.5,
      along: more.along ?? [1, 0, 0],
      instead: [0, 1, 0],
      turnRad: more.turnRad ?? 0,
      facing: null,
    },
    groundNow(mesh, new Uint32Array(mesh.leafCount)),
  );
}

function expectVec(v: Vec3, wanted: Vec3, digits = 6): void {
  v.forEach((c, k) => expect(c).toBeCloseTo(wanted[k], digits));
}

test('on a plane the frame is the plane’s own, turned anticlockwise', () => {
  const mesh = buildMesh(plane(32, 2));
  const frame = frameAt(mesh, [0.1, 0.2, 2], [0, 0, -1], { turnRad: Math.PI / 2 });
  expectVec(frame.origin, [0.1, 0.2, 0]);
  expectVec(frame.normal, [0, 0, 1]);
  expectVec(frame.tangent, [0, 1, 0]);
  expectVec(frame.bitangent, [-1, 0, 0]);
});

test.each([0, 0.5, 1])('on a ball the normal points away from the middle, footing %p', (footing) => {
  const mesh = buildMesh(body('ball', 48));
  const d: Vec3 = [0.48, 0.6, 0.64];
  const frame = frameAt(mesh, [d[0] * 3, d[1] * 3, d[2] * 3], [-d[0], -d[1], -d[2]], { footing });
  // The face alone leans by up to half a cell; the mean over many does not.
  expectVec(frame.normal, d, footing === 0 ? 1 : 2);
});

test('the frame is right-handed and of unit length everywhere on a bollard', () => {
  const mesh = buildMesh(body('bollard', 24));
  for (let i = 0; i < 40; i++) {
    const angle = i * 0.7;
    const frame = frameAt(
      mesh,
      [3 * Math.cos(angle), -0.9 + i * 0.045, 3 * Math.sin(angle)],
      [-Math.cos(angle), 0, -Math.sin(angle)],
      { turnRad: i },
    );
    for (const v of [frame.normal, frame.tangent, frame.bitangent]) expect(Math.hypot(...v)).toBeCloseTo(1, 6);
    expect(dotted(frame.normal, frame.tangent)).toBeCloseTo(0, 6);
    expectVec(cross(frame.normal, frame.tangent), frame.bitangent);
  }
});

test('beside a sharp edge no footing leans over it', () => {
  // Two faces that meet at x = 0 a little sharper than a right angle: level to the left, cut back under it to the
  // right.
  const raw = plane(64, 2);
  for (let i = 0; i < raw.positions.length; i += 3) {
    const x = raw.positions[i];
    if (x > 0) {
      raw.positions[i] = -0.05 * x;
      raw.positions[i + 2] = -x;
    }
  }
  const mesh = buildMesh(raw);
  expectVec(frameAt(mesh, [-0.05, 0.01, 2], [0, 0, -1], { footing: 0 }).normal, [0, 0, 1]);
  // Only faces turned the same way count, so even a wide footing does not lean over the edge.
  expectVec(frameAt(mesh, [-0.05, 0.01, 2], [0, 0, -1], { footing: 1 }).normal, [0, 0, 1], 3);
});

test('a direction along the normal falls back to the other', () => {
  const mesh = buildMesh(plane(8, 2));
  expectVec(frameAt(mesh, [0.1, 0, 2], [0, 0, -1], { along: [0, 0, 1] }).tangent, [0, 1, 0]);
});
