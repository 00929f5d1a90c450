/** What comes from outside, however broken: an answer with a sentence in time, and a server that goes on answering. */
import { readFileSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { request as rawRequest } from 'node:http';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { writeExr } from '#core/formats';
import { seeded } from '#core/random';
import { newBrush } from '#core/settings';
import { TRIAL_VERSION, trialSets } from '#core/trial';
import { start, type Running } from './start';
import { seededTemplate } from './testTemplate';

/** Of the limit for small files, so that those that never end cost little here. */
const SECONDS = 1;
/** A process of its own begins anew after each that was ended. */
const SLACK_MS = 15_000;

let folder: string;
let server: Running;
let pulse: { late: number; stop(): void };
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
  server = await start({
    folder: join(folder, 'data'),
    template: await seededTemplate(),
    page: resolve(import.meta.dirname, '../web'),
    port: 0,
    version: 'test',
    readSeconds: SECONDS,
  });
});
afterAll(async () => {
  await server.close();
  await rm(folder, { recursive: true, force: true });
});
beforeEach(() => (pulse = beat()));
afterEach(() => {
  pulse.stop();
  // The event loop was never held up as reading in it would hold it up: health is answered by it alone. How long that
  // is on a quiet machine stands in `npm run bench server`.
  expect(pulse.late).toBeLessThan(SECONDS * 1000);
});

/** How much later than it should a timer of this process, which is the server's too, came at the worst. */
function beat(): { late: number; stop(): void } {
  let last = performance.now();
  const out = { late: 0, stop: () => clearInterval(timer) };
  const timer = setInterval(() => {
    const now = performance.now();
    out.late = Math.max(out.late, now - last - 10);
    last = now;
  }, 10);
  return out;
}

async function sent(path: string, bytes: Uint8Array): Promise<{ status: number; message: string; ms: number }> {
  const began = performance.now();
  const answer = await fetch(`${server.address}/api${path}`, {
    method: 'POST',
    body: bytes as Uint8Array<ArrayBuffer>,
  });
  const body = await answer.json();
  return { status: answer.status, message: body.error?.message ?? '', ms: performance.now() - began };
}

/** Some bytes of it are others, or its end is missing. */
function mutated(bytes: Uint8Array, random: () => number, from = 0): Uint8Array {
  const out = bytes.slice();
  for (let n = 1 + Math.floor(random() * 6); n > 0; n--)
    out[from + Math.floor(random() * (out.length - from))] = Math.floor(random() * 256);
  return random() < 0.2 ? out.subarray(0, Math.floor(random() * out.length)) : out;
}

const squeeze = (bytes: Uint8Array): Promise<Uint8Array> => Promise.resolve(deflateSync(bytes));

describe('pictures', () => {
  test('ten bytes of an EXR that its reader never ends with', async () => {
    const { status, message, ms } = await sent(
      '/sheets?name=ten.exr',
      Uint8Array.of(0x76, 0x2f, 0x31, 0x01, 0x02, 0, 0, 0, 0x63, 0x68),
    );
    expect([status, message]).toEqual([422, expect.stringContaining('ten.exr can’t be read')]);
    expect(ms).toBeLessThan(SECONDS * 1000 + SLACK_MS);
  });

  test('mutated EXRs and PNGs: a picture or a sentence, in time', async () => {
    const random = seeded(11);
    const ramp = Float32Array.from({ length: 32 * 32 }, (_, i) => i / 1024);
    const exr = await writeExr({ width: 32, height: 32, channels: { Y: ramp } }, squeeze);
    const png = await sharp(Buffer.from(ramp.map((v) => v * 255)), { raw: { width: 32, height: 32, channels: 1 } })
      .png()
      .toBuffer();
    for (let n = 0; n < 26; n++) {
      const { status, message, ms } = await sent('/sheets?name=broken', mutated(n % 4 === 3 ? png : exr, random));
      expect([200, 422]).toContain(status);
      if (status !== 200) expect(message).toMatch(/^broken .*\./);
      expect(ms).toBeLessThan(SECONDS * 1000 + SLACK_MS);
    }
  }, 120_000);

  test('a drawing whose filter would be drawn for ever is refused at once', async () => {
    const svg =
      '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="30"><filter id="f"><feGaussianBlur stdDeviation="10"/></filter><rect width="30" height="20" filter="url(#f)"/></svg>';
    expect(await sent('/sheets?name=soft.svg', Buffer.from(svg))).toMatchObject({
      status: 422,
      message: expect.stringContaining('filters'),
    });
  });

  test('windows far outside cost what they answer', async () => {
    const png = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#335577' } })
      .png()
      .toBuffer();
    const { blob } = await (
      await fetch(`${server.address}/api/sheets?name=x.png`, { method: 'POST', body: new Uint8Array(png) })
    ).json();
    const before = process.memoryUsage().rss;
    for (const query of [
      'x=-12000&y=-12000&width=1&height=1&side=8',
      'x=1000000&y=-1000000&width=1&height=1&side=4096',
      'x=-1000000&y=0&width=999999&height=3&side=64',
      'x=0&y=0&width=1000000&height=1000000&side=8',
    ]) {
      const answer = await fetch(`${server.address}/api/sheets/${blob}/pixels?${query}`);
      expect(answer.status).toBe(200);
      const [width, height] = ['X-Width', 'X-Height'].map((h) => Number(answer.headers.get(h)));
      expect(Math.max(width, height)).toBeLessThanOrEqual(Number(/side=(\d+)/.exec(query)![1]));
      expect((await answer.arrayBuffer()).byteLength).toBe(width * height * 3 * 2);
    }
    expect(process.memoryUsage().rss - before).toBeLessThan(200 * 2 ** 20);
    expect((await fetch(`${server.address}/api/sheets/${blob}/pixels?x=a&y=0&width=1&height=1&side=8`)).status).toBe(
      422,
    );
  });
});

