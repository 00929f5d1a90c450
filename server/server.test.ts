import { createHash, randomUUID } from 'node:crypto';
import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { request as rawRequest } from 'node:http';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { decode } from 'fast-png';
import sharp from 'sharp';
import { FloatType } from 'three';
import { EXRLoader } from 'three/addons/loaders/EXRLoader.js';
import { seeded } from '#core/random';
import { ALPHA_VERSION, CastSettingsSchema, newBrush, SlabSchema, SOURCE_VERSION, type Alpha } from '#core/settings';
import { openPglite } from './store/pglite/open';
import { start, type Running } from './start';
import { SERVER, spawnServer } from './testKit';
import { seededTemplate } from './testTemplate';

const root = resolve(import.meta.dirname, '..');
let folder: string;
let template: string;
let server: Running;

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
  template = await seededTemplate();
  server = await start({ folder: join(folder, 'data'), template, page: join(root, 'web'), port: 0, version: 'test' });
});
afterAll(async () => {
  await server.close();
  await rm(folder, { recursive: true, force: true });
});

const api = (path: string, init?: RequestInit) => fetch(`${server.address}/api${path}`, init);
const json = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify(body),
});
const sha = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

function noise(bytes: number, seed: number): Uint8Array<ArrayBuffer> {
  const random = seeded(seed);
  return Uint8Array.from({ length: bytes }, () => random() * 256);
}

async function storeAlpha(name: string, size = 32): Promise<Alpha> {
  const greys = Uint16Array.from({ length: size * size }, (_, i) => (i * 65535) / (size * size - 1));
  const bytes = new Uint8Array(greys.buffer);
  const alpha: Alpha = {
    version: ALPHA_VERSION,
    id: randomUUID(),
    format: 'grey16',
    card: { name, author: '', tags: [], notes: '' },
    size,
    relief: 0.2,
    ground: 0,
    blob: sha(bytes),
    lineage: {
      sourceId: null,
      sourceRevision: null,
      floor: 0,
      crown: 0.2,
      cast: CastSettingsSchema.parse({}),
      patchId: null,
      colours: null,
    },
    recipe: null,
    report: { marginPx: 1, ringLoss: 0, usedRange: 1, undercut: 0 },
  };
  await api(`/blobs/${alpha.blob}`, { method: 'PUT', body: bytes });
  const response = await api(`/alphas/${alpha.id}`, json('PUT', { doc: alpha, revision: null }));
  expect(response.status).toBe(200);
  return alpha;
}

describe('health and headers', () => {
  test('says that it is well and isolates its pages', async () => {
    const response = await api('/health');
    expect(await response.json()).toEqual({ ok: true, name: 'Mold Stamp', version: 'test' });
    expect(response.headers.get('cross-origin-opener-policy')).toBe('same-origin');
    expect(response.headers.get('cross-origin-embedder-policy')).toBe('require-corp');
    expect(response.headers.get('content-security-policy')).toContain("script-src 'self'");
    expect(response.headers.get('content-security-policy')).not.toContain("script-src 'self' 'unsafe-inline'");
  });

  test('the scripts that cut pictures and unwrap meshes may make functions of text; no other may', async () => {
    const policyOf = async (path: string): Promise<string> =>
      (await fetch(server.address + path)).headers.get('content-security-policy')!;
    for (const name of ['grabCut', 'unwrap'])
      expect(await policyOf(`/assets/${name}.worker-B3iQh3SM.js`)).toContain(" 'unsafe-eval'");
    for (const path of [
      '/',
      '/assets/index-B3iQh3SM.js',
      '/assets/x/grabCut.worker-1.js',
      '/assets/grabCut.worker-1.js/..',
    ])
      expect(await policyOf(path)).not.toContain(" 'unsafe-eval'");
  });

  test('refuses another Host, and changes from another Origin', async () => {
    const { port } = new URL(server.address);
    const status = await new Promise<number>((done, fail) => {
      rawRequest({ host: '127.0.0.1', port, path: '/api/health', headers: { Host: 'evil.example' } }, (r) => {
        r.resume();
        done(r.statusCode ?? 0);
      })
        .on('error', fail)
        .end();
    });
    expect(status).toBe(403);
    const foreign = await api('/belt', {
      ...json('PUT', { ids: [] }),
      headers: { 'Content-Type': 'application/json', Origin: 'http://evil.example' },
    });
    expect(foreign.status).toBe(403);
    expect((await foreign.json()).error.code).toBe('foreign-origin');
  });

  test('an unknown address and broken JSON are answered with code and sentence', async () => {
    const nothing = await api('/nothing');
    expect(nothing.status).toBe(404);
    expect((await nothing.json()).error).toEqual({
      code: 'no-route',
      message: 'There is nothing at GET /api/nothing.',
      details: {},
    });
    const broken = await api('/belt', {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: '{"ids": [',
    });
    expect(broken.status).toBe(400);
  });
});

