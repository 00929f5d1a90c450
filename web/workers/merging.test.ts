/** Pieces merged into a body by the page and its worker: in whatever order things come, nothing is lost. */
import Module, { type ManifoldToplevel } from 'manifold-3d';
import { packMesh, readMesh } from '#core/formats';
import { ball } from '#core/mesh';
import { isClosed, stood, volumeOf } from '#core/part';
import { seeded } from '#core/random';
import { merged, pieceMesh, type Piece } from '#core/scene';
import { newBrush } from '#core/settings';
import { NO_SYMMETRY, type Sample } from '#core/stroke';
import { asWorkers, breath } from './testKit';
import { Sculptor } from './sculptor';

const ID = '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e';
const KNOB = ball(6);
const SEAT = { up: [0, 0, 1], forward: [0, 1, 0], rest: [0, 0, 0] } as const;
const view = { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] } as const;
let restore: () => void;
let kit: ManifoldToplevel;
let sculptor: Sculptor;
beforeAll(async () => {
  ({ restore } = await asWorkers({ 'sculpt.worker.ts': () => import('./sculpt.worker') }));
  kit = await Module();
  kit.setup();
});
afterAll(() => restore());
beforeEach(async () => {
  sculptor = new Sculptor();
  sculptor.onProblem = () => undefined;
  const mesh = packMesh(ball(12));
  await sculptor.open({ kind: 'body', body: { mesh }, levels: 0, fresh: true, pieces: [knob('a', 0), knob('b', 0.5)] });
  await sculptor.use(newBrush(ID, 'Test'), { form: null, tooth: null, parts: [] });
});
afterEach(() => sculptor.close());

function knob(id: string, x: number): Piece {
  const at = { origin: [x, 0, 1], across: [0.2, 0, 0], forward: [0, 0.2, 0], up: [0, 0, 0.2] } as const;
  return { id, partId: id, mesh: 'knob', name: id, seat: SEAT, at, shape: null, colour: null, hidden: false };
}
const down = (x: number, y: number): Sample => ({ origin: [x, y, 5], direction: [0, 0, -1] });
async function draw(y: number, on?: string[]): Promise<void> {
  const start = { brushId: ID, seed: 1, dig: false, symmetry: NO_SYMMETRY, view, ...(on ? { on } : {}) };
  sculptor.begin(start, [down(-0.2, y)]);
  sculptor.extend([down(0.2, y)]);
  await sculptor.end();
}

/** As the page does it; what happens between the hand-out and the answer is `meanwhile`. */
async function merge(ids: string[], meanwhile: () => Promise<unknown> = () => Promise.resolve()): Promise<void> {
  const mesh = readMesh(await sculptor.pieceOrders.handOut());
  const pieces = ids.map((id) => ({ name: id, mesh: pieceMesh(sculptor.pieces.get(id)!, stood(KNOB, SEAT)) }));
  const whole = packMesh(merged(kit, { name: 'Ball', mesh }, pieces));
  await meanwhile();
  await sculptor.pieceOrders.merge(ids, whole);
}
const sculpted = async () => readMesh(await sculptor.sculpted());

test('merged, subdivided and stroked on; one more undo than there is goes nowhere', async () => {
  await merge(['a']);
  expect([...sculptor.pieces.keys()]).toEqual(['b']);
  expect(sculptor.state.merged).toBe(true);
  const once = await sculpted();
  expect(isClosed(once)).toBe(true);
  await draw(0.1);
  const faces = sculptor.state.triangles;
  await sculptor.open({
    kind: 'body',
    body: { mesh: await sculptor.untouched() },
    levels: 1,
    fresh: false,
    pieces: 'merged',
  });
  // Four faces for one, the merged one still in it, the other still a piece, the stroke run again.
  expect(sculptor.state.triangles).toBe(faces * 4);
  expect([...sculptor.pieces.keys()]).toEqual(['b']);
  expect(volumeOf(await sculpted())).toBeGreaterThan(volumeOf(once) * 0.98);
  expect(sculptor.state.strokes).toBe(1);
});

test('strokes on pieces go by the worker, once it knows their meshes', async () => {
  await sculptor.pieceOrders.know(['knob', 'knob'], () => Promise.resolve(KNOB));
  await draw(0, ['a']);
  expect(sculptor.pieces.get('a')!.shape).not.toBeNull();
  expect(sculptor.pieces.get('b')!.shape).toBeNull();
  await sculptor.undo();
  expect(sculptor.pieces.get('a')!.shape).toBeNull();
});

test.each([1, 2, 3, 4])('what is done between the hand-out and the answer is never lost (seed %d)', async (seed) => {
  const random = seeded(seed);
  await sculptor.pieceOrders.know(['knob'], () => Promise.resolve(KNOB));
  for (let n = 0; n < 6; n++) {
    const which = Math.floor(random() * 5);
    const steps = sculptor.state.strokes;
    const acts: (() => Promise<unknown>)[] = [
      () => Promise.resolve(),
      () => draw(random() * 0.3),
      () => sculptor.undo(),
      () => draw(0, [...sculptor.pieces.keys()]),
      () => sculptor.pieceOrders.change([[`new ${n}`, knob(`new ${n}`, random() - 0.5)]]),
    ];
    const [id] = sculptor.pieces.keys();
    if (!id) break;
    let failed = '';
    const going = merge([id], async () => {
      const act = acts[which]!();
      if (random() < 0.5) await breath(n)();
      await act;
    }).catch((error: unknown) => (failed = String(error)));
    await going;
    const done = sculptor.state.strokes;
    if (failed) {
      // Refused: what was done meanwhile is there, and the piece too.
      expect(failed).toContain('worked on meanwhile');
      expect(done === steps && which !== 2).toBe(false);
    } else {
      expect(sculptor.pieces.has(id)).toBe(false);
      expect(sculptor.state.merged).toBe(true);
    }
    expect(isClosed(await sculpted())).toBe(true);
  }
});
