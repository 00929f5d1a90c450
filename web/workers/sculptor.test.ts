import { plane } from '#core/mesh';
import { packMesh, readMesh } from '#core/formats';
import { seeded } from '#core/random';
import { newBrush, PieceSchema, type Brush } from '#core/settings';
import { NO_SYMMETRY, type Sample } from '#core/stroke';
import { asWorkers, breath, same } from './testKit';
import { Sculptor } from './sculptor';

const ID = '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e';
let restore: () => void;
let sculptor: Sculptor;
let problems: string[];

beforeAll(async () => {
  ({ restore } = await asWorkers({ 'sculpt.worker.ts': () => import('./sculpt.worker') }));
});
afterAll(() => restore());
beforeEach(() => {
  sculptor = new Sculptor();
  problems = [];
  sculptor.onProblem = (error) => problems.push(error instanceof Error ? error.message : String(error));
});
afterEach(() => sculptor.close());

const NONE = { form: null, tooth: null };
const view = { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] } as const;
const start = { brushId: ID, seed: 1, dig: false, symmetry: NO_SYMMETRY, view };
const down = (x: number, y: number, time = 0): Sample => ({ origin: [x, y, 5], direction: [0, 0, -1], time });

function brush(change: (b: Brush) => void = () => undefined): Brush {
  const made = newBrush(ID, 'Test');
  Object.assign(made.stroke, { size: 0.2, spacing: 25 });
  change(made);
  return made;
}
/** A tile of 48 × 48 cells as a body. */
async function openTile(change?: (b: Brush) => void): Promise<void> {
  await sculptor.open({ kind: 'body', body: { mesh: packMesh(plane(48, 2)) }, levels: 0, fresh: true });
  await sculptor.use(brush(change), NONE);
}
async function draw(...points: (readonly [number, number])[]): Promise<void> {
  sculptor.begin(start, [down(...points[0]!)]);
  points.slice(1).forEach(([x, y], i) => sculptor.extend([down(x, y, (i + 1) * 30)]));
  await sculptor.end();
}
const clay = (): Float32Array => sculptor.mesh!.positions.slice();
const heights = (places: Float32Array): Float32Array => places.filter((_, i) => i % 3 === 2);
const masks = (): Float32Array => sculptor.mesh!.mask.slice();
/** Waits until the worker has done all it was asked. */
async function quiet(): Promise<void> {
  while (sculptor.state.busy) await new Promise((done) => setImmediate(done));
}

test('a stroke is seen through the shared memory; undo, redo and clear lead to the same bytes again', async () => {
  await openTile();
  const bare = clay();
  const changed = new Set<number>();
  sculptor.onChange = (leaves) => leaves.forEach((leaf) => changed.add(leaf));
  await draw([-0.3, 0], [0, 0.1], [0.3, 0]);
  const drawn = clay();
  expect(same(drawn, bare)).toBe(false);
  expect(changed.size).toBeGreaterThan(0);
  expect(sculptor.state).toMatchObject({ strokes: 1, canUndo: true, canRedo: false, stroking: false, busy: false, vertices: 49 * 49 });
  await sculptor.undo();
  expect(same(clay(), bare)).toBe(true);
  expect(sculptor.state).toMatchObject({ strokes: 0, canUndo: false, canRedo: true });
  await sculptor.redo();
  expect(same(clay(), drawn)).toBe(true);
  await sculptor.clear();
  expect(same(clay(), bare)).toBe(true);
  expect(problems).toEqual([]);
});

test('samples that come while the worker is busy come to the same as samples one by one', async () => {
  await openTile();
  const points = Array.from({ length: 24 }, (_, i) => [-0.6 + i * 0.05, 0.3 * Math.sin(i / 3)] as const);
  await draw(...points);
  const together = clay();
  await sculptor.clear();
  sculptor.begin(start, [down(...points[0]!)]);
  for (const [i, [x, y]] of points.slice(1).entries()) {
    sculptor.extend([down(x, y, (i + 1) * 30)]);
    await quiet();
  }
  await sculptor.end();
  expect(same(clay(), together)).toBe(true);
});

