/** Strokes in the order in which they were given, whatever comes meanwhile. */
import { plane } from '#core/mesh';
import { packMesh, readMesh } from '#core/formats';
import { seeded } from '#core/random';
import { type Brush } from '#core/settings';
import { type Sample } from '#core/stroke';
import { breath, same } from './testKit';
import type { Sculptor } from './sculptor';
import { AtWork, brush, down, heights, ID, NONE, start } from './sculptorTestKit';

const at = new AtWork();
const { openTile, draw, clay, masks, quiet } = at;
let sculptor: Sculptor;
let problems: string[];
beforeEach(() => void ({ sculptor, problems } = at));

test('a stroke is seen through the shared memory; undo, redo and clear lead to the same bytes again', async () => {
  await openTile();
  const bare = clay();
  const changed = new Set<number>();
  sculptor.onChange = (leaves) => leaves.forEach((leaf) => changed.add(leaf));
  await draw([-0.3, 0], [0, 0.1], [0.3, 0]);
  const drawn = clay();
  expect(same(drawn, bare)).toBe(false);
  expect(changed.size).toBeGreaterThan(0);
  expect(sculptor.state).toMatchObject({
    strokes: 1,
    canUndo: true,
    canRedo: false,
    stroking: false,
    busy: false,
    vertices: 49 * 49,
  });
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
  sculptor.begin(start, [down(...points[0])]);
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
  sculptor.onChange = () => taken++;
  const runs = Array.from({ length: 30 }, (_, i) =>
    sculptor.replay(
      brush((b) => (b.touch.strength = 10 + i * 3)),
      NONE,
    ),
  );
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
  const replayed = sculptor.replay(
    brush((b) => (b.touch.strength = 30)),
    NONE,
  );
  sculptor.extend([down(0.3, 0.3, 30)]);
  await sculptor.end();
  await replayed;
  await sculptor.replay(
    brush((b) => (b.touch.strength = 30)),
    NONE,
  );
  const after = clay();
  await sculptor.clear();
  await draw([-0.5, -0.5], [0.5, -0.5]);
  await draw([-0.3, 0.3], [0.3, 0.3]);
  expect(same(after, clay())).toBe(true);
  expect(problems).toEqual([]);
});

describe('a path', () => {
  const path = (b: Brush): void => void (b.stroke.type = 'path');
  const route = (dy: number): Sample[] => [down(-0.4, dy), down(0, dy + 0.1, 30), down(0.4, dy, 60)];
  beforeEach(() => openTile(path));

  test('is kept where it lies last, as if it had been laid there at once', async () => {
    for (let n = 1; n <= 12; n++) void sculptor.drawPath(start, route(n * 0.02));
    await sculptor.keepPath(start, route(0.24));
    const moved = clay();
    await sculptor.clear();
    await sculptor.keepPath(start, route(0.24));
    expect(same(moved, clay())).toBe(true);
    expect(sculptor.state).toMatchObject({ strokes: 1, stroking: false });
  });

  test('is kept also when the body was changed under it meanwhile', async () => {
    await sculptor.keepPath(start, route(-0.3));
    await sculptor.keepPath(start, route(0.2));
    const both = clay();
    await sculptor.undo();
    await sculptor.drawPath(start, route(0.2));
    expect(sculptor.state.stroking).toBe(true);
    await sculptor.replay(brush(path), NONE);
    expect(sculptor.state).toMatchObject({ strokes: 1, stroking: false });
    await sculptor.keepPath(start, route(0.2));
    expect(same(clay(), both)).toBe(true);
  });

  test('dropped, it leaves no trace', async () => {
    const bare = clay();
    await sculptor.drawPath(start, route(0));
    expect(same(clay(), bare)).toBe(false);
    await sculptor.dropPath();
    expect(same(clay(), bare)).toBe(true);
    expect(sculptor.state).toMatchObject({ strokes: 0, canUndo: false });
  });
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
  await sculptor.drawSteps(steps, ID);
  expect(same(clay(), again)).toBe(true);
  await sculptor.open({ kind: 'body', body: { mesh: packMesh(plane(12, 2)) }, levels: 2, fresh: true });
  expect(sculptor.state.vertices).toBe(49 * 49);
});

