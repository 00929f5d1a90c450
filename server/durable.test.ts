/**
 * What was acknowledged is on the disk before the answer goes out: shown by a trace of the server's system calls. The
 * trace has the writes to the network and to files, and the syncs, of all its threads, in their order.
 */
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { newBrush } from '#core/settings';
import { SERVER } from './testKit';
import { seededTemplate } from './testTemplate';

const root = resolve(import.meta.dirname, '..');

/** A tool of the system, from Debian's packages where it isn't there. */
function tracer(): string {
  if (spawnSync('strace', ['-V']).status === 0) return 'strace';
  const admin = process.getuid?.() === 0 ? [] : ['sudo'];
  for (const words of [
    ['apt-get', 'update', '-qq'],
    ['apt-get', 'install', '-y', '-qq', 'strace'],
  ]) {
    const [command, ...args] = [...admin, ...words] as [string, ...string[]];
    spawnSync(command, args, { stdio: 'ignore' });
  }
  return 'strace';
}

interface Call {
  name: string;
  text: string;
}

/**
 * Calls in the order in which they ended. One that another thread's call cuts in two has what it was given in its first
 * half and its result in the second.
 */
function callsOf(trace: string): Call[] {
  const begun = new Map<string, string>();
  return trace.split('\n').flatMap((line) => {
    const [, thread, resumed, name, rest] = /^(\d+)\s+(<\.\.\. )?(\w+)(?: resumed>|\()(.*)$/.exec(line) ?? [];
    if (!thread || !name) return [];
    if (rest.includes('<unfinished')) {
      begun.set(thread, rest);
      return [];
    }
    return [{ name, text: resumed ? `${begun.get(thread) ?? ''}${rest}` : rest }];
  });
}

test('a call that another thread cuts in two is one call, at the place where it ended', () => {
  expect(
    callsOf(
      [
        '7 pwrite64(5</data/pg_wal/1>, "a", 1, 0 <unfinished ...>',
        '8 fsync(6</data/blobs/begun/x>) = 0',
        '7 <... pwrite64 resumed>) = 1',
      ].join('\n'),
    ),
  ).toEqual([
    { name: 'fsync', text: '6</data/blobs/begun/x>) = 0' },
    { name: 'pwrite64', text: '5</data/pg_wal/1>, "a", 1, 0 <unfinished ...>) = 1' },
  ]);
});

const serverIn = async (folder: string): Promise<number> =>
  Number(await readFile(join(folder, 'data', 'server.lock'), 'utf8'));

test('a save and a blob are synced before they are answered', async () => {
  const folder = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
  const log = join(folder, 'trace');
  const template = await seededTemplate();
  const child = spawn(
    tracer(),
    [
      '-f',
      '-y',
      '-s',
      '60',
      '-e',
      'trace=write,writev,pwrite64,fsync,fdatasync,rename,renameat2',
      '-o',
      log,
      process.execPath,
      ...SERVER,
    ],
    {
      cwd: root,
      stdio: ['ignore', 'pipe', 'inherit'],
      env: {
        ...process.env,
        NODE_OPTIONS: '',
        PORT: '0',
        MOLDSTAMP_DATA: join(folder, 'data'),
        MOLDSTAMP_TEMPLATE: template,
      },
    },
  );
  try {
    const address = await new Promise<string>((done, fail) => {
      child.stdout.on('data', (part: Buffer) => {
        const found = /http:\S+/.exec(part.toString());
        if (found) done(found[0]);
      });
      child.once('exit', () => fail(new Error('The server ended.')));
    });
    const saves = 5;
    for (let n = 0; n < saves; n++) {
      const doc = newBrush(crypto.randomUUID(), `Durable ${n}`);
      const answer = await fetch(`${address}/api/brushes/${doc.id}`, {
        method: 'PUT',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ doc, revision: null }),
      });
      expect(answer.status).toBe(200);
    }
    const bytes = new Uint8Array(5000).fill(7);
    const hash = createHash('sha256').update(bytes).digest('hex');
    expect((await fetch(`${address}/api/blobs/${hash}`, { method: 'PUT', body: bytes })).status).toBe(200);
    const ended = new Promise((done) => child.once('exit', done));
    process.kill(await serverIn(folder), 'SIGTERM');
    await ended;

    const calls = callsOf(await readFile(log, 'utf8'));
    const isLog = ({ name, text }: Call): boolean =>
      /^(pwrite64|write|writev)$/.test(name) && text.includes('/pg_wal/');
    const isLogSync = ({ name, text }: Call): boolean => /^f(data)?sync$/.test(name) && text.includes('/pg_wal/');
    const answers = calls.flatMap(({ name, text }, i) =>
      /^writev?$/.test(name) && text.includes('HTTP/1.1 200') ? [i] : [],
    );
    expect(answers).toHaveLength(saves + 1);
    let from = 0;
    for (const [n, answer] of answers.entries()) {
      const between = calls.slice(from, answer);
      // What the log got since the answer before is synced: nothing was written after the last sync.
      const written = between.findLastIndex(isLog);
      expect(written).toBeGreaterThanOrEqual(0);
      expect(between.findIndex((call, i) => i > written && isLogSync(call))).toBeGreaterThan(written);
      if (n === saves) {
        const begun = between.findIndex(({ name, text }) => name === 'fsync' && text.includes('/blobs/begun/'));
        const named = between.findIndex(({ name, text }) => name.startsWith('rename') && text.includes(hash));
        const kept = between.findIndex(
          ({ name, text }, i) => i > named && name === 'fsync' && text.includes(`/blobs/${hash.slice(0, 2)}`),
        );
        expect([begun < named, named < kept, begun >= 0]).toEqual([true, true, true]);
      }
      from = answer;
    }
  } finally {
    // The tracer alone would leave what it traces behind.
    if (child.exitCode === null) process.kill(await serverIn(folder), 'SIGKILL');
    await rm(folder, { recursive: true, force: true, maxRetries: 3 });
  }
}, 120_000);
