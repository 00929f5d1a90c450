/** A slab: edits that are tried, set forms that lie on it, and its levels. */
import { seeded } from '#core/random';
import { SetFormSchema } from '#core/settings';
import { same } from './testKit';
import { Sculptor } from './sculptor';
import { AtWork, brush, down, heights, NONE, start } from './sculptorTestKit';

const at = new AtWork();
const { draw, clay, masks, quiet } = at;
let sculptor: Sculptor;
let problems: string[];
beforeEach(() => void ({ sculptor, problems } = at));

describe('a slab', () => {
  const openSlab = async (cells = 64): Promise<void> => {
    await sculptor.open({ kind: 'slab', cells, places: null, mask: null, upper: [], history: null });
    await sculptor.use(brush(), NONE);
  };
  const setForm = (x: number) =>
    SetFormSchema.parse({ id: '00000000-0000-4000-8000-000000000001', form: 'dome', x, size: 0.3, height: 0.1 });

  test('an edit that is tried shows its latest numbers alone, and is kept or dropped whole', async () => {
    await openSlab();
    await draw([-0.4, 0], [0.4, 0]);
    const drawn = clay();
    const slope = (high: number) => ({ kind: 'mask-height', low: 0.001, high, soft: 0, mode: 'add' }) as const;
    for (let n = 1; n <= 20; n++) void sculptor.edits.tryEdit(slope(n));
    await sculptor.edits.dropEdit();
    await quiet();
    expect(Math.max(...masks())).toBe(0);
    expect(same(clay(), drawn)).toBe(true);
    void sculptor.edits.tryEdit(slope(1));
    await sculptor.edits.keepEdit();
    expect(Math.max(...masks())).toBe(1);
    await sculptor.undo();
    expect(Math.max(...masks())).toBe(0);
    await sculptor.edits.makeEdit({ kind: 'mask-invert' });
    expect(Math.min(...masks())).toBe(1);
  });

  test('set forms lie on the clay without being part of it until they are baked', async () => {
    await openSlab();
    const bare = clay();
    await sculptor.edits.showSetForms([setForm(0)]);
    const laid = clay();
    expect(Math.max(...heights(laid))).toBeCloseTo(0.1, 2);
    expect(Math.max(...heights(new Float32Array((await sculptor.bytes()).places)))).toBe(0);
    await sculptor.edits.showSetForms([]);
    expect(same(clay(), bare)).toBe(true);
    await sculptor.edits.showSetForms([setForm(0)]);
    await draw([-0.8, -0.8], [0.8, -0.8]);
    await sculptor.undo();
    expect(same(clay(), laid)).toBe(true);
    const besides: string[] = [];
    sculptor.onBeside = (state) => besides.push(state);
    await sculptor.edits.bakeSetForms({ id: 1, before: 'one set form', after: 'no set form' });
    expect(same(clay(), laid)).toBe(true);
    expect(sculptor.state.canUndo).toBe(true);
    await sculptor.undo();
    expect(same(clay(), bare)).toBe(true);
    await sculptor.redo();
    expect(same(clay(), laid)).toBe(true);
    expect(besides).toEqual(['one set form', 'no set form']);
  });

  test('what lies beside the clay is undone and redone in its place among the strokes; changes of one id are one step', async () => {
    await openSlab();
    const besides: string[] = [];
    sculptor.onBeside = (state) => besides.push(state);
    await draw([-0.4, 0], [0.4, 0]);
    const first = clay();
    for (let n = 1; n <= 5; n++) await sculptor.edits.changeBeside({ id: 1, before: 'a', after: `b${n}` });
    await draw([0, -0.4], [0, 0.4]);
    await sculptor.edits.changeBeside({ id: 2, before: 'b5', after: 'c' });
    expect(sculptor.state.strokes).toBe(2);
    await sculptor.undo();
    expect(besides).toEqual(['b5']);
    await sculptor.undo();
    expect(same(clay(), first)).toBe(true);
    await sculptor.undo();
    expect(besides).toEqual(['b5', 'a']);
    expect(same(clay(), first)).toBe(true);
    for (let n = 0; n < 3; n++) await sculptor.redo();
    expect(besides).toEqual(['b5', 'a', 'b5', 'c']);
    const kept = await sculptor.bytes();
    await sculptor.open({ kind: 'slab', ...kept });
    await sculptor.undo();
    await sculptor.undo();
    expect(heights(clay()).every((z) => z === 0)).toBe(true);
  });

  test('strokes over set forms are kept; a draft that is asked for while one is drawn waits for its end', async () => {
    await openSlab();
    await sculptor.edits.showSetForms([setForm(0)]);
    sculptor.begin(start, [down(-0.8, -0.8)]);
    sculptor.extend([down(-0.4, -0.8, 30)]);
    const draft = sculptor.bytes();
    void sculptor.edits.showSetForms([setForm(0.3)]);
    await quiet();
    sculptor.extend([down(0.8, -0.8, 60)]);
    await sculptor.end();
    await quiet();
    const drawn = heights(new Float32Array((await draft).places));
    expect(sculptor.state).toMatchObject({ strokes: 1, stroking: false });
    expect(Math.max(...heights(clay()))).toBeCloseTo(0.1, 2);
    // The same stroke without set forms in the way.
    await openSlab();
    await draw([-0.8, -0.8], [-0.4, -0.8], [0.8, -0.8]);
    expect(same(heights(new Float32Array((await sculptor.bytes()).places)), drawn)).toBe(true);
    expect(Math.max(...drawn)).toBeGreaterThan(0);
  });

  test('set forms that are dragged quickly are laid few times, and lie where they were dragged last', async () => {
    await openSlab();
    let laid = 0;
    sculptor.onChange = () => laid++;
    await Promise.all(Array.from({ length: 40 }, (_, i) => sculptor.edits.showSetForms([setForm(i * 0.01)])));
    expect(laid).toBeLessThan(4);
    const dragged = clay();
    await openSlab();
    await sculptor.edits.showSetForms([setForm(0.39)]);
    expect(same(clay(), dragged)).toBe(true);
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

test.each([1, 2, 3, 4])(
  'levels stepped and given up by a hurried hand, seed %s: those that weren’t given up are made, in their order',
  async (seed) => {
    await sculptor.open({ kind: 'slab', cells: 64, places: null, mask: null, upper: [], history: null });
    const random = seeded(seed);
    let cells = 64;
    const ends: Promise<unknown>[] = [];
    for (let n = 0; n < 12; n++) {
      const direction = random() < 0.5 ? 'down' : 'up';
      let stop: () => void = () => undefined;
      const end = sculptor.step(direction, { report: () => undefined, onCancel: (by) => (stop = by) });
      if (random() < 0.5) stop();
      ends.push(
        end.then(
          () => (cells = direction === 'down' ? cells / 2 : cells * 2),
          (error: unknown) => expect(String(error)).toMatch(/cancelled|cells a side/),
        ),
      );
      if (random() < 0.3) await end.catch(() => undefined);
    }
    await Promise.all(ends);
    expect(sculptor.state.level!.cells).toBe(cells);
    expect(problems.filter((said) => /cancelled/.test(said))).toEqual([]);
  },
);
