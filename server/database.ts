/** Opens the database: from the template on the first start, migrated to the newest schema, locked to this process. */
import { cp, mkdir, readdir, readFile, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PGlite } from '@electric-sql/pglite';
import { lockFolder } from './lock';

export type Database = PGlite;

export interface OpenDatabase {
  db: Database;
  /** True when this start made the database. */
  first: boolean;
  close(): Promise<void>;
}

export interface OpenOptions {
  /** Folder of the data; made when missing. */
  folder: string;
  /** A closed database folder to begin with; without one an empty database is made, which takes longer. */
  template?: string | undefined;
}

export async function openDatabase(options: OpenOptions): Promise<OpenDatabase> {
  await mkdir(options.folder, { recursive: true });
  const unlock = await lockFolder(join(options.folder, 'server.lock'));
  try {
    const path = join(options.folder, 'db');
    const first = !(await exists(path));
    if (first && options.template && (await exists(options.template))) {
      // Copied beside and renamed, so that a copy cut short is never taken for a database.
      await rm(`${path}.new`, { recursive: true, force: true });
      await cp(options.template, `${path}.new`, { recursive: true });
      await rename(`${path}.new`, path);
    }
    const db = await PGlite.create(path);
    await migrate(db);
    return {
      db, first,
      close: async () => {
        await db.close();
        await unlock();
      },
    };
  } catch (error) {
    await unlock();
    throw error;
  }
}

/** Runs the .sql files that have not run yet, in order of their names, each in a transaction. */
export async function migrate(db: Database): Promise<void> {
  await db.exec('CREATE TABLE IF NOT EXISTS migrations (name text PRIMARY KEY, ran_at timestamptz NOT NULL DEFAULT now())');
  const folder = fileURLToPath(new URL('./sql/', import.meta.url));
  const known = new Set((await db.query<{ name: string }>('SELECT name FROM migrations')).rows.map((r) => r.name));
  const files = (await readdir(folder)).filter((name) => name.endsWith('.sql')).sort();
  const newer = [...known].find((name) => !files.includes(name));
  if (newer) throw new Error(`This data folder was written by a newer Mold Stamp (migration ${newer}). Update the program to open it.`);
  for (const name of files.filter((f) => !known.has(f))) {
    const sql = await readFile(join(folder, name), 'utf8');
    await db.transaction(async (tx) => {
      await tx.exec(sql);
      await tx.query('INSERT INTO migrations (name) VALUES ($1)', [name]);
    });
  }
}

async function exists(path: string): Promise<boolean> {
  return stat(path).then(() => true, () => false);
}