test('abandoned, or undone while it is drawn, a stroke leaves no trace', async () => {
  await openTile();
  const bare = clay();
  for (const stop of [() => sculptor.abandon(), () => sculptor.undo()]) {
    sculptor.begin(start, [down(0, 0)]);
    sculptor.extend([down(0.2, 0, 30)]);
    sculptor.extend([down(0.4, 0, 60)]);
    await stop();
    sculptor.extend([down(0.5, 0, 90)]);
    await sculptor.end();
    await quiet();
    expect(same(clay(), bare)).toBe(true);
    expect(sculptor.state).toMatchObject({ strokes: 0, canUndo: false, stroking: false });
  }
  await draw([0, 0], [0.3, 0.3]);
  expect(sculptor.state.strokes).toBe(1);
});

test('replay takes the latest settings, however many come meanwhile, and few runs', async () => {
  await openTile();
  await draw([-0.3, 0], [0.3, 0]);
  let taken = 0;
  const runs = Array.from({ length: 30 }, (_, i) => sculptor.replay(async () => {
    taken++;
    await sculptor.use(brush((b) => (b.touch.strength = 10 + i * 3)), NONE);
  }));
  await Promise.all(runs);
  expect(taken).toBeLessThan(5);
  const after = clay();
  await sculptor.clear();
  await draw([-0.3, 0], [0.3, 0]);
  expect(same(after, clay())).toBe(true);
});

test('settings that come while a stroke is drawn wait for its end', async () => {
  await openTile();
  await draw([-0.5, -0.5], [0.5, -0.5]);
  sculptor.begin(start, [down(-0.3, 0.3)]);
  const replayed = sculptor.replay(() => sculptor.use(brush((b) => (b.touch.strength = 30)), NONE));
  sculptor.extend([down(0.3, 0.3, 30)]);
  await sculptor.end();
  await replayed;
  await sculptor.replay(() => sculptor.use(brush((b) => (b.touch.strength = 30)), NONE));
  const after = clay();
  await sculptor.clear();
  await draw([-0.5, -0.5], [0.5, -0.5]);
  await draw([-0.3, 0.3], [0.3, 0.3]);
  expect(same(after, clay())).toBe(true);
  expect(problems).toEqual([]);
});

test('retrace lays a path where it lies last', async () => {
  const path = (b: Brush): void => void (b.stroke.type = 'path');
  await openTile(path);
  const route = (dy: number): Sample[] => [down(-0.4, dy), down(0, dy + 0.1, 30), down(0.4, dy, 60)];
  sculptor.begin(start, route(0));
  for (let n = 1; n <= 12; n++) void sculptor.retrace(route(n * 0.02));
  await sculptor.end();
  const moved = clay();
  await sculptor.clear();
  sculptor.begin(start, route(0));
  await sculptor.retrace(route(0.24));
  await sculptor.end();
  expect(same(moved, clay())).toBe(true);
});

test('a stroke of a brush that was never sent is told once, and the next one works', async () => {
  await openTile();
  const bare = clay();
  sculptor.begin({ ...start, brushId: 'ffffffff-3b41-4c8a-9f5e-0d3a1b2c4d5e' }, [down(0, 0)]);
  sculptor.extend([down(0.1, 0, 30)]);
  await sculptor.end().catch(() => undefined);
  await quiet();
  expect(problems[0]).toBe('The brush is not loaded.');
  expect(same(clay(), bare)).toBe(true);
  await sculptor.undo();
  problems = [];
  await draw([0, 0], [0.3, 0]);
  expect(same(clay(), bare)).toBe(false);
  expect(sculptor.state.stroking).toBe(false);
  expect(problems).toEqual([]);
});

