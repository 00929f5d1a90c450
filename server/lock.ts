/**
 * One server a data folder: two would damage the database. The lock file holds the owner's process number,
 * so that a lock left by a server that was killed is taken over.
 */
import { readFile, rm, writeFile } from 'node:fs/promises';

export async function lockFolder(path: string): Promise<() => Promise<void>> {
  for (let attempt = 0; attempt < 2; attempt++) {
    try {
      await writeFile(path, String(process.pid), { flag: 'wx' });
      return () => rm(path, { force: true });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
    }
    const owner = Number(await readFile(path, 'utf8').catch(() => ''));
    if (owner !== process.pid && isRunning(owner)) {
      throw new Error(`Another Mold Stamp server (process ${owner}) has this data folder open. Stop it first, or set MOLDSTAMP_DATA to another folder.`);
    }
    await rm(path, { force: true });
  }
  throw new Error('The data folder could not be locked.');
}

function isRunning(pid: number): boolean {
  if (!Number.isInteger(pid) || pid <= 0) return false;
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}