describe('blobs', () => {
  test.each([0, 1, 1 << 20, (1 << 20) + 1, 3_456_789])('%p bytes come back as they went in', async (size) => {
    const bytes = noise(size, size + 1);
    expect((await api(`/blobs/${sha(bytes)}`, { method: 'PUT', body: bytes })).status).toBe(200);
    const back = new Uint8Array(await (await api(`/blobs/${sha(bytes)}`)).arrayBuffer());
    expect(sha(back)).toBe(sha(bytes));
    expect(back.length).toBe(size);
  });

  test('one range of bytes is answered, and one outside of them refused', async () => {
    const bytes = noise(100, 9);
    await api(`/blobs/${sha(bytes)}`, { method: 'PUT', body: bytes });
    const ranged = async (range: string): Promise<[number, string | null, Uint8Array]> => {
      const answer = await api(`/blobs/${sha(bytes)}`, { headers: { Range: range } });
      return [answer.status, answer.headers.get('content-range'), new Uint8Array(await answer.arrayBuffer())];
    };
    const { length } = bytes;
    expect(await ranged('bytes=3-9')).toEqual([206, `bytes 3-9/${length}`, bytes.slice(3, 10)]);
    expect(await ranged('bytes=-4')).toEqual([206, `bytes ${length - 4}-${length - 1}/${length}`, bytes.slice(-4)]);
    expect(await ranged('bytes=10-')).toEqual([206, `bytes 10-${length - 1}/${length}`, bytes.slice(10)]);
    expect((await ranged(`bytes=${length}-`))[0]).toBe(416);
    expect(await ranged('lines=1-2')).toEqual([200, null, bytes]);
  });

  test('bytes under another hash, too many bytes and unknown hashes are refused', async () => {
    const wrong = await api(`/blobs/${sha(noise(5, 1))}`, { method: 'PUT', body: noise(6, 2) });
    expect(wrong.status).toBe(422);
    expect((await wrong.json()).error.code).toBe('blob-hash');
    expect((await api(`/blobs/${'0'.repeat(64)}`)).status).toBe(404);
    expect((await api("/blobs/x'; DROP TABLE blobs")).status).toBe(422);
    // Announced, and refused before any of it is sent.
    const { port } = new URL(server.address);
    const status = await new Promise((done, fail) => {
      const call = rawRequest(
        { port, path: `/api/blobs/${'1'.repeat(64)}`, method: 'PUT', headers: { 'Content-Length': 209 << 20 } },
        (answer) => {
          done(answer.statusCode);
          call.destroy();
        },
      );
      call.on('error', fail);
      call.flushHeaders();
    });
    expect(status).toBe(413);
  });
});

