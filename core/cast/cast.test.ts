import { alphaForm, resolveBrush } from '#core/brush';
import { measureMargin, ringLoss } from '#core/checks';
import { buildMesh, plane, positionsIn, positionsOut, type Mesh } from '#core/mesh';
import { edgeGround, newPicture } from '#core/picture';
import { beginStroke, endStroke, extendStroke, session } from '#core/session';
import { CastSettingsSchema, newBrush, type CastSettings } from '#core/settings';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY } from '#core/stroke';
import {
  CastCancelled,
  castHeights,
  castSlab,
  castTones,
  castVector,
  findUndercut,
  fitFrame,
  FlatCastError,
  heightRange,
} from './index';

const SIDE = 1.8;
const frame = { x: 0, y: 0, turn: 0, side: SIDE };

function shaped(cells: number, height: (x: number, y: number) => number): Mesh {
  const mesh = buildMesh(plane(cells, 2));
  const positions = positionsOut(mesh);
  for (let i = 0; i < positions.length; i += 3) positions[i + 2] = height(positions[i], positions[i + 1]);
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
      worst = Math.max(worst, Math.abs(heights.data[j * size + i] - height(x, y)));
    }
  }
  return worst / peak;
}

const dome = (x: number, y: number) => 0.3 * Math.max(0, 1 - (x * x + y * y) / 0.49);
const cone = (x: number, y: number) => Math.max(0, 0.4 - 0.6 * Math.hypot(x, y));
const wave = (x: number, y: number) => 0.1 * Math.sin(9 * x) * Math.cos(7 * y);

// Linear triangles of side d leave d²/8 of the curvature, and half a cell's rise at a kink or tip.
test.each([
  ['dome', dome, 0.3, 0.008],
  ['cone', cone, 0.4, 0.008],
  ['wave', wave, 0.1, 0.0016],
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
  for (const [i, j] of [
    [3, 5],
    [20, 20],
    [39, 0],
  ] as const) {
    const at = (di: number, dj: number) => fine.data[(2 * j + dj) * 80 + 2 * i + di];
    expect(four.data[j * 40 + i]).toBeCloseTo((at(0, 0) + at(1, 0) + at(0, 1) + at(1, 1)) / 4, 6);
  }
});

