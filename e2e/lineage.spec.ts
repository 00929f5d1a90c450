/** Lineage: walked by press and by key, casts that are older than their sources, and casting them anew. */
import { choose, expect, set, test, type App } from './app';

test.use({ shares: false });

const SLAB = 'd0000000-0000-4000-8000-000000000002';
const LETTERING = 'd0000000-0000-4000-8000-000000000004';

/** Saves a source as another page would. */
async function changed(app: App, id: string, how: (doc: Record<string, unknown>) => void): Promise<void> {
  const at = `${app.address}/api/sources/${id}`;
  const { doc, revision } = await (await fetch(at)).json();
  how(doc);
  const answer = await fetch(at, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ doc, revision }),
  });
  expect(answer.status).toBe(200);
}

test('what a slab became is walked to its pack and back; casts behind it are cast anew, and undone', async ({
  page,
  app,
}) => {
  // A name alone makes no cast old; another form on the slab does, and so does another word.
  await changed(app, LETTERING, (doc) => Object.assign(doc['card'] as object, { notes: 'Stencilled on crates.' }));
  await changed(app, SLAB, (doc) => {
    const dome = { id: crypto.randomUUID(), form: 'dome', x: 0.2, y: 0.2, size: 0.4, height: 0.2 };
    (doc['setForms'] as object[]).push(dome);
  });
  await page.goto(`${app.address}/sources`);
  await expect(page.getByText('changed upstream', { exact: true })).toHaveCount(1);
  await page.getByRole('link', { name: 'Lineage of Limpet rings' }).click();
  const card = page.locator('.picture .card');
  const here = page.locator('.picture .card.on');
  await expect(card).toContainText(['Limpet rings', 'Limpet', 'Limpet press', 'Harbour crusts']);
  await expect(here).toContainText('Limpet rings');
  await page.keyboard.press('ArrowRight');
  await expect(here).toContainText('changed upstream');
  const notes = page.getByRole('complementary', { name: 'About it' });
  await expect(notes).toContainText('Revision 1 of “Limpet rings”, which is at 2 now.');
  await expect(notes).toContainText('It can’t be, as long as 1 brush stamps with it.');
  const picture = here.locator('img');
  const before = await picture.getAttribute('src');
  await notes.getByRole('button', { name: 'Cast anew' }).click();
  await expect(page.getByText('“Limpet” cast anew.')).toBeVisible({ timeout: 60_000 });
  await expect(here).not.toContainText('changed upstream');
  await expect(notes).toContainText('as it is now');
  expect(await picture.getAttribute('src')).not.toBe(before);
  await page.keyboard.press('Control+z');
  await expect(here).toContainText('changed upstream');

  await card.filter({ hasText: 'Harbour crusts' }).click();
  await expect(here).toContainText('Harbour crusts');
  await expect(notes).toContainText('Crust, grown');
  await expect(card.filter({ hasText: 'Barnacle crust' })).toBeVisible();
  await here.dblclick();
  await expect(page.getByRole('region', { name: 'Harbour crusts', exact: true })).toBeVisible();

  // All at once, from the sources: what can’t be cast anew is said, the others are.
  await changed(app, LETTERING, (doc) => Object.assign((doc['blocks'] as object[])[0], { text: 'SALT HERRING' }));
  await page.goto(`${app.address}/sources`);
  await page.getByRole('button', { name: 'Cast anew: 2 changed upstream' }).click();
  await expect(page.getByText('2 alphas cast anew.')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('changed upstream', { exact: true })).toHaveCount(0);
});

test('an alpha with unsaved work is left as it is, and that is said', async ({ page, app }) => {
  await changed(app, LETTERING, (doc) => Object.assign((doc['blocks'] as object[])[0], { text: 'DRIED EEL' }));
  const { items } = await (await fetch(`${app.address}/api/alphas?limit=500`)).json();
  const { id } = (items as { id: string; lineage: { sourceId: string } }[]).find(
    ({ lineage }) => lineage.sourceId === LETTERING,
  )!;
  await page.goto(`${app.address}/bench/alpha/${id}`);
  await set(page, 'Relief', '0.08');
  await expect(page.locator('.state')).toContainText('not saved');
  await page.getByRole('link', { name: 'Its whole lineage' }).click();
  await page.getByRole('button', { name: 'Cast anew' }).click();
  await expect(page.getByText('It has changes that aren’t saved.')).toBeVisible();
});

test('an earlier save of a source is named, told apart, taken back and undone', async ({ page, app }) => {
  const text = async (): Promise<unknown> =>
    (await (await fetch(`${app.address}/api/sources/${LETTERING}`)).json()).doc.blocks[0].text;
  const first = await text();
  await changed(app, LETTERING, (doc) => Object.assign((doc['blocks'] as object[])[0], { text: 'DRIED EEL' }));
  await page.goto(`${app.address}/sources`);
  await page.getByRole('button', { name: 'Earlier saves of Crate marks' }).click();
  const dialog = page.getByRole('dialog', { name: 'Earlier saves of “Crate marks”' });
  await expect(dialog.locator('.save')).toHaveCount(1);
  await expect(dialog).toContainText('Other than now: words');
  const picture = dialog.locator('.save img');
  await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(160);
  const name = dialog.getByLabel('Name of revision 1');
  await name.fill('As stencilled');
  await name.press('Enter');
  await dialog.getByRole('button', { name: 'Side by side' }).click();
  const pair = page.getByRole('dialog', { name: 'Saves of “Crate marks” side by side' });
  await expect(pair.getByRole('row')).toHaveText(['SettingLeftRight', 'Words, 1, textTIDEWRACK WHARFDRIED EEL']);
  await choose(page, 'Left', 'Now');
  await expect(pair).toContainText('Nothing differs.');
  await page.keyboard.press('Escape');
  await expect(pair).toBeHidden();
  await dialog.getByRole('button', { name: 'Restore' }).click();
  await expect(dialog).toBeHidden();
  await expect.poll(text).toBe(first);
  await page.keyboard.press('Control+z');
  await expect.poll(text).toBe('DRIED EEL');
  await page.getByRole('button', { name: 'Earlier saves of Crate marks' }).click();
  await expect(dialog.locator('.save')).toHaveCount(3);
  await expect(dialog.getByLabel('Name of revision 1')).toHaveValue('As stencilled');
});
