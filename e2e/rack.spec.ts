/** The rack with the real pointer: packs, order by dragging, choosing many, and undo of all of it. */
import { readFile, writeFile } from 'node:fs/promises';
import type { Locator, Page } from '@playwright/test';
import { Uint8ArrayReader, Uint8ArrayWriter, ZipReader } from '@zip.js/zip.js';
import { validateBytes } from 'gltf-validator';
import sharp from 'sharp';
import { newBrush, newPack } from '#core/settings';
import { choose, expect, giveFiles, keysNamedTwice, openBrush, pick, sayDelete, set, test } from './app';

test.use({ shares: false });

const shelf = (page: Page, name: string): Locator => page.getByRole('region', { name, exact: true });
const card = (page: Page, name: string): Locator => page.getByRole('button', { name: `Open ${name}`, exact: true });
const names = (page: Page, of: string): Promise<string[]> => shelf(page, of).locator('.card .name').allInnerTexts();

async function at(of: Locator, across = 0.5): Promise<[number, number]> {
  const box = (await of.boundingBox())!;
  return [box.x + box.width * across, box.y + box.height / 2];
}
/** Presses on one and lets go over the other. */
async function drag(page: Page, from: Locator, to: Locator, across = 0.2): Promise<void> {
  const [x, y] = await at(from);
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 12, y + 5, { steps: 3 });
  await page.mouse.move(...(await at(to, across)), { steps: 10 });
  // The others have made room.
  await page.waitForTimeout(200);
  await page.mouse.up();
}

test('brushes are dragged into order, to another group and another pack, undone by key and kept', async ({
  page,
  app,
}) => {
  test.slow();
  await page.goto(app.address);
  const start = ['Crust, grown', 'Barnacle press', 'Barnacle trail', 'Limpet press', 'Sponge trail'];
  await expect(card(page, 'Sea pits')).toBeVisible();
  expect((await names(page, 'Harbour crusts')).slice(0, 5)).toEqual(start);
  await drag(page, card(page, 'Limpet press'), card(page, 'Crust, grown'));
  const moved = ['Limpet press', 'Crust, grown', 'Barnacle press', 'Barnacle trail', 'Sponge trail'];
  await expect.poll(async () => (await names(page, 'Harbour crusts')).slice(0, 5)).toEqual(moved);
  await drag(page, card(page, 'Barnacle press'), card(page, 'Sea pits'), 0.8);
  await expect.poll(async () => (await names(page, 'Harbour crusts')).at(-1)).toBe('Barnacle press');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await names(page, 'Harbour crusts')).slice(0, 5)).toEqual(moved);

  // A pack of one's own: chosen with keys held, put in, described, and there after a reload.
  await card(page, 'Limpet press').click({ modifiers: ['Control'] });
  await card(page, 'Barnacle trail').click({ modifiers: ['Shift'] });
  await expect(page.getByText('4 chosen')).toBeVisible();
  await page.getByRole('button', { name: 'Put in a pack' }).click();
  await page.getByRole('button', { name: 'New pack…' }).click();
  await page.getByLabel('Name', { exact: true }).fill('For the film');
  await page.getByLabel('Maker').fill('Northquay');
  await page.getByRole('dialog').getByRole('button', { name: 'Keep' }).click();
  await expect.poll(() => names(page, 'For the film')).toEqual(moved.slice(0, 4));
  await page.keyboard.press('Escape');
  await expect(page.getByText('4 chosen')).toBeHidden();
  await expect
    .poll(async () => (await (await fetch(`${app.address}/api/packs`)).json()).items.length, { timeout: 10_000 })
    .toBe(4);
  await page.reload();
  await expect.poll(() => names(page, 'For the film')).toEqual(moved.slice(0, 4));
  // In several packs at once.
  await expect.poll(async () => (await names(page, 'Harbour crusts')).slice(0, 5)).toEqual(moved);
  await page.getByRole('button', { name: 'Delete the pack For the film' }).click();
  await expect(shelf(page, 'For the film')).toBeHidden();
  await expect(card(page, 'Limpet press')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect.poll(() => names(page, 'For the film')).toEqual(moved.slice(0, 4));
});

