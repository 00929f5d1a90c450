/** ZIP files from outside, read entry by entry: what is unpacked is counted as it comes. */
import { open, type FileHandle } from 'node:fs/promises';
import { configure, Reader, ZipReader, type Entry, type FileEntry } from '@zip.js/zip.js';
import { Problem } from '../problem';

/** Of what goes through in one go: entries are large, and each piece costs something of its own. */
configure({ chunkSize: 2 ** 20 });

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

export type OpenedZip<T> = (items: ReadonlyMap<string, ZipItem>, all: readonly Entry[]) => Promise<T>;

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
  const reader = new FileReader(file);
  const zip = new ZipReader(reader, {
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
    return await act(new Map(files.map((entry) => [entry.filename, new ZipItem(entry, reader)])), all);
  } finally {
    await zip.close().catch(() => undefined);
    await file.close();
  }
}

/** How an entry that isn’t squeezed is marked, and how long its own head is before its name. */
const STORED = 0;
const HEAD = { bytes: 30, mark: 0x04034b50, nameLength: 26, moreLength: 28 };
/** Read in one go. */
const SLICE = 2 ** 22;

export class ZipItem {
  constructor(
    private readonly entry: FileEntry,
    private readonly file: FileReader,
  ) {}

  get encrypted(): boolean {
    return this.entry.encrypted;
  }

  /** As its ZIP says. */
  get bytes(): number {
    return this.entry.uncompressedSize;
  }

  /**
   * Unpacks piece by piece; more than `most` bytes are refused as they come. `compared` says whether the ZIP’s own
   * checksum is compared: a better one may be.
   */
  async pieces(most: number, take: (piece: Uint8Array) => void, compared = true): Promise<void> {
    const { entry } = this;
    if (!compared && entry.compressionMethod === STORED) {
      if (entry.compressedSize !== this.bytes || this.bytes > most) throw new Error('It is larger than it says.');
      for await (const piece of this.slices()) take(piece);
      return;
    }
    let bytes = 0;
    await entry.getData(
      new WritableStream<Uint8Array>({
        write(piece) {
          bytes += piece.length;
          if (bytes > most) throw new Error('It is larger than it says.');
          take(piece);
        },
      }),
      { useWebWorkers: false, checkSignature: compared },
    );
  }

  async whole(most: number, compared = true): Promise<Uint8Array> {
    const all: Uint8Array[] = [];
    await this.pieces(most, (piece) => void all.push(piece), compared);
    return all.length === 1 ? all[0] : Buffer.concat(all);
  }

  /** What isn’t squeezed lies in the file as it is: read at once it takes a third of the time. */
  private async *slices(): AsyncIterable<Uint8Array> {
    const { offset } = this.entry;
    const head = Buffer.from(await this.file.readUint8Array(offset, HEAD.bytes));
    if (head.length < HEAD.bytes || head.readUInt32LE() !== HEAD.mark) throw new Error('Its head is damaged.');
    const from = offset + HEAD.bytes + head.readUInt16LE(HEAD.nameLength) + head.readUInt16LE(HEAD.moreLength);
    for (let at = 0; at < this.bytes; at += SLICE) {
      const wanted = Math.min(SLICE, this.bytes - at);
      const piece = await this.file.readUint8Array(from + at, wanted);
      if (piece.length < wanted) throw new Error('It is cut short.');
      yield piece;
    }
  }
}

export const jsonOf = (bytes: Uint8Array): unknown => JSON.parse(Buffer.from(bytes).toString('utf8')) as unknown;
