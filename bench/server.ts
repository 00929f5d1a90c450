/**
 * A data folder of five years' work: how soon the server starts and lists, how it bears twenty clients, how soon an
 * alpha that everyone follows is saved, and how much the folder grows.
 */
import { createHash, randomUUID } from 'node:crypto';
import { mkdtemp, open, readdir, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { headOf } from '#core/stored';
import {
  ALPHA_VERSION,
  AlphaSchema,
  newBrush,
  SlabSchema,
  SOURCE_VERSION,
  type Alpha,
  type Brush,
} from '#core/settings';
import { openPglite } from '../server/store/pglite/open';
import type { PgliteStore } from '../server/store/pglite/store';
import { start, type Running } from '../server/start';
import { largePulse } from './large';
import { median, type Figure } from './measure';
import { at, heard, startPulse } from './pulse';
import { judged } from '../server/reading/judged';

const BRUSHES = 5000;
const BLOBS = 2000;
const REVISIONS = 5000;
const CLIENTS = 20;
const SAVES_EACH = 15;
const SIZE = 64;

export async function serverFigures(): Promise<Figure[]> {
  const folder = await mkdtemp(join(tmpdir(), 'mold-stamp-bench-'));
  try {
    const alpha = await fill(folder);
    const sync = await syncMs(folder);
    const began = performance.now();
    const server = await start({ folder, page: folder, port: 0, version: 'bench' });
    const startMs = performance.now() - began;
    // Its helpers begin; what follows is measured when they have.
    await new Promise((done) => setTimeout(done, 5000));
    try {
      const list = await listMs(server);
      // The first run warms up, as it does everywhere here.
      await saveMs(server);
      const busy = await saveMs(server);
      const follow = await followMs(server, alpha);
      const large = await largePulse(server);
      const floor = { what: 'one synced write of 8 KB', value: sync };
      const figure = (key: string, what: string, value: number, most: number): Figure => ({
        key,
        what,
        value,
        unit: 'ms',
        floor,
        target: { text: `≤ ${most}`, met: value <= most },
      });
      return [
        figure(
          'start_ms_5000',
          `start with ${BRUSHES} brushes, ${BLOBS} blobs and ${REVISIONS} revisions`,
          startMs,
          3000,
        ),
        figure('list_ms_5000', 'a page of the list of brushes, the slowest of all pages', list, 150),
        figure('save_p95_ms', `a save of a brush under ${CLIENTS} clients`, busy.p95, 150),
        figure('health_p99_ms', 'health in the same run', busy.health, 50),
        figure('follow_ms_5000', `a save of an alpha that ${BRUSHES} brushes follow`, follow, 500),
        figure(
          'health_large_ms',
          `99 of 100 answers of health while ${large.megabytes.toFixed(0)} MB of JSON are saved, changed and opened; the slowest ${large.worst.toFixed(0)} ms, the middle ${large.median.toFixed(1)} ms`,
          large.p99,
          50,
        ),
        await growth(),
      ];
    } finally {
      await server.close();
    }
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Straight into the tables: five years of saves would take as long. Answers the alpha that all brushes follow. */
async function fill(folder: string): Promise<Alpha> {
  const data = await openPglite({ folder });
  const blob = await data.blobs.put(new Uint8Array(SIZE * SIZE * 2).fill(90));
  const alpha = AlphaSchema.parse({
    version: ALPHA_VERSION,
    id: randomUUID(),
    card: { name: 'Followed' },
    size: SIZE,
    relief: 0.1,
    ground: 0,
    format: 'grey16',
    blob,
    lineage: { sourceId: null, sourceRevision: null, floor: 0, crown: 0.1 },
    report: { marginPx: 1, ringLoss: 0, usedRange: 1 },
  });
  await data.save(judged('alphas', alpha), { revision: null });
  for (let n = 0; n < BRUSHES; n += 500) await fillBrushes(data, alpha, n, 500);
  for (let n = 0; n < BLOBS; n++)
    await data.inside.db.query('INSERT INTO blobs (hash, bytes) VALUES ($1, 1000)', [
      createHash('sha256').update(`${n}`).digest('hex'),
    ]);
  await data.close();
  return alpha;
}

async function fillBrushes({ inside: { db } }: PgliteStore, alpha: Alpha, from: number, count: number): Promise<void> {
  const docs = Array.from({ length: count }, (_, i): Brush => {
    const brush = newBrush(randomUUID(), `Brush ${from + i}`);
    brush.form.alphaId = alpha.id;
    return brush;
  });
  const columns = [
    docs.map((d) => d.id),
    docs.map((d) => d.card.name),
    docs.map((d) => JSON.stringify(d)),
    docs.map((d) => JSON.stringify(headOf('brushes', d))),
  ];
  await db.query(
    "INSERT INTO brushes (id, name, kind, doc, head, picture, pictured, revision) SELECT id, name, 'lift', doc, head, 'x', 2, 2 FROM unnest($1::uuid[], $2::text[], $3::jsonb[], $4::jsonb[]) AS made (id, name, doc, head)",
    columns,
  );
  await db.query(
    "INSERT INTO revisions (collection, id, revision, doc) SELECT 'brushes', id, 1, doc FROM unnest($1::uuid[], $2::jsonb[]) AS made (id, doc)",
    [columns[0], columns[2]],
  );
  await db.query(
    "INSERT INTO refs (collection, id, revision, kind, target) SELECT 'brushes', id, revision, 'alphas', $2 FROM unnest($1::uuid[]) AS made (id), generate_series(1, 2) AS revision",
    [columns[0], alpha.id],
  );
}

async function syncMs(folder: string): Promise<number> {
  const file = await open(join(folder, 'floor'), 'w');
  const taken: number[] = [];
  for (let n = 0; n < 20; n++) {
    const began = performance.now();
    await file.write(new Uint8Array(8192));
    await file.sync();
    taken.push(performance.now() - began);
  }
  await file.close();
  return median(taken);
}

async function listMs(server: Running): Promise<number> {
  // The first fetch of a process loads the client: that is no list's time.
  await (await fetch(`${server.address}/api/health`)).text();
  let worst = 0;
  let count = 0;
  for (let after = ''; ;) {
    const began = performance.now();
    const { items, next } = (await (await fetch(`${server.address}/api/brushes${after}`)).json()) as {
      items: unknown[];
      next: string | null;
    };
    worst = Math.max(worst, performance.now() - began);
    count += items.length;
    if (next === null) break;
    after = `?after=${encodeURIComponent(next)}`;
  }
  if (count < BRUSHES) throw new Error(`The list has ${count} brushes of ${BRUSHES}.`);
  return worst;
}

/** The clients run in a thread of their own, so that they don't wait for the server's. */
async function saveMs(server: Running): Promise<{ p95: number; health: number }> {
  const script = `
    const { parentPort, workerData: { address, docs, each } } = require('node:worker_threads');
    const taken = [];
    Promise.all(docs.map(async (doc) => {
      for (let n = 0; n < each; n++) {
        const t = performance.now();
        const answer = await fetch(address + '/api/brushes/' + doc.id, { method: 'PUT', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ doc: { ...doc, card: { ...doc.card, notes: String(n) } }, revision: n === 0 ? null : n }) });
        if (!answer.ok) throw new Error(await answer.text());
        taken.push(performance.now() - t);
      }
    })).then(() => parentPort.postMessage(taken.sort((a, b) => a - b)));`;
  const docs = Array.from({ length: CLIENTS }, (_, n) =>
    newBrush(randomUUID(), `Client ${n} ${randomUUID().slice(0, 8)}`),
  );
  const pulse = await startPulse(server.address);
  const taken = (await heard(
    new Worker(script, { eval: true, workerData: { address: server.address, docs, each: SAVES_EACH } }),
  )) as number[];
  return { p95: at(taken, 0.95), health: at(await pulse.stop(), 0.99) };
}

async function followMs(server: Running, alpha: Alpha): Promise<number> {
  const began = performance.now();
  const answer = await fetch(`${server.address}/api/alphas/${alpha.id}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ doc: { ...alpha, relief: 0.2 }, revision: 1 }),
  });
  if (!answer.ok) throw new Error(await answer.text());
  return performance.now() - began;
}

/** Fifty saves of a slab of 1 M vertices, aged, and a clean-up: the folder against what is alive in it. */
async function growth(): Promise<Figure> {
  const folder = await mkdtemp(join(tmpdir(), 'mold-stamp-bench-'));
  try {
    const data = await openPglite({ folder });
    const empty = await bytesUnder(folder);
    const cells = 1024;
    const clay = (n: number): Uint8Array => new Uint8Array(new Float32Array((cells + 1) ** 2 * 3).fill(n).buffer);
    const doc = SlabSchema.parse({
      version: SOURCE_VERSION,
      kind: 'slab',
      id: randomUUID(),
      card: { name: 'Slab' },
      cells,
      blob: null,
    });
    for (let n = 0; n < 50; n++)
      await data.save(judged('sources', { ...doc, blob: await data.blobs.put(clay(n)) }), {
        revision: n === 0 ? null : n,
      });
    await data.inside.db.exec(
      "UPDATE revisions SET saved_at = saved_at - interval '200 days'; UPDATE blobs SET sent_at = sent_at - interval '200 days'",
    );
    await data.clean();
    await data.close();
    const live = clay(0).length;
    const value = ((await bytesUnder(folder)) - empty) / live;
    return {
      key: 'folder_growth',
      what: 'the folder after fifty slab saves and a clean-up ÷ the live content',
      value,
      unit: '×',
      floor: { what: 'the live content alone', value: 1 },
      target: { text: '≤ 3', met: value <= 3 },
    };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function bytesUnder(folder: string): Promise<number> {
  let sum = 0;
  for (const entry of await readdir(folder, { recursive: true, withFileTypes: true }))
    if (entry.isFile()) sum += (await stat(join(entry.parentPath, entry.name))).size;
  return sum;
}