test('a box round cards, all by key, names by a pattern, tags, delete and undo; the keys have one meaning each', async ({
  page,
  app,
}) => {
  test.slow();
  await page.goto(app.address);
  await expect(card(page, 'Sea pits')).toBeVisible();
  const pits = (await shelf(page, 'Harbour crusts').locator('.card').last().boundingBox())!;
  const chisel = (await card(page, 'Chisel marks').boundingBox())!;
  await page.mouse.move(pits.x + pits.width + 60, pits.y + 40);
  await page.mouse.down();
  await page.mouse.move(chisel.x + 20, chisel.y + 20, { steps: 8 });
  await expect(page.getByText('2 chosen')).toBeVisible();
  await page.mouse.up();
  await page.getByRole('button', { name: 'Rename…' }).click();
  await page.getByLabel('Pattern of the names').fill('Stone {n}');
  await expect(page.getByLabel('New names')).toContainText('Stone 2');
  await page.getByRole('button', { name: 'Rename all' }).click();
  await expect(card(page, 'Stone 2')).toBeVisible();
  await page.getByRole('button', { name: 'Tag…' }).click();
  await page
    .getByRole('dialog')
    .getByRole('combobox')
    .or(page.getByRole('dialog').locator('input'))
    .first()
    .fill('worn');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Tag', exact: true }).click();
  await page.getByRole('searchbox').fill('worn stone');
  await expect(page.locator('.card')).toHaveCount(2);
  await page.getByRole('searchbox').fill('');
  await page.getByRole('heading', { name: 'Rack', exact: true }).click();

  await page.keyboard.press('Control+a');
  await expect(page.getByText('23 chosen')).toBeVisible();
  await page.keyboard.press('Delete');
  await sayDelete(page, '18 brushes');
  // The base brushes stay.
  await expect(page.getByText('18 brushes deleted.')).toBeVisible({ timeout: 20_000 });
  await expect(page.locator('.card')).toHaveCount(5);
  await page.keyboard.press('Control+z');
  await expect(page.locator('.card')).toHaveCount(23, { timeout: 20_000 });
  await page.keyboard.press('?');
  expect(await keysNamedTwice(page)).toEqual([]);
});

test('sources are found by what is typed, renamed, copied and deleted, and all of it is undone', async ({
  page,
  app,
}) => {
  await page.goto(`${app.address}/sources`);
  const shown = (): Promise<string[]> => page.locator('.card b').allInnerTexts();
  await page.getByRole('searchbox').fill('barnacle');
  // Two alphas were cast from the slab of that name.
  await expect.poll(shown).toEqual(['Barnacle crust', 'Crust, whole', 'One barnacle']);
  await page.getByRole('button', { name: 'Copy Barnacle crust' }).click();
  await expect.poll(shown).toContain('Barnacle crust copy');
  await page.getByRole('button', { name: 'Rename One barnacle' }).click();
  const field = page.getByLabel('New name');
  await field.fill('crust, WHOLE');
  await page.keyboard.press('Enter');
  await expect(page.locator('.sentence-bad')).toContainText('already an alpha called');
  await field.fill('Lone barnacle');
  await page.keyboard.press('Enter');
  await expect.poll(shown).toContain('Lone barnacle');
  await page.getByRole('button', { name: 'Delete Barnacle crust copy' }).click();
  await expect.poll(shown).toEqual(['Barnacle crust', 'Crust, whole', 'Lone barnacle']);
  for (const [key, names] of [
    ['Control+z', ['Barnacle crust', 'Barnacle crust copy', 'Crust, whole', 'Lone barnacle']],
    ['Control+z', ['Barnacle crust', 'Barnacle crust copy', 'Crust, whole', 'One barnacle']],
    ['Control+z', ['Barnacle crust', 'Crust, whole', 'One barnacle']],
    ['Control+y', ['Barnacle crust', 'Barnacle crust copy', 'Crust, whole', 'One barnacle']],
  ] as const) {
    await page.getByRole('heading', { name: 'Sources', exact: true }).click();
    await page.keyboard.press(key);
    await expect.poll(shown).toEqual(names);
  }
  // What would break, or lose where it came from, is said before.
  const asked = (name: string): Locator => page.getByRole('dialog', { name: `Delete “${name}”?` });
  await page.getByRole('button', { name: 'Delete Barnacle crust', exact: true }).click();
  await expect
    .poll(async () => (await asked('Barnacle crust').getByRole('link').allInnerTexts()).sort())
    .toEqual(['Crust, whole', 'One barnacle']);
  await asked('Barnacle crust').getByRole('button', { name: 'Delete', exact: true }).click();
  // The other alpha was found by its source alone.
  await expect.poll(shown).toEqual(['Barnacle crust copy', 'One barnacle']);
  await page.keyboard.press('Control+z');
  await expect.poll(shown).toContain('Barnacle crust');
  await page.getByRole('button', { name: 'Delete One barnacle' }).click();
  await expect(asked('One barnacle').getByText('can’t do without it')).toBeVisible();
  await expect(asked('One barnacle').getByRole('button', { name: 'Delete', exact: true })).toHaveCount(0);
  await page.keyboard.press('Escape');
  await expect(asked('One barnacle')).toBeHidden();
  await page.getByRole('searchbox').fill('zzz');
  await expect(page.getByText('Nothing here fits this search.')).toBeVisible();
});

