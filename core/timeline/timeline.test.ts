import { maskOut, positionsOut } from '#core/mesh';
import { seeded } from '#core/random';
import { changeBeside, makeEdit, redo, undo } from '#core/session';
import { ByNumberSchema } from '#core/settings';
import { clay, levelAt, stepLevel, type Clay } from '#core/slab';
import { back, changeBytes, forth, record, timeline, type Stage } from './index';

const open = (undoLimit: number): Clay => ({ ...clay({ cells: 32, places: null, mask: null, upper: [] }), undoLimit });
const stateOf = (c: Clay): unknown[] => [
  c.level.cells,
  c.level.upper.map(({ cells }) => cells),
  positionsOut(c.surface.mesh),
  maskOut(c.surface.mesh),
  c.beside ?? 'nothing',
];
const bytesHeld = (c: Clay): number =>
  [...c.done.map(({ before }) => before), ...c.undone.map(({ after }) => after)]
    .flatMap((changes) => changes ?? [])
    .reduce((sum, change) => sum + changeBytes(change), 0);

/** One step of any kind; false when it changed nothing. */
function anyStep(c: Clay, n: number, random: () => number): boolean {
  const which = random();
  if (which < 0.35) {
    const numbers = { ...ByNumberSchema.parse({}), lift: random() * 0.2 - 0.1 };
    return makeEdit(c, { kind: 'by-number', change: 'lift', numbers });
  }
  if (which < 0.5) return makeEdit(c, { kind: 'mask-invert' });
  if (which < 0.75) {
    changeBeside(c, { id: n, before: c.beside ?? 'nothing', after: `frame ${n}` });
    return true;
  }
  const direction = c.level.cells > 64 || random() < 0.5 ? 'down' : 'up';
  if (levelAt(c.level.cells, direction) === null) return false;
  stepLevel(c, direction);
  return true;
}

test.each([1, 2, 3, 4])(
  'clay, levels and what lies beside in one history (seed %d): undo and redo in any order meet the states they left',
  (seed) => {
    const random = seeded(seed);
    const c = open(1e9);
    /** What the clay was after each step, and where in it we are. */
    const states = [stateOf(c)];
    let at = 0;
    for (let n = 0; n < 60; n++) {
      const which = random();
      if (which < 0.3) {
        const could = at > 0;
        expect(undo(c)).toBe(could);
        if (could) at--;
      } else if (which < 0.5) {
        const could = at < states.length - 1;
        expect(redo(c)).toBe(could);
        if (could) at++;
      } else if (anyStep(c, n, random)) {
        states.length = ++at;
        states.push(stateOf(c));
      }
      expect(stateOf(c)).toEqual(states[at]);
      expect(c.undoBytes).toBe(bytesHeld(c));
    }
    while (undo(c));
    expect(stateOf(c)).toEqual(states[0]);
  },
);

test('a long session stays within its budget, and the newest steps are still there', () => {
  const limit = 2_000_000;
  const random = seeded(9);
  const c = open(limit);
  const states: unknown[][] = [];
  for (let n = 0; n < 80; n++) {
    states.push(stateOf(c));
    if (!anyStep(c, n, random)) states.pop();
    expect(c.undoBytes).toBe(bytesHeld(c));
    expect(c.undoBytes <= limit || c.done.slice(0, -1).every(({ before }) => before === null)).toBe(true);
  }
  let steps = 0;
  while (undo(c)) {
    steps++;
    expect(stateOf(c)).toEqual(states.at(-steps));
  }
  expect(steps).toBeGreaterThan(2);
  expect(steps).toBeLessThan(states.length);
  while (redo(c)) steps--;
  expect(steps).toBe(0);
});

test('changes beside of one id that follow each other are one step; another step, or undo, ends it', () => {
  const c = open(1e9);
  for (const after of ['a', 'b', 'c']) changeBeside(c, { id: 1, before: 'nothing', after });
  expect(c.done).toHaveLength(1);
  undo(c);
  expect(c.beside).toBe('nothing');
  redo(c);
  expect(c.beside).toBe('c');
  makeEdit(c, { kind: 'mask-invert' });
  changeBeside(c, { id: 1, before: 'c', after: 'd' });
  expect(c.done).toHaveLength(3);
});

test('a change that can’t be made leaves the history as it was', () => {
  const stage = { beside: 'now' } as Stage;
  const t = timeline<string>(1e9);
  const broken = { kind: 'mesh', mesh: {}, on: null } as never;
  record(t, { step: 'one', before: [broken] });
  expect(() => back(t, stage, () => false)).toThrow();
  expect([t.done.length, t.undone.length]).toEqual([1, 0]);
  t.undone.push({ step: 'two', after: null });
  expect(() =>
    forth(t, stage, () => {
      throw new Error('no room');
    }),
  ).toThrow('no room');
  expect(t.undone).toHaveLength(1);
});