describe('fonts', () => {
  const woff = new Uint8Array(readFileSync('node_modules/@fontsource/caveat/files/caveat-latin-400-normal.woff'));

  test('a whole one is kept; one whose reader never ends, and others that were damaged, are refused with a sentence', async () => {
    expect((await sent('/fonts?name=Hand.woff', woff)).status).toBe(200);
    const endless = woff.slice();
    endless.set([0x00, 0xff], 379);
    expect(await sent('/fonts?name=Endless.woff', endless)).toMatchObject({
      status: 422,
      message: expect.stringContaining('Endless.woff can’t be read as a font'),
    });
    const random = seeded(5);
    for (let n = 0; n < 14; n++) {
      const { status, message, ms } = await sent('/fonts?name=Broken.woff', mutated(woff, random, 40));
      expect([200, 422]).toContain(status);
      if (status === 422) expect(message).toContain('Broken.woff can’t be read as a font');
      expect(ms).toBeLessThan(SECONDS * 1000 + SLACK_MS);
    }
  }, 120_000);
});

describe('documents', () => {
  const put = (body: BodyInit, type = 'application/json', id: string = crypto.randomUUID()) =>
    fetch(`${server.address}/api/brushes/${id}`, { method: 'PUT', headers: { 'Content-Type': type }, body });

  test('deep nesting, endless lists and too much of it are refused before anything is made of them', async () => {
    const before = process.memoryUsage().rss;
    for (const [body, status, sentence] of [
      ['['.repeat(2_000_000), 422, 'nests deeper'],
      [`[${'[],'.repeat(3_200_000)}[]]`, 422, 'million values'],
      [`"${'x'.repeat(25 * 2 ** 20)}"`, 413, 'At most 24 MB'],
      ['{"doc":', 400, 'isn’t valid JSON'],
    ] as const) {
      const answer = await put(body).catch((error: unknown) => error);
      // A body that is refused half way may be cut off by the answer.
      if (!(answer instanceof Response)) continue;
      expect([answer.status, (await answer.json()).error.message]).toEqual([status, expect.stringContaining(sentence)]);
    }
    expect(process.memoryUsage().rss - before).toBeLessThan(400 * 2 ** 20);
  });

  test('another type than JSON, and text that can’t be kept, are refused with a sentence', async () => {
    const doc = newBrush(crypto.randomUUID(), 'Plain');
    expect(await (await put(JSON.stringify({ doc, revision: null }), 'text/plain', doc.id)).json()).toMatchObject({
      error: { code: 'no-json' },
    });
    for (const name of ['Nul\u0000l', 'Half \ud83d']) {
      const answer = await put(
        JSON.stringify({ doc: { ...doc, card: { ...doc.card, name } }, revision: null }),
        'application/json',
        doc.id,
      );
      expect([answer.status, (await answer.json()).error.message]).toEqual([
        422,
        expect.stringContaining('holds a character that can’t be kept'),
      ]);
    }
  });

  test('200 broken brushes are answered in sentences, none in the words of a library', async () => {
    const random = seeded(9);
    const odd = [null, 7, -1e9, NaN, 'x', '', [], {}, true, 'a'.repeat(5000), [[[]]], { kind: 'nothing' }];
    for (let n = 0; n < 200; n++) {
      const doc = JSON.parse(JSON.stringify(newBrush(crypto.randomUUID(), `Broken ${n}`))) as Record<string, unknown>;
      let at = doc;
      for (;;) {
        const keys = Object.keys(at).filter((k) => !(at === doc && k === 'id'));
        const key = keys[Math.floor(random() * keys.length)];
        const next = at[key];
        if (
          typeof next === 'object' &&
          next !== null &&
          !Array.isArray(next) &&
          Object.keys(next).length > 0 &&
          random() < 0.8
        )
          at = next as Record<string, unknown>;
        else {
          at[key] = odd[Math.floor(random() * odd.length)];
          break;
        }
      }
      const answer = await put(JSON.stringify({ doc, revision: null }), 'application/json', doc['id'] as string);
      expect(answer.status).toBeLessThan(500);
      if (answer.ok) continue;
      const { message } = (await answer.json()).error as { message: string };
      expect(message).toMatch(/^\p{Lu}.*[.]$/su);
      expect(message).not.toMatch(/Invalid|expected|Too (big|small)|Unrecognized|received|undefined/);
    }
  });
});

