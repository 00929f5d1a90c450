/** Pictures that are brought, read in windows and shown: what the page asks for, as the server gives it. */
import { deflateSync } from 'node:zlib';
import { decode } from 'fast-png';
import sharp from 'sharp';
import { packMesh, writeTiff } from '#core/formats';
import { ball } from '#core/mesh';
import {
  LetteringSchema,
  newGrow,
  PatternSchema,
  ScanSchema,
  SheetSchema,
  SlabSchema,
  SOURCE_VERSION,
  type Source,
} from '#core/settings';
import type { Refused } from '../web/api/client';
import { getBlob, getPixels, putBlob, request, SheetFile } from '../web/api/client';
import { world, type World } from './page';

let there: World;
beforeAll(async () => {
  there = await world();
});
afterAll(() => there.close());

const W = 48;
const H = 30;
const file = (bytes: Uint8Array, name: string): File => new File([bytes.slice()], name);
const deep = Uint16Array.from({ length: W * H }, (_, i) => (i * 7919) % 65536);
const deepPng = (): Promise<Buffer> =>
  sharp(deep, { raw: { width: W, height: H, channels: 1 } })
    .pipelineColourspace('grey16')
    .toColourspace('grey16')
    .png()
    .toBuffer();
const whole = { x: 0, y: 0, width: W, height: H };
const squeeze = (bytes: Uint8Array): Promise<Uint8Array> => Promise.resolve(deflateSync(bytes));

/** As any program may send a picture to be kept. */
async function postSheet(picture: File): Promise<SheetFile> {
  const path = `/sheets?name=${encodeURIComponent(picture.name || 'The picture')}`;
  return SheetFile.parse(await (await request(path, { method: 'POST', body: picture })).json());
}

test('16 bits arrive in the page as they lie in the file, and floats as floats', async () => {
  const kept = await postSheet(file(await deepPng(), 'deep.png'));
  expect(kept).toMatchObject({ name: 'deep.png', width: W, height: H, what: 'PNG, 16 bit' });
  const { width, height, planes } = await getPixels(kept.blob, whole, W);
  expect([width, height, planes.length]).toEqual([W, H, 1]);
  expect(Array.from(planes[0], (v) => Math.round(v * 65535))).toEqual([...deep]);
  const ramp = Float32Array.from({ length: W * H }, (_, i) => i / (W * H));
  const floats = await postSheet(file(await writeTiff(W, H, ramp, squeeze), 'ramp.tiff'));
  const read = await getPixels(floats.blob, whole, W);
  const at = 17 * W + 5;
  expect(read.planes[0][at]).toBeCloseTo(ramp[at], 6);
});

test('8 bits and colours: each plane of its own, white is 1', async () => {
  const kept = await postSheet(
    file(
      await sharp({ create: { width: W, height: H, channels: 3, background: '#3300ff' } })
        .png()
        .toBuffer(),
      'blue.png',
    ),
  );
  const { planes } = await getPixels(kept.blob, whole, W);
  expect(planes.map((p) => Number(p[7].toFixed(4)))).toEqual([0.2, 0, 1]);
});

test('a window is cut where it is asked for, and reduced to the side that is asked for', async () => {
  const kept = await postSheet(file(await deepPng(), 'deep.png'));
  const { width, height, planes } = await getPixels(kept.blob, { x: 5, y: 3, width: 20, height: 10 }, 20);
  expect([width, height]).toEqual([20, 10]);
  expect(Math.round(planes[0][0] * 65535)).toBe(deep[3 * W + 5]);
  expect(Math.round(planes[0][9 * 20 + 19] * 65535)).toBe(deep[12 * W + 24]);
  const small = await getPixels(kept.blob, whole, 16);
  expect([small.width, small.height]).toEqual([16, 10]);
  // A side that is far too small is brought to the least there is.
  expect((await getPixels(kept.blob, whole, 1)).width).toBe(8);
});

test('a preview is a picture; the same file brought twice is kept once', async () => {
  const [one, two] = [
    await postSheet(file(await deepPng(), 'one.png')),
    await postSheet(file(await deepPng(), 'two.png')),
  ];
  expect(two.blob).toBe(one.blob);
  const preview = await fetch(`/api/sheets/${one.blob}/preview`);
  expect(preview.headers.get('content-type')).toBe('image/jpeg');
  const meta = await sharp(Buffer.from(await preview.arrayBuffer())).metadata();
  expect([meta.width, meta.height]).toEqual([W, H]);
});

