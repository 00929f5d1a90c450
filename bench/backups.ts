/**
 * backup_s, restore_s, backup_memory_mb: a gigabyte of brushes and alphas as one checked file, and back into an empty
 * server; database_size: what the data folder takes beside what it holds.
 */
import { createReadStream, createWriteStream, openAsBlob, readdirSync, statSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { PACKED, spawnServer } from '../server/testKit';
import type { Figure } from './measure';
import { BRUSHES, filled, sent, watched } from './packs';

interface Copy {
  name: string;
  bytes: number;
}

export async function backupFigures(): Promise<Figure[]> {
  const folder = await mkdtemp(join(tmpdir(), 'mold-stamp-bench-'));
  const path = join(folder, 'bench.backup.zip');
  const timed = async (act: () => Promise<unknown>): Promise<number> => {
    const began = performance.now();
    await act();
    return (performance.now() - began) / 1000;
  };
  try {
    await filled(join(folder, 'mine'));
    const mine = await spawnServer(join(folder, 'mine'), '0', PACKED, '');
    let copy: Copy = { name: '', bytes: 0 };
    const out = await watched(mine, () =>
      timed(async () => (copy = (await (await sent(mine, '/backups', { method: 'POST' })).json()) as Copy)),
    );
    const { files } = (await (await sent(mine, '/storage')).json()) as { files: number };
    const { body } = await sent(mine, `/backups/files/${encodeURIComponent(copy.name)}`);
    await pipeline(Readable.fromWeb(body as Parameters<typeof Readable.fromWeb>[0]), createWriteStream(path));
    await mine.end('SIGTERM');
    const size = bytesUnder(join(folder, 'mine')) - copy.bytes;

    const theirs = await spawnServer(join(folder, 'theirs'), '0', PACKED, '');
    const brought = (await (
      await sent(theirs, '/backups/files?name=bench', { method: 'POST', body: await openAsBlob(path) })
    ).json()) as Copy;
    const into = await watched(theirs, () =>
      timed(async () => {
        const at = `/backups/files/${encodeURIComponent(brought.name)}/restore`;
        const { changed } = (await (await sent(theirs, at, { method: 'POST' })).json()) as { changed: number };
        if (changed !== 2 * BRUSHES + 1) throw new Error(`${changed} came.`);
      }),
    );
    await theirs.end('SIGTERM');
    const copied = await timed(() => pipeline(createReadStream(path), createWriteStream(`${path}.2`)));
    const floor = { what: 'the same file copied', value: copied };
    const memory = Math.max(out.megabytes, into.megabytes);
    const gb = (copy.bytes / 2 ** 30).toFixed(2);
    return [
      {
        key: 'backup_s',
        what: `${gb} GB written as one file and read back`,
        value: out.value,
        unit: 's',
        floor,
        target: { text: '≤ 30', met: out.value <= 30 },
      },
      {
        key: 'restore_s',
        what: 'the same file checked and restored',
        value: into.value,
        unit: 's',
        floor,
        target: { text: '≤ 60', met: into.value <= 60 },
      },
      {
        key: 'backup_memory_mb',
        what: 'memory of a server and its helpers meanwhile, above rest',
        value: memory,
        unit: 'MB',
        floor: { what: 'the file itself', value: copy.bytes / 2 ** 20 },
        target: { text: '≤ 300', met: memory <= 300 },
      },
      {
        key: 'database_size',
        what: 'the data folder beside the data that it holds',
        value: size / files,
        unit: '×',
        floor: { what: 'the data alone', value: 1 },
        target: { text: '≤ 1.3', met: size / files <= 1.3 },
      },
    ];
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

function bytesUnder(folder: string): number {
  return readdirSync(folder, { recursive: true, withFileTypes: true }).reduce(
    (sum, entry) => sum + (entry.isFile() ? statSync(join(entry.parentPath, entry.name)).size : 0),
    0,
  );
}