describe('the largest documents', () => {
  const id = crypto.randomUUID();
  let body: Buffer;
  beforeAll(() => {
    const random = seeded(4);
    const place = (): number[] => [random(), random(), random()];
    const [stroke] = trialSets()[0].strokes;
    const strokes = Array.from({ length: 100 }, () => ({
      ...stroke,
      samples: Array.from({ length: 990 }, () => ({
        origin: place(),
        direction: place(),
        pressure: random(),
        time: random(),
        lean: random(),
      })),
    }));
    body = Buffer.from(
      JSON.stringify({
        doc: { version: TRIAL_VERSION, id, card: { name: 'As large as any' }, body: 'ball', strokes },
        revision: null,
      }),
    );
  });

  // What the pulse says of it is looked at after each test.
  test('are saved and opened while the server goes on answering', async () => {
    expect(body.length).toBeGreaterThan(20e6);
    const saved = await fetch(`${server.address}/api/trials/${id}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: body as Uint8Array<ArrayBuffer>,
    });
    expect(saved.status).toBe(200);
    const answer = new Uint8Array(await saved.arrayBuffer());
    const opened = new Uint8Array(await (await fetch(`${server.address}/api/trials/${id}`)).arrayBuffer());
    // The document, then what goes with it; when it was saved is said to the second.
    expect(Buffer.compare(opened.subarray(0, 20e6), answer.subarray(0, 20e6))).toBe(0);
    expect(opened.length).toBe(answer.length);
  }, 60_000);

  test('and broken ones are refused with a sentence', async () => {
    const answer = await fetch(`${server.address}/api/trials/${id}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: Buffer.concat([body.subarray(0, -3), Buffer.from(']]]')]) as unknown as Uint8Array<ArrayBuffer>,
    });
    expect([answer.status, (await answer.json()).error.message]).toEqual([
      400,
      expect.stringContaining('isn’t valid JSON'),
    ]);
  }, 60_000);
});

describe('addresses', () => {
  const raw = (
    path: string,
    method = 'GET',
    headers: Record<string, string> = {},
  ): Promise<{ status: number; body: string }> =>
    new Promise((done, fail) => {
      const { port } = new URL(server.address);
      rawRequest({ host: '127.0.0.1', port, path, method, headers }, (answer) => {
        let body = '';
        answer.on('data', (part: Buffer) => (body += part.toString()));
        answer.on('end', () => done({ status: answer.statusCode ?? 0, body }));
      })
        .on('error', fail)
        .end();
    });

  test.each([
    '/../package.json',
    '/..%2fpackage.json',
    '/%00',
    '/%ff',
    '/assets/%2e%2e/%2e%2e/package.json',
    '/api/%ff',
    '/api/brushes/%00',
  ])('%s is answered with a sentence, and without a stack in the log', async (path) => {
    const { error } = console;
    const logged: unknown[] = [];
    console.error = (...of: unknown[]) => void logged.push(of);
    try {
      const { status, body } = await raw(path);
      expect([400, 404, 422]).toContain(status);
      expect(JSON.parse(body).error.message).toMatch(/\.$/);
      expect(logged).toEqual([]);
    } finally {
      console.error = error;
    }
  });

  test('methods that an address or the server doesn’t know are told in JSON', async () => {
    expect(JSON.parse((await raw('/api/belt', 'DELETE')).body)).toMatchObject({ error: { code: 'no-method' } });
    expect((await raw('/api/belt', 'PROPFIND')).status).toBe(501);
    expect(JSON.parse((await raw('/api/belt', 'PROPFIND')).body)).toMatchObject({ error: { code: 'no-method' } });
  });

  test('pages of other sites can neither change nor ask; our own, and no page at all, can', async () => {
    for (const site of ['cross-site', 'same-site']) {
      expect((await raw('/api/belt', 'PUT', { 'Sec-Fetch-Site': site })).status).toBe(403);
      expect((await raw('/api/brushes', 'GET', { 'Sec-Fetch-Site': site })).status).toBe(403);
      // A link from another site may lead to the page itself.
      expect((await raw('/', 'GET', { 'Sec-Fetch-Site': site })).status).toBe(200);
    }
    for (const site of ['same-origin', 'none'])
      expect((await raw('/api/health', 'GET', { 'Sec-Fetch-Site': site })).status).toBe(200);
  });
});
