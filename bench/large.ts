/** How the server's pulse goes on while a document as large as any that is kept is saved, changed and opened. */
import { randomUUID } from 'node:crypto';
import { Worker } from 'node:worker_threads';
import { OwnTrialSchema, TRIAL_VERSION, trialSets } from '#core/trial';
import { seeded } from '#core/random';
import type { Running } from '../server/start';

export interface LargePulse {
  /** Of the document, as it was sent. */
  megabytes: number;
  /** Answers of health. */
  worst: number;
  p99: number;
  median: number;
}

/** The clients are threads of their own, so that their work is not taken for the server's, nor that of one for the other's. */
const PULSE = `
  const { parentPort, workerData: { address } } = require('node:worker_threads');
  const health = [];
  (async () => { for (;;) { const t = performance.now(); await (await fetch(address + '/api/health')).text(); health.push(performance.now() - t); await new Promise((d) => setTimeout(d, 5)); } })();
  parentPort.on('message', () => parentPort.postMessage(health.slice(20).sort((a, b) => a - b)));`;
const CLIENT = `
  const { parentPort, workerData: { address, id, texts } } = require('node:worker_threads');
  (async () => {
    for (const text of texts) {
      const answer = await fetch(address + '/api/trials/' + id, { method: 'PUT', headers: { 'Content-Type': 'application/json' }, body: Uint8Array.from(text) });
      if (!answer.ok) throw new Error(await answer.text());
      await answer.arrayBuffer();
      await (await fetch(address + '/api/trials/' + id)).arrayBuffer();
    }
    parentPort.postMessage(null);
  })();`;

export async function largePulse(server: Running): Promise<LargePulse> {
  const random = seeded(3);
  const vector = (): [number, number, number] => [random(), random(), random()];
  const [stroke] = trialSets()[0]!.strokes;
  const strokes = Array.from({ length: 100 }, () => ({ ...stroke!, samples: Array.from({ length: 1000 }, () => ({ origin: vector(), direction: vector(), pressure: random(), time: random(), lean: random() })) }));
  const doc = OwnTrialSchema.parse({ version: TRIAL_VERSION, id: randomUUID(), card: { name: 'As large as any' }, body: 'ball', strokes });
  // Shared: the server's thread, which begins the client's, is not to copy them.
  const texts = [null, 1, 2].map((revision) => shared(JSON.stringify({ doc, revision })));
  const pulse = new Worker(PULSE, { eval: true, workerData: { address: server.address } });
  await new Promise((done) => setTimeout(done, 1000));
  await heard(new Worker(CLIENT, { eval: true, workerData: { address: server.address, id: doc.id, texts } }));
  pulse.postMessage(null);
  const health = (await heard(pulse)) as number[];
  await pulse.terminate();
  return { megabytes: texts[0]!.length / 2 ** 20, worst: health.at(-1)!, p99: health[Math.floor(health.length * 0.99)]!, median: health[health.length >> 1]! };
}

function heard(thread: Worker): Promise<unknown> {
  return new Promise((done, fail) => {
    thread.once('message', done);
    thread.once('error', fail);
  });
}

function shared(text: string): Uint8Array {
  const bytes = Buffer.from(text);
  const out = new Uint8Array(new SharedArrayBuffer(bytes.length));
  out.set(bytes);
  return out;
}