test('another body: strokes are run again on it, or left behind when it begins fresh', async () => {
  await openTile();
  await draw([-0.3, 0], [0.3, 0]);
  const steps = await sculptor.steps();
  expect(steps).toHaveLength(1);
  const mesh = packMesh(plane(80, 2));
  await sculptor.open({ kind: 'body', body: { mesh: mesh.slice(0) }, levels: 0, fresh: false });
  expect(sculptor.state).toMatchObject({ strokes: 1, vertices: 81 * 81 });
  const again = clay();
  await sculptor.open({ kind: 'body', body: { mesh }, levels: 0, fresh: true });
  expect(sculptor.state).toMatchObject({ strokes: 0, canUndo: false });
  await sculptor.lay(steps, ID);
  expect(same(clay(), again)).toBe(true);
  await sculptor.open({ kind: 'body', body: { mesh: packMesh(plane(12, 2)) }, levels: 2, fresh: true });
  expect(sculptor.state.vertices).toBe(49 * 49);
});

test('a body that can’t be opened leaves the one that is open', async () => {
  await openTile();
  await draw([-0.3, 0], [0.3, 0]);
  const drawn = clay();
  await expect(sculptor.open({ kind: 'body', body: { mesh: new ArrayBuffer(8) }, levels: 0, fresh: true })).rejects.toThrow();
  expect(problems).toHaveLength(1);
  expect(same(clay(), drawn)).toBe(true);
  await sculptor.undo();
  expect(sculptor.state.strokes).toBe(0);
});

test('refining at release makes the clay finer; undone, redone and laid again it is the same', async () => {
  await openTile();
  let reopened = 0;
  sculptor.onReopen = () => reopened++;
  sculptor.refine = { edge: 0.015, most: 100_000 };
  await draw([-0.2, 0], [0.2, 0]);
  expect(reopened).toBe(1);
  expect(sculptor.state.vertices).toBeGreaterThan(49 * 49 * 1.2);
  const fine = clay();
  await sculptor.undo();
  await sculptor.redo();
  expect(same(clay(), fine)).toBe(true);
  const before = sculptor.state.vertices;
  // A larger stamp reaches clay that is still coarse: refined anew once the setting rests.
  await sculptor.replay(() => sculptor.use(brush((b) => (b.stroke.size = 0.4)), NONE));
  await new Promise((done) => setTimeout(done, 650));
  await quiet();
  expect(sculptor.state.vertices).toBeGreaterThan(before);
  expect(sculptor.state.strokes).toBe(1);
});

