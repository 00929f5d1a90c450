/** save_open_ms: a brush with a 2048² alpha to the server and back, over HTTP. */
import { createHash, randomUUID } from 'node:crypto';
import { mkdtemp, open, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seeded } from '#core/random';
import { ALPHA_VERSION, CastSettingsSchema, newBrush, type Alpha } from '#core/settings';
import { start } from '../server/start';
import { timeAsync, type Figure } from './measure';

const SIZE = 2048;
const RUNS = 5;
const WARM = 2;

export async function saveFigures(): Promise<Figure[]> {
  const folder = await mkdtemp(join(tmpdir(), 'mold-stamp-bench-'));
  const server = await start({ folder, page: folder, port: 0, version: 'bench' });
  const send = async (path: string, init?: RequestInit): Promise<Response> => {
    const response = await fetch(`${server.address}/api${path}`, init);
    if (!response.ok) throw new Error(`${path}: ${await response.text()}`);
    return response;
  };
  const put = (body: unknown): RequestInit => ({
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  const pictures = Array.from({ length: RUNS + WARM }, (_, run) => greys(run));
  try {
    const ms = await timeAsync(RUNS, WARM, async (run) => {
      const bytes = pictures[run];
      const hash = createHash('sha256').update(bytes).digest('hex');
      const alpha: Alpha = {
        version: ALPHA_VERSION,
        id: randomUUID(),
        format: 'grey16',
        card: { name: `Alpha ${run}`, author: '', tags: [], notes: '' },
        size: SIZE,
        relief: 0.1,
        ground: 0,
        blob: hash,
        lineage: {
          sourceId: null,
          sourceRevision: null,
          floor: 0,
          crown: 0.1,
          cast: CastSettingsSchema.parse({}),
          patchId: null,
          colours: null,
        },
        recipe: null,
        report: { marginPx: 0, ringLoss: 0, usedRange: 1, undercut: 0 },
      };
      const brush = newBrush(randomUUID(), `Brush ${run}`);
      brush.form.alphaId = alpha.id;
      brush.stroke.type = 'press';
      await send(`/blobs/${hash}`, { method: 'PUT', body: bytes });
      await send(`/alphas/${alpha.id}`, put({ doc: alpha, revision: null }));
      await send(`/brushes/${brush.id}`, put({ doc: brush, revision: null }));
      const back = (await (await send(`/brushes/${brush.id}`)).json()) as { doc: { form: { alphaId: string } } };
      const form = (await (await send(`/alphas/${back.doc.form.alphaId}`)).json()) as { doc: Alpha };
      const data = new Uint8Array(await (await send(`/blobs/${form.doc.blob}`)).arrayBuffer());
      if (data.length !== bytes.length) throw new Error('The alpha came back cut short.');
    });
    const path = join(folder, 'floor');
    const floor = await timeAsync(RUNS, WARM, async (run) => {
      const file = await open(path, 'w');
      await file.write(pictures[run]);
      await file.sync();
      await file.close();
      await readFile(path);
    });
    return [
      {
        key: 'save_open_ms',
        what: 'saving and reopening a brush with a 2048² alpha, pictures rendered',
        value: ms,
        unit: 'ms',
        floor: { what: 'its bytes to a plain file and back, synced', value: floor },
        target: { text: '≤ 1000', met: ms <= 1000 },
      },
    ];
  } finally {
    await server.close();
    await rm(folder, { recursive: true, force: true });
  }
}

function greys(seed: number): Uint8Array<ArrayBuffer> {
  const random = seeded(seed + 1);
  const phase = random() * 100;
  return new Uint8Array(
    Uint16Array.from(
      { length: SIZE * SIZE },
      (_, i) => 32767 + 32767 * Math.sin(phase + (i % SIZE) / 31) * Math.cos(i / SIZE / 47),
    ).buffer,
  );
}
