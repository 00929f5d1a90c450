import { mkdir, mkdtemp, readdir, rm, truncate, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { newBrush } from '#core/settings';
import { start, type Running } from './start';
import { good, namesOf } from './testAsks';
import { seededTemplate } from './testTemplate';

let folder: string;
const page = resolve(import.meta.dirname, '../web');
const open = (more: object = {}): Promise<Running> => start({ folder, page, port: 0, version: 'test', ...more });

beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'mold-stamp-damaged-'));
});
afterEach(() => rm(folder, { recursive: true, force: true }));

test('a folder whose database is damaged is never opened as an empty one; one command brings the newest copy back', async () => {
  const template = await seededTemplate();
  const first = await open({ template });
  const brush = newBrush('00000000-0000-4000-8000-00000000abcd', 'Kept through it');
  await good(first, `/brushes/${brush.id}`, 'PUT', { doc: brush, revision: null });
  await good(first, '/backups', 'POST');
  await first.close();

  const damages: [string, () => Promise<unknown>][] = [
    ['PG_VERSION is missing', () => rm(join(folder, 'db', 'PG_VERSION'))],
    ['PG_VERSION or its folder', () => writeFile(join(folder, 'db', 'PG_VERSION'), 'nonsense')],
    [
      'no database',
      async () => {
        await rm(join(folder, 'db'), { recursive: true });
        await mkdir(join(folder, 'db'));
      },
    ],
    ['no database', () => rm(join(folder, 'db'), { recursive: true })],
    ['is a file', () => writeFile(join(folder, 'db'), '')],
  ];
  for (const [what, damage] of damages) {
    await damage();
    const before = await readdir(folder);
    const refused = await open({ template }).then(
      () => null,
      (error: Error) => error.message,
    );
    expect(refused).toContain(what);
    expect(refused).toContain(folder);
    expect(refused).toContain('npm run restore');
    expect(await readdir(folder)).toEqual(before);
  }

  const again = await open({ template, anew: true });
  expect((await namesOf(again, 'brushes')).get(brush.id)).toBe('Kept through it');
  await again.close();
  expect((await readdir(folder)).some((name) => name.startsWith('db.damaged-'))).toBe(true);
  // It opens as ever from then on.
  await (await open()).close();
}, 120_000);

test('a database that looks whole and isn’t ends with a sentence, not with the engine’s words', async () => {
  await (await open({ template: await seededTemplate() })).close();
  await truncate(join(folder, 'db', 'global', 'pg_control'), 10);
  await expect(open()).rejects.toThrow(/can’t be opened .*npm run restore/s);
  // Without a backup the restore says so, and what is damaged is where it was: no start opens an empty one.
  await expect(open({ anew: true })).rejects.toThrow('There is no backup');
  await expect(open()).rejects.toThrow('npm run restore');
}, 60_000);

test('a first start that was cut short begins again', async () => {
  await mkdir(join(folder, 'db.new'));
  await mkdir(join(folder, 'blobs'));
  await writeFile(join(folder, 'blobs', 'half'), 'bytes');
  const running = await open({ template: await seededTemplate() });
  expect(running.first).toBe(true);
  await running.close();
}, 60_000);
