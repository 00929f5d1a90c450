/**
 * pack_export_ms_per_brush, pack_import_ms_per_brush, pack_memory_mb: 500 brushes with alphas of 1024² out of one
 * server as a file, and into another, over HTTP; and what the servers and their helpers take meanwhile.
 */
import { createWriteStream, openAsBlob, readdirSync, readFileSync, statSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable, Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js';
import { seeded } from '#core/random';
import { ALPHA_VERSION, AlphaSchema, newBrush, newPack } from '#core/settings';
import sharp from 'sharp';
import { judged } from '../server/reading/judged';
import { openPglite } from '../server/store/pglite/open';
import { PACKED, spawnServer, type Spawned } from '../server/testKit';
import type { Figure } from './measure';

export const BRUSHES = 500;
const SIDE = 1024;

export async function packFigures(): Promise<Figure[]> {
  const folder = await mkdtemp(join(tmpdir(), 'mold-stamp-bench-'));
  const path = join(folder, 'bench.pack.zip');
  try {
    const pack = await filled(join(folder, 'mine'));
    const mine = await spawnServer(join(folder, 'mine'), '0', PACKED, '');
    const out = await watched(mine, async () => {
      const { id } = (await (
        await sent(mine, '/pack-exports', { method: 'POST', headers: JSON_TYPE, body: JSON.stringify({ pack }) })
      ).json()) as { id: string };
      const began = performance.now();
      const { body } = await sent(mine, `/pack-exports/${id}/file`);
      await pipeline(Readable.fromWeb(body as Parameters<typeof Readable.fromWeb>[0]), createWriteStream(path));
      return performance.now() - began;
    });
    await mine.end('SIGTERM');
    const theirs = await spawnServer(join(folder, 'theirs'), '0', PACKED, '');
    const into = await watched(theirs, async () => {
      const began = performance.now();
      const file = await openAsBlob(path);
      const look = await sent(theirs, '/pack-imports?name=bench', {
        method: 'POST',
        body: file,
      });
      const { id, problems } = (await look.json()) as { id: string; problems: unknown[] };
      if (problems.length > 0) throw new Error('The pack is damaged.');
      const take = await sent(theirs, `/pack-imports/${id}/take`, { method: 'POST', headers: JSON_TYPE, body: '{}' });
      const { came } = (await take.json()) as { came: unknown[] };
      if (came.length !== 2 * BRUSHES) throw new Error(`${came.length} came.`);
      return performance.now() - began;
    });
    await theirs.end('SIGTERM');
    const floor = (await zipped()) / BRUSHES;
    const what = `the same ${BRUSHES} pictures zipped by the library alone`;
    const [write, take] = [out.value / BRUSHES, into.value / BRUSHES];
    const memory = Math.max(out.megabytes, into.megabytes);
    return [
      {
        key: 'pack_export_ms_per_brush',
        what: `${BRUSHES} brushes with alphas of ${SIDE}² written as a pack file`,
        value: write,
        unit: 'ms',
        floor: { what, value: floor },
        target: { text: '≤ 60', met: write <= 60 },
      },
      {
        key: 'pack_import_ms_per_brush',
        what: 'the same file sent, looked into and taken',
        value: take,
        unit: 'ms',
        floor: { what, value: floor },
        target: { text: '≤ 80', met: take <= 80 },
      },
      {
        key: 'pack_memory_mb',
        what: 'memory of a server and its helpers meanwhile, above rest',
        value: memory,
        unit: 'MB',
        floor: { what: 'the file itself', value: statSync(path).size / 2 ** 20 },
        target: { text: '≤ 300', met: memory <= 300 },
      },
    ];
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const JSON_TYPE = { 'Content-Type': 'application/json' };

export async function sent({ address }: Spawned, path: string, init?: RequestInit): Promise<Response> {
  const answer = await fetch(`${address}/api${path}`, init);
  if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`);
  return answer;
}

/** Heights with broad forms and a fine grain, as casts have them. */
function heights(seed: number): Uint8Array {
  const random = seeded(seed);
  const [a, b] = [random() * 20, random() * 20];
  const out = new Uint16Array(SIDE * SIDE);
  for (let j = 0; j < SIDE; j++) {
    for (let i = 0; i < SIDE; i++) {
      const broad = Math.sin((i / SIDE) * a) * Math.cos((j / SIDE) * b);
      out[j * SIDE + i] = 32768 + broad * 24000 + random() * 64;
    }
  }
  return new Uint8Array(out.buffer);
}

/** As after a while at rest: pictures are drawn. */
export async function filled(folder: string): Promise<string> {
  const store = await openPglite({ folder });
  const picture = await sharp({ create: { width: 192, height: 192, channels: 3, background: '#b5aa98' } })
    .png()
    .toBuffer();
  const ids: string[] = [];
  for (let n = 0; n < BRUSHES; n++) {
    const alpha = AlphaSchema.parse({
      version: ALPHA_VERSION,
      id: crypto.randomUUID(),
      card: { name: `Alpha ${n}`, author: 'Tidewrack Workshop' },
      size: SIDE,
      relief: 0.1,
      ground: 0,
      blob: await store.blobs.put(heights(n)),
      lineage: { sourceId: null, sourceRevision: null, floor: 0, crown: 0.1 },
      report: { marginPx: 0, ringLoss: 0, usedRange: 1 },
    });
    const brush = newBrush(crypto.randomUUID(), `Brush ${n}`, 'Tidewrack Workshop');
    brush.form.alphaId = alpha.id;
    await store.save(judged('alphas', alpha), { revision: null, picture });
    await store.save(judged('brushes', brush), { revision: null, picture });
    ids.push(brush.id);
  }
  const pack = newPack(crypto.randomUUID(), 'Bench', { groups: [{ name: '', brushes: ids }] });
  await store.save(judged('packs', pack), { revision: null });
  await store.close();
  return pack.id;
}

async function zipped(): Promise<number> {
  const zip = new ZipWriter(Writable.toWeb(new Writable({ write: (_, __, done) => done() })), { useWebWorkers: false });
  let ms = 0;
  for (let n = 0; n < BRUSHES; n += 10) {
    const bytes = heights(n);
    const began = performance.now();
    await zip.add(`${n}`, new Uint8ArrayReader(bytes));
    ms += performance.now() - began;
  }
  await zip.close();
  return ms * 10;
}

/** The most that the server and what it started had more than before. */
export async function watched(
  server: Spawned,
  act: () => Promise<number>,
): Promise<{ value: number; megabytes: number }> {
  // Its helpers are started and have settled.
  await new Promise((done) => setTimeout(done, 3000));
  const rest = resident(server.process.pid!);
  let most = rest;
  const timer = setInterval(() => (most = Math.max(most, resident(server.process.pid!))), 100);
  try {
    const value = await act();
    return { value, megabytes: most - rest };
  } finally {
    clearInterval(timer);
  }
}

/** Megabytes of a process and its children. */
function resident(pid: number): number {
  const children = readdirSync('/proc').filter((name) => {
    if (!/^\d+$/.test(name)) return false;
    try {
      return readFileSync(`/proc/${name}/stat`, 'latin1').split(') ')[1].split(' ')[1] === String(pid);
    } catch {
      return false;
    }
  });
  return [String(pid), ...children].reduce((sum, name) => {
    try {
      return sum + (Number(readFileSync(`/proc/${name}/statm`, 'latin1').split(' ')[1]) * 4096) / 2 ** 20;
    } catch {
      return sum;
    }
  }, 0);
}
