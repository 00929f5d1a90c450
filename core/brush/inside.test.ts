import { newPicture, pyramid, sample, type Picture } from '#core/picture';
import { newBrush, type Brush } from '#core/settings';
import { resolveBrush, shapedPicture, type AlphaForm } from './index';
import { isShaped, shapedForm } from './inside';

const SIZE = 64;
/** Higher to the right and towards the top, so that every mirror shows. */
const slope: Picture = {
  ...newPicture(SIZE),
  data: Float32Array.from(
    { length: SIZE * SIZE },
    (_, i) => 0.2 + (0.5 * (i % SIZE)) / SIZE + 0.2 * (1 - Math.floor(i / SIZE) / SIZE),
  ),
};
const alpha = (): AlphaForm => ({ pyramid: pyramid(slope), relief: 0.2, vector: null });
const form = (change: Partial<Brush['form']>): Brush['form'] => ({
  ...newBrush('b0000000-0000-4000-8000-0000000000fd', 'Test').form,
  ground: 0.3,
  ...change,
});
const shaped = (change: Partial<Brush['form']>): Picture => shapedPicture(pyramid(slope), form(change));

test('where nothing is done it is the alpha itself, not a copy', () => {
  const own = alpha();
  expect(isShaped(form({}))).toBe(false);
  expect(shapedForm(own, form({ fit: 2, turn: 40 }))).toBe(own);
});

test('repeated it has as many tiles, each the alpha reduced, and is as much shallower', () => {
  const tiled = shaped({ across: 4, down: 2 });
  expect(tiled.width).toBe(SIZE * 4);
  for (const [s, t] of [
    [0.3, 0.4],
    [0.6, 0.7],
    [0.5, 0.2],
  ] as const)
    for (let i = 0; i < 4; i++)
      for (let j = 0; j < 2; j++) expect(sample(tiled, (i + s) / 4, (j + t) / 2)).toBeCloseTo(sample(slope, s, t), 2);
  expect(shapedForm(alpha(), form({ across: 4, down: 2 })).relief).toBeCloseTo(0.05, 9);
});

test('a coarse alpha repeated often is drawn finer, a fine one no finer than it needs', () => {
  expect(shaped({ across: 8, down: 8 }).width).toBe(512);
  expect(shapedPicture({ levels: [newPicture(1024)] }, form({ across: 8 })).width).toBe(2048);
});

test('mirrored twice is the alpha; mirrored once its other side', () => {
  const once = shaped({ mirrorAcross: true });
  expect(sample(once, 0.25, 0.5)).toBeCloseTo(sample(slope, 0.75, 0.5), 5);
  const down = shaped({ mirrorDown: true });
  expect(sample(down, 0.5, 0.1)).toBeCloseTo(sample(slope, 0.5, 0.9), 5);
  const twice = shapedPicture(pyramid(once), form({ mirrorAcross: true }));
  twice.data.forEach((h, i) => expect(h).toBeCloseTo(slope.data[i], 5));
});

test('inverted, every height lies as far on the other side of the ground', () => {
  const own = form({ invert: true });
  const inverted = shapedPicture(pyramid(slope), own);
  const { ground } = resolveBrush({ ...newBrush('b0000000-0000-4000-8000-0000000000fd', 'Test'), form: own }, alpha());
  expect(ground).toBeCloseTo(0.7, 9);
  inverted.data.forEach((h, i) => expect(h - ground).toBeCloseTo(-(slope.data[i] - 0.3), 5));
});

test.each(['round', 'square'] as const)(
  'faded, a %s form is at its ground at the edge and itself in the middle',
  (footprint) => {
    const faded = shaped({ fade: 40, footprint });
    expect(sample(faded, 0.5, 0.5)).toBeCloseTo(sample(slope, 0.5, 0.5), 5);
    const corner = sample(faded, 1 / SIZE / 2, 0.5);
    expect(corner).toBeCloseTo(0.3, 2);
    // Of a round form the corners of the picture lie beyond the edge.
    if (footprint === 'round') expect(sample(faded, 0.1, 0.1)).toBeCloseTo(0.3, 6);
    const way = Array.from(
      { length: 32 },
      (_, i) => Math.abs(sample(faded, i / SIZE, 0.5) - 0.3) / Math.abs(sample(slope, i / SIZE, 0.5) - 0.3),
    );
    for (let i = 1; i < way.length; i++) expect(way[i]).toBeGreaterThanOrEqual(way[i - 1] - 0.02);
  },
);

test('a vector alpha is mirrored and turned over with its offsets', () => {
  const flat = (value: number) => pyramid({ ...newPicture(16), data: new Float32Array(256).fill(value) });
  const vector: AlphaForm = { pyramid: flat(0.5), relief: 0.2, vector: [flat(0.1), flat(0.2), flat(0.3)] };
  const change = { mirrorAcross: true, invert: true, across: 2, down: 4 };
  const [x, y, z] = shapedForm(vector, form(change)).vector!.map(({ levels }) => levels[0].data[40]);
  expect([x, y, z].map((o) => Math.round(o * 1e6) / 1e6)).toEqual([-0.05, 0.05, -0.075]);
});

test('another setting of the brush finds the shape that was made; another shape takes its place', () => {
  const own = alpha();
  const once = shapedForm(own, form({ across: 2 }));
  expect(shapedForm(own, form({ across: 2, depth: 40, fit: 1.2 }))).toBe(once);
  expect(shapedForm(own, form({ across: 3 }))).not.toBe(once);
  expect(shapedForm(own, form({ across: 3, ground: 0.5 }))).not.toBe(shapedForm(own, form({ across: 3 })));
});
