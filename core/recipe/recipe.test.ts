import { newPicture, psnr, rasterOf, type Picture, type Raster } from '#core/picture';
import { growPattern } from '#core/pattern';
import { resize } from '#core/filter';
import { newGrow, newStep, STEP_KINDS, StepSchema, type Step } from '#core/settings';
import { ALONE, newCache, othersOf, RecipeCancelled, runRecipe, runStep, StepError } from './index';

let ids = 0;
const step = (given: { kind: Step['kind'] } & Record<string, unknown>): Step =>
  StepSchema.parse({ id: `5f0c1d9e-3b41-4c8a-9f5e-${String(++ids).padStart(12, '0')}`, ...given });
const alone = ALONE;
const colour = (size: number): Raster => {
  const planes = [0, 1, 2].map(() => new Float32Array(size * size));
  for (let i = 0; i < size * size; i++) planes.forEach((p, k) => (p[i] = ((i * (k + 3)) % 97) / 97));
  return { width: size, height: size, planes };
};
const OTHER = '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e';

test('every kind of step runs as it is when it is added, on grey and on colour, and stays within 0 and 1', () => {
  const grey = rasterOf(growPattern(newGrow('cells', 2), 64));
  const others = new Map([[OTHER, newPicture(32, 32, 0.5)]]);
  for (const kind of STEP_KINDS) {
    const made = kind === 'combine' ? step({ kind, alphaId: OTHER }) : newStep(kind, OTHER);
    for (const raster of [grey, colour(40)]) {
      const out = runRecipe(raster, 'x', [made], { ...ALONE, others }, { size: 48 });
      // Nothing is picked out until it is drawn on.
      expect(out.problems.map(({ sentence }) => sentence)).toEqual(
        kind === 'pickOut' ? ['Draw a stroke over what you want to pick out.'] : [],
      );
      expect(out.picture.data).toHaveLength(48 * 48);
      expect(out.picture.data.every((v) => v >= 0 && v <= 1)).toBe(true);
    }
  }
});

test('the order counts, and a step that is off is left out', () => {
  const base = rasterOf(newPicture(16, 16, 0.25));
  const lift = step({ kind: 'levels', white: 0.5 });
  const turn = step({ kind: 'invert' });
  const grey = (steps: Step[]): number => runRecipe(base, 'b', steps, alone, { size: 16 }).picture.data[0];
  expect(grey([lift, turn])).toBeCloseTo(0.5, 6);
  expect(grey([turn, lift])).toBeCloseTo(1, 6);
  expect(grey([{ ...lift, on: false }, turn])).toBeCloseTo(0.75, 6);
});

test('crop, resize and repeat change the size as they say', () => {
  const raster = rasterOf(newPicture(200, 100));
  const sizeOf = (s: Step, scale = 1): number[] => {
    const out = runStep(raster, s, { ...ALONE, scale });
    return [out.width, out.height];
  };
  expect(sizeOf(step({ kind: 'crop', left: 10, right: 20, bottom: 50 }))).toEqual([140, 50]);
  expect(sizeOf(step({ kind: 'resize', side: 64 }))).toEqual([64, 32]);
  expect(sizeOf(step({ kind: 'resize', side: 64 }), 0.5)).toEqual([32, 16]);
  expect(sizeOf(step({ kind: 'repeat', columns: 1, rows: 2 }))).toEqual([200, 200]);
  expect(sizeOf(step({ kind: 'straighten', turn: 90 }))).toEqual([100, 200]);
  expect(() => sizeOf(step({ kind: 'crop', left: 60, right: 60 }))).toThrow(StepError);
});

test('grey mix weighs the colours', () => {
  const raster: Raster = {
    width: 1,
    height: 1,
    planes: [Float32Array.of(0.5), Float32Array.of(0.25), Float32Array.of(1)],
  };
  expect(runStep(raster, step({ kind: 'mix', red: 100, green: 0, blue: 0 }), alone).planes[0][0]).toBeCloseTo(0.5, 6);
  expect(runStep(raster, step({ kind: 'mix', red: 0, green: 200, blue: -20 }), alone).planes[0][0]).toBeCloseTo(0.3, 6);
});