describe('brushes', () => {
  test('the base brushes are there, at hand and read-only', async () => {
    const { items, skipped } = await (await api('/brushes')).json();
    const base = items.filter((b: { base: boolean }) => b.base);
    expect(base.length).toBe(5);
    expect(skipped).toEqual([]);
    expect((await (await api('/belt')).json()).ids).toHaveLength(5);
    const { doc } = await (await api(`/brushes/${base[0].id}`)).json();
    const changed = await api(`/brushes/${base[0].id}`, json('PUT', { doc, revision: base[0].revision }));
    expect(changed.status).toBe(403);
    expect((await changed.json()).error.message).toContain('base brush');
    expect((await api(`/brushes/${base[0].id}`, { method: 'DELETE' })).status).toBe(403);
  });

  test('a brush is saved with every setting, changed, and keeps what it replaced', async () => {
    const alpha = await storeAlpha('Ramp for a brush');
    const doc = newBrush(randomUUID(), 'Kept');
    doc.form = { ...doc.form, alphaId: alpha.id, depth: 140, fit: 1.2, footprint: 'square' };
    doc.touch.falloff = {
      kind: 'own',
      hold: 0.3,
      nodes: [
        { x: 0, y: 1, corner: true },
        { x: 1, y: 0.1, corner: false },
      ],
    };
    expect((await (await api(`/brushes/${doc.id}`, json('PUT', { doc, revision: null }))).json()).revision).toBe(1);
    expect((await (await api(`/brushes/${doc.id}`)).json()).doc).toEqual(doc);
    const picture = await api(`/brushes/${doc.id}/picture`);
    expect(decode(new Uint8Array(await picture.arrayBuffer()))).toMatchObject({ width: 160, height: 160, channels: 3 });
    const next = { ...doc, stroke: { ...doc.stroke, spacing: 77 } };
    expect((await (await api(`/brushes/${doc.id}`, json('PUT', { doc: next, revision: 1 }))).json()).revision).toBe(2);
    const { revisions } = await (await api(`/brushes/${doc.id}/revisions`)).json();
    expect(revisions).toEqual([{ revision: 1, savedAt: expect.stringMatching(/^\d{4}-.*Z$/), name: '' }]);
    const named = await api(`/brushes/${doc.id}/revisions/1`, json('PUT', { name: ' First ' }));
    expect(await named.json()).toEqual({ name: 'First' });
    const long = await api(`/brushes/${doc.id}/revisions/1`, json('PUT', { name: 'x'.repeat(81) }));
    expect([long.status, (await long.json()).error.message]).toEqual([422, expect.stringContaining('80 characters')]);
    expect((await api(`/brushes/${doc.id}/revisions/9`, json('PUT', { name: 'None' }))).status).toBe(404);
    expect(await (await api(`/brushes/${doc.id}/revisions/1`)).json()).toEqual(doc);
    expect((await api(`/brushes/${doc.id}/revisions/2`)).status).toBe(404);
    expect((await api(`/brushes/${doc.id}/revisions/first`)).status).toBe(422);
  });

  test('a save on an old revision is refused, and changes nothing', async () => {
    const doc = newBrush(randomUUID(), 'Two tabs');
    await api(`/brushes/${doc.id}`, json('PUT', { doc, revision: null }));
    await api(
      `/brushes/${doc.id}`,
      json('PUT', { doc: { ...doc, card: { ...doc.card, notes: 'first' } }, revision: 1 }),
    );
    const late = await api(
      `/brushes/${doc.id}`,
      json('PUT', { doc: { ...doc, card: { ...doc.card, notes: 'second' } }, revision: 1 }),
    );
    expect(late.status).toBe(409);
    expect((await late.json()).error).toMatchObject({ code: 'changed-elsewhere', details: { stored: 2 } });
    expect((await (await api(`/brushes/${doc.id}`)).json()).doc.card.notes).toBe('first');
  });

  test.each([
    [
      'an empty name',
      (b: ReturnType<typeof newBrush>) => ({ ...b, card: { ...b.card, name: '  ' } }),
      422,
      'A name is needed',
    ],
    [
      'a taken name, in other letters',
      (b: ReturnType<typeof newBrush>) => ({ ...b, card: { ...b.card, name: 'sOFT round' } }),
      409,
      'already a brush called',
    ],
    ['a newer version', (b: ReturnType<typeof newBrush>) => ({ ...b, version: 99 }), 422, 'reads up to version 4'],
    [
      'a setting out of range',
      (b: ReturnType<typeof newBrush>) => ({ ...b, stroke: { ...b.stroke, size: 99 } }),
      422,
      'Size must be at most 2',
    ],
    [
      'an alpha that is not there',
      (b: ReturnType<typeof newBrush>) => ({ ...b, form: { ...b.form, alphaId: randomUUID() } }),
      422,
      'Choose another alpha, or none',
    ],
  ])('%s is refused with a sentence', async (_, change, status, message) => {
    const brush = newBrush(randomUUID(), `Refused ${randomUUID()}`);
    const response = await api(`/brushes/${brush.id}`, json('PUT', { doc: change(brush), revision: null }));
    expect(response.status).toBe(status);
    expect((await response.json()).error.message).toContain(message);
    expect((await api(`/brushes/${brush.id}`)).status).toBe(404);
  });

  test('a list comes in pages that have every brush once, and is answered anew only when something changed', async () => {
    const pages: string[][] = [];
    for (let after = ''; ;) {
      const { items, next } = (await (await api(`/brushes?limit=4${after}`)).json()) as {
        items: { id: string }[];
        next: string | null;
      };
      pages.push(items.map((i) => i.id));
      if (next === null) break;
      after = `&after=${encodeURIComponent(next)}`;
    }
    expect(pages.slice(0, -1).every((page) => page.length === 4)).toBe(true);
    const all = ((await (await api('/brushes?limit=500')).json()) as { items: { id: string }[] }).items.map(
      (i) => i.id,
    );
    expect(pages.flat()).toEqual(all);
    expect(new Set(all).size).toBe(all.length);
    const tag = (await api('/brushes')).headers.get('etag')!;
    // As a browser's cache asks; fetch itself would say that it wants no cached answer.
    const again = (): Promise<number> =>
      new Promise((done, fail) => {
        rawRequest(`${server.address}/api/brushes`, { headers: { 'If-None-Match': tag } }, (r) =>
          done(r.resume().statusCode ?? 0),
        )
          .on('error', fail)
          .end();
      });
    expect(await again()).toBe(304);
    const brush = newBrush(randomUUID(), 'Changes the list');
    await api(`/brushes/${brush.id}`, json('PUT', { doc: brush, revision: null }));
    expect(await again()).toBe(200);
    expect((await api('/brushes?after=nowhere')).status).toBe(422);
  });

  test('deleting hides, restoring brings back, the belt follows', async () => {
    const doc = newBrush(randomUUID(), 'Come and go');
    await api(`/brushes/${doc.id}`, json('PUT', { doc, revision: null }));
    await api('/belt', json('PUT', { ids: [doc.id, doc.id, randomUUID()] }));
    expect((await (await api('/belt')).json()).ids).toEqual([doc.id]);
    expect((await api(`/brushes/${doc.id}`, { method: 'DELETE' })).status).toBe(204);
    expect((await api(`/brushes/${doc.id}`)).status).toBe(404);
    expect((await (await api('/belt')).json()).ids).toEqual([]);
    expect((await (await api(`/brushes/${doc.id}/restore`, { method: 'POST' })).json()).doc).toEqual(doc);
    expect((await api(`/brushes/${randomUUID()}/restore`, { method: 'POST' })).status).toBe(404);
  });
});

