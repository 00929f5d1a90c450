/** The page’s side of painting files: a worker for each, ended when it has answered or takes too long. */
import type * as Comlink from 'comlink';
import type { Layer } from '#core/paint';
import type { PaintFileWorker } from './paintFile.worker';
import type { PaintFile, ReadPaint } from './paintFiles';
import { startThread } from './thread';

const MOST_BYTES = 2 ** 30;
const LIMIT_MS = 180_000;

export function writePaint(kind: PaintFile | 'ora', size: number, layers: readonly Layer[]): Promise<Blob> {
  return inWorker(async (worker) => {
    if (kind === 'ora') return worker.ora(size, layers);
    return new Blob([await worker.write(kind, size, layers)]);
  });
}

/** Throws a sentence that can be shown. */
export async function readPaint(file: File): Promise<ReadPaint> {
  if (file.size === 0) throw new Error(`“${file.name}” is empty.`);
  if (file.size > MOST_BYTES) throw new Error(`“${file.name}” is larger than the gigabyte that a texture may have.`);
  return inWorker((worker) => worker.read(file.name, file));
}

async function inWorker<T>(act: (worker: Comlink.Remote<PaintFileWorker>) => Promise<T>): Promise<T> {
  const thread = startThread<PaintFileWorker>(
    new Worker(new URL('./paintFile.worker.ts', import.meta.url), { type: 'module' }),
  );
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, fail) => {
    timer = setTimeout(() => fail(new Error('It takes too long and was given up.')), LIMIT_MS);
  });
  try {
    return await Promise.race([act(thread.worker), thread.broken, late]);
  } finally {
    clearTimeout(timer);
    thread.end();
  }
}
