import { Fingers, type FingerMove } from './fingers';

type Hear = (e: unknown) => void;

function hand(rests = () => false) {
  const heard = new Map<string, Hear>();
  const moves: FingerMove[] = [];
  let began = 0;
  const fingers = new Fingers(
    {
      addEventListener: (type: string, f: Hear) => heard.set(type, f),
      getBoundingClientRect: () => ({ left: 10, top: 20 }),
    } as unknown as HTMLElement,
    { began: () => began++, moved: (by) => moves.push(by), rests },
  );
  const say = (type: string, pointerId: number, x = 0, y = 0, pointerType = 'touch') =>
    heard.get(type)!({ pointerType, pointerId, clientX: x + 10, clientY: y + 20 });
  return { fingers, moves, say, began: () => began };
}

/** What all moves come to together. */
function together(moves: readonly FingerMove[]) {
  const sum = (of: (m: FingerMove) => number): number => moves.reduce((total, m) => total + of(m), 0);
  return {
    dx: sum((m) => m.dx),
    dy: sum((m) => m.dy),
    turn: sum((m) => m.turnRad),
    factor: moves.reduce((f, m) => f * m.factor, 1),
  };
}

test('one finger is none of its business; the second drops what the first began', () => {
  const { fingers, moves, say, began } = hand();
  say('pointerdown', 1, 0, 0);
  say('pointermove', 1, 40, 0);
  expect([fingers.busy, began(), moves.length]).toEqual([false, 0, 0]);
  say('pointerdown', 2, 100, 0);
  expect([fingers.busy, began()]).toEqual([true, 1]);
});

test('moved together they pan by what the hand went', () => {
  const { moves, say } = hand();
  say('pointerdown', 1, 0, 0);
  say('pointerdown', 2, 100, 0);
  for (const [id, x] of [
    [1, 0],
    [2, 100],
  ] as const)
    say('pointermove', id, x + 30, 12);
  const all = together(moves);
  expect([all.dx, all.dy]).toEqual([30, 12]);
  expect(all.factor).toBeCloseTo(1, 12);
  expect(all.turn).toBeCloseTo(0, 12);
});

test('apart they zoom, round each other they turn, in whatever small steps', () => {
  const { moves, say } = hand();
  say('pointerdown', 1, -50, 0);
  say('pointerdown', 2, 50, 0);
  for (let n = 1; n <= 20; n++) {
    const r = 50 + n * 2.5;
    const a = (n / 20) * 0.6;
    say('pointermove', 1, -r * Math.cos(a), -r * Math.sin(a));
    say('pointermove', 2, r * Math.cos(a), r * Math.sin(a));
  }
  const all = together(moves);
  expect(all.factor).toBeCloseTo(2, 9);
  expect(all.turn).toBeCloseTo(0.6, 9);
  expect(all.dx).toBeCloseTo(0, 9);
  expect(moves.at(-1)!.x).toBeCloseTo(0, 9);
});

test('the finger that is left does nothing until it is lifted too; a mouse is no finger', () => {
  const { fingers, moves, say } = hand();
  say('pointerdown', 1);
  say('pointerdown', 2, 100, 0);
  say('pointerup', 2);
  say('pointermove', 1, 60, 0);
  expect([fingers.busy, moves.length]).toEqual([true, 0]);
  say('pointercancel', 1);
  expect(fingers.busy).toBe(false);
  say('pointerdown', 1, 0, 0, 'mouse');
  say('pointerdown', 2, 9, 9, 'pen');
  expect(fingers.busy).toBe(false);
});

test('a third finger neither begins anew nor moves the view', () => {
  const { moves, say, began } = hand();
  say('pointerdown', 1, 0, 0);
  say('pointerdown', 2, 100, 0);
  say('pointerdown', 3, 50, 50);
  say('pointermove', 3, 80, 80);
  expect([began(), moves.length]).toEqual([1, 0]);
});

test('fingers that come down beside a pen that draws are a resting hand', () => {
  let drawing = true;
  const { fingers, moves, say, began } = hand(() => drawing);
  say('pointerdown', 1, 0, 0);
  say('pointerdown', 2, 100, 0);
  say('pointermove', 1, 40, 0);
  expect([fingers.busy, began(), moves.length]).toEqual([false, 0, 0]);
  // Lifted from the clay, the same two move nothing until they are put down anew.
  drawing = false;
  say('pointermove', 2, 90, 0);
  expect(moves).toEqual([]);
  say('pointerup', 1);
  say('pointerup', 2);
  say('pointerdown', 3, 0, 0);
  say('pointerdown', 4, 100, 0);
  expect([fingers.busy, began()]).toEqual([true, 1]);
});
