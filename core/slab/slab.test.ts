import { buildMesh, maskOut, plane, positionsOut } from '#core/mesh';
import { layeredNoise } from '#core/random';
import { canRedo, canUndo, makeEdit, redo, undo } from '#core/session';
import { ByNumberSchema } from '#core/settings';
import { StepCancelled } from '#core/timeline';
import {
  carriedUp,
  clay,
  coarser,
  finer,
  finerValues,
  addEarlierStep,
  levelAt,
  packHistory,
  readHistory,
  stepLevel,
  type Clay,
} from './index';

function rough(cells: number): Float32Array {
  const { positions } = plane(cells, 2);
  for (let i = 0; i < positions.length; i += 3)
    positions[i + 2] = 0.1 * layeredNoise(positions[i] * 3, positions[i + 1] * 3, 5, 5);
  return positions;
}
const open = (cells = 64, places: Float32Array | null = rough(cells)): Clay =>
  clay({ cells, places, mask: null, upper: [] });
const places = (c: Clay): Float32Array => positionsOut(c.surface.mesh);
const lift = { kind: 'by-number', change: 'lift', numbers: { ...ByNumberSchema.parse({}), lift: 0.25 } } as const;

const worst = (a: Float32Array, b: Float32Array): number =>
  a.reduce((most, x, i) => Math.max(most, Math.abs(x - b[i])), a.length === b.length ? 0 : Infinity);

test.each(['up', 'down'] as const)('a step %s that is given up at any of its parts changes nothing', (direction) => {
  const shares: number[] = [];
  stepLevel(open(), direction, (share) => shares.push(share) > 0);
  expect(shares.length).toBeGreaterThan(3);
  expect(shares).toEqual([...shares].sort((a, b) => a - b));
  for (let most = 0; most < shares.length; most++) {
    const c = open();
    makeEdit(c, lift);
    const before = places(c);
    let parts = 0;
    expect(() => stepLevel(c, direction, () => parts++ < most)).toThrow(StepCancelled);
    expect([c.level.cells, places(c), c.done.length]).toEqual([64, before, 1]);
    stepLevel(c, direction);
    expect(undo(c)).toBe(true);
    expect(places(c)).toEqual(before);
  }
});

describe('finer and coarser grids', () => {
  test('a finer plane is the plane of twice the cells, to float precision', () => {
    const out = finer(plane(16, 2).positions, 16);
    expect(worst(plane(32, 2).positions, out)).toBeLessThan(1e-6);
  });

  test('what is there stays where it is; upright edges don’t overshoot', () => {
    const { positions } = plane(16, 2);
    for (let i = 0; i < positions.length; i += 3) positions[i + 2] = positions[i] > 0.1 ? 0.3 : 0;
    const out = finer(positions, 16);
    expect(
      Array.from(positions, (_, k) => out[(Math.floor(k / 51) * 2 * 33 + (Math.floor(k / 3) % 17) * 2) * 3 + (k % 3)]),
    ).toEqual(Array.from(positions));
    const heights = out.filter((_, i) => i % 3 === 2);
    expect([Math.min(...heights), Math.max(...heights)]).toEqual([0, Math.fround(0.3)]);
  });

  test('a smooth wave is met within a hundredth of its height', () => {
    const wave = (cells: number): Float32Array => {
      const { positions } = plane(cells, 2);
      for (let i = 0; i < positions.length; i += 3)
        positions[i + 2] = 0.1 * Math.sin(positions[i] * 4) * Math.cos(positions[i + 1] * 3);
      return positions;
    };
    const out = finer(wave(64), 64);
    expect(worst(wave(128), out)).toBeLessThan(0.001);
  });

  test('coarser keeps a plane and its outline', () => {
    const out = coarser(plane(32, 2).positions, 32);
    expect(worst(plane(16, 2).positions, out)).toBeLessThan(1e-6);
  });

  test('values between masks stay between them', () => {
    const values = Float32Array.from({ length: 17 * 17 }, (_, i) => (i % 3 === 0 ? 1 : 0));
    expect(finerValues(values, 16).every((m) => m >= 0 && m <= 1)).toBe(true);
  });
});

test('down and up again without a change gives back the exact bytes', () => {
  const c = open(128);
  const before = places(c);
  stepLevel(c, 'down');
  stepLevel(c, 'down');
  expect(c.level.cells).toBe(32);
  stepLevel(c, 'up');
  stepLevel(c, 'up');
  expect(c.level.cells).toBe(128);
  expect(places(c)).toEqual(before);
  expect(c.level.upper).toHaveLength(0);
});

test('a change below is carried up with the detail on it', () => {
  const c = open(128);
  const before = places(c);
  stepLevel(c, 'down');
  makeEdit(c, lift);
  stepLevel(c, 'up');
  expect(
    worst(
      places(c),
      before.map((x, i) => x + (i % 3 === 2 ? 0.25 : 0)),
    ),
  ).toBeLessThan(1e-5);
});

test('detail turns with the surface under it', () => {
  const flat = plane(64, 2).positions;
  const fine = finer(flat, 64);
  const spike = (64 * 129 + 64) * 3;
  const level = { cells: 128, fine: fine.slice(), base: flat };
  level.fine[spike + 2] = 0.2;
  // The plane is tilted by 90 degrees about y: up becomes right.
  const below = flat.slice();
  for (let i = 0; i < below.length; i += 3) {
    below[i + 2] = -flat[i];
    below[i] = 0;
  }
  const out = carriedUp(level, below);
  expect(out[spike]).toBeCloseTo(0.2, 5);
  expect(out[spike + 2]).toBeCloseTo(0, 5);
});