test('an alpha goes out as a 16-bit PNG with its exact greys', async () => {
  const alpha = await storeAlpha('Exact greys', 64);
  const png = decode(new Uint8Array(await (await api(`/alphas/${alpha.id}/png`)).arrayBuffer()));
  expect(png).toMatchObject({ width: 64, height: 64, depth: 16, channels: 1 });
  expect(Array.from(png.data)).toEqual(Array.from(Uint16Array.from({ length: 4096 }, (_, i) => (i * 65535) / 4095)));
});

test('an alpha goes out as float TIFF and EXR with its exact heights', async () => {
  const alpha = await storeAlpha('Floats out', 48);
  const wanted = Float32Array.from({ length: 48 * 48 }, (_, i) => Math.floor((i * 65535) / (48 * 48 - 1)) / 65535);
  const bytes = async (ending: string): Promise<Buffer> =>
    Buffer.from(await (await api(`/alphas/${alpha.id}/${ending}`)).arrayBuffer());
  const tiff = await bytes('tiff');
  expect(await sharp(tiff).metadata()).toMatchObject({
    format: 'tiff',
    width: 48,
    height: 48,
    channels: 1,
    depth: 'float',
  });
  const exr = await bytes('exr');
  const read = new EXRLoader()
    .setDataType(FloatType)
    .parse(exr.buffer.slice(exr.byteOffset, exr.byteOffset + exr.length) as ArrayBuffer);
  expect([read.width, read.height]).toEqual([48, 48]);
  // The reader lays rows from the bottom; one value a pixel, or four alike.
  const words = read.data!.length / (48 * 48);
  for (const [i, j] of [
    [0, 0],
    [47, 0],
    [13, 30],
    [47, 47],
  ] as const)
    expect(read.data![((47 - j) * 48 + i) * words]).toBe(wanted[j * 48 + i]);
});

