import { castSlab } from '#core/cast';
import { buildMesh, plane, type RawMesh } from '#core/mesh';
import { psnr } from '#core/picture';
import { CastSettingsSchema, PatchSchema, type Patch } from '#core/settings';
import { castColours, castPatch, castPatchVector, EmptyPatchError, levelNormal, patchFrame, surfaceOf } from './index';

type Height = (x: number, y: number) => number;

/** A square sheet of 2 × 2 body units over x and y. */
function sheet(height: Height, cells = 200): RawMesh {
  const raw = plane(cells, 2);
  for (let i = 0; i < raw.positions.length; i += 3)
    raw.positions[i + 2] = height(raw.positions[i], raw.positions[i + 1]);
  return raw;
}

const patch = (more: object = {}): Patch =>
  PatchSchema.parse({
    id: '00000000-0000-4000-8000-000000000001',
    name: 'Patch',
    at: { x: 0, y: 0, z: 0 },
    normal: { x: 0, y: 0, z: 1 },
    detrend: { kind: 'none' },
    ...more,
    cast: { size: 128, samples: 1, ...(more as { cast?: object }).cast, frame: { side: 1, ...frameOf(more) } },
  });
const frameOf = (more: object): object => (more as { cast?: { frame?: object } }).cast?.frame ?? {};

const bumps: Height = (x, y) => 0.06 * Math.cos(9 * x) * Math.cos(7 * y) + 0.02 * Math.sin(23 * x + 11 * y);

test('a patch of our own slab is the slab’s cast, however it lies in space', () => {
  const slab = sheet(bumps);
  const settings = CastSettingsSchema.parse({ size: 256, samples: 4, frame: { x: 0.1, y: -0.2, turn: 30, side: 1.1 } });
  const wanted = castSlab(buildMesh(slab), settings);
  // Turned about x and y, and moved.
  const [ca, sa, cb, sb] = [Math.cos(0.7), Math.sin(0.7), Math.cos(0.4), Math.sin(0.4)];
  const placed = (x: number, y: number, z: number): [number, number, number] => {
    const [u, v] = [y * ca - z * sa, y * sa + z * ca];
    return [x * cb + v * sb + 0.3, u - 0.1, v * cb - x * sb + 0.2];
  };
  const turned = { ...slab, positions: slab.positions.slice() };
  for (let i = 0; i < turned.positions.length; i += 3)
    turned.positions.set(placed(slab.positions[i], slab.positions[i + 1], slab.positions[i + 2]), i);
  const [at, tip, right] = [placed(0.1, -0.2, 0), placed(0.1, -0.2, 1), placed(1.1, -0.2, 0)];
  const normal = { x: tip[0] - at[0], y: tip[1] - at[1], z: tip[2] - at[2] };
  const base = patch({
    at: { x: at[0], y: at[1], z: at[2] },
    normal,
    cast: { size: 256, samples: 4, frame: { side: 1.1, turn: 0 } },
  });
  // The turn that makes the patch's right that of the slab's frame.
  const frame = patchFrame(base);
  const along = [0, 1, 2].map((k) => right[k] - at[k]);
  const dot = (v: readonly number[]): number => v.reduce((sum, x, k) => sum + x * along[k], 0);
  const turn = 30 + (Math.atan2(dot(frame.up), dot(frame.right)) * 180) / Math.PI;
  const own = { ...base, cast: { ...base.cast, frame: { ...base.cast.frame, turn } } };
  const made = castPatch(surfaceOf(buildMesh(turned), own), own);
  expect(psnr(made.picture, wanted.picture)).toBeGreaterThan(50);
  expect(made.relief).toBeCloseTo(wanted.relief, 3);
  expect(made.ground).toBeCloseTo(wanted.ground, 2);
  expect(made.filled).toBe(0);
});

test('near an edge what is missing is filled from the rim and told', () => {
  const mesh = buildMesh(sheet(bumps));
  const near = patch({ at: { x: 0.75, y: 0, z: 0 } });
  const made = castPatch(surfaceOf(mesh, near), near);
  expect(made.filled).toBeGreaterThan(0.2);
  expect(made.filled).toBeLessThan(0.3);
  expect(made.checks.find(({ name }) => name === 'filled')).toMatchObject({ ok: false });
  expect(made.picture.data.every((h) => h >= 0 && h <= 1)).toBe(true);
  const away = patch({ at: { x: 3, y: 0, z: 0 } });
  expect(() => surfaceOf(mesh, away)).toThrow(EmptyPatchError);
});

