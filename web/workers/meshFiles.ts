/** The page's side of reading mesh files: a worker for each, ended when it has answered. */
import * as Comlink from 'comlink';
import type { PartFromAbove } from '#core/setForm';
import type { PartUp } from '#core/settings';
import type { PendingBody } from '../api/outbox';
import type { MeshFileWorker, ReadScan } from './meshFile.worker';
import { startThread } from './thread';

export const MESH_ENDINGS = ['obj', 'ply', 'stl', 'glb'] as const;
const MOST_BYTES = 600 * 2 ** 20;
/** After this long a worker is ended: twenty times what a sound file of its size takes on a slow machine. */
const LIMIT = { ms: 20_000, msPerMb: 1000 };

export function isMeshFile(file: File): boolean {
  return (MESH_ENDINGS as readonly string[]).includes(file.name.split('.').pop()!.toLowerCase());
}

/** Who follows the reading of a file. */
export interface ReadingHand {
  report(share: number, what: string): void;
  /** Takes what gives it up. */
  onCancel(stop: () => void): void;
}

/** The mesh of a file as it is kept. Throws a sentence that can be shown, or ReadingCancelled. */
export function readMeshFile(file: File, hand: ReadingHand): Promise<ArrayBuffer> {
  return readInWorker(file, hand, (worker, bytes, told) => worker.read(file.name, bytes, told));
}

/** Hands the file’s bytes to a worker, whose reading is followed. */
function readInWorker<T>(
  file: File,
  hand: ReadingHand,
  read: (worker: Comlink.Remote<MeshFileWorker>, bytes: ArrayBuffer, told: ReadingHand['report']) => Promise<T>,
): Promise<T> {
  return givenUp(hand, async (cancelled) => {
    const bytes = await bytesOf(file);
    const told = Comlink.proxy((share: number, what: string) => hand.report(share, what));
    return inWorker(bytes.byteLength, (worker) => read(worker, Comlink.transfer(bytes, [bytes]), told), cancelled);
  });
}

/** Fails with ReadingCancelled as soon as the hand gives it up. */
function givenUp<T>(hand: ReadingHand, read: (cancelled: Promise<never>) => Promise<T>): Promise<T> {
  const cancelled = new Promise<never>((_, fail) => hand.onCancel(() => fail(new ReadingCancelled())));
  cancelled.catch(() => undefined);
  return Promise.race([read(cancelled), cancelled]);
}

async function bytesOf(file: File): Promise<ArrayBuffer> {
  if (file.size === 0) throw new Error(`“${file.name}” is empty.`);
  if (file.size > MOST_BYTES)
    throw new Error(
      `“${file.name}” has ${Math.round(file.size / 2 ** 20)} MB; a mesh file may have at most ${MOST_BYTES / 2 ** 20} MB.`,
    );
  return file.arrayBuffer();
}

/** Reading was given up. */
export class ReadingCancelled extends Error {
  constructor() {
    super('Reading was cancelled.');
  }
}

/** A scan from a file. Throws a sentence that can be shown, or ReadingCancelled. */
export function readScanFile(file: File, hand: ReadingHand): Promise<ReadScan> {
  return readInWorker(file, hand, (worker, bytes, told) => worker.scan(file.name, bytes, told));
}

/** A body of one's own from a file. Throws a sentence that can be shown, or ReadingCancelled. */
export async function readBodyFile(file: File, hand: ReadingHand): Promise<PendingBody> {
  const mesh = await readMeshFile(file, hand);
  hand.report(0.7, 'Welding');
  return givenUp(hand, (cancelled) => bodyOfMesh(file.name.replace(/\.[^.]+$/, ''), mesh, cancelled));
}

/** A body of kept bytes. Throws a sentence that can be shown. */
export async function bodyOfMesh(name: string, mesh: ArrayBuffer, cancelled?: Promise<never>): Promise<PendingBody> {
  const welded = await inWorker(
    mesh.byteLength,
    (worker) => worker.weld(Comlink.transfer(mesh, [mesh])),
    cancelled,
  ).catch((error: unknown) => {
    if (error instanceof ReadingCancelled) throw error;
    throw new Error(`“${name}” can’t be a body. ${error instanceof Error ? error.message : ''}`);
  });
  return { id: crypto.randomUUID(), name, addedAt: Date.now(), ...welded };
}

/** The mesh as an OBJ file. */
export function meshAsObj(name: string, mesh: ArrayBuffer): Promise<Blob> {
  return inWorker(mesh.byteLength, (worker) => worker.obj(name, Comlink.transfer(mesh, [mesh])));
}

/** Throws ReadingCancelled where the hand gives it up. */
export function meshFromAbove(mesh: ArrayBuffer, up: PartUp, hand: ReadingHand): Promise<PartFromAbove> {
  return givenUp(hand, (cancelled) => inWorker(mesh.byteLength, (worker) => worker.fromAbove(mesh, up), cancelled));
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
