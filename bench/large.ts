/** How the server's pulse goes on while a document as large as any that is kept is saved, changed and opened. */
import { randomUUID } from 'node:crypto';
import { Worker } from 'node:worker_threads';
import { OwnTrialSchema, TRIAL_VERSION, trialSets } from '#core/trial';
import { seeded } from '#core/random';
import type { Running } from '../server/start';
import { at, heard, startPulse } from './pulse';

export interface LargePulse {
  /** Of the document, as it was sent. */
  megabytes: number;
  /** Answers of health. */
  worst: number;
  p99: number;
  median: number;
}

/** A thread of its own, so that its work is not taken for the server's. */
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
  const [stroke] = trialSets()[0].strokes;
  const strokes = Array.from({ length: 100 }, () => ({
    ...stroke,
    samples: Array.from({ length: 1000 }, () => ({
      origin: vector(),
      direction: vector(),
      pressure: random(),
      time: random(),
      lean: random(),
    })),
  }));
  const doc = OwnTrialSchema.parse({
    version: TRIAL_VERSION,
    id: randomUUID(),
    card: { name: 'As large as any' },
    body: 'ball',
    strokes,
  });
  // Shared: the server's thread, which begins the client's, is not to copy them.
  const texts = [null, 1, 2].map((revision) => shared(JSON.stringify({ doc, revision })));
  const pulse = await startPulse(server.address);
  await heard(new Worker(CLIENT, { eval: true, workerData: { address: server.address, id: doc.id, texts } }));
  const health = await pulse.stop();
  return {
    megabytes: texts[0].length / 2 ** 20,
    worst: at(health, 1),
    p99: at(health, 0.99),
    median: at(health, 0.5),
  };
}

function shared(text: string): Uint8Array {
  const bytes = Buffer.from(text);
  const out = new Uint8Array(new SharedArrayBuffer(bytes.length));
  out.set(bytes);
  return out;
}