test('a cast anew gives the brushes that follow it another picture', async () => {
  const alpha = await storeAlpha('Followed', 32);
  const brush = newBrush(randomUUID(), 'Follower');
  brush.form.alphaId = alpha.id;
  brush.stroke.type = 'press';
  await api(`/brushes/${brush.id}`, json('PUT', { doc: brush, revision: null }));
  const picture = async (): Promise<string> =>
    sha(new Uint8Array(await (await api(`/brushes/${brush.id}/picture`)).arrayBuffer()));
  const before = await picture();
  const greys = Uint16Array.from({ length: 32 * 32 }, (_, i) => (i % 8 < 4 ? 65535 : 0));
  const bytes = new Uint8Array(greys.buffer);
  await api(`/blobs/${sha(bytes)}`, { method: 'PUT', body: bytes });
  expect(
    (await api(`/alphas/${alpha.id}`, json('PUT', { doc: { ...alpha, blob: sha(bytes) }, revision: 1 }))).status,
  ).toBe(200);
  expect(await picture()).not.toBe(before);
  expect((await (await api(`/brushes/${brush.id}`)).json()).revision).toBe(1);
});

test('a slab that names data that isn’t there is refused', async () => {
  const slab = SlabSchema.parse({
    version: SOURCE_VERSION,
    kind: 'slab',
    id: randomUUID(),
    cells: 32,
    blob: null,
    card: { name: 'Hollow' },
    mask: 'a'.repeat(64),
  });
  const response = await api(`/sources/${slab.id}`, json('PUT', { doc: slab, revision: null }));
  expect(response.status).toBe(404);
  expect((await response.json()).error.message).toContain('no stored data aaaaaaaaaaaa…');
});

test('an alpha whose data is missing or of another size is refused', async () => {
  const bytes = noise(100, 3);
  await api(`/blobs/${sha(bytes)}`, { method: 'PUT', body: bytes });
  const alpha = await storeAlpha('A good one');
  const short = { ...alpha, id: randomUUID(), blob: sha(bytes), card: { ...alpha.card, name: 'Short' } };
  const response = await api(`/alphas/${short.id}`, json('PUT', { doc: short, revision: null }));
  expect(response.status).toBe(422);
  expect((await response.json()).error.message).toContain('has 100 bytes; by its own settings it needs 2048');
});

