/** ZIP files from outside, read entry by entry: what is unpacked is counted as it comes. */
import { open, type FileHandle } from 'node:fs/promises';
import { Reader, ZipReader, type Entry, type FileEntry } from '@zip.js/zip.js';
import { Problem } from '../problem';

export class FileReader extends Reader<FileHandle> {
  constructor(private readonly file: FileHandle) {
    super(file);
  }

  override async init(): Promise<void> {
    this.size = (await this.file.stat()).size;
  }

  override async readUint8Array(index: number, length: number): Promise<Uint8Array> {
    const out = new Uint8Array(Math.max(0, Math.min(length, this.size - index)));
    for (let done = 0; done < out.length;) {
      const { bytesRead } = await this.file.read(out, done, out.length - done, index + done);
      if (bytesRead === 0) return out.subarray(0, done);
      done += bytesRead;
    }
    return out;
  }
}

export type OpenedZip<T> = (entries: ReadonlyMap<string, FileEntry>, all: readonly Entry[]) => Promise<T>;

export interface ZipSaid {
  name: string;
  /** What it should be. */
  kind: string;
  /** Entries that it may have. */
  most: number;
  refuse: (sentence: string) => Problem;
}

export async function openZip<T>(path: string, said: ZipSaid, act: OpenedZip<T>): Promise<T> {
  const { name, kind, most, refuse } = said;
  const file = await open(path, 'r').catch((error: NodeJS.ErrnoException) => {
    // Its dialog was closed while its pictures were asked for.
    if (error.code === 'ENOENT') throw refuse(`“${name}” was put away before it was read. Open it again.`);
    throw error;
  });
  // Nothing is written where a name says: names that lead elsewhere are told entry by entry.
  const zip = new ZipReader(new FileReader(file), {
    useWebWorkers: false,
    checkSignature: true,
    filenameValidation: 'tolerant',
  });
  try {
    const all: Entry[] = [];
    try {
      for await (const entry of zip.getEntriesGenerator()) {
        if (all.push(entry) > most) throw refuse(`“${name}” has more than ${most} entries.`);
      }
    } catch (error) {
      if (error instanceof Problem) throw error;
      throw refuse(`“${name}” isn’t ${kind}, or is cut short: it can’t be opened as a ZIP.`);
    }
    const files = all.filter((entry): entry is FileEntry => !entry.directory);
    return await act(new Map(files.map((entry) => [entry.filename, entry])), all);
  } finally {
    await zip.close().catch(() => undefined);
    await file.close();
  }
}

/** Unpacks piece by piece; more than `most` bytes are refused as they come. */
export async function pieces(
  entry: FileEntry,
  most: number,
  take: (piece: Uint8Array) => void,
  /** Whether the ZIP’s own checksum is compared: a better one may be. */
  checkSignature = true,
): Promise<number> {
  let bytes = 0;
  await entry.getData(
    new WritableStream<Uint8Array>({
      write(piece) {
        bytes += piece.length;
        if (bytes > most) throw new Error('It is larger than it says.');
        take(piece);
      },
    }),
    { useWebWorkers: false, checkSignature },
  );
  return bytes;
}

export async function whole(entry: FileEntry, most: number): Promise<Uint8Array> {
  const all: Uint8Array[] = [];
  await pieces(entry, most, (piece) => void all.push(piece));
  return Buffer.concat(all);
}

export const jsonOf = (bytes: Uint8Array): unknown => JSON.parse(Buffer.from(bytes).toString('utf8')) as unknown;
