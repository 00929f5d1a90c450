/** The proof: bodies, shipped and of one's own, what stays on them, and test strokes that are kept and laid. */
import { newBrush } from '#core/settings';
import { NO_SYMMETRY } from '#core/stroke';
import { useBodies } from '../web/stores/bodies';
import { useProof } from '../web/stores/proof';
import { useTrials } from '../web/stores/trials';
import { asWorkers, same } from '../web/workers/testKit';
import { until, world, type World } from './page';

let there: World;
let restore: () => void;
beforeAll(async () => {
  there = await world();
  ({ restore } = await asWorkers({
    'sculpt.worker.ts': () => import('../web/workers/sculpt.worker'),
    'meshFile.worker.ts': () => import('../web/workers/meshFile.worker'),
    'paintDraft.worker.ts': () => import('../web/api/paintDraft.worker'),
  }));
});
afterAll(async () => {
  restore();
  await there.close();
});

const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Test');
brush.stroke.type = 'press';
brush.stroke.size = 0.3;
const red = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5f', 'Red');
red.stroke.type = 'press';
red.touch.action = 'paint';
red.colour.first = '#c02020';
type Proof = ReturnType<typeof useProof>;

/** A page of its own with a coarse body open. */
async function proof(): Promise<Proof> {
  there.load();
  const own = useProof();
  own.density = 64;
  await own.start();
  await own.sculptor.use(brush, { form: null, tooth: null, parts: [] });
  return own;
}
async function stamp({ sculptor }: Proof, x = 0): Promise<void> {
  sculptor.begin(
    {
      brushId: brush.id,
      seed: 1,
      dig: false,
      symmetry: NO_SYMMETRY,
      view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
    },
    [{ origin: [x, 0, 5], direction: [0, 0, -1] }],
  );
  await sculptor.end();
}
/** A small red stroke on the texture. */
async function paint(own: Proof, x = 0): Promise<void> {
  await own.sculptor.use(red, { form: null, tooth: null, parts: [] });
  await own.sculptor.paint.begin(512);
  own.sculptor.begin(
    {
      brushId: red.id,
      seed: 1,
      dig: false,
      symmetry: NO_SYMMETRY,
      view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
    },
    [{ origin: [x, 0, 5], direction: [0, 0, -1] }],
  );
  await own.sculptor.end();
}
/** Layers as they are, each tile by the sum of its words. */
async function painted({ sculptor }: Proof): Promise<unknown> {
  const found = await sculptor.paint.layers();
  return found?.layers.map(({ name, opacity, tiles }) => [
    name,
    opacity,
    [...tiles].map(([tile, words]) => [tile, words.reduce((sum, word) => sum + word, 0)]).sort(),
  ]);
}
const clay = ({ sculptor }: Proof): Float32Array => sculptor.mesh!.positions.slice();
const CUBE = `${[
  [-1, -1, -1],
  [1, -1, -1],
  [1, 1, -1],
  [-1, 1, -1],
  [-1, -1, 1],
  [1, -1, 1],
  [1, 1, 1],
  [-1, 1, 1],
]
  .map((v) => `v ${v.join(' ')}`)
  .join('\n')}
f 1 4 3 2\nf 5 6 7 8\nf 1 2 6 5\nf 2 3 7 6\nf 3 4 8 7\nf 4 1 5 8\n`;
const file = (text: string, name: string): File => new File([text], name);
const names = async (): Promise<string[]> =>
  ((await there.ask('/bodies')).json as { items: { card: { name: string } }[] }).items.map((i) => i.card.name);

test('the same body at another density keeps its strokes, another body begins untouched', async () => {
  const own = await proof();
  await stamp(own);
  expect([own.label, own.state.strokes, own.opened]).toEqual(['Plain ball', 1, 1]);
  await own.show('ball', 150);
  expect(own.state.strokes).toBe(1);
  await own.show('plank', 64);
  expect([own.name, own.state.strokes]).toEqual(['plank', 0]);
});

test('what is painted stays at another density, is there in another page, and goes with a body that is kept', async () => {
  const own = await proof();
  await own.show('ball', 150);
  await paint(own);
  const layers = await painted(own);
  expect(JSON.stringify(layers).length).toBeGreaterThan(40);
  await own.show('ball', 64);
  expect(own.state.strokes).toBe(1);
  // Of another mesh the same texels lie within a hair of where they lay.
  expect(JSON.stringify(await painted(own)).length).toBeGreaterThan(40);
  const now = await painted(own);
  await own.sculptor.paint.change({ kind: 'set', id: own.state.layers[0]!.id, to: { opacity: 0.5, name: 'Red' } });
  const last = await painted(own);
  expect(last).not.toEqual(now);
  // To another body and back: as it was left.
  await own.show('plank', 64);
  expect([own.state.textureSize, await painted(own)]).toEqual([0, undefined]);
  await own.show('ball', 64);
  expect([own.state.strokes, await painted(own)]).toEqual([0, last]);
  const name = await own.keepBody('Red ball');
  expect([own.label, await painted(own)]).toEqual([name, last]);
  await until(async () => (await names()).includes('Red ball'));
  const other = await proof();
  await until(() => other.own.some((b) => b.name === 'Red ball'));
  await other.show(other.own.find((b) => b.name === 'Red ball')!.id, 64);
  expect(await painted(other)).toEqual(last);
  await other.forget(other.name);
});

test('subdivided and stepped down again, it has its strokes and its faces again', async () => {
  const own = await proof();
  await stamp(own);
  const [faces, before] = [own.state.triangles, clay(own)];
  await own.subdivide();
  expect([own.state.triangles, own.levels, own.state.strokes]).toEqual([faces * 4, 1, 1]);
  await own.stepDown();
  expect([own.state.triangles, own.levels]).toEqual([faces, 0]);
  expect(same(clay(own), before)).toBe(true);
  await own.stepDown();
  expect(own.levels).toBe(0);
});