test('what is no picture, an unknown one, and a window that is none are refused with a sentence', async () => {
  const refusal = async (act: Promise<unknown>): Promise<Refused> =>
    act.then(
      () => {
        throw new Error('It was taken.');
      },
      (error: Refused) => error,
    );
  expect((await refusal(postSheet(file(new TextEncoder().encode('words'), 'words.png')))).message).toContain(
    'words.png isn’t a picture',
  );
  expect((await refusal(postSheet(file(new Uint8Array(0), '')))).message).toContain('The picture');
  expect((await refusal(getPixels('0'.repeat(64), whole, 16))).status).toBe(404);
  const { blob } = await postSheet(file(await deepPng(), 'deep.png'));
  for (const window of [
    { ...whole, width: 0 },
    { ...whole, x: NaN },
    { ...whole, x: 1e9 },
  ])
    expect((await refusal(getPixels(blob, window, 16))).status).toBe(422);
});

test('bytes come back under their name', async () => {
  const bytes = Uint8Array.from({ length: 70_000 }, (_, i) => i % 251);
  const name = await putBlob(bytes);
  expect(new Uint8Array(await getBlob(name))).toEqual(bytes);
});

describe('every source has a picture of its own', () => {
  const head = (name: string) => ({ version: SOURCE_VERSION, id: crypto.randomUUID(), card: { name } });
  const make: Record<Source['kind'], () => Promise<Source>> = {
    async sheet() {
      const { blob, name, width, height, what } = await postSheet(file(await deepPng(), 'marks.png'));
      return SheetSchema.parse({ ...head('A sheet'), kind: 'sheet', file: { blob, name, width, height, what } });
    },
    async scan() {
      const mesh = ball(12);
      return ScanSchema.parse({
        ...head('A scan'),
        kind: 'scan',
        file: { name: 'ball.ply', what: 'PLY' },
        mesh: await putBlob(new Uint8Array(packMesh(mesh))),
        vertices: mesh.positions.length / 3,
        triangles: mesh.triangles.length / 3,
        perBody: 50,
      });
    },
    lettering: () =>
      Promise.resolve(
        LetteringSchema.parse({ ...head('Lettering'), kind: 'lettering', blocks: [{ id: crypto.randomUUID() }] }),
      ),
    pattern: () =>
      Promise.resolve(PatternSchema.parse({ ...head('A pattern'), kind: 'pattern', grow: newGrow('weave') })),
    async slab() {
      const side = 65;
      const places = new Float32Array(side * side * 3);
      for (let j = 0; j < side; j++)
        for (let i = 0; i < side; i++)
          places.set([i / 32 - 1, j / 32 - 1, i > 20 && i < 40 && j > 20 && j < 40 ? 0.1 : 0], (j * side + i) * 3);
      return SlabSchema.parse({
        ...head('A slab'),
        kind: 'slab',
        cells: 64,
        blob: await putBlob(new Uint8Array(places.buffer)),
      });
    },
  };

  test.each(Object.keys(make) as Source['kind'][])('%s', async (kind) => {
    const doc = await make[kind]();
    expect((await there.ask(`/sources/${doc.id}`, 'PUT', { doc, revision: null })).status).toBe(200);
    const answer = await fetch(`/api/sources/${doc.id}/picture`);
    const { width, height, data, channels } = decode(new Uint8Array(await answer.arrayBuffer()));
    expect(width).toBe(height);
    const greys = new Set<number>();
    for (let i = 0; i < data.length; i += channels) greys.add(data[i]);
    expect(greys.size).toBeGreaterThan(8);
  });

  test('a slab whose clay has another number of vertices is refused, and nothing is kept', async () => {
    const doc = SlabSchema.parse({
      ...head('Short'),
      kind: 'slab',
      cells: 64,
      blob: await putBlob(new Uint8Array(1200)),
    });
    const { status, json } = await there.ask(`/sources/${doc.id}`, 'PUT', { doc, revision: null });
    expect(status).toBe(422);
    expect((json as { error: { message: string } }).error.message).toContain(
      'has 1200 bytes; by its own settings it needs 50700',
    );
    expect((await there.ask(`/sources/${doc.id}`)).status).toBe(404);
  });
});
