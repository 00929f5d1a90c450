/** What happens when the server, another window or a stored row isn't as it should be. */
import { randomUUID } from 'node:crypto';
import { openPglite } from '../server/store/pglite/open';
import { expect, set, settled, test } from './app';

const CRUST = '/bench/brush/d0000000-0000-4000-8000-000000000021';

test.describe('on a server of its own', () => {
  test.use({ shares: false });

  test('a save while the server is away is kept, survives, and is sent when it is back', async ({ page, app }) => {
    await page.goto(app.address + CRUST);
    await settled(page, '.proof');
    await app.kill();
    await set(page, 'Depth', '175');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.locator('.state')).toHaveText('kept here, sent when the server is back');
    await expect(page.getByText('Server away · 1 save waits')).toBeVisible();
    await app.start();
    await expect(page.locator('.state')).toHaveText('saved', { timeout: 30_000 });
    await expect(page.getByText('Server away')).toBeHidden();
    const stored = await (await fetch(`${app.address}/api/brushes/d0000000-0000-4000-8000-000000000021`)).json();
    expect(stored.doc.form.depth).toBe(175);
    expect(stored.revision).toBe(2);
  });

  test('a save that waits is sent when the page is opened again', async ({ page, app }) => {
    await page.goto(app.address + CRUST);
    await settled(page, '.proof');
    await app.stop();
    await set(page, 'Depth', '180');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.locator('.state')).toHaveText('kept here, sent when the server is back');
    await page.goto('about:blank');
    await app.start();
    await page.goto(app.address);
    await expect(page.getByRole('button', { name: 'Open Crust, grown' })).toBeVisible();
    await expect
      .poll(async () => {
        const stored = await (await fetch(`${app.address}/api/brushes/d0000000-0000-4000-8000-000000000021`)).json();
        return stored.doc.form.depth;
      })
      .toBe(180);
    await expect(page.locator('.mark')).toHaveCount(0);
  });

  test('two windows on one brush: the second is told, nothing is overwritten', async ({ page, app, browser }) => {
    await page.goto(app.address + CRUST);
    await settled(page, '.proof');
    const other = await (await browser.newContext()).newPage();
    await other.addInitScript(() => {
      localStorage['proof-density'] = '64';
    });
    await other.goto(app.address + CRUST);
    await settled(other, '.proof');
    await set(other, 'Depth', '120');
    await other.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(other.locator('.state')).toHaveText('saved');
    await other.context().close();

    await set(page, 'Depth', '250');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByRole('dialog', { name: 'Changed in another window' })).toBeVisible();
    await page.getByRole('button', { name: 'Keep mine as a copy' }).click();
    await expect(page.locator('.columns').getByLabel('Name')).toHaveValue('Crust, grown copy');
    await expect(page.getByLabel(/^Depth, /)).toHaveValue('250 %');
    const stored = await (await fetch(`${app.address}/api/brushes/d0000000-0000-4000-8000-000000000021`)).json();
    expect(stored.doc.form.depth).toBe(120);
  });

  test('an empty and a taken name are refused beside the field', async ({ page, app }) => {
    await page.goto(app.address + CRUST);
    await settled(page, '.proof');
    const name = page.locator('.columns').getByLabel('Name');
    await name.fill('');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByRole('alert')).toContainText('A name is needed');
    await name.fill('Limpet press');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByRole('alert')).toContainText('already a brush called “Limpet press”');
    await name.fill('Crust, taller');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.locator('.state')).toHaveText('saved');
  });

  test('a broken and a newer row are named; the rest of the rack is there', async ({ page, app }) => {
    await app.stop();
    const { inside, close } = await openPglite({ folder: app.folder });
    for (const [name, doc] of [
      ['Row from tomorrow', { version: 9 }],
      ['Row with a hole', { version: 1, id: 3 }],
    ] as const) {
      await inside.db.query('INSERT INTO brushes (id, name, kind, doc) VALUES ($1, $2, $3, $4)', [
        randomUUID(),
        name,
        'lift',
        JSON.stringify(doc),
      ]);
    }
    await close();
    await app.start();
    await page.goto(app.address);
    await expect(page.getByText('“Row from tomorrow” is left out. The brush is of version 9')).toBeVisible();
    await expect(page.getByText('“Row with a hole” is left out. The brush is broken')).toBeVisible();
    await expect(page.getByText('Crust, grown')).toBeVisible();
  });
});

test('a draft survives a reload, and reverting goes back to what is saved', async ({ page, app }) => {
  await page.goto(app.address + CRUST);
  await settled(page, '.proof');
  await set(page, 'Depth', '175');
  await expect(page.locator('.state')).toContainText('draft kept');
  await page.reload();
  await expect(page.getByLabel(/^Depth, /)).toHaveValue('175 %');
  await page.getByRole('button', { name: 'Revert' }).click();
  await expect(page.getByLabel(/^Depth, /)).toHaveValue('100 %');
  await page.locator('.el-notification').getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel(/^Depth, /)).toHaveValue('175 %');
});

test('an address of nothing, and a brush that is gone, say so', async ({ page, app }) => {
  await page.goto(`${app.address}/bench/brush/${randomUUID()}`);
  await expect(page.getByText('This brush isn’t in the rack')).toBeVisible();
  await page.goto(`${app.address}/somewhere`);
  await expect(page.getByText('There is nothing at this address.')).toBeVisible();
});

test('on a slow line the places of cards are shown until they are there', async ({ page, app }) => {
  let go: () => void = () => undefined;
  const slow = new Promise<void>((done) => (go = done));
  await page.route(/\/api\/(brushes|sources)\?/, async (route) => {
    await slow;
    await route.continue();
  });
  await page.goto(app.address);
  await expect(page.getByRole('status', { name: 'Loading the rack' })).toBeVisible();
  await page.getByRole('link', { name: 'Sources' }).click();
  await expect(page.getByRole('status', { name: 'Loading the sources' })).toBeVisible();
  await expect(page.getByText('Nothing is cast yet.')).toBeHidden();
  go();
  await expect(page.getByRole('link', { name: 'Open Barnacle crust' })).toBeVisible();
  await expect(page.getByRole('status', { name: 'Loading the sources' })).toBeHidden();
});
