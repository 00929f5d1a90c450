/** The whole story with the real pointer: slab, cast, brush, proof, rack, restart. */
import { readFile } from 'node:fs/promises';
import { decode } from 'fast-png';
import { choose, draw, expect, seen, set, settled, test } from './app';

test.use({ shares: false });

test('a form is sculpted, cast, made into a brush, proved, saved, and is there again after a restart', async ({
  page,
  app,
}) => {
  test.slow();
  await page.goto(app.address);
  await expect(page.getByText('Crust, grown')).toBeVisible();
  await page.getByRole('link', { name: 'Sources' }).click();
  await page.getByRole('button', { name: 'New slab' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('Knuckle slab');
  await page.getByRole('radio', { name: '256' }).click();
  await page.getByRole('button', { name: 'Create' }).click();

  // An untouched slab says so.
  await settled(page, '.slab');
  await expect(page.getByText('Everything lies at one height')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Cast', exact: true })).toBeDisabled();

  // The cast grows with each stroke.
  await draw(page, '.slab', [
    [0.4, 0.45],
    [0.5, 0.4],
    [0.6, 0.45],
  ]);
  await expect(page.locator('.picture[data-cast]:not([data-cast="flat"])')).toBeVisible();
  const once = await page.locator('.picture').getAttribute('data-cast');
  await draw(page, '.slab', [
    [0.4, 0.45],
    [0.5, 0.4],
    [0.6, 0.45],
  ]);
  await expect(page.locator('.picture')).not.toHaveAttribute('data-cast', once!);
  await page.keyboard.press('Shift+Digit3');
  await draw(page, '.slab', [
    [0.45, 0.55],
    [0.55, 0.55],
  ]);

  await page.getByRole('radio', { name: 'Output' }).click();
  await page.getByRole('radio', { name: '256', exact: true }).click();
  await page.getByLabel('Name of the alpha').fill('Knuckle');
  await page.getByRole('button', { name: 'Cast', exact: true }).click();
  await expect(page.getByText('256 px · relief')).toBeVisible();
  await page.getByRole('button', { name: 'Download Knuckle' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'PNG, 16 bit' }).click(),
  ]);
  const png = decode(await readFile(await download.path()));
  expect(png).toMatchObject({ width: 256, height: 256, depth: 16, channels: 1 });
  expect(Math.max(...png.data)).toBe(65535);
  expect(Math.min(...png.data)).toBe(0);

  // A brush of it, stamped on the ball; each changed setting is seen on the stamps that are there.
  await page.getByRole('button', { name: 'Make brush' }).click();
  await settled(page, '.proof');
  const bare = await seen(page, '.proof');
  await draw(page, '.proof', [
    [0.3, 0.4],
    [0.45, 0.45],
  ]);
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '1');
  const looks = [bare, await seen(page, '.proof')];
  await page.getByRole('radio', { name: 'Trail' }).click();
  await draw(page, '.proof', [
    [0.3, 0.6],
    [0.5, 0.65],
    [0.7, 0.5],
  ]);
  looks.push(await seen(page, '.proof'));
  const changes: (() => Promise<unknown>)[] = [
    () => set(page, 'Depth', '220'),
    () => set(page, 'Spacing', '90'),
    () => choose(page, 'Falloff', 'Cone'),
    () => page.getByRole('radio', { name: 'From view' }).click(),
    () => set(page, 'Fit', '1.4'),
    async () => {
      await page.getByRole('tab', { name: 'Drift' }).click();
      await set(page, 'Across', '60');
      await page.getByRole('tab', { name: 'Touch' }).click();
    },
    () => page.getByRole('radio', { name: 'Square' }).click(),
    () => set(page, 'Turn', '45'),
  ];
  for (const change of changes) {
    await change();
    looks.push(await seen(page, '.proof'));
  }
  expect(new Set(looks).size).toBe(looks.length);

  await page.locator('.columns').getByLabel('Name').fill('Knuckle press');
  await page.getByRole('tab', { name: 'Card' }).click();
  await page.locator('.columns').getByLabel('Author').fill('A. Tester');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.locator('.state')).toHaveText('saved');
  const settings = await readSettings();

  // Everything is closed and started again.
  const address = page.url();
  await app.stop();
  await app.start();
  await page.goto(app.address);
  await page.getByRole('button', { name: 'Open Knuckle press' }).click();
  await page.waitForURL(address);
  await settled(page, '.proof');
  expect(await readSettings()).toEqual(settings);
  expect(await seen(page, '.proof')).toBe(bare);
  await draw(page, '.proof', [
    [0.3, 0.6],
    [0.5, 0.65],
    [0.7, 0.5],
  ]);
  const stamped = await seen(page, '.proof');
  await page.reload();
  await settled(page, '.proof');
  await draw(page, '.proof', [
    [0.3, 0.6],
    [0.5, 0.65],
    [0.7, 0.5],
  ]);
  expect(await seen(page, '.proof')).toBe(stamped);
  // From the brush back to its slab.
  await page.getByRole('link', { name: /Knuckle slab/ }).click();
  await settled(page, '.slab');
  await expect(page.locator('.picture[data-cast]:not([data-cast="flat"])')).toBeVisible();

  async function readSettings(): Promise<string[]> {
    const typed = await page.locator('.columns input:not([type=radio], [role=combobox])').all();
    return [
      ...(await Promise.all(typed.map((field) => field.inputValue()))),
      ...(await page.locator('.columns .el-radio-button.is-active, .columns .el-select').allInnerTexts()),
    ];
  }
});
