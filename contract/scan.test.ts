/** The scan bench against the real server: mends, undo and patches, however quickly one follows the other. */
import { packMesh } from '#core/formats';
import { seeded } from '#core/random';
import { ScanSchema, SOURCE_VERSION, type Scan } from '#core/settings';
import { asScanned, mooringStone } from '../demo/scans/mooringStone';
import { putBlob } from '../web/api/client';
import { useScanBench } from '../web/stores/scanBench';
import type { Mend } from '../web/workers/scan.worker';
import { asWorkers, breath } from '../web/workers/testKit';
import { until, world, type World } from './page';

let there: World;
let restore: () => void;
beforeAll(async () => {
  there = await world();
  ({ restore } = await asWorkers({ 'scan.worker.ts': () => import('../web/workers/scan.worker') }));
});
afterAll(async () => {
  restore();
  await there.close();
});
beforeEach(async () => {
  there.away = false;
  await there.forget();
  there.load();
});

let made = 0;
async function scan(): Promise<Scan> {
  const mesh = asScanned(mooringStone(9), 4);
  const positions = mesh.positions.map((x) => x / 400);
  const doc = ScanSchema.parse({
    version: SOURCE_VERSION,
    kind: 'scan',
    id: crypto.randomUUID(),
    card: { name: `Scan ${++made}` },
    file: { name: 'stone.ply', what: 'PLY' },
    mesh: await putBlob(new Uint8Array(packMesh({ ...mesh, positions }))),
    vertices: positions.length / 3,
    triangles: mesh.triangles.length / 3,
    coloured: true,
    perBody: 400,
  });
  expect((await there.ask(`/sources/${doc.id}`, 'PUT', { doc, revision: null })).status).toBe(200);
  return doc;
}
const MENDS: Mend[] = [
  { kind: 'loose' },
  { kind: 'holes', longest: 3 },
  { kind: 'agree' },
  { kind: 'weld', near: 0.02 },
  { kind: 'thin', triangles: 300 },
];
const atRest = (bench: ReturnType<typeof useScanBench>) => () =>
  bench.mending === null && bench.shown === bench.doc?.mesh && bench.report !== null;

test('a mend is kept, shown and taken back; what is saved names it', async () => {
  const doc = await scan();
  const bench = useScanBench();
  await bench.open(doc.id);
  expect(bench.report).toMatchObject({ triangles: doc.triangles, loose: { components: 60 } });
  await bench.mend('Dropping loose bits', { kind: 'loose' });
  expect(bench.report).toMatchObject({ loose: { components: 0 }, triangles: doc.triangles - 60 });
  expect(await bench.save()).toBe(true);
  bench.undo();
  await until(atRest(bench));
  expect(bench.report).toMatchObject({ loose: { components: 60 } });
  bench.redo();
  await until(atRest(bench));
  expect(bench.report).toMatchObject({ loose: { components: 0 } });
  expect(bench.unsaved).toBe(false);
  bench.close();
});

test('what holds thinning out back is told', async () => {
  const doc = await scan();
  const bench = useScanBench();
  await bench.open(doc.id);
  // Its loose bits are rims all round.
  await bench.mend('Thinning out the scan', { kind: 'thin', triangles: 40 });
  expect(bench.problem).toContain('not 40: rims');
  await bench.mend('Dropping loose bits', { kind: 'loose' });
  expect(bench.problem).toBeNull();
  bench.close();
});

test('without the server a mend changes nothing and says so', async () => {
  const doc = await scan();
  const bench = useScanBench();
  await bench.open(doc.id);
  there.away = true;
  await bench.mend('Dropping loose bits', { kind: 'loose' });
  expect(bench.problem).toContain('The scan stays as it was.');
  expect([bench.doc!.mesh, bench.shown]).toEqual([doc.mesh, doc.mesh]);
  there.away = false;
  bench.close();
});

test('whatever is mended, cancelled, taken back, laid and saved, in any order and without waiting: at rest what is shown is what the document names', async () => {
  for (let seed = 1; seed <= 3; seed++) {
    there.load();
    const random = seeded(seed);
    const pick = (n: number): number => Math.floor(random() * n);
    const rest = breath(seed);
    const doc = await scan();
    const bench = useScanBench();
    await bench.open(doc.id);
    const going: Promise<unknown>[] = [];
    for (let step = 0; step < 14; step++) {
      switch (pick(7)) {
        case 0:
        case 1:
          going.push(bench.mend('Mending', MENDS[pick(MENDS.length)]));
          break;
        case 2:
          bench.undo();
          break;
        case 3:
          bench.redo();
          break;
        case 4:
          if (bench.mesh) bench.lay([0, 0, 0.5], [0, 0, 1], 0.3);
          break;
        case 5:
          going.push(bench.save());
          break;
        case 6:
          if (pick(3) === 0) bench.mending?.cancel();
          break;
      }
      await rest();
    }
    await Promise.all(going);
    await until(atRest(bench));
    expect(bench.problem).toBeNull();
    expect([bench.mesh!.vertexCount, bench.mesh!.triangleCount]).toEqual([bench.doc!.vertices, bench.doc!.triangles]);
    expect(bench.report!.triangles).toBe(bench.doc!.triangles);
    while (bench.past.length > 0) bench.undo();
    await until(atRest(bench));
    expect([bench.shown, bench.mesh!.triangleCount]).toEqual([doc.mesh, doc.triangles]);
    expect(bench.doc!.patches).toEqual([]);
    bench.close();
  }
});
