/** Bodies and test strokes of one's own. */
import { createHash, randomUUID } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { packMesh } from '#core/formats';
import { body } from '#core/mesh';
import { BODY_VERSION, type OwnBody } from '#core/settings';
import { TRIAL_VERSION, trialSets, type OwnTrial } from '#core/trial';
import { start, type Running } from './start';
import { seededTemplate } from './testTemplate';

let folder: string;
let template: string;
let server: Running;

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
  template = await seededTemplate();
  server = await start({ folder: join(folder, 'data'), template, page: folder, port: 0, version: 'test' });
});
afterAll(async () => {
  await server.close();
  await rm(folder, { recursive: true, force: true });
});

const api = (path: string, method = 'GET', body?: unknown) =>
  fetch(`${server.address}/api${path}`, {
    method,
    ...(body === undefined
      ? {}
      : body instanceof Uint8Array
        ? { body: body as Uint8Array<ArrayBuffer> }
        : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
  });

/** −0 is 0 in JSON. */
const asJson = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

async function sent(name: string, cells: number): Promise<OwnBody> {
  const raw = body('ball', cells);
  const bytes = new Uint8Array(packMesh(raw));
  const mesh = createHash('sha256').update(bytes).digest('hex');
  expect((await api(`/blobs/${mesh}`, 'PUT', bytes)).status).toBe(200);
  return {
    version: BODY_VERSION,
    id: randomUUID(),
    card: { name, author: '', tags: [], notes: '' },
    mesh,
    triangles: raw.triangles.length / 3,
    report: { merged: 0, dropped: 0, open: 0, components: 1 },
    pieces: [],
    shapes: null,
    painting: null,
  };
}

const set = (name: string, over: Partial<OwnTrial> = {}): OwnTrial => ({
  version: TRIAL_VERSION,
  id: randomUUID(),
  card: { name, author: '', tags: [], notes: '' },
  body: 'ball',
  strokes: trialSets()[0].strokes,
  ...over,
});

test('a body comes back as it was sent, mesh and all; one without its mesh is refused', async () => {
  const doc = await sent('Ring', 8);
  expect((await api(`/bodies/${doc.id}`, 'PUT', { doc, revision: null })).status).toBe(200);
  const { items } = await (await api('/bodies')).json();
  expect(items).toEqual([
    expect.objectContaining({ id: doc.id, mesh: doc.mesh, triangles: doc.triangles, revision: 1 }),
  ]);
  expect((await (await api(`/bodies/${doc.id}`)).json()).doc).toEqual(doc);
  const back = new Uint8Array(await (await api(`/blobs/${doc.mesh}`)).arrayBuffer());
  expect(back).toEqual(new Uint8Array(packMesh(body('ball', 8))));
  const hollow = { ...doc, id: randomUUID(), card: { ...doc.card, name: 'Hollow' }, mesh: 'b'.repeat(64) };
  const refused = await api(`/bodies/${hollow.id}`, 'PUT', { doc: hollow, revision: null });
  expect(refused.status).toBe(404);
  expect((await refused.json()).error.message).toContain('that the body names');
  expect((await api(`/bodies/${doc.id}/picture`)).status).toBe(404);
});

test.each(trialSets().map((s) => [s.label, s.strokes] as const))(
  'the strokes of “%s” come back to the last digit',
  async (label, strokes) => {
    const doc = set(label, { strokes });
    expect((await api(`/trials/${doc.id}`, 'PUT', { doc, revision: null })).status).toBe(200);
    expect((await (await api(`/trials/${doc.id}`)).json()).doc).toEqual(asJson(doc));
  },
);

test.each<[string, Partial<Record<keyof OwnTrial, unknown>>, string]>([
  ['no strokes', { strokes: [] }, 'at least one stroke'],
  ['a stroke without a place of the hand', { strokes: [{ ...trialSets()[0].strokes[0], samples: [] }] }, 'samples'],
  [
    'a place that is no number',
    { strokes: [{ ...trialSets()[0].strokes[0], samples: [{ origin: [0, null, 0], direction: [0, 0, 1] }] }] },
    'Origin 2 of sample 1 of stroke 1 must be a number',
  ],
  [
    'too many places of the hand',
    {
      strokes: [
        { ...trialSets()[0].strokes[0], samples: Array(100_001).fill({ origin: [0, 0, 6], direction: [0, 0, -1] }) },
      ],
    },
    'at most 100000',
  ],
  ['a newer version', { version: 9 }, 'version 9'],
])('a set with %s is refused with a sentence', async (_, over, says) => {
  const doc = { ...set('Broken'), ...over };
  const answer = await api(`/trials/${doc.id}`, 'PUT', { doc, revision: null });
  expect(answer.status).toBe(422);
  expect((await answer.json()).error.message).toContain(says);
});

test('two of one name are refused, whichever their capitals; one taken off the list makes room and comes back', async () => {
  const [one, two] = [set('Twin'), set('twin')];
  await api(`/trials/${one.id}`, 'PUT', { doc: one, revision: null });
  expect((await (await api(`/trials/${two.id}`, 'PUT', { doc: two, revision: null })).json()).error.message).toContain(
    'already a set of test strokes called “twin”',
  );
  expect((await api(`/trials/${one.id}`, 'DELETE')).status).toBe(204);
  expect((await api(`/trials/${two.id}`, 'PUT', { doc: two, revision: null })).status).toBe(200);
  expect((await api(`/trials/${one.id}/restore`, 'POST')).status).toBe(409);
  await api(`/trials/${two.id}`, 'DELETE');
  expect((await (await api(`/trials/${one.id}/restore`, 'POST')).json()).doc).toEqual(asJson(one));
});