test('a body that can’t be opened leaves the one that is open', async () => {
  await openTile();
  await draw([-0.3, 0], [0.3, 0]);
  const drawn = clay();
  await expect(
    sculptor.open({ kind: 'body', body: { mesh: new ArrayBuffer(8) }, levels: 0, fresh: true }),
  ).rejects.toThrow();
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
  await sculptor.replay(
    brush((b) => (b.stroke.size = 0.4)),
    NONE,
  );
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
  const LONG = [
    [-0.4, 0],
    [-0.2, 0.05],
    [0, 0],
    [0.2, -0.05],
    [0.4, 0],
  ] as const;
  /** Draws slowly: between two places of the hand there is time to refine. Answers the vertices that were shown. */
  async function slowly(end: () => Promise<void> = () => sculptor.end()): Promise<number[]> {
    const shown: number[] = [];
    sculptor.begin(start, [down(...LONG[0])]);
    for (const [i, [x, y]] of LONG.slice(1).entries()) {
      await quiet();
      late += 60_000;
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
    expect(shown.at(-1)).toBeGreaterThan(shown[0]);
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

  test('whatever else is asked meanwhile waits for the release, and meets the body with the stroke', async () => {
    await openTile();
    sculptor.refine = { edge: 0.015, most: 100_000 };
    let asked: Promise<ArrayBuffer> | undefined;
    await slowly(async () => {
      asked = sculptor.untouched();
      void sculptor.edits.makeEdit({ kind: 'mask-invert' });
      await quiet();
      expect(Math.max(...masks())).toBe(0);
      await sculptor.end();
      await quiet();
    });
    expect(readMesh(await asked!).positions.length / 3).toBe(sculptor.state.vertices);
    expect(sculptor.state.vertices).toBeGreaterThan(49 * 49);
    expect(Math.min(...masks())).toBe(1);
    expect(sculptor.state).toMatchObject({ strokes: 2, stroking: false });
  });

  test('a stroke that asks for none, and a body that takes long, stay as they are until the release', async () => {
    await openTile();
    expect(new Set(await slowly())).toEqual(new Set([49 * 49]));
    await sculptor.open({ kind: 'body', body: { mesh: packMesh(plane(400, 2)) }, levels: 0, fresh: true });
    await sculptor.use(
      brush((b) => (b.stroke.size = 0.05)),
      NONE,
    );
    sculptor.refine = { edge: 0.003, most: 1_000_000 };
    expect(new Set(await slowly())).toEqual(new Set([401 * 401]));
    expect(sculptor.state.vertices).toBeGreaterThan(401 * 401);
  });
});

test('what a stroke raised is masked and cut off as a closed set form; the body can have it back', async () => {
  await openTile((b) => (b.stroke.type = 'press'));
  await draw([0, 0]);
  const stamped = clay();
  expect(await sculptor.cutOff(0.02)).toBeNull();
  await sculptor.maskRaised();
  expect(Math.max(...masks())).toBe(1);
  const setForm = await sculptor.cutOff(0.02);
  expect(setForm!.byteLength).toBeGreaterThan(1000);
  expect(same(clay(), stamped)).toBe(false);
  await sculptor.undo();
  expect(same(clay(), stamped)).toBe(true);
  const { positions } = readMesh(await sculptor.untouched());
  expect(positions.length).toBe(49 * 49 * 3);
  expect(positions.every((c, i) => i % 3 !== 2 || c === 0)).toBe(true);
});

test('a cut whose set form can’t be kept is taken back, unless more was done since', async () => {
  await openTile((b) => (b.stroke.type = 'press'));
  await draw([0, 0]);
  await sculptor.maskRaised();
  const masked = clay();
  await sculptor.cutOff(0.02);
  expect(await sculptor.uncut()).toBe(true);
  expect(same(clay(), masked)).toBe(true);
  expect(sculptor.state.canRedo).toBe(false);
  await sculptor.cutOff(0.02);
  await sculptor.edits.makeEdit({ kind: 'mask-clear' });
  await draw([0.5, 0.5]);
  const after = clay();
  expect(await sculptor.uncut()).toBe(false);
  expect(same(clay(), after)).toBe(true);
});

test('strokes of a brush go on as strokes of its copy', async () => {
  await openTile();
  await draw([-0.3, 0], [0.3, 0]);
  const copy = 'aaaaaaaa-3b41-4c8a-9f5e-0d3a1b2c4d5e';
  await sculptor.adopt(ID, copy);
  const strong = clay();
  await sculptor.replay({ ...brush((b) => (b.touch.strength = 20)), id: copy }, NONE);
  expect(same(clay(), strong)).toBe(false);
});

/** What a hurried hand does, as a list of orders: every call leaves the page at once. */
function hurried(seed: number, count: number, tiles: readonly ArrayBuffer[]): (() => void)[] {
  const random = seeded(seed);
  const at = (): Sample => down(random() * 1.6 - 0.8, random() * 1.6 - 0.8, Math.floor(random() * 400));
  const orders: (() => void)[] = [];
  const other = (): void => {
    const which = random();
    if (which < 0.2) orders.push(() => void sculptor.undo());
    else if (which < 0.35) orders.push(() => void sculptor.redo());
    else if (which < 0.6) {
      const strength = 10 + random() * 90;
      orders.push(
        () =>
          void sculptor.replay(
            brush((b) => (b.touch.strength = strength)),
            NONE,
          ),
      );
    } else if (which < 0.7) {
      const size = 0.1 + random() * 0.3;
      orders.push(
        () =>
          void sculptor.use(
            brush((b) => (b.stroke.size = size)),
            NONE,
          ),
      );
    } else if (which < 0.8) {
      const invert = random() < 0.5;
      orders.push(() => void sculptor.edits.makeEdit({ kind: invert ? 'mask-invert' : 'mask-clear' }));
    } else if (which < 0.94) orders.push(() => void sculptor.maskRaised());
    else {
      const mesh = tiles[Math.floor(random() * tiles.length)];
      const fresh = random() < 0.1;
      orders.push(() => void sculptor.open({ kind: 'body', body: { mesh: mesh.slice(0) }, levels: 0, fresh }));
    }
  };
  for (let n = 0; n < count; n++) {
    const first = at();
    const strokeSeed = n + 1;
    const dig = random() < 0.3;
    orders.push(() => sculptor.begin({ ...start, seed: strokeSeed, dig }, [first]));
    for (let k = Math.floor(random() * 4); k > 0; k--) {
      const next = at();
      orders.push(() => sculptor.extend([next]));
      // Settings, and keys, also while the hand draws.
      if (random() < 0.15) other();
    }
    const end = random();
    if (end < 0.75) orders.push(() => void sculptor.end());
    else if (end < 0.9) orders.push(() => void sculptor.abandon());
    else orders.push(() => void sculptor.undo());
    if (random() < 0.4) other();
  }
  return orders;
}

describe.each([1, 2, 3])('200 short strokes with undo, redo, Esc and changes of brush and body (seed %d)', (seed) => {
  const tiles = [packMesh(plane(24, 2)), packMesh(plane(32, 2))];
  let oneByOne: { places: Float32Array; mask: Float32Array; strokes: number };
  const left = () => ({ places: clay(), mask: masks(), strokes: sculptor.state.strokes });

  async function run(after: () => Promise<void>): Promise<void> {
    await openTile();
    for (const order of hurried(seed, 200, tiles)) {
      order();
      await after();
    }
    await quiet();
    expect(problems).toEqual([]);
    expect(sculptor.state.stroking).toBe(false);
    expect((await sculptor.steps()).length).toBe(sculptor.state.strokes);
  }

  test('sent one by one, each when the one before is done', async () => {
    await run(quiet);
    oneByOne = left();
    expect(oneByOne.strokes).toBeGreaterThan(10);
  });

  test.each([
    ['all at once', null],
    ['at one speed', 7],
    ['at another', 8],
  ])('%s it comes to the same bytes', async (_, pauses) => {
    await run(pauses === null ? () => Promise.resolve() : breath(seed * 100 + pauses));
    const now = left();
    expect([same(now.places, oneByOne.places), same(now.mask, oneByOne.mask), now.strokes]).toEqual([
      true,
      true,
      oneByOne.strokes,
    ]);
    const bare = sculptor.state.vertices;
    while (sculptor.state.canUndo) await sculptor.undo();
    expect([sculptor.state.strokes, sculptor.state.vertices]).toEqual([0, bare]);
    expect(heights(clay()).every((z) => z === 0)).toBe(true);
  });
});

test('a stroke that is pressed while the one before is still laid is kept, with every sample and its end', async () => {
  await openTile();
  for (let n = 0; n < 24; n++) {
    const x = -0.7 + n * 0.06;
    sculptor.begin({ ...start, seed: n + 1 }, [down(x, -0.2)]);
    sculptor.extend([down(x, 0.2, 20)]);
    void sculptor.end();
  }
  await quiet();
  expect(sculptor.state).toMatchObject({ strokes: 24, stroking: false });
});

test('a release that fails is told, and the page sees what is there', async () => {
  await openTile();
  const real = Reflect.get(sculptor, 'worker') as { end: (...of: unknown[]) => Promise<unknown> };
  const full = async (...of: unknown[]): Promise<never> => {
    await real.end(...of);
    throw new Error('There is no room to refine.');
  };
  Reflect.set(
    sculptor,
    'worker',
    new Proxy(real, { get: (_, key) => (key === 'end' ? full : Reflect.get(real, key)) }),
  );
  sculptor.begin(start, [down(0, 0)]);
  sculptor.extend([down(0.3, 0, 30)]);
  await expect(sculptor.end()).rejects.toThrow('no room');
  expect(problems).toEqual(['There is no room to refine.']);
  expect(sculptor.state).toMatchObject({ stroking: false, strokes: 1, busy: false });
  Reflect.set(sculptor, 'worker', real);
  await draw([0, 0.5], [0.3, 0.5]);
  expect(sculptor.state.strokes).toBe(2);
});

test('closed, it tells whoever waits', async () => {
  await openTile();
  const bytes = sculptor.steps();
  sculptor.close();
  await expect(bytes).rejects.toThrow('closed');
  await expect(sculptor.undo()).rejects.toThrow('closed');
});
