/**
 * The database’s files on the disk, and really on it: the embedded PostgreSQL asks for its log to be synced before a
 * commit is answered, which its file system for Node takes and does nothing. Here it is done.
 */
import { closeSync, fsyncSync, openSync } from 'node:fs';
import { PGlite } from '@electric-sql/pglite';
import { NodeFS } from '@electric-sql/pglite/nodefs';

interface Stream {
  /** Of a file; folders have none. */
  nfd?: number;
  node: unknown;
}
interface NodeFileSystem {
  stream_ops: { fsync?: (stream: Stream) => number };
  realPath(node: unknown): string;
}

class SyncedFS extends NodeFS {
  override async init(...args: Parameters<NodeFS['init']>): ReturnType<NodeFS['init']> {
    const made = await super.init(...args);
    const options = made.emscriptenOpts as { preRun?: ((mod: never) => void)[] };
    options.preRun = [
      ...(options.preRun ?? []),
      ({ NODEFS }: { NODEFS: NodeFileSystem }) => {
        NODEFS.stream_ops.fsync = (stream) => {
          if (stream.nfd !== undefined) fsyncSync(stream.nfd);
          else syncFolder(NODEFS.realPath(stream.node));
          return 0;
        };
      },
    ];
    return made;
  }
}

function syncFolder(path: string): void {
  const fd = openSync(path, 'r');
  try {
    fsyncSync(fd);
  } finally {
    closeSync(fd);
  }
}

/** `-F` turns syncing off; `fdatasync` isn’t asked of the file system, `fsync` is. */
export function openSynced(path: string): Promise<PGlite> {
  const { defaultStartParams } = PGlite as unknown as { defaultStartParams: string[] };
  return PGlite.create({
    dataDir: path,
    fs: new SyncedFS(path),
    startParams: [...defaultStartParams.filter((p) => p !== '-F'), '-c', 'wal_sync_method=fsync'],
  });
}