test('mirrored clay gives a mirrored picture', () => {
  const heights = castHeights(
    shaped(64, (x, y) => Math.cos(5 * x) * y),
    { frame, size: 96, samples: 1 },
  );
  let worst = 0;
  for (let j = 0; j < 96; j++) {
    for (let i = 0; i < 48; i++)
      worst = Math.max(worst, Math.abs(heights.data[j * 96 + i] - heights.data[j * 96 + 95 - i]));
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
  const heights = castHeights(
    shaped(16, () => 0.25),
    { frame, size: 32, samples: 1 },
  );
  expect(() => castTones(heights, SIDE, null, null)).toThrow(FlatCastError);
  expect(() => castTones(heights, SIDE, null, null)).toThrow(/one height \(0.250\).*Lift or carve/);
  expect(() => castTones(newPicture(8, 8, NaN), SIDE, null, null)).toThrow(FlatCastError);
  expect(() => castTones(heights, SIDE, 0.4, 0.2)).toThrow(FlatCastError);
});

test('progress rises and a cast can be cancelled', () => {
  const mesh = shaped(320, wave);
  const seen: number[] = [];
  castHeights(mesh, { frame, size: 64, samples: 4, onProgress: (share) => seen.push(share) > 0 });
  expect(seen.length).toBeGreaterThan(4);
  expect([...seen].sort((a, b) => a - b)).toEqual(seen);
  expect(() => castHeights(mesh, { frame, size: 64, samples: 1, onProgress: () => false })).toThrow(CastCancelled);
});

test('the tone curve takes heights to greys and leaves the relief alone', () => {
  const heights = castHeights(
    shaped(64, (x) => 0.1 + 0.1 * x),
    { frame: { ...frame, side: 1 }, size: 32, samples: 1 },
  );
  const straight = castTones(heights, 1, 0.05, 0.15);
  const tone = [
    { x: 0, y: 0, corner: true },
    { x: 0.5, y: 0.8, corner: true },
    { x: 1, y: 1, corner: true },
  ];
  const curved = castTones(heights, 1, 0.05, 0.15, tone);
  expect(curved.relief).toBe(straight.relief);
  straight.picture.data.forEach((h, i) =>
    expect(curved.picture.data[i]).toBeCloseTo(h < 0.5 ? h * 1.6 : 0.8 + (h - 0.5) * 0.4, 3),
  );
  const empty = castTones(newPicture(8, 8, NaN), 1, 0, 1, [
    { x: 0, y: 0.5, corner: true },
    { x: 1, y: 1, corner: true },
  ]);
  expect(empty.picture.data.every((h) => h === 0)).toBe(true);
});

describe('undercut', () => {
  test('a height field has none, on slopes either', () => {
    const steep = shaped(128, (x, y) => 0.4 * Math.sin(9 * x) * Math.cos(7 * y));
    expect(findUndercut(steep, frame, castHeights(steep, { frame, size: 256, samples: 1 })).share).toBe(0);
  });

  test('a mushroom has some, and it lies under its cap', () => {
    const mesh = mushroom(128);
    const heights = castHeights(mesh, { frame, size: 128, samples: 1 });
    const { share, pixels } = findUndercut(mesh, frame, heights);
    expect(share).toBeGreaterThan(0.02);
    expect(share).toBeLessThan(0.3);
    let farthest = 0;
    pixels.forEach((hidden, i) => {
      const x = (((i % 128) + 0.5) / 128 - 0.5) * SIDE;
      const y = (0.5 - (Math.floor(i / 128) + 0.5) / 128) * SIDE;
      if (hidden) farthest = Math.max(farthest, Math.hypot(x, y));
    });
    // The cap reaches out to two thirds of a unit.
    expect(farthest).toBeLessThan(0.66);
  });
});

test('a vector cast of an overhanging form stamps it back within 1 % of its size', () => {
  const slab = mushroom(192);
  const made = castVector(positionsOut(slab), 192, 2, frame, 256);
  const alpha = { format: 'vector32f', size: 256, relief: made.relief } as const;
  const flat = session(surface(buildMesh(plane(192, 2))), { replay: false });
  const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Vector');
  Object.assign(brush.stroke, { type: 'press', size: SIDE / 2 });
  brush.form.footprint = 'square';
  brush.touch.falloff.kind = 'full';
  beginStroke(flat, {
    brush: resolveBrush(brush, alphaForm(alpha, made.offsets.buffer as ArrayBuffer)),
    seed: 1,
    dig: false,
    symmetry: NO_SYMMETRY,
    view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
  });
  extendStroke(flat, [{ origin: [0, 0, 5], direction: [0, 0, -1] }]);
  endStroke(flat);
  const wanted = positionsOut(slab);
  const got = positionsOut(flat.surface.mesh);
  let worst = 0;
  for (let i = 0; i < wanted.length; i++) worst = Math.max(worst, Math.abs(wanted[i] - got[i]));
  expect(worst).toBeLessThan(0.01);
  expect(Math.max(...wanted.filter((_, i) => i % 3 === 2))).toBeGreaterThan(0.3);
});

test('the frame is fitted to the form, turned as it was, with its margin', () => {
  const mesh = shaped(200, (x, y) => (Math.hypot(x - 0.4, y + 0.2) < 0.25 ? 0.1 : 0));
  const fitted = fitFrame(mesh, 30, 10, 'square')!;
  expect(fitted.x).toBeCloseTo(0.4, 2);
  expect(fitted.y).toBeCloseTo(-0.2, 2);
  expect(fitted.turn).toBe(30);
  expect(fitted.side).toBeCloseTo(0.5 / 0.8, 1);
  const { picture } = castTones(castHeights(mesh, { frame: fitted, size: 256, samples: 1 }), fitted.side, null, null);
  expect(measureMargin(picture).marginPx).toBeGreaterThanOrEqual(Math.floor(256 * 0.1) - 2);
  expect(
    fitFrame(
      shaped(16, () => 0.3),
      0,
      10,
      'square',
    ),
  ).toBeNull();
});

test('a square form fitted to the ring loses nothing there', () => {
  const mesh = shaped(200, (x, y) => (Math.abs(x) < 0.3 && Math.abs(y) < 0.3 ? 0.1 : 0));
  const inRing = fitFrame(mesh, 0, 4, 'ring')!;
  const { picture } = castTones(castHeights(mesh, { frame: inRing, size: 256, samples: 1 }), inRing.side, null, null);
  expect(ringLoss(picture, 1)).toBe(0);
  expect(inRing.side).toBeGreaterThan(0.6 * Math.SQRT2);
});

describe('the checks of a cast and what mends them', () => {
  const settings = (change: Partial<CastSettings> = {}): CastSettings => ({
    ...CastSettingsSchema.parse({ size: 256, samples: 1 }),
    ...change,
  });
  const failed = (mesh: Mesh, s: CastSettings): string[] =>
    castSlab(mesh, s)
      .checks.filter((c) => !c.ok)
      .map((c) => c.name);

  test('a dome in the middle is well throughout', () => {
    expect(failed(shaped(128, dome), settings())).toEqual([]);
  });

  test('margin and ring loss are mended by fitting the frame', () => {
    const mesh = shaped(128, (x, y) => (Math.abs(x) < 0.85 && Math.abs(y) < 0.85 ? 0.1 : 0));
    expect(failed(mesh, settings({ frame: { x: 0, y: 0, turn: 0, side: 1.72 } }))).toEqual(
      expect.arrayContaining(['margin', 'ring-loss']),
    );
    const small = shaped(128, (x, y) => (Math.abs(x) < 0.4 && Math.abs(y) < 0.4 ? 0.1 : 0));
    expect(failed(small, settings({ frame: { x: 0, y: 0, turn: 0, side: 0.82 } }))).toContain('margin');
    expect(failed(small, settings({ frame: fitFrame(small, 0, 6, 'ring')! }))).toEqual([]);
  });

  test('a few high spikes waste the range; the heights that are used mend it', () => {
    const mesh = shaped(128, (x, y) => (Math.hypot(x, y) < 0.02 ? 1 : 0.05 * Math.max(0, 1 - Math.hypot(x, y))));
    const first = castSlab(mesh, settings());
    expect(first.checks.find((c) => c.name === 'used-range')!.ok).toBe(false);
    const mended = castSlab(mesh, settings({ floor: first.used.floor, crown: first.used.crown }));
    expect(mended.checks.find((c) => c.name === 'used-range')!.ok).toBe(true);
  });

  test('a border that isn’t level is found, and levelled by the floor', () => {
    const mesh = shaped(128, (x, y) => 0.05 * (x + 1) + dome(x, y));
    const first = castSlab(mesh, settings());
    expect(first.checks.find((c) => c.name === 'ground')!.ok).toBe(false);
    const mended = castSlab(mesh, settings({ floor: first.levelFloor }));
    expect(mended.checks.find((c) => c.name === 'ground')!.ok).toBe(true);
  });

  test('a texture that rises as a whole is found, and mended by the ground at the average', () => {
    const mesh = shaped(
      256,
      (x, y) => 0.1 * Math.max(0, 1 - x * x - y * y) + 0.01 * Math.sin(60 * x) * Math.sin(60 * y),
    );
    const lift = (s: CastSettings) => castSlab(mesh, s).checks.find((c) => c.name === 'lift')!;
    expect(lift(settings()).ok).toBe(false);
    expect(lift(settings({ ground: 'average' })).ok).toBe(true);
  });

  test('a frame beside the clay says how much of it is', () => {
    const beside = castSlab(shaped(128, dome), settings({ frame: { x: 1, y: 0, turn: 0, side: 1.8 } }));
    const check = beside.checks[0];
    expect(check.name).toBe('off-clay');
    expect(check.value).toBeCloseTo(50, 0);
    expect(check.sentence).toMatch(/beside the clay/);
  });

  test('an undercut form offers what heights can’t hold', () => {
    expect(failed(mushroom(128), settings())).toContain('undercut');
  });
});

/** A stem with a cap that hangs over it. */
function mushroom(cells: number): Mesh {
  const { positions } = plane(cells, 2);
  for (let i = 0; i < positions.length; i += 3) {
    const d = Math.hypot(positions[i], positions[i + 1]);
    if (d >= 0.5) continue;
    const t = 1 - d / 0.5;
    positions[i + 2] = 0.4 * Math.min(1, t * 2);
    // The upper half of the flank is drawn outwards, the middle closes over it.
    const out = d > 0 ? 1 + 0.6 * Math.sin(Math.min(1, t * 1.6) * Math.PI) : 1;
    positions[i] *= out;
    positions[i + 1] *= out;
  }
  return buildMesh(plane(cells, 2), { places: positions });
}