describe('refining while a stroke is drawn', () => {
  const { now } = performance;
  let late = 0;
  beforeEach(() => {
    late = 0;
    performance.now = () => now.call(performance) + late;
  });
  afterEach(() => {
    performance.now = now;
  });
  const LONG = [[-0.4, 0], [-0.2, 0.05], [0, 0], [0.2, -0.05], [0.4, 0]] as const;
  /** Draws slowly: between two places of the hand there is time to refine. Answers the vertices that were shown. */
  async function slowly(end: () => Promise<void> = () => sculptor.end()): Promise<number[]> {
    const shown: number[] = [];
    sculptor.begin(start, [down(...LONG[0])]);
    for (const [i, [x, y]] of LONG.slice(1).entries()) {
      await quiet();
      late += 1000;
      sculptor.extend([down(x, y, (i + 1) * 30)]);
      await quiet();
      shown.push(sculptor.state.vertices);
    }
    await end();
    return shown;
  }

  test('finer clay is seen under the hand; released, the body is the same as of a quick stroke', async () => {
    await openTile();
    sculptor.refine = { edge: 0.015, most: 100_000 };
    const passed: boolean[] = [];
    sculptor.onReopen = (opened) => passed.push(opened.passing);
    const shown = await slowly();
    expect(shown[0]).toBeGreaterThan(49 * 49);
    expect(shown.at(-1)).toBeGreaterThan(shown[0]!);
    expect(passed.at(-1)).toBe(false);
    expect(passed.slice(0, -1).every(Boolean)).toBe(true);
    expect([sculptor.state.strokes, sculptor.state.stroking]).toEqual([1, false]);
    const slow = clay();
    await openTile();
    sculptor.begin(start, [down(...LONG[0])]);
    LONG.slice(1).forEach(([x, y], i) => sculptor.extend([down(x, y, (i + 1) * 30)]));
    await sculptor.end();
    expect(same(clay(), slow)).toBe(true);
    await sculptor.undo();
    expect(heights(clay()).every((z) => z === 0)).toBe(true);
    expect(problems).toEqual([]);
  });

  test('given up, by Esc or by undo, the body is the coarse one again with what was on it before', async () => {
    await openTile();
    await draw([-0.6, -0.6], [0.6, -0.6]);
    const before = clay();
    sculptor.refine = { edge: 0.015, most: 100_000 };
    for (const giveUp of [() => sculptor.abandon(), () => sculptor.undo()]) {
      const shown = await slowly(giveUp);
      expect(shown.at(-1)).toBeGreaterThan(49 * 49);
      expect(sculptor.state).toMatchObject({ strokes: 1, stroking: false, vertices: 49 * 49, canUndo: true });
      expect(same(clay(), before)).toBe(true);
    }
    expect(problems).toEqual([]);
  });

  test('whatever else is asked meanwhile meets the body itself', async () => {
    await openTile();
    sculptor.refine = { edge: 0.015, most: 100_000 };
    const untouched = async (): Promise<number> => readMesh(await sculptor.untouched()).positions.length / 3;
    let seen = 0;
    await slowly(async () => {
      seen = await untouched();
      await sculptor.makeEdit({ kind: 'mask-invert' });
    });
    expect(seen).toBe(49 * 49);
    expect(sculptor.state.vertices).toBe(49 * 49);
    expect(Math.min(...masks())).toBe(1);
    sculptor.extend([down(0.5, 0.5, 900)]);
    await sculptor.end();
    expect(sculptor.state.strokes).toBe(1);
  });

  test('a stroke that asks for none, and a body that takes long, stay as they are until the release', async () => {
    await openTile();
    expect(new Set(await slowly())).toEqual(new Set([49 * 49]));
    await sculptor.open({ kind: 'body', body: { mesh: packMesh(plane(400, 2)) }, levels: 0, fresh: true });
    await sculptor.use(brush((b) => (b.stroke.size = 0.05)), NONE);
    sculptor.refine = { edge: 0.003, most: 1_000_000 };
    expect(new Set(await slowly())).toEqual(new Set([401 * 401]));
    expect(sculptor.state.vertices).toBeGreaterThan(401 * 401);
  });
});

test('what a stroke raised is masked and cut off as a closed piece; the body can have it back', async () => {
  await openTile((b) => (b.stroke.type = 'press'));
  await draw([0, 0]);
  const stamped = clay();
  expect(await sculptor.cutOff(0.02)).toBeNull();
  await sculptor.maskRaised();
  expect(Math.max(...masks())).toBe(1);
  const piece = await sculptor.cutOff(0.02);
  expect(piece!.byteLength).toBeGreaterThan(1000);
  expect(same(clay(), stamped)).toBe(false);
  await sculptor.undo();
  expect(same(clay(), stamped)).toBe(true);
  const { positions } = readMesh(await sculptor.untouched());
  expect(positions.length).toBe(49 * 49 * 3);
  expect(positions.every((c, i) => i % 3 !== 2 || c === 0)).toBe(true);
});

test('strokes of a brush go on as strokes of its copy', async () => {
  await openTile();
  await draw([-0.3, 0], [0.3, 0]);
  const copy = 'aaaaaaaa-3b41-4c8a-9f5e-0d3a1b2c4d5e';
  await sculptor.adopt(ID, copy);
  const strong = clay();
  await sculptor.replay(() => sculptor.use({ ...brush((b) => (b.touch.strength = 20)), id: copy }, NONE));
  expect(same(clay(), strong)).toBe(false);
});

