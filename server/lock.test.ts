/** One server a data folder, whoever comes and however the last one ended. */
import { spawn } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { lockFolder } from './lock';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

test('held once, free again when it is given back', async () => {
  const path = join(folder, 'one');
  const unlock = await lockFolder(path);
  await expect(lockFolder(path)).rejects.toThrow(`process ${process.pid}) has this data folder open`);
  await unlock();
  await (
    await lockFolder(path)
  )();
});

test('of many that come at once one gets it, on a fresh folder and over a lock file that was left', async () => {
  for (let n = 0; n < 100; n++) {
    const path = join(folder, `race-${n}`);
    // A number that some other program has now.
    if (n % 2) await writeFile(path, '1');
    const got = await Promise.allSettled(Array.from({ length: 4 }, () => lockFolder(path)));
    const won = got.filter((g) => g.status === 'fulfilled');
    expect(won).toHaveLength(1);
    await won[0].value();
  }
});

test('a process that was killed holds nothing, whoever has its number now', async () => {
  const path = join(folder, 'killed');
  const holder = spawn(
    process.execPath,
    [
      '--import',
      'tsx',
      '-e',
      `
    import('${join(import.meta.dirname, 'lock.ts')}').then(async ({ lockFolder }) => { globalThis.unlock = await lockFolder(process.argv[1]); console.log('held'); setInterval(() => {}, 1000); });
  `,
      path,
    ],
    { stdio: ['ignore', 'pipe', 'inherit'], env: { ...process.env, NODE_OPTIONS: '' } },
  );
  await new Promise((done) => holder.stdout.once('data', done));
  await expect(lockFolder(path)).rejects.toThrow(`process ${holder.pid})`);
  const ended = new Promise((done) => holder.once('exit', done));
  holder.kill('SIGKILL');
  await ended;
  await (
    await lockFolder(path)
  )();
});
