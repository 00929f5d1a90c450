import { choose, draw, expect, keysNamedTwice, openBrush, sayDelete, seen, set, test } from './app';

// Smaller pictures, since they are drawn in software where there is no graphics card.
test.use({ viewport: { width: 1040, height: 620 } });

test('a base brush stays as it is: the first change makes a copy, and stamps follow the copy', async ({
  page,
  app,
}) => {
  await openBrush(page, app, 'Plain press');
  await draw(page, '.proof', [[0.5, 0.5]]);
  const before = await seen(page, '.proof');
  await set(page, 'Depth', '300');
  await expect(page.locator('.columns').getByLabel('Name')).toHaveValue('Plain press copy');
  expect(await seen(page, '.proof')).not.toBe(before);
  await expect(page.locator('.state')).toContainText('draft kept');
  await page.getByRole('link', { name: 'Rack', exact: true }).click();
  await expect(page.locator('.card', { hasText: 'Plain press copy' }).getByText('not saved')).toBeVisible();
  await page.getByRole('button', { name: 'Open Plain press', exact: true }).click();
  await expect(page.getByLabel(/^Depth, /)).toHaveValue('100 %');
});

test('numbers: typed, out of range, nonsense, arrows, double-click for the default', async ({ page, app }) => {
  await openBrush(page, app, 'Limpet press');
  const depth = page.getByLabel(/^Depth, /);
  await set(page, 'Depth', '150');
  await expect(depth).toHaveValue('150 %');
  await set(page, 'Depth', '99999');
  await expect(depth).toHaveValue('400 %');
  await set(page, 'Depth', 'deep');
  await expect(depth).toHaveValue('400 %');
  await depth.press('ArrowDown');
  await expect(depth).toHaveValue('399 %');
  await depth.blur();
  await page.locator('.columns').getByText('Depth', { exact: true }).dblclick();
  await expect(depth).toHaveValue('100 %');
  await page.getByLabel('Depth', { exact: true }).press('ArrowRight');
  await expect(depth).toHaveValue('101 %');
});

test('keys: digits, brackets, undo, the list', async ({ page, app }) => {
  await openBrush(page, app, 'Limpet press');
  await page.locator('.belt .about').click();
  await page.keyboard.press('4');
  await expect(page.getByLabel(/^Strength, /)).toHaveValue('40 %');
  await page.waitForTimeout(800);
  await page.keyboard.press('0');
  await expect(page.getByLabel(/^Strength, /)).toHaveValue('100 %');
  await page.waitForTimeout(800);
  // Two typed quickly are exact.
  await page.keyboard.type('35');
  await expect(page.getByLabel(/^Strength, /)).toHaveValue('35 %');
  // Esc closes what was opened beside a button, wherever the focus is.
  await page.locator('.slot button').first().click();
  await expect(page.getByLabel('Search alphas')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('Search alphas')).toBeHidden();
  const size = page.getByLabel(/^Size, /);
  const before = Number(await size.inputValue());
  await page.keyboard.press(']');
  expect(Number(await size.inputValue())).toBeGreaterThan(before);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('Cancel the stroke');
  expect(await keysNamedTwice(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  const left = page.getByRole('region', { name: 'The brush' });
  await page.keyboard.press('w');
  expect((await left.boundingBox())?.width ?? 0).toBeLessThan(2);
  await page.keyboard.press('w');
  expect((await left.boundingBox())!.width).toBeGreaterThan(300);
});

test('a curve of one’s own: kept from the shape that was there, nodes moved and made corners', async ({
  page,
  app,
}) => {
  await openBrush(page, app, 'Limpet press');
  await draw(page, '.proof', [[0.5, 0.5]]);
  await choose(page, 'Falloff', 'Bell');
  const bell = await seen(page, '.proof');
  await choose(page, 'Falloff', 'Own curve');
  await expect(page.locator('.falloff .node')).toHaveCount(5);
  const middle = page.locator('.falloff .node').nth(2);
  const box = (await page.locator('.falloff .curve').boundingBox())!;
  const at = (await middle.boundingBox())!;
  await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + 8, { steps: 4 });
  await page.mouse.up();
  const curved = await seen(page, '.proof');
  expect(curved).not.toBe(bell);
  await middle.dblclick();
  await expect(middle.locator('rect')).toHaveCount(1);
  await middle.press('Delete');
  await expect(page.locator('.falloff .node')).toHaveCount(4);
});

test.describe('on a server of its own', () => {
  test.use({ shares: false });

  test('rename, delete and undo; an empty and a taken name', async ({ page, app }) => {
    await page.goto(app.address);
    await page.getByRole('button', { name: 'Rename Limpet press' }).click();
    const field = page.getByLabel('New name');
    await field.fill('   ');
    await page.getByRole('button', { name: 'Rename', exact: true }).click();
    await expect(page.getByRole('alert')).toContainText('A name is needed');
    await field.fill('barnacle PRESS');
    await page.getByRole('button', { name: 'Rename', exact: true }).click();
    await expect(page.getByRole('alert')).toContainText('already a brush called');
    await field.fill('Limpet, broad');
    await page.getByRole('button', { name: 'Rename', exact: true }).click();
    await expect(page.getByRole('button', { name: 'Open Limpet, broad' })).toBeVisible();

    await page.getByRole('button', { name: 'Delete Limpet, broad' }).click();
    await sayDelete(page, '“Limpet, broad”');
    await expect(page.getByRole('button', { name: 'Open Limpet, broad' })).toHaveCount(0);
    await page.locator('.el-notification', { hasText: 'deleted' }).getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('button', { name: 'Open Limpet, broad' })).toBeVisible();
    await page.reload();
    await expect(page.getByRole('button', { name: 'Open Limpet, broad' })).toBeVisible();

    await page.getByRole('searchbox').fill('limpet');
    await expect(page.locator('.card')).toHaveCount(1);
    await page.getByRole('searchbox').fill('zzz');
    await expect(page.getByText('No brush fits this search.')).toBeVisible();
  });
});

