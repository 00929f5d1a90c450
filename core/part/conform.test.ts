import { ball, body, buildMesh, nearest, pick, plane, subdivide, type RawMesh } from '#core/mesh';
import { length, minus, unit, type Vec3 } from '#core/vector';
import { conformed, groundUnder, volumeOf, type Ground } from './index';
import { block } from './solids';

const bent = (mesh: RawMesh, ground: Ground): RawMesh => {
  const positions = new Float32Array(mesh.positions.length);
  for (let v = 0; v < positions.length; v += 3)
    positions.set(conformed(ground, [...mesh.positions.subarray(v, v + 3)] as unknown as Vec3), v);
  return { positions, triangles: mesh.triangles };
};
/** A block of this size that stands on its base, finely divided. */
function standing(side: number, high: number): RawMesh {
  let mesh = block([side, side, high], [0, 0, high / 2]);
  for (let n = 0; n < 4; n++) mesh = subdivide(mesh, { sharpRad: 0.1 });
  return mesh;
}
const onTop = (
  mesh: RawMesh,
  forward: Vec3 = [0, 1, 0],
): { ground: (reach: number) => Ground; laid: ReturnType<typeof buildMesh> } => {
  const laid = buildMesh(mesh);
  const hit = pick(laid, { origin: [0.02, 0.03, 9], direction: [0, 0, -1] })!;
  return {
    laid,
    ground: (reach) => groundUnder(laid, { origin: [hit.x, hit.y, hit.z], normal: [0, 0, 1], forward }, reach),
  };
};

test.each([0.3, 0.6, 1])(
  'on a ball three times its size a part %d times as high as wide keeps its volume within 5 %% and its base within 1 %%',
  (tall) => {
    const size = 2 / 3;
    const side = size / Math.hypot(1, 1, tall);
    const part = standing(side, side * tall);
    const { laid, ground } = onTop(ball(48));
    const on = bent(part, ground(side * 0.75));
    expect(volumeOf(on) / volumeOf(part)).toBeGreaterThan(0.95);
    expect(volumeOf(on) / volumeOf(part)).toBeLessThan(1.05);
    let farthest = 0;
    for (let v = 0; v < part.positions.length; v += 3) {
      if (part.positions[v + 2]! > 1e-6) continue;
      farthest = Math.max(
        farthest,
        nearest(laid, on.positions[v]!, on.positions[v + 1]!, on.positions[v + 2]!)!.distance,
      );
    }
    expect(farthest / size).toBeLessThan(0.01);
  },
);

test('on a flat plane it stays as it is', () => {
  const part = standing(0.4, 0.3);
  const { ground } = onTop(plane(30, 2));
  const on = bent(part, ground(0.4));
  for (let v = 0; v < part.positions.length; v += 3) {
    const off = minus([...on.positions.subarray(v, v + 3)] as unknown as Vec3, [
      part.positions[v]! + 0.02,
      part.positions[v + 1]! + 0.03,
      part.positions[v + 2]!,
    ]);
    expect(length(off)).toBeLessThan(2e-3);
  }
});

test('a strap round a bollard keeps its length along the surface', () => {
  const laid = buildMesh(body('bollard', 60));
  const hit = pick(laid, { origin: [0, 0, 9], direction: [0, 0, -1] })!;
  const ground = groundUnder(laid, { origin: [hit.x, hit.y, hit.z], normal: [0, 0, 1], forward: [0, 1, 0] }, 0.5);
  let along = 0;
  let last = conformed(ground, [-0.45, 0, 0]);
  for (let n = 1; n <= 90; n++) {
    const next = conformed(ground, [-0.45 + n * 0.01, 0, 0]);
    along += length(minus(next, last));
    last = next;
  }
  expect(along).toBeGreaterThan(0.9 * 0.97);
  expect(along).toBeLessThan(0.9 * 1.03);
});

test('past the border of a sheet it goes on straight', () => {
  const laid = buildMesh(plane(10, 2));
  const ground = groundUnder(laid, { origin: [0.9, 0, 0], normal: [0, 0, 1], forward: [0, 1, 0] }, 0.4);
  const [x, y, z] = conformed(ground, [0.4, 0, 0.1]);
  expect([x, y, z]).toEqual([expect.closeTo(1.3, 1), expect.closeTo(0, 4), expect.closeTo(0.1, 4)]);
});

test('the same part on the same ground is the same to the bit', () => {
  const { ground } = onTop(body('stone', 24), unit([1, 1, 0]));
  const part = standing(0.3, 0.2);
  expect(bent(part, ground(0.3)).positions).toEqual(bent(part, ground(0.3)).positions);
});