test('a body from a file is shown at once, kept by the server, there in another page, and taken back after it was taken off', async () => {
  const own = await proof();
  await own.bring(file(CUBE, 'mooring block.obj'));
  expect([own.problem, own.label, own.state.triangles]).toEqual([null, 'mooring block', 12]);
  expect(own.about).toMatchObject({ open: 0, components: 1 });
  await until(async () => (await names()).includes('mooring block'));
  const other = await proof();
  await until(() => other.own.some((b) => b.name === 'mooring block'));
  const row = other.own.find((b) => b.name === 'mooring block')!;
  await other.show(row.id, 64);
  expect(other.state.triangles).toBe(12);
  await other.subdivide();
  const back = await other.forget(row.id);
  expect([other.name, await names()]).toEqual(['ball', []]);
  await back();
  expect([other.name, other.state.triangles, await names()]).toEqual([row.id, 12, ['mooring block']]);
  await other.forget(row.id);
});

test('two files of one name are two bodies', async () => {
  const own = await proof();
  await own.bring(file(CUBE, 'block.obj'));
  await own.bring(file(CUBE, 'Block.obj'));
  expect(own.own.map((b) => b.name)).toEqual(['block', 'Block 2']);
  await until(async () => (await names()).length === 2);
  for (const { id } of [...own.own]) await own.forget(id);
});

test.each([
  ['nothing.obj', '', 'is empty'],
  ['words.ply', 'these are words', 'holds no triangles'],
  ['points.obj', 'v 0 0 0\nv 1 0 0\nv 0 1 0\n', 'no triangles'],
  ['far.obj', 'v 0 0 0\nv 1 0 0\nv 0 1e999 0\nf 1 2 3\n', 'not a number'],
  ['flat.obj', 'v 1 1 1\nv 1 1 1\nv 1 1 1\nf 1 2 3\n', 'can’t be a body'],
])('%s: what is wrong is said, and the body that is shown stays', async (name, text, says) => {
  const own = await proof();
  await stamp(own);
  const before = clay(own);
  await own.bring(file(text, name));
  expect(own.problem).toContain(says);
  expect([own.name, own.opening, own.own.length]).toEqual(['ball', false, 0]);
  expect(same(clay(own), before)).toBe(true);
});

test('what a stroke raised is cut off as a body of its own', async () => {
  const own = await proof();
  expect(await own.cutOff('Test')).toBeNull();
  await stamp(own);
  await own.sculptor.maskRaised();
  expect(await own.cutOff('Test')).toBe('Test, cut off');
  const cut = own.own.find((b) => b.name === 'Test, cut off')!;
  expect(cut.report).toMatchObject({ open: 0, components: 1 });
  await own.show(cut.id, 64);
  expect(own.state.triangles).toBe(cut.triangles);
  await until(async () => (await names()).includes('Test, cut off'));
  await own.forget(cut.id);
});

test('a body that is shown no more because its mesh is gone leaves something to stamp, and says why', async () => {
  const own = await proof();
  await own.bring(file(CUBE, 'lost.obj'));
  await until(async () => (await names()).includes('lost'));
  const { id } = own.own[0];
  there.load();
  const again = useProof();
  again.density = 64;
  again.name = id;
  const { meshOf } = useBodies();
  useBodies().meshOf = () => Promise.reject(new Error('There is no stored data.'));
  await again.start();
  expect([again.name, again.problem]).toEqual(['ball', 'There is no stored data.']);
  expect(again.state.vertices).toBeGreaterThan(1000);
  useBodies().meshOf = meshOf;
  await again.forget(id);
});

test('test strokes: the shipped sets go to the body that shows them; those on the body are kept and laid in another page', async () => {
  const own = await proof();
  const trials = useTrials();
  await trials.replayShipped('stamps', brush.id);
  expect([own.name, own.state.strokes]).toEqual(['ball', 3]);
  const three = clay(own);
  await trials.keep('Three of mine');
  await own.sculptor.clear();
  await trials.replayShipped('edge', brush.id);
  expect([own.name, own.state.strokes]).toEqual(['plank', 3]);
  await until(async () => ((await there.ask('/trials')).json as { items: unknown[] }).items.length === 1);
  await proof();
  const again = { proof: useProof(), trials: useTrials() };
  await until(() => again.trials.own.length === 1);
  const [set] = again.trials.own;
  expect(set).toMatchObject({ name: 'Three of mine', body: 'ball' });
  await again.proof.show('plank', 64);
  await again.trials.replayOwn(set.id, brush.id);
  expect([again.proof.name, again.proof.state.strokes]).toEqual(['ball', 3]);
  expect(same(clay(again.proof), three)).toBe(true);
  await again.trials.replayOwn('nobody', brush.id);
  const back = await again.trials.forget(set.id);
  expect(again.trials.own).toEqual([]);
  await back();
  expect(again.trials.own).toHaveLength(1);
});

test('strokes of held keys are no test of a brush, and aren’t kept as one', async () => {
  const own = await proof();
  const trials = useTrials();
  await stamp(own);
  await own.editMask('mask-invert');
  await own.editMask('mask-clear');
  await trials.keep('One stamp');
  expect(trials.own.find((t) => t.name === 'One stamp')!.strokes).toBe(1);
  await until(async () =>
    ((await there.ask('/trials')).json as { items: { card: { name: string } }[] }).items.some(
      (i) => i.card.name === 'One stamp',
    ),
  );
});
