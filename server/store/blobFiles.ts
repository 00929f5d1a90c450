/**
 * Stored bytes as files named by their SHA-256, in folders of its first two digits. A file is written beside, brought
 * to the disk and only then given its name, so that what has a name is whole, also after a power cut.
 */
import { createHash, randomUUID, webcrypto } from 'node:crypto';
import { createReadStream, type ReadStream } from 'node:fs';
import { mkdir, open, readFile, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Problem } from '../problem';
import type { Arrived, Range } from './port';

export class BlobFiles {
  private readonly begun: string;

  constructor(readonly folder: string) {
    this.begun = join(folder, 'begun');
  }

  /** Makes the folders. What was begun and never got its name is left from a server that was killed, and goes. */
  async open(): Promise<void> {
    await rm(this.begun, { recursive: true, force: true });
    await mkdir(this.begun, { recursive: true });
  }

  pathOf(hash: string): string {
    return join(this.folder, hash.slice(0, 2), hash);
  }

  /** Writes down what comes, as it comes. More than `most` bytes throw a Problem. */
  async receive(chunks: AsyncIterable<Uint8Array>, most: number): Promise<Arrived> {
    const path = join(this.begun, randomUUID());
    const file = await open(path, 'wx');
    const hash = createHash('sha256');
    let bytes = 0;
    try {
      for await (const chunk of chunks) {
        bytes += chunk.length;
        if (bytes > most)
          throw new Problem(413, 'too-large', `At most ${most >> 20} MiB can be stored at once.`, { limit: most });
        hash.update(chunk);
        await file.write(chunk);
      }
      await file.sync();
    } catch (error) {
      await file.close();
      await rm(path, { force: true });
      throw error;
    }
    await file.close();
    return { hash: hash.digest('hex'), bytes, path };
  }

  /** What is at hand already: its hash is counted beside while it is written. */
  async receiveWhole(all: Uint8Array): Promise<Arrived> {
    const path = join(this.begun, randomUUID());
    const file = await open(path, 'wx');
    try {
      const [hash] = await Promise.all([
        webcrypto.subtle.digest('SHA-256', all as Uint8Array<ArrayBuffer>),
        file.write(all).then(() => file.sync()),
      ]);
      return { hash: Buffer.from(hash).toString('hex'), bytes: all.length, path };
    } catch (error) {
      await rm(path, { force: true });
      throw error;
    } finally {
      await file.close();
    }
  }

  /** Gives what arrived its name. */
  async name({ hash, path }: Arrived): Promise<void> {
    const to = this.pathOf(hash);
    const folder = join(this.folder, hash.slice(0, 2));
    const made = await mkdir(folder, { recursive: true });
    await rename(path, to);
    await syncFolder(folder);
    if (made) await syncFolder(this.folder);
  }

  async drop({ path }: Arrived): Promise<void> {
    await rm(path, { force: true });
  }

  read(hash: string): Promise<Uint8Array> {
    return readFile(this.pathOf(hash));
  }

  stream(hash: string, range?: Range): ReadStream {
    return createReadStream(this.pathOf(hash), range);
  }

  async has(hash: string): Promise<boolean> {
    return stat(this.pathOf(hash)).then(
      () => true,
      () => false,
    );
  }

  async remove(hash: string): Promise<void> {
    await rm(this.pathOf(hash), { force: true });
  }
}

/** Names in a folder are on the disk when the folder is. */
export async function syncFolder(path: string): Promise<void> {
  const folder = await open(path, 'r');
  try {
    await folder.sync();
  } finally {
    await folder.close();
  }
}
