/** Opens the database: from the template on the first start, migrated to the newest schema, locked to this process. */
import { closeSync, copyFileSync, fsyncSync, mkdirSync, openSync, readdirSync } from 'node:fs';
import { mkdir, readdir, readFile, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { lockFolder } from '../../lock';
import { BlobFiles, syncFolder } from '../blobFiles';
import { doChores } from './chores';
import { DamagedDataError, judgeFolder, setAside, unreadable } from './damage';
import { prepareSaves } from './save';
import { pgliteStore, type PgliteStore } from './store';
import { openThread, type Database } from './thread';

export interface OpenOptions {
  /** Folder of the data; made when missing. */
  folder: string;
  /** A data folder to begin with, closed; without one an empty one is made, which takes longer. */
  template?: string | undefined;
  /** Where copies of everything lie; `backups` in the data folder where it is left out. */
  backups?: string | undefined;
  /** A database that is damaged is set aside, and a new one begun in its place. */
  anew?: boolean;
}

export async function openPglite(options: OpenOptions): Promise<PgliteStore> {
  const { folder } = options;
  const backups = options.backups ?? join(folder, 'backups');
  if (!options.anew) await judgeFolder(folder, backups);
  await mkdir(folder, { recursive: true });
  const unlock = await lockFolder(join(folder, 'server.lock'));
  try {
    const path = join(folder, 'db');
    // Looked at again, now that no other server can change it.
    const state = await judgeFolder(folder, backups).catch(async (error: unknown) => {
      if (!options.anew || !(error instanceof DamagedDataError)) throw error;
      await setAside(folder);
      return 'anew' as const;
    });
    let first = state !== 'whole';
    const files = new BlobFiles(join(folder, 'blobs'));
    if (state === 'new' && options.template && (await exists(options.template)))
      await copyTemplate(options.template, folder);
    await files.open();
    const db = await openThread(path).catch(async (error: unknown) => {
      if (first) throw error;
      if (!options.anew) throw unreadable(folder, error);
      await setAside(folder);
      first = true;
      return openThread(path);
    });
    try {
      await migrate(db);
      await prepareSaves(db);
      await doChores(db, files);
    } catch (error) {
      await db.close();
      throw error;
    }
    return pgliteStore({ db, files, databaseFolder: path, first, unlock });
  } catch (error) {
    await unlock();
    throw error;
  }
}

/** Runs the .sql files that have not run yet, in order of their names, each in a transaction. */
export async function migrate(db: Database): Promise<void> {
  await db.exec(
    'CREATE TABLE IF NOT EXISTS migrations (name text PRIMARY KEY, ran_at timestamptz NOT NULL DEFAULT now())',
  );
  const folder = fileURLToPath(new URL('./sql/', import.meta.url));
  const known = new Set((await db.query<{ name: string }>('SELECT name FROM migrations')).rows.map((r) => r.name));
  const files = (await readdir(folder)).filter((name) => name.endsWith('.sql')).sort();
  const newer = [...known].find((name) => !files.includes(name));
  if (newer)
    throw new Error(
      `This data folder was written by a newer Mold Stamp (migration ${newer}). Update the program to open it.`,
    );
  for (const name of files.filter((f) => !known.has(f))) {
    const sql = await readFile(join(folder, name), 'utf8');
    await db.transaction(async (tx) => {
      await tx.exec(sql);
      await tx.query('INSERT INTO migrations (name) VALUES ($1)', [name]);
    });
  }
}

/**
 * Bytes first, the database last and under its name only when it is whole: a copy cut short is never taken for a data
 * folder.
 */
async function copyTemplate(template: string, folder: string): Promise<void> {
  const begun = join(folder, 'db.new');
  await rm(begun, { recursive: true, force: true });
  // There before the bytes: it says that they belong to a start that was cut short, and not to a database that is gone.
  await mkdir(begun);
  if (await exists(join(template, 'blobs'))) copySynced(join(template, 'blobs'), join(folder, 'blobs'));
  copySynced(join(template, 'db'), begun);
  await rename(begun, join(folder, 'db'));
  await syncFolder(folder);
}

/**
 * Brings a thousand small files, and the folders that name them, to the disk; one call after the other, since a wait
 * for each costs more than the copy. Nothing else goes on yet.
 */
function copySynced(from: string, to: string): void {
  mkdirSync(to, { recursive: true });
  for (const entry of readdirSync(from, { withFileTypes: true })) {
    const [one, copy] = [join(from, entry.name), join(to, entry.name)];
    if (entry.isDirectory()) copySynced(one, copy);
    else {
      copyFileSync(one, copy);
      sync(copy);
    }
  }
  sync(to);
}

function sync(path: string): void {
  const file = openSync(path, 'r');
  try {
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
}

async function exists(path: string): Promise<boolean> {
  return stat(path).then(
    () => true,
    () => false,
  );
}