test('a step whose other alpha was deleted is left out with a sentence; the rest runs', () => {
  const steps = [step({ kind: 'combine', alphaId: OTHER }), step({ kind: 'invert' })];
  const out = runRecipe(rasterOf(newPicture(8, 8, 0.25)), 'b', steps, alone, { size: 8 });
  expect(out.problems).toEqual([{ id: steps[0].id, sentence: expect.stringContaining('has been deleted') }]);
  expect(out.picture.data[0]).toBeCloseTo(0.75, 6);
  expect(othersOf(steps)).toEqual([OTHER]);
});

describe('the cache', () => {
  const base = rasterOf(growPattern(newGrow('soft', 3), 64));
  const steps = [step({ kind: 'blur' }), step({ kind: 'levels', black: 0.2 }), step({ kind: 'invert' })];

  test('a change to a later step leaves the earlier ones as they were kept', () => {
    const cache = newCache();
    runRecipe(base, 'b', steps, alone, { size: 64 }, cache);
    const kept = cache.rasters[0];
    const changed = [steps[0], step({ kind: 'levels', black: 0.4 }), steps[2]];
    const again = runRecipe(base, 'b', changed, alone, { size: 64 }, cache);
    expect(cache.rasters[0]).toBe(kept);
    expect(again.picture.data).toEqual(runRecipe(base, 'b', changed, alone, { size: 64 }).picture.data);
  });

  test('another base is not taken for the old one', () => {
    const cache = newCache();
    runRecipe(base, 'b', steps, alone, { size: 64 }, cache);
    const other = rasterOf(newPicture(64, 64, 0.5));
    expect(runRecipe(other, 'c', steps, alone, { size: 64 }, cache).picture.data[5]).toBeCloseTo(1 - 0.375, 5);
  });
});

test('cancelling between steps ends the run', () => {
  const steps = [step({ kind: 'invert' }), step({ kind: 'invert' }), step({ kind: 'invert' })];
  const shares: number[] = [];
  const run = (): unknown =>
    runRecipe(rasterOf(newPicture(8, 8)), 'b', steps, alone, { size: 8, onProgress: (s) => shares.push(s) < 3 });
  expect(run).toThrow(RecipeCancelled);
  expect(shares).toEqual([0, 0.25, 0.5]);
});

test('what a step is given can be asked for', () => {
  const steps = [step({ kind: 'invert' }), step({ kind: 'levels', white: 0.5 })];
  const base = rasterOf(newPicture(8, 8, 0.8));
  expect(runRecipe(base, 'b', steps, alone, { size: 8, until: steps[1].id }).picture.data[0]).toBeCloseTo(0.2, 5);
});

test('a recipe at 512 and at 2048 agree after reduction', () => {
  const steps = [
    step({ kind: 'even', size: 20 }),
    step({ kind: 'levels', black: 0.1, white: 0.9, mid: 1.2 }),
    step({ kind: 'blur', radius: 0.5 }),
    step({ kind: 'despeckle', size: 0.4, contrast: 10 }),
    step({ kind: 'crop', left: 5, right: 5, top: 5, bottom: 5 }),
    step({ kind: 'terrace', steps: 4, soft: 80 }),
    step({ kind: 'feather' }),
    step({ kind: 'pad', margin: 4, centre: false }),
  ];
  const large = growPattern(newGrow('pebbles', 4), 2048);
  const small = resize(large, 512, 512);
  const at = (p: Picture, scale: number, size: number): Picture =>
    runRecipe(rasterOf(p), 'b', steps, { ...ALONE, scale }, { size }).picture;
  expect(psnr(resize(at(large, 1, 2048), 512, 512), at(small, 1 / 4, 512))).toBeGreaterThan(34);
});
