/**
 * Ready heights come in as they are: to the bit, to the float, as offsets; and what is guessed of pictures that arrive.
 */
import { createHash, randomUUID } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { writeExr, writeTiff } from '#core/formats';
import { growPattern } from '#core/pattern';
import { ALPHA_VERSION, AlphaSchema, newGrow, type Alpha } from '#core/settings';
import { start, type Running } from './start';
import { seededTemplate } from './testTemplate';

let folder: string;
let server: Running;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
  server = await start({
    folder: join(folder, 'data'),
    template: await seededTemplate(),
    page: folder,
    port: 0,
    version: 'test',
  });
});
afterAll(async () => {
  await server.close();
  await rm(folder, { recursive: true, force: true });
});

const SIZE = 96;
const sha = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
const squeeze = (bytes: Uint8Array): Promise<Uint8Array> => Promise.resolve(deflateSync(bytes));
const api = (path: string, init?: RequestInit) => fetch(`${server.address}/api${path}`, init);

async function dropped(bytes: Uint8Array, name: string) {
  const arrival = await (
    await api(`/arrivals?name=${name}`, { method: 'POST', body: bytes as Uint8Array<ArrayBuffer> })
  ).json();
  const heights = arrival.blob
    ? await (await api(`/sheets/${arrival.blob}/heights?name=${name}`, { method: 'POST' })).json()
    : null;
  return { arrival, heights };
}

async function stored(format: Alpha['format'], bytes: Uint8Array, relief: number): Promise<Alpha> {
  const doc = AlphaSchema.parse({
    version: ALPHA_VERSION,
    id: randomUUID(),
    card: { name: `Alpha ${randomUUID()}` },
    size: SIZE,
    relief,
    ground: 0,
    format,
    blob: sha(bytes),
    lineage: { sourceId: null, sourceRevision: null, floor: 0, crown: relief },
    report: { marginPx: 0, ringLoss: 0, usedRange: 1 },
  });
  await api(`/blobs/${doc.blob}`, { method: 'PUT', body: bytes as Uint8Array<ArrayBuffer> });
  expect(
    (
      await api(`/alphas/${doc.id}`, {
        method: 'PUT',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ doc, revision: null }),
      })
    ).status,
  ).toBe(200);
  return doc;
}

const file = async (doc: Alpha, ending: string): Promise<Uint8Array> =>
  new Uint8Array(await (await api(`/alphas/${doc.id}/${ending}`)).arrayBuffer());
/** A form on a bare ground. */
const form = (): Float32Array => {
  const { data } = growPattern(newGrow('pebbles', 4), SIZE);
  return data.map((v, i) => (Math.hypot((i % SIZE) - SIZE / 2, Math.floor(i / SIZE) - SIZE / 2) < SIZE * 0.4 ? v : 0));
};

test('an alpha that goes out as a 16-bit PNG and is dropped back is the same to the bit, relief and all', async () => {
  const greys = Uint16Array.from(form(), (v) => Math.round(v * 65535));
  const doc = await stored('grey16', new Uint8Array(greys.buffer), 0.123456789);
  const { arrival, heights } = await dropped(await file(doc, 'png'), 'out.png');
  expect(arrival.guess.kind).toBe('alpha');
  expect(heights).toMatchObject({ blob: doc.blob, size: SIZE, format: 'grey16', relief: 0.123456789, ground: 0 });
});

test('as TIFF and EXR its floats come back to the last one', async () => {
  const floats = form();
  const doc = await stored('grey32f', new Uint8Array(floats.buffer), 0.31);
  for (const ending of ['tiff', 'exr']) {
    const { arrival, heights } = await dropped(await file(doc, ending), `out.${ending}`);
    expect([arrival.guess.kind, heights.blob, heights.format, heights.relief]).toEqual([
      'alpha',
      doc.blob,
      'grey32f',
      0.31,
    ]);
  }
});

test('offsets in three directions come back as offsets', async () => {
  const offsets = Float32Array.from({ length: SIZE * SIZE * 3 }, (_, i) => Math.sin(i / 40) * 0.2);
  const doc = await stored('vector32f', new Uint8Array(offsets.buffer), 0.4);
  const { arrival, heights } = await dropped(await file(doc, 'exr'), 'out.exr');
  expect([arrival.guess.kind, heights.blob, heights.format]).toEqual(['alpha', doc.blob, 'vector32f']);
  // Of another program, which says nothing: what goes below zero is no colour.
  const channel = (k: number): Float32Array => Float32Array.from({ length: SIZE * SIZE }, (_, i) => offsets[i * 3 + k]);
  const foreign = await writeExr(
    { width: SIZE, height: SIZE, channels: { R: channel(0), G: channel(1), B: channel(2) } },
    squeeze,
  );
  expect((await dropped(foreign, 'foreign.exr')).heights).toMatchObject({ blob: doc.blob, relief: null });
});

test('8 bits, three equal planes, and other shapes become alphas too; the ground is found', async () => {
  const greys = Uint8Array.from(form(), (v) => Math.round(20 + v * 200));
  const one = await sharp(Buffer.from(greys), { raw: { width: SIZE, height: SIZE, channels: 1 } })
    .png()
    .toBuffer();
  const wanted = sha(new Uint8Array(Uint16Array.from(greys, (v) => v * 257).buffer));
  expect((await dropped(one, 'one.png')).heights).toMatchObject({
    blob: wanted,
    format: 'grey16',
    relief: null,
    ground: expect.closeTo(20 / 255, 3),
  });
  const three = await sharp(
    Buffer.from(Uint8Array.from({ length: greys.length * 3 }, (_, i) => greys[Math.floor(i / 3)])),
    { raw: { width: SIZE, height: SIZE, channels: 3 } },
  )
    .png()
    .toBuffer();
  const { arrival, heights } = await dropped(three, 'three.png');
  expect([arrival.guess.kind, heights.blob]).toEqual(['alpha', wanted]);
  const wide = await sharp(Buffer.from(greys.subarray(0, SIZE * 48)), { raw: { width: SIZE, height: 48, channels: 1 } })
    .png()
    .toBuffer();
  expect((await dropped(wide, 'wide.png')).heights).toMatchObject({ size: SIZE, format: 'grey16' });
});

test('floats beyond 0 to 1 are brought into it; pictures too small, and broken ones, say why', async () => {
  const wild = await writeTiff(
    SIZE,
    SIZE,
    form().map((v) => v * 30 - 5),
    squeeze,
  );
  expect((await dropped(wild, 'wild.tiff')).heights).toMatchObject({ format: 'grey32f', ground: expect.closeTo(0, 3) });
  const tiny = await sharp({ create: { width: 4, height: 4, channels: 3, background: '#000' } })
    .png()
    .toBuffer();
  expect((await dropped(tiny, 'tiny.png')).heights.error.message).toContain('an alpha has 8 to 8192 a side');
  expect((await dropped(new Uint8Array(50).fill(7), 'noise.png')).arrival.error.message).toMatch(/^noise.png .*\.$/);
});