test('over a hole the other side of a closed body never shows, and the hole is filled from its rim', () => {
  const front = sheet((x, y) => 0.3 - 0.1 * (x * x + y * y), 120);
  // The far side of the same body, facing away.
  const back = sheet(() => -0.3, 120);
  const n = front.positions.length / 3;
  const hole = (t: number): boolean => {
    const middle = [0, 1].map(
      (k) => [0, 1, 2].reduce((sum, c) => sum + front.positions[front.triangles[t * 3 + c] * 3 + k], 0) / 3,
    );
    return Math.hypot(middle[0] - 0.1, middle[1]) < 0.12;
  };
  const faces: number[] = [];
  for (let t = 0; t < front.triangles.length / 3; t++)
    if (!hole(t)) faces.push(...front.triangles.subarray(t * 3, t * 3 + 3));
  for (let t = 0; t < back.triangles.length; t += 3)
    faces.push(back.triangles[t] + n, back.triangles[t + 2] + n, back.triangles[t + 1] + n);
  const positions = new Float32Array(n * 6);
  positions.set(front.positions);
  positions.set(back.positions, n * 3);
  const mesh = buildMesh({ positions, triangles: Uint32Array.from(faces) });
  const over = patch({ at: { x: 0, y: 0, z: 0.3 } });
  const made = castPatch(surfaceOf(mesh, over), over);
  const whole = castPatch(surfaceOf(buildMesh(front), over), over);
  expect(made.filled).toBeGreaterThan(0.03);
  // Within the hole the sheet is a dome; the membrane over its rim stays within a tenth of its height.
  expect(made.floor).toBeCloseTo(whole.floor, 3);
  let worst = 0;
  for (let i = 0; i < made.picture.data.length; i++) {
    const [a, b] = [made, whole].map((c) => c.floor + c.picture.data[i] * (c.crown - c.floor));
    worst = Math.max(worst, Math.abs(a - b));
  }
  expect(worst).toBeLessThan(0.004);
});

test('what lies under a fold but isn’t joined to the front doesn’t count', () => {
  const front = sheet(() => 0.1, 60);
  for (let i = 0; i < front.positions.length; i += 3) front.positions[i] = front.positions[i] * 0.3;
  const ledge = sheet(() => -0.1, 60);
  const n = front.positions.length / 3;
  const positions = new Float32Array(n * 6);
  positions.set(front.positions);
  positions.set(ledge.positions, n * 3);
  const triangles = new Uint32Array(front.triangles.length * 2);
  triangles.set(front.triangles);
  triangles.set(
    front.triangles.map((v) => v + n),
    front.triangles.length,
  );
  const mesh = buildMesh({ positions, triangles });
  const onTop = patch({ at: { x: 0, y: 0, z: 0.1 } });
  const { positions: seen } = surfaceOf(mesh, onTop);
  for (let i = 2; i < seen.length; i += 3) expect(Math.abs(seen[i])).toBeLessThan(1e-6);
});

/** A block on a plane, its walls upright to the last bit or leaning over their foot. */
function block(height: number, lean: number): RawMesh {
  const raw = sheet(() => 0, 100);
  const { positions: p } = raw;
  for (let v = 0; v < p.length; v += 3) {
    const out = Math.max(Math.abs(p[v]), Math.abs(p[v + 1]));
    // Rings at 0.2 and 0.22 are the top and the foot of the wall.
    if (out > 0.23) continue;
    p[v + 2] = out > 0.21 ? 0 : height;
    if (out > 0.19 && out < 0.21) for (let k = 0; k < 2; k++) p[v + k] *= (0.22 + lean) / out;
  }
  return raw;
}

test.each([
  ['upright', 0, 0.04],
  ['at 86°', -0.003, 0.04],
  ['leaning out by 30°', 0.023, 0.04],
  ['of a pit', 0, -0.04],
])('tops walled all round count: walls %s', (_, lean, height) => {
  const mesh = buildMesh(block(height, lean));
  const over = patch({ at: { x: 0.3, y: 0, z: 0 } });
  const made = castPatch(surfaceOf(mesh, over), over);
  expect(made.crown - made.floor).toBeCloseTo(Math.abs(height), 6);
  expect(made.filled).toBe(0);
  // The block’s own part of the frame, at its own height.
  const middle = made.picture.data[64 * 128 + 26];
  expect(middle).toBeCloseTo(height > 0 ? 1 : 0, 5);
  expect(made.undercut.share > 0.005).toBe(lean > 0.01);
});