describe('the data folder', () => {
  let other: string;
  beforeEach(async () => {
    other = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
  });
  afterEach(() => rm(other, { recursive: true, force: true }));

  test('files named by their content may be kept for good, the page itself is asked for again', async () => {
    const page = join(other, 'page');
    await mkdir(join(page, 'assets'), { recursive: true });
    await writeFile(join(page, 'assets', 'index-abc.js'), '1');
    await writeFile(join(page, 'index.html'), '<p>');
    const opened = await start({ folder: join(other, 'data'), template, page, port: 0, version: 'test' });
    const cached = async (path: string): Promise<string> =>
      (await fetch(opened.address + path)).headers.get('cache-control') ?? '';
    expect(await cached('/assets/index-abc.js')).toBe('public, max-age=31536000, immutable');
    expect(await cached('/index.html')).toBe('max-age=0');
    expect(await cached('/bench/brush/1')).not.toContain('immutable');
    await opened.close();
  });

  test('two servers on one folder: the second is told', async () => {
    const first = await openPglite({ folder: other, template });
    await expect(openPglite({ folder: other, template })).rejects.toThrow('has this data folder open');
    await first.close();
    // A number that is left, whosever it is now, keeps nobody out.
    await writeFile(join(other, 'server.lock'), String(process.ppid));
    await (await openPglite({ folder: other, template })).close();
  });

  test('broken and newer rows are named and skipped, nothing else is lost', async () => {
    const opened = await start({ folder: other, template, page: root, port: 0, version: 'test' });
    const good = newBrush(randomUUID(), 'Good');
    await fetch(`${opened.address}/api/brushes/${good.id}`, json('PUT', { doc: good, revision: null }));
    await opened.close();
    const { inside, close } = await openPglite({ folder: other, template });
    for (const [name, doc] of [
      ['Newer', { ...good, version: 9 }],
      ['Broken', { ...good, stroke: 'x' }],
    ] as const) {
      await inside.db.query('INSERT INTO brushes (id, name, kind, doc) VALUES ($1, $2, $3, $4)', [
        randomUUID(),
        name,
        'lift',
        JSON.stringify(doc),
      ]);
    }
    await close();
    const again = await start({ folder: other, page: root, port: 0, version: 'test' });
    const { items, skipped } = await (await fetch(`${again.address}/api/brushes`)).json();
    expect(items.map((i: { card: { name: string } }) => i.card.name)).toContain('Good');
    expect(skipped.map((s: { name: string; reason: string }) => [s.name, s.reason])).toEqual([
      ['Newer', expect.stringContaining('version 9')],
      ['Broken', expect.stringContaining('stroke')],
    ]);
    // What is at hand is sent whole, without those.
    const { ids } = await (
      await fetch(
        `${again.address}/api/belt`,
        json('PUT', { ids: [...skipped.map((s: { id: string }) => s.id), good.id] }),
      )
    ).json();
    expect(ids).toHaveLength(3);
    const whole = await (await fetch(`${again.address}/api/belt/brushes`)).json();
    expect(whole).toEqual({ items: [{ doc: good, revision: 1, base: false, updatedAt: expect.any(String) }] });
    await fetch(`${again.address}/api/belt`, json('PUT', { ids: [] }));
    expect(await (await fetch(`${again.address}/api/belt/brushes`)).json()).toEqual({ items: [] });
    await again.close();
  });

  test('a server that is killed between two saves loses none that it acknowledged', async () => {
    const first = noise(2_500_000, 7);
    const second = noise(1_200_000, 8);
    let child = await spawnServer(other, '0', SERVER, template);
    const put = (address: string, bytes: Uint8Array<ArrayBuffer>) =>
      fetch(`${address}/api/blobs/${sha(bytes)}`, { method: 'PUT', body: bytes });
    expect((await put(child.address, first)).status).toBe(200);
    const brush = newBrush(randomUUID(), 'Survivor');
    expect(
      (await fetch(`${child.address}/api/brushes/${brush.id}`, json('PUT', { doc: brush, revision: null }))).status,
    ).toBe(200);
    // The second save is under way when the process dies.
    const lost = put(child.address, second).catch(() => null);
    await Promise.all([lost, child.end('SIGKILL')]);

    child = await spawnServer(other, '0', SERVER, template);
    const back = new Uint8Array(await (await fetch(`${child.address}/api/blobs/${sha(first)}`)).arrayBuffer());
    expect(sha(back)).toBe(sha(first));
    expect((await (await fetch(`${child.address}/api/brushes/${brush.id}`)).json()).doc).toEqual(brush);
    expect((await put(child.address, second)).status).toBe(200);
    expect(sha(new Uint8Array(await (await fetch(`${child.address}/api/blobs/${sha(second)}`)).arrayBuffer()))).toBe(
      sha(second),
    );
    expect(await child.end('SIGTERM')).toBe(0);
  }, 120_000);
});
