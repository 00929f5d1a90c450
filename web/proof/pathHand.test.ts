import { body, buildMesh, type Ray } from '#core/mesh';
import { newBrush } from '#core/settings';
import { NO_SYMMETRY, type Sample } from '#core/stroke';
import type { Sculptor } from '../workers/sculptor';
import type { Begin } from '../workers/sculpt/messages';
import { usePath } from './pathHand';

const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Row');
const down = (x: number, y: number): Ray => ({ origin: [x, y, 4], direction: [0, 0, -1] });

/** A sculptor that writes down what it is told. */
function hand() {
  const told: string[] = [];
  const begun: Begin[] = [];
  let row: readonly Sample[] = [];
  const lays = (what: string) => (start: Begin, samples: readonly Sample[]) => {
    begun.push(start);
    row = samples;
    told.push(what);
    return Promise.resolve();
  };
  const sculptor = {
    mesh: buildMesh(body('ball', 16)),
    drawPath: lays('lay'),
    keepPath: lays('keep'),
    dropPath: () => Promise.resolve(void told.push('drop')),
  };
  const path = usePath({
    sculptor: sculptor as unknown as Sculptor,
    brush: () => brush,
    start: () => ({ view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] }, symmetry: NO_SYMMETRY, dig: false }),
  });
  return { path, told, begun, row: () => row };
}

test('a click beside the body is no node', () => {
  const { path, told } = hand();
  expect(path.add(down(2, 2))).toBe(-1);
  expect([path.open.value, told]).toEqual([false, []]);
});

test('each change lays the row anew, keeping lays it a last time', async () => {
  const { path, told, begun } = hand();
  expect([path.add(down(-0.3, 0)), path.add(down(0, 0.2)), path.add(down(0.3, 0))]).toEqual([0, 1, 2]);
  path.move(1, down(0, 0.4));
  expect(told).toEqual(['lay', 'lay', 'lay', 'lay']);
  expect(path.nodes.value[1].point[1]).toBeCloseTo(0.4, 5);
  expect(await path.keep()).toBe(true);
  expect([told.at(-1), path.open.value]).toEqual(['keep', false]);
  const [{ brushId }] = begun as [Begin];
  expect(brushId).toBe(brush.id);
});

test('nodes lie on the body and look away from it', () => {
  const { path } = hand();
  path.add(down(0.4, -0.3));
  const { point, normal } = path.nodes.value[0];
  expect(Math.hypot(...point)).toBeCloseTo(1, 1);
  expect(Math.hypot(...normal)).toBeCloseTo(1, 9);
  expect(point[0] * normal[0] + point[1] * normal[1] + point[2] * normal[2]).toBeGreaterThan(0.95);
});

test('a node dragged off the body stays where it was', () => {
  const { path, told } = hand();
  path.add(down(0, 0));
  const before = JSON.stringify(path.nodes.value);
  path.move(0, down(3, 0));
  path.move(7, down(0.1, 0));
  expect(JSON.stringify(path.nodes.value)).toBe(before);
  expect(told).toEqual(['lay']);
});

test('closing joins the last node to the first; opening it again takes the way back off', () => {
  const { path, row } = hand();
  for (const [x, y] of [
    [-0.3, 0],
    [0, 0.3],
    [0.3, 0],
  ] as const)
    path.add(down(x, y));
  const open = row().length;
  path.toggleClosed();
  expect(row().length).toBeGreaterThan(open);
  path.toggleClosed();
  expect(row()).toHaveLength(open);
});

test('taking away the last node that is left abandons the row; there is nothing to keep then', async () => {
  const { path, told } = hand();
  path.add(down(0, 0));
  path.add(down(0.2, 0));
  await path.remove();
  expect(path.nodes.value).toHaveLength(1);
  await path.remove();
  expect([told.at(-1), path.open.value, await path.keep(), await path.abandon()]).toEqual([
    'drop',
    false,
    false,
    false,
  ]);
});

test('the next row has chances of its own; with other settings the same row keeps its own', async () => {
  const { path, begun } = hand();
  path.add(down(0, 0));
  path.again();
  await path.keep();
  path.add(down(0, 0));
  const [first, again, kept, next] = begun.map((b) => b.seed);
  expect([again, kept]).toEqual([first, first]);
  expect(next).not.toBe(first);
});
