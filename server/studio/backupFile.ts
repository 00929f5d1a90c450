/** Backups as files: written, read back whole to see that they are good, and unpacked again. */
import { createHash, randomUUID } from 'node:crypto';
import { closeSync, createReadStream, existsSync, openSync, writeSync } from 'node:fs';
import { open, readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { crc32 } from 'node:zlib';
import { Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js';
import {
  BACKUP_FORMAT,
  BACKUP_MANIFEST,
  BACKUP_VERSION,
  dataPath,
  DocumentLineSchema,
  LINES,
  readBackupManifest,
  RevisionLineSchema,
  type BackupManifest,
} from '#core/backup';
import type { References } from '#core/settings';
import { readStored, type Collection } from '#core/stored';
import { Problem } from '../problem';
import { judged } from '../reading/judged';
import { BlobFiles } from '../store/blobFiles';
import type { Arrived, StoredRow, StoredRevision } from '../store/port';
import { FileReader, jsonOf, openZip, type OpenedZip, type ZipItem } from './zipFile';

/** What a backup is written from: lines that lie in files, and stored data. */
export interface ToBackUp {
  to: string;
  /** Folder of the lines. Where it is taken away the writing stops. */
  from: string;
  madeAt: string;
  belt: string[];
  data: BackupManifest['data'];
}

/** A store of a million pieces of data is none that a person made. */
const MOST_ENTRIES = 1_000_000;
const MOST_MANIFEST_BYTES = 200 * 2 ** 20;
/** Of one document, as JSON. */
const MOST_LINE = 256 * 2 ** 20;
const DATE = new Date(2000, 0, 1);

const refuse = (sentence: string): Problem => new Problem(422, 'backup-file', sentence);

const opened = <T>(path: string, name: string, act: OpenedZip<T>): Promise<T> =>
  openZip(path, { name, kind: 'a backup', most: MOST_ENTRIES, refuse }, act);

/** Brought to the disk before it is said to be written. */
export async function writeBackup({ to, from, madeAt, belt, data }: ToBackUp, folder: string): Promise<void> {
  const blobs = new BlobFiles(folder);
  const out = await open(to, 'wx');
  let at = 0;
  const zip = new ZipWriter(
    new WritableStream<Uint8Array>({
      async write(piece) {
        for (let done = 0; done < piece.length;) {
          const { bytesWritten } = await out.write(piece, done, piece.length - done, at);
          done += bytesWritten;
          at += bytesWritten;
        }
      },
    }),
    { useWebWorkers: false, lastModDate: DATE, extendedTimestamp: false, zip64: true },
  );
  const check = (): void => {
    if (!existsSync(from)) throw new Problem(409, 'cancelled', 'Cancelled.');
  };
  /** Its checksum is counted by native code, many times faster. */
  const addAsIs = async (path: string, bytes: Uint8Array): Promise<void> => {
    check();
    await zip.add(path, new Uint8ArrayReader(bytes), {
      passThrough: true,
      compressionMethod: 0,
      uncompressedSize: bytes.length,
      crc32: crc32(bytes),
    });
  };
  const squeeze = async (path: string, file: string): Promise<void> => {
    check();
    const handle = await open(file, 'r');
    try {
      await zip.add(path, new FileReader(handle), { level: 6 });
    } finally {
      await handle.close();
    }
  };
  try {
    const manifest: BackupManifest = {
      format: BACKUP_FORMAT,
      version: BACKUP_VERSION,
      madeAt,
      documents: await countLines(join(from, LINES.documents)),
      revisions: await countLines(join(from, LINES.revisions)),
      belt,
      data,
    };
    await zip.add(BACKUP_MANIFEST, new Uint8ArrayReader(Buffer.from(`${JSON.stringify(manifest)}\n`)), { level: 6 });
    for (const name of Object.values(LINES)) await squeeze(name, join(from, name));
    for (const { blob } of data) await addAsIs(dataPath(blob), await readFile(blobs.pathOf(blob)));
    await zip.close();
    await out.sync();
  } finally {
    await out.close();
  }
}

async function countLines(path: string): Promise<BackupManifest['documents']> {
  const hash = createHash('sha256');
  let bytes = 0;
  let lines = 0;
  for await (const piece of createReadStream(path) as AsyncIterable<Buffer>) {
    hash.update(piece);
    bytes += piece.length;
    for (const byte of piece) if (byte === 10) lines++;
  }
  return { sha256: hash.digest('hex'), bytes, lines };
}

/** All of it is unpacked and compared with its checksums. */
export function lookAtBackup(path: string, name: string): Promise<BackupManifest> {
  return opened(path, name, async (entries) => {
    const entry = entries.get(BACKUP_MANIFEST);
    if (!entry) throw refuse(`“${name}” isn’t a backup: it has no ${BACKUP_MANIFEST}.`);
    if (entry.encrypted) throw refuse(`“${name}” is locked with a password. Unlock it first.`);
    let value: unknown;
    try {
      value = jsonOf(await entry.whole(MOST_MANIFEST_BYTES));
    } catch {
      throw refuse(`“${name}” can’t be read: its ${BACKUP_MANIFEST} is damaged.`);
    }
    const read = readBackupManifest(value);
    if (!read.ok) throw refuse(`“${name}” can’t be restored. ${read.reason}`);
    const manifest = read.value;
    const parts = [
      { at: LINES.documents, ...manifest.documents },
      { at: LINES.revisions, ...manifest.revisions },
      ...manifest.data.map(({ blob, bytes }) => ({ at: dataPath(blob), bytes, sha256: blob })),
    ];
    for (const { at, bytes, sha256 } of parts) {
      if (!(await isSound(entries.get(at), bytes, sha256)))
        throw refuse(`“${name}” is damaged: “${at}” isn’t what was written. Take another copy.`);
    }
    return manifest;
  });
}

async function isSound(entry: ZipItem | undefined, bytes: number, sha256: string): Promise<boolean> {
  if (!entry || entry.encrypted || entry.bytes !== bytes) return false;
  const hash = createHash('sha256');
  try {
    await entry.pieces(bytes, (piece) => void hash.update(piece), false);
  } catch {
    return false;
  }
  return hash.digest('hex') === sha256;
}

/** Data as files that have no name yet. */
export function backupData(
  path: string,
  name: string,
  wanted: BackupManifest['data'],
  folder: string,
): Promise<Arrived[]> {
  const files = new BlobFiles(folder);
  return opened(path, name, async (entries) => {
    const out: Arrived[] = [];
    for (const { blob, bytes } of wanted) {
      const arrived = await files.receiveWhole(await entries.get(dataPath(blob))!.whole(bytes, false));
      out.push(arrived);
      if (arrived.hash === blob) continue;
      for (const one of out) await files.drop(one);
      throw refuse(`“${name}” changed while it was read. Nothing was restored.`);
    }
    return out;
  });
}

/** Documents and revisions ready to be put back, as lines of a file. */
export interface BackupRows {
  path: string;
  documents: number;
  revisions: number;
  problems: string[];
}
export type BackupRow = { document: StoredRow } | { past: StoredRevision };

const MOST_PROBLEMS = 50;

export function backupRows(path: string, name: string, folder: string): Promise<BackupRows> {
  return opened(path, name, async (entries) => {
    const rows: BackupRows = { path: join(folder, 'begun', randomUUID()), documents: 0, revisions: 0, problems: [] };
    const fd = openSync(rows.path, 'wx');
    const put = (row: BackupRow): void => void writeSync(fd, `${JSON.stringify(row)}\n`);
    try {
      await eachLine(entries.get(LINES.documents)!, (line) => {
        const { doc, ...about } = DocumentLineSchema.parse(line);
        const read = readStored(about.collection, doc);
        if (!read.ok) {
          if (rows.problems.length < MOST_PROBLEMS) rows.problems.push(`${nameOf(doc)} can’t be read. ${read.reason}`);
          return;
        }
        const { name: called, kind, head, references } = judged<Collection>(about.collection, read.value);
        rows.documents++;
        put({ document: { ...about, name: called, kind, head, references, text: JSON.stringify(doc) } });
      });
      await eachLine(entries.get(LINES.revisions)!, (line) => {
        const { doc, ...about } = RevisionLineSchema.parse(line);
        const read = readStored(about.collection, doc);
        const references: References = read.ok
          ? judged<Collection>(about.collection, read.value).references
          : { blobs: [], documents: [] };
        rows.revisions++;
        put({ past: { ...about, references, text: JSON.stringify(doc) } });
      });
      return rows;
    } catch (error) {
      await rm(rows.path, { force: true });
      throw error;
    } finally {
      closeSync(fd);
    }
  });
}

function nameOf(doc: unknown): string {
  const { card } = (doc ?? {}) as { card?: { name?: unknown } };
  return typeof card?.name === 'string' ? `“${card.name}”` : 'A document without a name';
}

async function eachLine(entry: ZipItem, act: (line: unknown) => void): Promise<void> {
  const decoder = new TextDecoder();
  let rest = '';
  await entry.pieces(entry.bytes, (piece) => {
    const lines = (rest + decoder.decode(piece, { stream: true })).split('\n');
    rest = lines.pop()!;
    if (rest.length > MOST_LINE) throw refuse('A document in the backup is larger than any may be.');
    for (const line of lines) act(JSON.parse(line));
  });
}
