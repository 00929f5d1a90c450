import { buildMesh, plane, positionsIn, positionsOut, type Mesh } from '#core/mesh';
import { edgeGround, newPicture } from '#core/picture';
import { CastCancelled, castHeights, castTones, FlatCastError, heightRange } from './index';

const SIDE = 1.8;
const frame = { x: 0, y: 0, turn: 0, side: SIDE };

function shaped(cells: number, height: (x: number, y: number) => number): Mesh {
  const mesh = buildMesh(plane(cells, 2));
  const positions = positionsOut(mesh);
  for (let i = 0; i < positions.length; i += 3) positions[i + 2] = height(positions[i]!, positions[i + 1]!);
  positionsIn(mesh, positions);
  return mesh;
}

/** Worst difference from the formula at the sample centres, as a share of the form's own height. */
function worstError(mesh: Mesh, size: number, height: (x: number, y: number) => number, peak: number): number {
  const heights = castHeights(mesh, { frame, size, samples: 1 });
  let worst = 0;
  for (let j = 0; j < size; j++) {
    for (let i = 0; i < size; i++) {
      const x = ((i + 0.5) / size - 0.5) * SIDE;
      const y = (0.5 - (j + 0.5) / size) * SIDE;
      worst = Math.max(worst, Math.abs(heights.data[j * size + i]! - height(x, y)));
    }
  }
  return worst / peak;
}

const dome = (x: number, y: number) => 0.3 * Math.max(0, 1 - (x * x + y * y) / 0.49);
const cone = (x: number, y: number) => Math.max(0, 0.4 - 0.6 * Math.hypot(x, y));
const wave = (x: number, y: number) => 0.1 * Math.sin(9 * x) * Math.cos(7 * y);

// Linear triangles of side d leave d²/8 of the curvature, and half a cell's rise at a kink or tip.
test.each([
  ['dome', dome, 0.3, 0.008], ['cone', cone, 0.4, 0.008], ['wave', wave, 0.1, 0.0016],
] as const)('casting a %s is true to the formula', (_, height, peak, worst) => {
  expect(worstError(shaped(256, height), 300, height, peak)).toBeLessThan(worst);
});

test('a plane that slopes is exact to float32', () => {
  const slope = (x: number, y: number) => 0.3 * x - 0.2 * y + 0.1;
  expect(worstError(shaped(64, slope), 333, slope, 1)).toBeLessThan(2e-7);
});

test('the first row is at the top, columns run to the right', () => {
  const mesh = shaped(64, (x, y) => (x > 0.3 && y > 0.3 ? 1 : 0));
  const heights = castHeights(mesh, { frame, size: 64, samples: 1 });
  expect(heights.data[4 * 64 + 60]).toBe(1);
  expect(heights.data[60 * 64 + 60]).toBe(0);
  expect(heights.data[4 * 64 + 4]).toBe(0);
});

test('the frame is moved, turned and sized', () => {
  const mesh = shaped(200, (x, y) => Math.max(0, 0.2 - Math.hypot(x - 0.5, y) * 2));
  const moved = castHeights(mesh, { frame: { x: 0.5, y: 0, turn: 0, side: 0.5 }, size: 51, samples: 1 });
  expect(moved.data[25 * 51 + 25]).toBeCloseTo(0.2, 2);
  // The frame's right hand now points up the slab: the form, at the slab's right, is at the frame's bottom.
  const turned = castHeights(mesh, { frame: { x: 0, y: 0, turn: 90, side: 1.8 }, size: 90, samples: 1 });
  expect(turned.data[70 * 90 + 45]).toBeCloseTo(0.2, 1);
});

test('outside the mesh is empty, and stays black', () => {
  const mesh = shaped(32, (x) => 0.1 + 0.05 * x);
  const heights = castHeights(mesh, { frame: { ...frame, x: 1 }, size: 64, samples: 4 });
  expect(heights.data[32 * 64 + 60]).toBeNaN();
  expect(heights.data[32 * 64 + 10]).toBeGreaterThan(0.1);
  expect(castTones(heights, SIDE, null, null).picture.data[32 * 64 + 60]).toBe(0);
});

test('four samples are the mean of a 2 × 2 grid', () => {
  const mesh = shaped(300, wave);
  const four = castHeights(mesh, { frame, size: 40, samples: 4 });
  const fine = castHeights(mesh, { frame, size: 80, samples: 1 });
  for (const [i, j] of [[3, 5], [20, 20], [39, 0]] as const) {
    const at = (di: number, dj: number) => fine.data[(2 * j + dj) * 80 + 2 * i + di]!;
    expect(four.data[j * 40 + i]).toBeCloseTo((at(0, 0) + at(1, 0) + at(0, 1) + at(1, 1)) / 4, 6);
  }
});

test('mirrored clay gives a mirrored picture', () => {
  const heights = castHeights(shaped(64, (x, y) => Math.cos(5 * x) * y), { frame, size: 96, samples: 1 });
  let worst = 0;
  for (let j = 0; j < 96; j++) {
    for (let i = 0; i < 48; i++) worst = Math.max(worst, Math.abs(heights.data[j * 96 + i]! - heights.data[j * 96 + 95 - i]!));
  }
  expect(worst).toBeLessThan(1e-6);
});

test('tones: floor is black, crown white, relief keeps the depth', () => {
  const heights = castHeights(shaped(128, dome), { frame, size: 128, samples: 1 });
  const tones = castTones(heights, SIDE, null, null);
  expect(tones.floor).toBe(0);
  expect(tones.relief).toBeCloseTo(0.3 / SIDE, 3);
  expect(edgeGround(tones.picture)).toBe(0);
  const byHand = castTones(heights, SIDE, 0.1, 0.2);
  expect(heightRange(byHand.picture)).toEqual({ floor: 0, crown: 1 });
  expect(byHand.relief).toBeCloseTo(0.1 / SIDE, 12);
});

test('an untouched slab says so and what to do', () => {
  const heights = castHeights(shaped(16, () => 0.25), { frame, size: 32, samples: 1 });
  expect(() => castTones(heights, SIDE, null, null)).toThrow(FlatCastError);
  expect(() => castTones(heights, SIDE, null, null)).toThrow(/one height \(0.250\).*Lift or carve/);
  expect(() => castTones(newPicture(8, 8, NaN), SIDE, null, null)).toThrow(FlatCastError);
  expect(() => castTones(heights, SIDE, 0.4, 0.2)).toThrow(FlatCastError);
});

test('progress rises and a cast can be cancelled', () => {
  const mesh = shaped(512, wave);
  const seen: number[] = [];
  castHeights(mesh, { frame, size: 64, samples: 4, onProgress: (share) => seen.push(share) > 0 });
  expect(seen.length).toBeGreaterThan(4);
  expect([...seen].sort((a, b) => a - b)).toEqual(seen);
  expect(() => castHeights(mesh, { frame, size: 64, samples: 1, onProgress: () => false })).toThrow(CastCancelled);
});