test('one history across levels: undo goes back through them and redo forward', () => {
  const c = open(64);
  const start = places(c);
  makeEdit(c, lift);
  const lifted = places(c);
  stepLevel(c, 'up');
  const fine = places(c);
  makeEdit(c, lift);
  expect(canUndo(c)).toBe(true);
  expect(undo(c)).toBe(true);
  expect(places(c)).toEqual(fine);
  expect(undo(c)).toBe(true);
  expect([c.level.cells, places(c)]).toEqual([64, lifted]);
  expect(undo(c)).toBe(true);
  expect(places(c)).toEqual(start);
  expect(undo(c)).toBe(false);
  expect(redo(c)).toBe(true);
  expect(redo(c)).toBe(true);
  expect([c.level.cells, places(c)]).toEqual([128, fine]);
  expect(redo(c)).toBe(true);
  expect(canRedo(c)).toBe(false);
});

test('masks go with the levels', () => {
  const c = open(64);
  makeEdit(c, { kind: 'mask-height', low: 0, high: 1, soft: 0, mode: 'add' });
  const share = (mask: Float32Array): number => mask.reduce((a, b) => a + b, 0) / mask.length;
  const before = share(maskOut(c.surface.mesh));
  stepLevel(c, 'up');
  expect(share(maskOut(c.surface.mesh))).toBeCloseTo(before, 1);
  stepLevel(c, 'down');
  expect(share(maskOut(c.surface.mesh))).toBeCloseTo(before, 1);
});

test('there is no level above the finest and below the coarsest', () => {
  expect(levelAt(2048, 'up')).toBeNull();
  expect(levelAt(32, 'down')).toBeNull();
  const c = open(32);
  expect(() => stepLevel(c, 'down')).toThrow('at least 32 cells a side');
  expect(c.level.cells).toBe(32);
});

describe('the history that is kept', () => {
  const worked = (): Clay => {
    const c = open(64);
    for (let i = 0; i < 4; i++) {
      makeEdit(c, i % 2 === 0 ? lift : { kind: 'mask-height', low: 0.3 - i * 0.02, high: 2, soft: 0, mode: 'add' });
    }
    return c;
  };

  test('comes back: each step can be undone and redone to the byte', () => {
    const c = worked();
    const mask = maskOut(c.surface.mesh);
    const bytes = packHistory(c.done, 64e6)!;
    const again = clay({ cells: 64, places: places(c), mask, upper: [] });
    for (const before of readHistory(bytes.buffer, again.surface.mesh)) addEarlierStep(again, before);
    expect(again.done).toHaveLength(4);
    for (let i = 0; i < 4; i++) {
      expect(undo(c)).toBe(true);
      expect(undo(again)).toBe(true);
      expect(places(again)).toEqual(places(c));
      expect(maskOut(again.surface.mesh)).toEqual(maskOut(c.surface.mesh));
    }
    for (let i = 0; i < 4; i++) expect(redo(again)).toBe(true);
    expect(maskOut(again.surface.mesh)).toEqual(mask);
  });

  test('is bounded, newest steps first', () => {
    const c = worked();
    const all = packHistory(c.done, 64e6)!;
    const some = packHistory(c.done, all.length - 1)!;
    expect(some.length).toBeLessThan(all.length);
    expect(readHistory(some.buffer, c.surface.mesh)).toHaveLength(3);
    expect(packHistory(c.done, 100)).toBeNull();
    expect(packHistory([], 1e9)).toBeNull();
  });

  test.each([
    ['something else', () => new Uint32Array([1, 2, 3]).buffer, 'something else'],
    ['a newer version', () => new Uint32Array([0x4948534d, 9, 0]).buffer, 'version 9'],
    ['cut short', () => packHistory(worked().done, 64e6)!.slice(0, 400).buffer, 'cut short'],
    ['not whole words', () => new Uint8Array(13).buffer, 'cut short'],
    ['another slab’s', () => packHistory(worked().done, 64e6)!.buffer, 'another slab'],
  ])('bytes that are %s are refused with a sentence', (name, bytes, why) => {
    const small = open(name === 'another slab’s' ? 32 : 64, null);
    expect(() => readHistory(bytes(), small.surface.mesh)).toThrow(why);
  });
});

test('normals and boxes that the loops found are those of a finished mesh', () => {
  const c = open(64);
  const whole = buildMesh(plane(64, 2), { places: rough(64) });
  const { mesh } = c.surface;
  expect(mesh.normals).toEqual(whole.normals);
  expect(mesh.boxes).toEqual(whole.boxes);
});

test('every level change is undone, however many there were', () => {
  const c = open(64);
  const before = places(c);
  for (let n = 0; n < 12; n++) {
    makeEdit(c, lift);
    stepLevel(c, n % 2 === 0 ? 'down' : 'up');
  }
  let steps = 0;
  while (undo(c)) steps++;
  expect(steps).toBe(24);
  expect([c.level.cells, places(c)]).toEqual([64, before]);
  while (redo(c)) steps--;
  expect(steps).toBe(0);
});
