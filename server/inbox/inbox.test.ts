import { appendFile, chmod, mkdir, mkdtemp, readdir, rm, symlink, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { QUIET_MS } from './arrivals';
import { Inbox } from './inbox';

let folder: string;
let now = 0;
const inbox = (at = folder): Inbox => new Inbox(at, () => now);
beforeEach(async () => {
  folder = join(await mkdtemp(join(tmpdir(), 'mold-stamp-inbox-')), 'inbox');
  now = 0;
});
afterEach(() => rm(join(folder, '..'), { recursive: true, force: true }));

async function quiet(box: Inbox): Promise<void> {
  await box.look();
  now += QUIET_MS;
  await box.look();
}

test('the folder is made; a file is given once it is whole, and goes to “taken” with a number where the name is there', async () => {
  const box = inbox();
  await box.look();
  expect(box.state()).toEqual({ folder, problem: null, files: [] });
  for (let n = 0; n < 2; n++) {
    await writeFile(join(folder, 'page.png'), 'half');
    await box.look();
    now += QUIET_MS - 1;
    await appendFile(join(folder, 'page.png'), 'whole');
    await box.look();
    now += 1;
    expect(box.state().files).toMatchObject([{ name: 'page.png', state: 'growing' }]);
    now += QUIET_MS;
    await box.look();
    const [{ id, state }] = box.state().files;
    expect(state).toBe('whole');
    expect(box.claim(id)).toEqual({ name: 'page.png', bytes: 9 });
    expect(() => box.claim(id)).toThrow('another page');
    expect(box.pathOf(id).path).toBe(join(folder, 'page.png'));
    await box.settle(id, { ok: true });
    await box.look();
    expect(box.state().files).toEqual([]);
  }
  expect((await readdir(join(folder, 'taken'))).sort()).toEqual(['page 2.png', 'page.png']);
});

test('folders inside are looked into; unfinished and hidden files, links and what was taken are passed over', async () => {
  await mkdir(join(folder, 'camera', 'monday'), { recursive: true });
  await mkdir(join(folder, 'taken'));
  for (const path of ['camera/monday/rock.jpg', 'taken/old.png', '.hidden.png', 'scan.ply.part', '~lock.png', 'x.obj~'])
    await writeFile(join(folder, path), 'x');
  await symlink('/etc/hostname', join(folder, 'leads out.png'));
  const box = inbox();
  await quiet(box);
  expect(box.state().files.map(({ name }) => name)).toEqual(['camera/monday/rock.jpg']);
});

test('what isn’t a picture or a mesh, or was refused by the page, says why and stays', async () => {
  await mkdir(folder, { recursive: true });
  await writeFile(join(folder, 'notes.txt'), 'x');
  await writeFile(join(folder, 'torn.ply'), 'x');
  const box = inbox();
  await quiet(box);
  const [notes, torn] = box.state().files;
  expect(notes).toMatchObject({
    state: 'refused',
    why: expect.stringContaining('neither a picture nor a mesh') as string,
  });
  box.claim(torn.id);
  await box.settle(torn.id, { ok: false, why: 'torn.ply can’t be read.' });
  await box.look();
  expect(box.state().files[1]).toMatchObject({ state: 'refused', why: 'torn.ply can’t be read.' });
  // Written anew it is another file.
  await writeFile(join(folder, 'torn.ply'), 'whole now');
  await quiet(box);
  expect(box.state().files[1]).toMatchObject({ state: 'whole', why: null });
});

test('an inbox that can’t be read says why, and is there again when it can', async () => {
  await mkdir(join(folder, '..'), { recursive: true });
  await writeFile(folder, 'a file');
  const box = inbox();
  await box.look();
  expect(box.state().problem).toContain('there is a file where a folder should be');
  await rm(folder);
  await box.look();
  expect(box.state().problem).toBeNull();
});

test('one that can’t be moved was taken in all the same, and is told', async () => {
  await mkdir(folder, { recursive: true });
  await writeFile(join(folder, 'page.png'), 'x');
  const box = inbox();
  await quiet(box);
  const [{ id }] = box.state().files;
  box.claim(id);
  // Something else stands where “taken” should be.
  await writeFile(join(folder, 'taken'), 'x');
  await chmod(folder, 0o755);
  await box.settle(id, { ok: true });
  expect(box.state().problem).toContain('was taken in, but can’t be moved');
  expect(() => box.claim(id)).toThrow();
});

test('watching ends when it is closed', async () => {
  const box = inbox();
  box.watch();
  await box.close();
  expect(box.state().problem).toBeNull();
});
