import { readFile, writeFile } from 'node:fs/promises';
import { expect, giveFiles, pick, sayDelete, set, test } from './app';

test.use({ shares: false });

test('everything is backed up, restored as it was then, undone, saved as a file and brought back', async ({
  page,
  app,
}) => {
  test.slow();
  await page.goto(app.address);
  const card = (name: string) => page.getByRole('button', { name: `Open ${name}`, exact: true });
  await expect(card('Limpet press')).toBeVisible();
  const dialog = page.getByRole('dialog', { name: 'Backups' });
  const copies = dialog.getByRole('list', { name: 'Copies' }).getByRole('listitem');
  const open = async (): Promise<void> => page.getByRole('button', { name: 'Backups', exact: true }).click();

  await open();
  await expect(dialog.getByText('There is no copy yet.')).toBeVisible();
  await dialog.getByRole('button', { name: 'Back up now' }).click();
  await expect(copies).toHaveCount(1);
  await expect(copies).toContainText('made by hand');
  await pick(dialog, 'Weekly');
  await set(page, 'and keep the last', '7');

  // One is deleted, one gets another name.
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Delete Limpet press' }).click();
  await sayDelete(page, '“Limpet press”');
  await expect(card('Limpet press')).toBeHidden();
  await page.getByRole('button', { name: 'Rename Chisel marks' }).click();
  await page.getByLabel('New name').fill('Adze marks');
  await page.keyboard.press('Enter');
  await expect(card('Adze marks')).toBeVisible();

  await open();
  await expect(dialog.getByRole('radio', { name: 'Weekly' })).toBeChecked();
  await expect(dialog.getByLabel('and keep the last, copies')).toHaveValue('7');
  await dialog.getByRole('button', { name: /^Restore/ }).click();
  await pick(dialog, 'To the trash');
  await dialog.getByRole('button', { name: 'Restore', exact: true }).click();
  const said = page.getByRole('alert').filter({ hasText: 'restored from' });
  await expect(said).toBeVisible();
  await expect(card('Limpet press')).toBeVisible();
  await expect(card('Chisel marks')).toBeVisible();

  await said.getByRole('button', { name: 'Undo' }).click();
  await expect(card('Adze marks')).toBeVisible();
  await expect(card('Limpet press')).toBeHidden();

  // As a file, which is brought back; a damaged one says so and nothing comes of it.
  await open();
  await expect(copies).toHaveCount(3);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    copies.last().getByRole('link', { name: /^Save/ }).click(),
  ]);
  const bytes = await readFile(await download.path());
  await copies
    .last()
    .getByRole('button', { name: /^Delete/ })
    .click();
  await page.getByRole('tooltip').getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(copies).toHaveCount(2);
  const file = async (name: string, of: Buffer): Promise<string> => {
    const path = test.info().outputPath(name);
    await writeFile(path, of);
    return path;
  };
  const bring = dialog.getByRole('button', { name: 'Bring a copy from a file…' });
  await giveFiles(page, bring, await file('cut.backup.zip', bytes.subarray(0, bytes.length >> 1)));
  await expect(dialog.getByRole('alert')).toContainText('“cut.backup.zip” isn’t a backup, or is cut short');
  await expect(copies).toHaveCount(2);
  await giveFiles(page, bring, await file('mine.backup.zip', bytes));
  await expect(copies).toHaveCount(3);
  await expect(copies.filter({ hasText: 'brought from a file' })).toHaveCount(1);
});
