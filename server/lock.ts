/**
 * One server a data folder: two would damage the database. The operating system holds the lock and lets go of it when
 * the process ends, however it ends; the number in the file is for people alone.
 */
import { open, readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';

/** Whether the file behind the descriptor is locked now for this one alone. */
const { tryLock } = createRequire(import.meta.url)('fs-native-extensions') as { tryLock(fd: number): boolean };

/** Answers what unlocks it: whoever holds the lock keeps that, for with it goes the file and the lock. */
export async function lockFolder(path: string): Promise<() => Promise<void>> {
  const file = await open(path, 'a+');
  if (!tryLock(file.fd)) {
    await file.close();
    const owner = Number(await readFile(path, 'utf8').catch(() => ''));
    const who = Number.isInteger(owner) && owner > 0 ? ` (process ${owner})` : '';
    throw new Error(
      `Another Mold Stamp server${who} has this data folder open. Stop it first, or set MOLDSTAMP_DATA to another folder.`,
    );
  }
  await file.truncate(0);
  await file.write(String(process.pid), 0);
  // The file stays: whoever took it away could take one away that another has just locked.
  return () => file.close();
}