test('earlier saves are named, laid beside the brush and taken back; what was deleted comes back to its place', async ({
  page,
  app,
}) => {
  await openBrush(page, app, 'Barnacle trail');
  const size = page.getByLabel(/^Size, /);
  const first = await size.inputValue();
  for (const value of ['0.3', '0.11']) {
    await set(page, 'Size', value);
    await page.keyboard.press('Control+s');
    await expect(page.getByText('saved', { exact: true }).first()).toBeVisible();
    await expect(page.getByRole('button', { name: 'Save', exact: true })).toBeDisabled();
  }
  await page.getByRole('button', { name: 'Earlier saves' }).click();
  const saves = page.getByRole('dialog', { name: 'Earlier saves' });
  await expect(saves.locator('li')).toHaveCount(2);
  await expect(saves.locator('li').last()).toContainText('Other than now: Size');
  await page.getByLabel('Name of revision 1').fill('As it came');
  await page.getByLabel('Name of revision 1').press('Enter');
  await saves.getByRole('button', { name: 'Side by side' }).last().click();
  await expect(page.locator('.compared')).toBeVisible();
  await page.getByRole('button', { name: 'Earlier saves' }).click();
  await expect(page.getByLabel('Name of revision 1')).toHaveValue('As it came');
  await saves.getByRole('button', { name: 'Restore' }).last().click();
  await expect(size).toHaveValue(first);
  await page.keyboard.press('Control+Alt+z');
  await expect(size).toHaveValue('0.110');

  await page.getByRole('link', { name: 'Rack', exact: true }).click();
  await page.getByRole('button', { name: 'Delete Chisel marks' }).click();
  // The pack that loses it is named first.
  await expect(page.getByRole('dialog').getByRole('link')).toHaveText(['Harbour crusts']);
  await sayDelete(page, '“Chisel marks”');
  await expect(card(page, 'Chisel marks')).toHaveCount(0);
  await page.reload();
  await page.getByRole('button', { name: 'Trash', exact: true }).click();
  await page.getByRole('button', { name: 'Restore Chisel marks' }).click();
  await expect(page.getByText('Nothing was deleted.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect.poll(() => names(page, 'Harbour crusts')).toContain('Chisel marks');
  expect((await names(page, 'Harbour crusts')).slice(-3)).toEqual(['Crate mark press', 'Chisel marks', 'Sea pits']);
});

test('packs are written as folders that other programs read and as one file; that one is looked into and taken, or says what is wrong', async ({
  page,
  app,
}) => {
  test.slow();
  await page.goto(app.address);
  await expect(card(page, 'Sea pits')).toBeVisible();
  const written = async (ask: () => Promise<void>): Promise<{ name: string; bytes: Buffer }> => {
    const [download] = await Promise.all([page.waitForEvent('download'), ask()]);
    return { name: download.suggestedFilename(), bytes: await readFile(await download.path()) };
  };
  const dialog = page.getByRole('dialog');
  const write = async (button: string, form: string): Promise<void> => {
    await page.getByRole('button', { name: button, exact: true }).click();
    await pick(dialog, form);
    await dialog.getByRole('button', { name: 'Write', exact: true }).click();
  };
  const whole = (): Promise<void> => write('Write Harbour crusts', 'Plain folders');
  const one = await written(whole);
  expect(one.name).toBe('Harbour crusts.zip');
  expect((await written(whole)).bytes.equals(one.bytes)).toBe(true);
  const files = await unzipped(one.bytes);
  expect(Buffer.from(files.get('Harbour crusts/About.txt')!).toString()).toContain('Licence: CC-BY-4.0');
  const at = 'Harbour crusts/Growth/Limpet press';
  const { width, height, depth } = await sharp(files.get(`${at}/Form, Limpet.png`)).metadata();
  expect([width, height, depth]).toEqual([512, 512, 'ushort']);
  expect((await sharp(files.get(`${at}/Picture.png`)).metadata()).format).toBe('png');
  expect(
    (JSON.parse(Buffer.from(files.get(`${at}/Settings.json`)!).toString()) as { card: { name: string } }).card.name,
  ).toBe('Limpet press');

  await card(page, 'Wharf fittings').click({ modifiers: ['Control'] });
  await card(page, 'Trenail row').click({ modifiers: ['Control'] });
  const some = await unzipped((await written(() => write('Write…', 'Plain folders'))).bytes);
  const parts = [...some.keys()].filter((path) => path.endsWith('.glb'));
  expect(parts.length).toBeGreaterThan(1);
  const report = await validateBytes(some.get(parts[0]!)!);
  expect(report.issues.numErrors).toBe(0);
  await page.keyboard.press('Escape');

  // As one file, which is opened where a brush of it is missing.
  const pack = await written(() => write('Write Harbour crusts', 'Pack file'));
  expect(pack.name).toBe('Harbour crusts.pack.zip');
  // As a page, which is opened without the product and saves the same file.
  const shared = await written(() => write('Write Harbour crusts', 'Web page'));
  expect(shared.name).toBe('Harbour crusts.html');
  const path = test.info().outputPath('shared.html');
  await writeFile(path, shared.bytes);
  const alone = await page.context().newPage();
  await alone.goto(`file://${path}`);
  await expect(alone.getByRole('heading', { name: 'Harbour crusts' })).toBeVisible();
  await expect(alone.getByRole('figure')).toHaveCount(8);
  const [saved] = await Promise.all([
    alone.waitForEvent('download'),
    alone.getByRole('button', { name: 'Save the pack file' }).click(),
  ]);
  expect(saved.suggestedFilename()).toBe('Harbour crusts.pack.zip');
  expect((await readFile(await saved.path())).equals(pack.bytes)).toBe(true);
  await alone.close();
  await page.getByRole('button', { name: 'Delete Limpet press' }).click();
  await sayDelete(page, '“Limpet press”');
  await expect(card(page, 'Limpet press')).toBeHidden();
  const open = async (name: string, bytes: Buffer): Promise<void> => {
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Open a pack…' }).click();
    await (await chooser).setFiles({ name, mimeType: 'application/zip', buffer: bytes });
  };
  await open('Harbour crusts.pack.zip', pack.bytes);
  await expect(dialog.getByText('1 new, 7 here already')).toBeVisible();
  await dialog.getByRole('button', { name: 'Take one' }).click();
  await expect(page.getByText('One brush taken from “Harbour crusts”.')).toBeVisible();
  await expect.poll(() => names(page, 'Harbour crusts')).toContain('Limpet press');
  await page.keyboard.press('Control+z');
  await expect(card(page, 'Limpet press')).toBeHidden();
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await names(page, 'Harbour crusts'))[3]).toBe('Limpet press');

  const broken = Buffer.from(pack.bytes);
  broken.write('broken', broken.indexOf('IDAT') + 400);
  await open('Damaged.pack.zip', broken);
  await expect(dialog.getByRole('alert')).toContainText('is damaged');
  await dialog.getByRole('button', { name: 'Close', exact: true }).click();
  await open('Cut.pack.zip', pack.bytes.subarray(0, 5000));
  await expect(page.getByText('“Cut.pack.zip” isn’t a pack, or is cut short')).toBeVisible();
});