test('settings have a history of their own; the pinned version is shown at a key and side by side', async ({
  page,
  app,
}) => {
  await openBrush(page, app, 'Limpet press');
  await draw(page, '.proof', [[0.5, 0.5]]);
  const first = await seen(page, '.proof');
  await page.keyboard.press('p');
  await set(page, 'Depth', '300');
  await set(page, 'Strength', '50');
  const deeper = await seen(page, '.proof');
  expect(deeper).not.toBe(first);
  await page.keyboard.press('b');
  expect(await seen(page, '.proof')).toBe(first);
  await page.keyboard.press('b');
  expect(await seen(page, '.proof')).toBe(deeper);
  await page.getByRole('button', { name: 'Side by side' }).click();
  await expect(page.locator('.compared')).toHaveAttribute('data-busy', 'false', { timeout: 60_000 });
  await expect(page.locator('.compared')).toContainText('pinned');
  // Masks are compared too.
  const other = async (): Promise<string> => (await page.locator('.compared').screenshot()).toString('base64');
  const bare = await other();
  await page.keyboard.press('i');
  await expect.poll(other).not.toBe(bare);
  await page.keyboard.press('Control+z');
  await expect.poll(other).toBe(bare);
  await page.getByRole('button', { name: 'Side by side' }).click();
  await expect(page.locator('.compared')).toHaveCount(0);

  await page.getByRole('button', { name: 'History of the settings' }).click();
  await expect(page.locator('.el-popover ol:visible li')).toHaveText(['Strength50 %', 'Depth300 %']);
  await page.locator('.el-popover ol:visible li button').nth(1).click();
  await expect(page.getByLabel(/^Depth, /)).toHaveValue('100 %');
  await expect(page.getByLabel(/^Strength, /)).toHaveValue('100 %');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+Alt+y');
  await expect(page.getByLabel(/^Depth, /)).toHaveValue('300 %');
  await page.keyboard.press('Control+Alt+z');
  await expect(page.locator('.state')).toHaveText('saved');
});

test('checks of the bench are mended by a click; a stroke that ripples, a disc under the form, a body too coarse', async ({
  page,
  app,
}) => {
  await openBrush(page, app, 'Limpet press');
  await set(page, 'Fit', '0.7');
  await page.getByRole('button', { name: /^Set fit to/ }).click();
  await expect(page.getByRole('button', { name: /^Set fit to/ })).toHaveCount(0);
  await page.getByRole('radio', { name: 'Trail' }).click();
  await choose(page, 'Falloff', 'Cone');
  await set(page, 'Spacing', '60');
  await page.getByRole('button', { name: /^Set spacing to/ }).click();
  expect(Number.parseInt(await page.getByLabel(/^Spacing, /).inputValue(), 10)).toBeLessThan(60);
  await page.getByRole('radio', { name: 'a run' }).click();
  await expect(page.locator('.panel canvas')).toBeVisible();
  const before = Number(await page.locator('.proof').getAttribute('data-vertices'));
  await set(page, 'Size', '0.05');
  await page.getByRole('button', { name: 'Subdivide the body', exact: true }).last().click();
  await expect
    .poll(async () => Number(await page.locator('.proof').getAttribute('data-vertices')), { timeout: 30_000 })
    .toBeGreaterThan(before * 3.9);
});
