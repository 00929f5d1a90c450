/** The page's side of reading mesh files: a worker for each, ended when it has answered. */
import * as Comlink from 'comlink';
import type { PartFromAbove } from '#core/setForm';
import type { PartUp } from '#core/settings';
import type { WaitingBody } from '../api/outbox';
import type { MeshFileWorker, ReadScan } from './meshFile.worker';
import { startThread } from './thread';

export const MESH_ENDINGS = ['obj', 'ply', 'stl', 'glb'] as const;
const MOST_BYTES = 600 * 2 ** 20;
/** After this long a worker is ended: twenty times what a sound file of its size takes on a slow machine. */
const LIMIT = { ms: 20_000, msPerMb: 1000 };

export function isMeshFile(file: File): boolean {
  return (MESH_ENDINGS as readonly string[]).includes(file.name.split('.').pop()!.toLowerCase());
}

/** The mesh of a file as it is kept. Throws a sentence that can be shown. */
export async function readMeshFile(file: File): Promise<ArrayBuffer> {
  const bytes = await bytesOf(file);
  return inWorker(bytes.byteLength, (worker) => worker.read(file.name, Comlink.transfer(bytes, [bytes])));
}

async function bytesOf(file: File): Promise<ArrayBuffer> {
  if (file.size === 0) throw new Error(`“${file.name}” is empty.`);
  if (file.size > MOST_BYTES)
    throw new Error(
      `“${file.name}” has ${Math.round(file.size / 2 ** 20)} MB; a mesh file may have at most ${MOST_BYTES / 2 ** 20} MB.`,
    );
  return file.arrayBuffer();
}

export interface ScanReading {
  done: Promise<ReadScan>;
  cancel(): void;
}

/** Reading was given up. */
export class ReadingCancelled extends Error {
  constructor() {
    super('Reading was cancelled.');
  }
}

/** A scan from a file. `done` throws a sentence that can be shown, or ReadingCancelled. */
export function readScanFile(file: File, onProgress: (share: number, what: string) => void): ScanReading {
  let cancel: () => void = () => undefined;
  const cancelled = new Promise<never>((_, fail) => {
    cancel = () => fail(new ReadingCancelled());
  });
  cancelled.catch(() => undefined);
  const done = bytesOf(file).then((bytes) =>
    inWorker(
      bytes.byteLength,
      (worker) => worker.scan(file.name, Comlink.transfer(bytes, [bytes]), Comlink.proxy(onProgress)),
      cancelled,
    ),
  );
  return { done: Promise.race([done, cancelled]), cancel };
}

/** A body of one's own from a file. Throws a sentence that can be shown. */
export async function readBodyFile(file: File): Promise<WaitingBody> {
  return bodyOfMesh(file.name.replace(/\.[^.]+$/, ''), await readMeshFile(file));
}

/** A body of kept bytes. Throws a sentence that can be shown. */
export async function bodyOfMesh(name: string, mesh: ArrayBuffer): Promise<WaitingBody> {
  const welded = await inWorker(mesh.byteLength, (worker) => worker.weld(Comlink.transfer(mesh, [mesh]))).catch(
    (error: unknown) => {
      throw new Error(`“${name}” can’t be a body. ${error instanceof Error ? error.message : ''}`);
    },
  );
  return { id: crypto.randomUUID(), name, addedAt: Date.now(), ...welded };
}

/** The mesh as an OBJ file. */
export function meshAsObj(name: string, mesh: ArrayBuffer): Promise<Blob> {
  return inWorker(mesh.byteLength, (worker) => worker.obj(name, Comlink.transfer(mesh, [mesh])));
}

export function meshFromAbove(mesh: ArrayBuffer, up: PartUp): Promise<PartFromAbove> {
  return inWorker(mesh.byteLength, (worker) => worker.fromAbove(mesh, up));
}

async function inWorker<T>(
  bytes: number,
  act: (worker: Comlink.Remote<MeshFileWorker>) => Promise<T>,
  cancelled: Promise<never> = new Promise(() => undefined),
): Promise<T> {
  const thread = startThread<MeshFileWorker>(
    new Worker(new URL('./meshFile.worker.ts', import.meta.url), { type: 'module' }),
  );
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, fail) => {
    timer = setTimeout(
      () => fail(new Error('It takes too long and was given up: the mesh is broken, or too large for this machine.')),
      LIMIT.ms + (bytes / 2 ** 20) * LIMIT.msPerMb,
    );
  });
  try {
    return await Promise.race([act(thread.worker), thread.broken, late, cancelled]);
  } finally {
    clearTimeout(timer);
    thread.end();
  }
}