test('through a hole in a wall the room behind it isn’t taken for a pit', () => {
  // A tube with a thick wall along y: its outside, its inside, and a hole through the side that is looked at.
  const [outer, inner, n] = [1, 0.9, 240];
  const faces: number[] = [];
  const points: number[] = [];
  const place = (r: number, i: number, j: number): void => {
    const angle = (i / n) * 2 * Math.PI;
    points.push(r * Math.sin(angle), (j / 100 - 0.5) * 2, r * Math.cos(angle));
  };
  for (const r of [outer, inner]) for (let i = 0; i < n; i++) for (let j = 0; j <= 100; j++) place(r, i, j);
  const at = (shell: number, i: number, j: number): number => (shell * n + (i % n)) * 101 + j;
  const holed = (i: number, j: number): boolean => (i < 3 || i >= n - 3) && j >= 46 && j < 54;
  for (let i = 0; i < n; i++) {
    for (let j = 0; j < 100; j++) {
      if (holed(i, j)) continue;
      for (const shell of [0, 1]) {
        const [a, b, c, d] = [at(shell, i, j), at(shell, i + 1, j), at(shell, i + 1, j + 1), at(shell, i, j + 1)];
        faces.push(...(shell === 0 ? [a, b, c, a, c, d] : [a, c, b, a, d, c]));
      }
      const rim = (inHole: boolean, p: number[], q: number[]): void => {
        if (!inHole) return;
        const [a, b] = [at(0, p[0], p[1]), at(0, q[0], q[1])];
        const [c, d] = [at(1, p[0], p[1]), at(1, q[0], q[1])];
        faces.push(b, a, c, b, c, d);
      };
      rim(holed((i + 1) % n, j), [i + 1, j], [i + 1, j + 1]);
      rim(holed((i + n - 1) % n, j), [i, j + 1], [i, j]);
      rim(j < 99 && holed(i, j + 1), [i + 1, j + 1], [i, j + 1]);
      rim(j > 0 && holed(i, j - 1), [i, j], [i + 1, j]);
    }
  }
  const mesh = buildMesh({ positions: Float32Array.from(points), triangles: Uint32Array.from(faces) });
  const over = patch({ at: { x: 0.3, y: 0, z: 0.95 }, cast: { frame: { side: 1.2 } } });
  const surface = surfaceOf(mesh, over);
  for (let i = 0; i < surface.triangles.length; i++)
    expect(surface.positions[surface.triangles[i] * 3 + 2]).toBeGreaterThan(-0.7);
});

test('a mesh laid out for looking alone has the normals and boxes of one that is sculpted', () => {
  const raw = sheet(bumps, 60);
  const [whole, light] = [buildMesh(raw), buildMesh(raw, { ringless: true })];
  expect(light.boxes).toEqual(whole.boxes);
  for (let i = 0; i < whole.normals.length; i++)
    expect(Math.abs(light.normals[i] - whole.normals[i])).toBeLessThan(1e-5);
});

test('the frame lies as the surface round it does, whatever single faces do', () => {
  const slope = buildMesh(sheet((x, y) => 0.5 * x + 0.02 * Math.sin(40 * x) * Math.sin(37 * y)));
  const [x, y, z] = levelNormal(slope, [0, 0, 0], [0, 0, 1], 0.5);
  const length = Math.hypot(0.5, 1);
  expect(Math.abs(x + 0.5 / length)).toBeLessThan(0.01);
  expect(Math.abs(y)).toBeLessThan(0.01);
  expect(Math.abs(z - 1 / length)).toBeLessThan(0.01);
});

test('up in the picture is up in the world; the axes are at right angles and right-handed', () => {
  for (const normal of [
    { x: 0, y: 0, z: 1 },
    { x: 0, y: 1, z: 0 },
    { x: 0, y: -1, z: 0 },
    { x: 0.6, y: 0.48, z: -0.64 },
  ]) {
    const { right, up, out } = patchFrame(patch({ normal, cast: { frame: { turn: 0 } } }));
    const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, v, k) => sum + v * b[k], 0);
    expect([dot(right, up), dot(up, out), dot(out, right)].every((d) => Math.abs(d) < 1e-9)).toBe(true);
    const cross = [
      right[1] * up[2] - right[2] * up[1],
      right[2] * up[0] - right[0] * up[2],
      right[0] * up[1] - right[1] * up[0],
    ];
    expect(dot(cross, out)).toBeCloseTo(1, 9);
    if (Math.abs(normal.y) < 0.9) expect(up[1]).toBeGreaterThan(0.4);
  }
});

