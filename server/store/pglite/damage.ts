/**
 * Whether a data folder may be opened: one that holds traces of earlier work and no database that can be read is never
 * taken for a new one, and never written over.
 */
import { readFile, readdir, rename, rm, stat } from 'node:fs/promises';
import { join, sep } from 'node:path';

/** What was kept here can't be opened; nothing was changed. */
export class DamagedDataError extends Error {
  constructor(folder: string, what: string) {
    super(
      `The data in ${folder} is damaged: ${what} Nothing was changed. To restore the newest backup, run: npm run restore (the damaged database is kept beside it).`,
    );
  }
}

export type FolderState = 'new' | 'whole';

/** Throws DamagedDataError. `backups` is the folder of copies; one that lies elsewhere may be of other data. */
export async function judgeFolder(folder: string, backups: string): Promise<FolderState> {
  await plainFolder(folder, folder);
  const db = join(folder, 'db');
  const kind = await kindOf(db);
  if (kind === 'file') throw new DamagedDataError(folder, 'its database is a file and not a folder.');
  const version = await readFile(join(db, 'PG_VERSION'), 'utf8').catch(() => null);
  if (version !== null && /^\d+\s*$/.test(version) && (await kindOf(join(db, 'global'))) === 'folder') return 'whole';
  // A first start that was cut short leaves the database under another name.
  if (kind === 'none' && (await kindOf(join(folder, 'db.new'))) === 'folder') return 'new';
  const files = kind === 'folder' ? await readdir(db) : [];
  if (files.length > 0) throw new DamagedDataError(folder, `its database can’t be read (${missing(version)}).`);
  const blobs = (await holds(join(folder, 'blobs'))) ? 'there are pictures and meshes, but no database.' : null;
  const own = backups.startsWith(folder + sep);
  const copies =
    own && (await readdir(backups).catch(() => [])).some((name) => name.endsWith('.zip'))
      ? 'there are backups, but no database.'
      : null;
  if (blobs ?? copies) throw new DamagedDataError(folder, (blobs ?? copies)!);
  return 'new';
}

const missing = (version: string | null): string =>
  version === null ? 'PG_VERSION is missing' : 'PG_VERSION or its folder “global” is damaged';

/** The engine's own words, when it doesn't open what looked whole, say nothing to whoever reads them. */
export function unreadable(folder: string, error: unknown): Error {
  const said = error instanceof Error ? error.message.split('\n')[0] : String(error);
  return new DamagedDataError(folder, `its database can’t be opened (${said.replace(/\.$/, '')}).`);
}

/** The damaged database under another name; answers that name, null where there is none. */
export async function setAside(folder: string, now = new Date()): Promise<string | null> {
  const db = join(folder, 'db');
  if ((await kindOf(db)) === 'none') return null;
  const name = `db.damaged-${now.toISOString().replace(/[:.]/g, '-')}`;
  await rename(db, join(folder, name));
  return name;
}

/** As it was before it was set aside: what was begun in its place goes. */
export async function putBack(folder: string, name: string): Promise<void> {
  await rm(join(folder, 'db'), { recursive: true, force: true });
  await rename(join(folder, name), join(folder, 'db'));
}

/** Names that `setAside` gave, the newest last. */
export async function asideIn(folder: string): Promise<string[]> {
  return (await readdir(folder).catch(() => [])).filter((name) => name.startsWith('db.damaged-')).sort();
}

async function plainFolder(path: string, folder: string): Promise<void> {
  if ((await kindOf(path)) === 'file') throw new Error(`${folder} is a file. MOLDSTAMP_DATA must be a folder.`);
}

async function kindOf(path: string): Promise<'none' | 'file' | 'folder'> {
  return stat(path).then(
    (found) => (found.isDirectory() ? 'folder' : 'file'),
    () => 'none',
  );
}

/** Any file at any depth. */
async function holds(path: string): Promise<boolean> {
  const entries = await readdir(path, { withFileTypes: true }).catch(() => []);
  for (const entry of entries) if (entry.isFile() || (await holds(join(path, entry.name)))) return true;
  return false;
}