test('files become brushes like a chosen one, in a pack of their own; what can’t be read says why; one undo takes all back', async ({
  page,
  app,
}) => {
  await page.goto(app.address);
  await expect(card(page, 'Sea pits')).toBeVisible();
  const hill = (k: number): Promise<Buffer> =>
    sharp(
      Buffer.from(
        Array.from({ length: 64 * 64 }, (_, i) => Math.max(0, 250 - k * Math.hypot((i % 64) - 32, i / 64 - 32))),
      ),
      { raw: { width: 64, height: 64, channels: 1 } },
    )
      .png()
      .toBuffer();
  const wedge = 'v 0 0 0\nv 10 0 0\nv 10 0 10\nv 0 0 10\nv 5 8 5\nf 1 2 3 4\nf 1 5 2\nf 2 5 3\nf 3 5 4\nf 4 5 1\n';
  await giveFiles(page, page.getByRole('button', { name: 'Brushes from files…' }), [
    { name: 'Hill.png', mimeType: 'image/png', buffer: await hill(9) },
    { name: 'Steep hill.png', mimeType: 'image/png', buffer: await hill(14) },
    { name: 'Broken.png', mimeType: 'image/png', buffer: Buffer.from('no picture') },
    { name: 'Wedge.obj', mimeType: 'model/obj', buffer: Buffer.from(wedge) },
  ]);
  const dialog = page.getByRole('dialog', { name: 'Brushes from files' });
  await choose(page, 'Pictures like', 'Barnacle trail');
  await choose(page, 'Meshes like', 'Trenail row');
  await dialog.getByLabel('New pack').fill('Hills');
  await dialog.getByRole('button', { name: 'Make brushes' }).click();
  await expect(dialog.getByText('1 left out:')).toBeVisible();
  await expect(dialog.getByText('Broken.png isn’t a picture that can be read')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect.poll(() => names(page, 'Hills')).toEqual(['Hill', 'Steep hill', 'Wedge']);
  const { items } = (await (await page.request.get(`${app.address}/api/brushes?limit=500`)).json()) as {
    items: { card: { name: string }; touch: { action: string }; stroke: { type: string } }[];
  };
  const made = (name: string): string[] =>
    items.filter((one) => one.card.name === name).flatMap(({ touch, stroke }) => [touch.action, stroke.type]);
  expect([made('Hill'), made('Wedge')]).toEqual([
    ['lift', 'trail'],
    ['insert', 'trail'],
  ]);

  await page.keyboard.press('Control+z');
  await expect(card(page, 'Wedge')).toBeHidden();
  await page.keyboard.press('Control+y');
  await expect.poll(() => names(page, 'Hills')).toEqual(['Hill', 'Steep hill', 'Wedge']);
});

test('of very many brushes only those that are seen are laid out; the last is dragged before another and stays there', async ({
  page,
  app,
}) => {
  const many = 120;
  const brushes = Array.from({ length: many }, (_, n) => newBrush(crypto.randomUUID(), `Shell ${n + 1}`, 'Northquay'));
  const pack = newPack(crypto.randomUUID(), 'Shells', { groups: [{ name: '', brushes: brushes.map(({ id }) => id) }] });
  const put = (path: string, doc: object) =>
    page.request.put(`${app.address}/api/${path}`, { data: { doc, revision: null } });
  for (const doc of brushes) expect((await put(`brushes/${doc.id}`, doc)).ok()).toBe(true);
  expect((await put(`packs/${pack.id}`, pack)).ok()).toBe(true);
  await page.goto(`${app.address}/?shelf=${pack.id}`);
  await expect(card(page, 'Shell 1')).toBeVisible();
  const laidOut = (): Promise<number> => page.locator('[data-card]').count();
  await expect.poll(laidOut).toBeLessThan(60);
  await page.keyboard.press('Control+a');
  await expect(page.getByText(`${many} chosen`)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText(`${many} chosen`)).toBeHidden();
  await page.mouse.move(700, 500);
  await expect
    .poll(async () => {
      await page.mouse.wheel(0, 3000);
      return card(page, `Shell ${many}`).isVisible();
    })
    .toBe(true);
  await card(page, `Shell ${many}`).scrollIntoViewIfNeeded();
  await expect.poll(laidOut).toBeLessThan(60);
  await expect(card(page, 'Shell 1')).toBeHidden();
  await drag(page, card(page, `Shell ${many}`), card(page, `Shell ${many - 7}`));
  const last = async (): Promise<string[]> =>
    (await names(page, 'Shells')).slice(-8).map((name) => name.replace(/\s+/g, ' '));
  await expect.poll(async () => (await last())[0]).toBe(`Shell ${many}`);
  expect((await last()).at(-1)).toBe(`Shell ${many - 1}`);
  await page.getByLabel('Search the rack').fill('shell 77');
  await expect(card(page, 'Shell 77')).toBeVisible();
  await expect.poll(laidOut).toBe(1);
});

async function unzipped(bytes: Uint8Array): Promise<Map<string, Uint8Array>> {
  const reader = new ZipReader(new Uint8ArrayReader(new Uint8Array(bytes)));
  const out = new Map<string, Uint8Array>();
  for (const entry of await reader.getEntries())
    if (!entry.directory) out.set(entry.filename, await entry.getData(new Uint8ArrayWriter()));
  return out;
}

test('racks side by side: a brush is dragged from one into the other, with a key held it stays in both', async ({
  page,
  app,
}) => {
  const ids = (await (await fetch(`${app.address}/api/brushes`)).json()).items
    .filter(({ base }: { base: boolean }) => !base)
    .map(({ id }: { id: string }) => id);
  const pack = newPack(crypto.randomUUID(), 'From the quay', {
    rack: 'Northquay',
    groups: [{ name: '', brushes: ids.slice(-1) }],
  });
  await fetch(`${app.address}/api/packs/${pack.id}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ doc: pack, revision: null }),
  });
  await page.goto(app.address);
  await page.getByRole('link', { name: 'Racks side by side' }).click();
  await expect(page.getByRole('heading', { level: 2 })).toContainText(['My rack', 'Northquay']);
  const [mine, theirs] = [shelf(page, 'Harbour crusts'), shelf(page, 'From the quay')];
  // Both are seen at once, one beside the other.
  const [left, right] = [(await mine.boundingBox())!, (await theirs.boundingBox())!];
  expect(right.x).toBeGreaterThanOrEqual(left.x + left.width);
  await drag(page, mine.locator('[data-card]').nth(0), theirs.locator('[data-card]'));
  await expect.poll(async () => (await names(page, 'From the quay')).length).toBe(2);
  expect(await names(page, 'Harbour crusts')).not.toContain('Crust, grown');
  await page.keyboard.down('Control');
  await drag(page, mine.locator('[data-card]').nth(0), theirs.locator('[data-card]').nth(1));
  await page.keyboard.up('Control');
  await expect.poll(async () => (await names(page, 'From the quay')).length).toBe(3);
  expect(await names(page, 'Harbour crusts')).toContain('Barnacle press');
});

test('the tree of racks and belts by keys: gone along, opened, folded, and found folded again', async ({
  page,
  app,
}) => {
  await page.goto(app.address);
  const tree = page.getByRole('tree', { name: 'Racks, packs and belts' });
  const item = (name: RegExp) => tree.getByRole('treeitem', { name });
  await expect(tree.locator('[aria-current]')).toHaveText(/^All brushes/);
  await item(/^All brushes/).focus();
  for (let n = 0; n < 4; n++) await page.keyboard.press('ArrowDown');
  await expect(item(/^Harbour crusts/)).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/shelf=/);
  await expect(tree.locator('[aria-current]')).toHaveText(/^Harbour crusts/);
  await expect(page.locator('.shelves').getByRole('heading', { name: 'Wharf paint' })).toHaveCount(0);
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowLeft');
  await expect(item(/^Harbour crusts/)).toBeHidden();
  await page.reload();
  await expect(item(/^My rack/)).toHaveAttribute('aria-expanded', 'false');
  await expect(item(/^Harbour crusts/)).toBeHidden();
  // Its name leads to its packs, whatever is folded.
  await tree.getByRole('link', { name: 'My rack' }).click();
  await expect(page).toHaveURL(/rack=/);
  await expect(item(/^Harbour crusts/)).toBeHidden();
  await item(/^My rack/)
    .locator('.el-tree-node__expand-icon')
    .first()
    .click();
  await expect(item(/^Harbour crusts/)).toBeVisible();
});
