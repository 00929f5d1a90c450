/** Which stored bytes there are; they themselves are files. */
import type { Readable } from 'node:stream';
import { Problem } from '../../problem';
import type { BlobFiles } from '../blobFiles';
import type { Arrived, Blobs, Range } from '../port';
import type { Queries } from './thread';

export class ListedBlobs implements Blobs {
  constructor(
    private readonly db: Queries,
    private readonly files: BlobFiles,
  ) {}

  get folder(): string {
    return this.files.folder;
  }

  async has(hash: string): Promise<boolean> {
    return (await this.db.query('SELECT 1 FROM blobs WHERE hash = $1', [hash])).rows.length > 0;
  }

  async size(hash: string): Promise<number> {
    const { rows } = await this.db.query<{ bytes: number }>(
      'SELECT bytes::float8 AS bytes FROM blobs WHERE hash = $1',
      [hash],
    );
    if (!rows[0]) throw new Problem(404, 'blob-missing', `There is no stored data ${hash.slice(0, 12)}….`, { hash });
    return rows[0].bytes;
  }

  async renew(hashes: readonly string[]): Promise<string[]> {
    const { rows } = await this.db.query<{ hash: string }>(
      'UPDATE blobs SET sent_at = now() WHERE hash = ANY($1) RETURNING hash',
      [hashes],
    );
    return rows.map((r) => r.hash);
  }

  receive(chunks: AsyncIterable<Uint8Array>, most: number): Promise<Arrived> {
    return this.files.receive(chunks, most);
  }

  /** The file first, so that what the list names is there. */
  async keep(arrived: Arrived): Promise<void> {
    await this.files.name(arrived);
    await this.db.query(
      'INSERT INTO blobs (hash, bytes) VALUES ($1, $2) ON CONFLICT (hash) DO UPDATE SET sent_at = now()',
      [arrived.hash, arrived.bytes],
    );
  }

  drop(arrived: Arrived): Promise<void> {
    return this.files.drop(arrived);
  }

  async put(bytes: Uint8Array): Promise<string> {
    const arrived = await this.files.receive(one(bytes), Infinity);
    await this.keep(arrived);
    return arrived.hash;
  }

  read(hash: string): Promise<Uint8Array> {
    return this.files.read(hash);
  }

  path(hash: string): string {
    return this.files.pathOf(hash);
  }

  stream(hash: string, range?: Range): Readable {
    return this.files.stream(hash, range);
  }
}

async function* one(bytes: Uint8Array): AsyncIterable<Uint8Array> {
  yield bytes;
}