test('made to repeat: what follows the last column is the first', () => {
  const mesh = buildMesh(sheet(bumps));
  const own = patch({ edge: 'repeat', edgeWidth: 20 });
  const { data } = castPatch(surfaceOf(mesh, own), own).picture;
  let seam = 0;
  let inside = 0;
  for (let j = 0; j < 128; j++) {
    seam += Math.abs(data[j * 128 + 127] - data[j * 128]);
    inside += Math.abs(data[j * 128 + 63] - data[j * 128 + 64]);
  }
  expect(seam).toBeLessThan(inside * 3 + 0.5);
});

test('vector cast: without overhangs it is the heights; over one, every point goes back to where it was', async () => {
  const flat = patch({ cast: { size: 96, frame: { side: 1.2 } } });
  const mesh = buildMesh(sheet(bumps, 120));
  const { offsets, relief } = await castPatchVector(mesh, flat);
  const heights = castPatch(surfaceOf(mesh, flat), flat);
  expect(relief).toBeCloseTo(heights.relief, 2);
  for (let i = 0; i < offsets.length; i += 3) {
    expect(Math.abs(offsets[i])).toBeLessThan(1e-6);
    expect(Math.abs(offsets[i + 1])).toBeLessThan(1e-6);
  }
  // A bump that leans so far that it hangs over.
  const bump = (x: number, y: number): number => Math.max(0, 1 - (x * x + y * y) / 0.09) ** 2;
  const raw = sheet(() => 0, 160);
  for (let i = 0; i < raw.positions.length; i += 3) {
    const h = bump(raw.positions[i], raw.positions[i + 1]);
    raw.positions[i] += 0.34 * h;
    raw.positions[i + 2] = 0.2 * h;
  }
  const own = patch({ cast: { size: 128, frame: { side: 1.4 } } });
  const made = await castPatchVector(buildMesh(raw), own);
  expect(castPatch(surfaceOf(buildMesh(raw), own), own).undercut.share).toBeGreaterThan(0.005);
  let sideways = 0;
  let worst = 0;
  for (let j = 8; j < 120; j += 3) {
    for (let i = 8; i < 120; i += 3) {
      const at = (j * 128 + i) * 3;
      const p = [0, 1, 2].map((k) => {
        const rest = k === 0 ? ((i + 0.5) / 128 - 0.5) * 1.4 : k === 1 ? (0.5 - (j + 0.5) / 128) * 1.4 : 0;
        return rest + made.offsets[at + k] * 1.4;
      });
      sideways = Math.max(sideways, Math.abs(made.offsets[at]));
      let near = Infinity;
      for (let v = 0; v < raw.positions.length; v += 3)
        near = Math.min(
          near,
          (raw.positions[v] - p[0]) ** 2 + (raw.positions[v + 1] - p[1]) ** 2 + (raw.positions[v + 2] - p[2]) ** 2,
        );
      worst = Math.max(worst, Math.sqrt(near));
    }
  }
  expect(sideways).toBeGreaterThan(0.02);
  // The grid’s own spacing is 0.0125.
  expect(worst).toBeLessThan(0.02);
});

test('colours are cast as they lie under the frame, and filled where there are none', () => {
  const raw = sheet(() => 0, 80);
  const colours = new Uint8Array(raw.positions.length);
  for (let i = 0; i < colours.length; i += 3) colours.set([raw.positions[i] > 0 ? 200 : 20, 90, 10], i);
  const mesh = buildMesh(raw);
  const at = patch({ at: { x: 0.7, y: 0, z: 0 }, cast: { size: 64, frame: { side: 1.6 } } });
  const out = castColours(surfaceOf(mesh, at), { order: mesh.order, colours }, at, 64);
  const pixel = (i: number, j: number): number[] => [...out.subarray((j * 64 + i) * 4, (j * 64 + i) * 4 + 4)];
  expect(pixel(0, 32)).toEqual([20, 90, 10, 255]);
  expect(pixel(20, 32)).toEqual([200, 90, 10, 255]);
  // Beyond the sheet's edge.
  expect(pixel(63, 32)).toEqual([200, 90, 10, 0]);
});