describe('a slab', () => {
  const openSlab = async (cells = 64): Promise<void> => {
    await sculptor.open({ kind: 'slab', cells, places: null, mask: null, upper: [], history: null });
    await sculptor.use(brush(), NONE);
  };
  const piece = (x: number) => PieceSchema.parse({ id: '00000000-0000-4000-8000-000000000001', form: 'dome', x, size: 0.3, height: 0.1 });

  test('an edit that is tried shows its latest numbers alone, and is kept or dropped whole', async () => {
    await openSlab();
    await draw([-0.4, 0], [0.4, 0]);
    const drawn = clay();
    const slope = (high: number) => ({ kind: 'mask-height', low: 0.001, high, soft: 0, way: 'add' }) as const;
    for (let n = 1; n <= 20; n++) void sculptor.tryEdit(slope(n));
    await sculptor.dropEdit();
    await quiet();
    expect(Math.max(...masks())).toBe(0);
    expect(same(clay(), drawn)).toBe(true);
    void sculptor.tryEdit(slope(1));
    await sculptor.keepEdit();
    expect(Math.max(...masks())).toBe(1);
    await sculptor.undo();
    expect(Math.max(...masks())).toBe(0);
    await sculptor.makeEdit({ kind: 'mask-invert' });
    expect(Math.min(...masks())).toBe(1);
  });

  test('pieces lie on the clay without being part of it until they are baked', async () => {
    await openSlab();
    const bare = clay();
    await sculptor.setPieces([piece(0)]);
    const laid = clay();
    expect(Math.max(...heights(laid))).toBeCloseTo(0.1, 2);
    expect(Math.max(...heights(new Float32Array((await sculptor.bytes()).places)))).toBe(0);
    await sculptor.setPieces([]);
    expect(same(clay(), bare)).toBe(true);
    await sculptor.setPieces([piece(0)]);
    await draw([-0.8, -0.8], [0.8, -0.8]);
    await sculptor.undo();
    expect(same(clay(), laid)).toBe(true);
    await sculptor.bakePieces();
    expect(same(clay(), laid)).toBe(true);
    expect(sculptor.state.canUndo).toBe(true);
    await sculptor.undo();
    expect(same(clay(), bare)).toBe(true);
  });

  test('levels: what was drawn on one is undone on it, and the bytes that are kept open as they were', async () => {
    await openSlab(64);
    await draw([-0.4, 0], [0.4, 0]);
    await sculptor.step('down');
    expect(sculptor.state.level).toEqual({ cells: 32, upper: 1 });
    await draw([0, -0.4], [0, 0.4]);
    await sculptor.step('up');
    expect(sculptor.state.level).toEqual({ cells: 64, upper: 0 });
    const done = clay();
    const kept = await sculptor.bytes();
    const other = new Sculptor();
    await other.open({ kind: 'slab', ...kept });
    expect(same(other.mesh!.positions.slice(), done)).toBe(true);
    other.close();
  });
});

test.each([1, 2, 3, 4, 5, 6])('whatever is asked, and however fast (seed %d), nothing fails and undo leads back to the untouched body', async (seed) => {
  const random = seeded(seed);
  const pause = breath(seed + 100);
  await openTile();
  const bare = clay();
  const at = (): Sample => down(random() * 1.6 - 0.8, random() * 1.6 - 0.8, Math.floor(random() * 400));
  for (let n = 0; n < 60; n++) {
    const which = random();
    if (which < 0.35) {
      sculptor.begin({ ...start, seed: n + 1, dig: random() < 0.3 }, [at()]);
      for (let k = Math.floor(random() * 5); k > 0; k--) {
        await pause();
        sculptor.extend([at()]);
      }
      const end = random();
      if (end < 0.6) void sculptor.end();
      else if (end < 0.8) void sculptor.abandon();
      else void sculptor.undo();
    } else if (which < 0.5) void sculptor.undo();
    else if (which < 0.6) void sculptor.redo();
    else if (which < 0.8) void sculptor.replay(() => sculptor.use(brush((b) => (b.touch.strength = 10 + random() * 90)), NONE));
    else if (which < 0.9) void sculptor.makeEdit({ kind: random() < 0.5 ? 'mask-invert' : 'mask-clear' });
    else void sculptor.maskRaised();
    await pause();
  }
  await quiet();
  expect(problems).toEqual([]);
  expect(sculptor.state.stroking).toBe(false);
  expect((await sculptor.steps()).length).toBe(sculptor.state.strokes);
  while (sculptor.state.canUndo) await sculptor.undo();
  expect(sculptor.state.strokes).toBe(0);
  expect(same(clay(), bare)).toBe(true);
  expect(Math.max(...masks())).toBe(0);
});
