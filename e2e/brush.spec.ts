import { draw, expect, seen, set, settled, test, type App } from './app';
import type { Page } from '@playwright/test';

async function openBrush(page: Page, app: App, name: string): Promise<void> {
  await page.goto(app.address);
  await page.getByRole('button', { name: `Open ${name}`, exact: true }).click();
  await settled(page, '.proof');
}

test('a base brush stays as it is: the first change makes a copy, and stamps follow the copy', async ({ page, app }) => {
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
  await page.getByText('Depth', { exact: true }).dblclick();
  await expect(depth).toHaveValue('100 %');
  await page.getByLabel('Depth', { exact: true }).press('ArrowRight');
  await expect(depth).toHaveValue('101 %');
});

test('keys: digits, brackets, undo, the list', async ({ page, app }) => {
  await openBrush(page, app, 'Limpet press');
  await page.locator('.belt .about').click();
  await page.keyboard.press('4');
  await expect(page.getByLabel(/^Strength, /)).toHaveValue('40 %');
  await page.keyboard.press('0');
  await expect(page.getByLabel(/^Strength, /)).toHaveValue('100 %');
  const size = page.getByLabel(/^Size, /);
  const before = Number(await size.inputValue());
  await page.keyboard.press(']');
  expect(Number(await size.inputValue())).toBeGreaterThan(before);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('Abandon the stroke');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  const left = page.getByRole('region', { name: 'The brush' });
  await page.keyboard.press('w');
  expect((await left.boundingBox())?.width ?? 0).toBeLessThan(2);
  await page.keyboard.press('w');
  expect((await left.boundingBox())!.width).toBeGreaterThan(300);
});

test('each stroke type with the pointer; Esc abandons; the body turns beside it', async ({ page, app }) => {
  await openBrush(page, app, 'Barnacle press');
  const bare = await seen(page, '.proof');
  const looks = [bare];
  for (const type of ['Trail', 'Press', 'Grow']) {
    await page.getByRole('radio', { name: type }).click();
    await draw(page, '.proof', [[0.4, 0.5], [0.5, 0.45], [0.6, 0.5]]);
    looks.push(await seen(page, '.proof'));
    await draw(page, '.proof', [[0.45, 0.4], [0.55, 0.5]], false);
    await page.keyboard.press('Escape');
    await page.mouse.up();
    expect(await seen(page, '.proof')).toBe(looks.at(-1));
    await page.keyboard.press('Control+z');
    expect(await seen(page, '.proof')).toBe(bare);
  }
  expect(new Set(looks).size).toBe(4);
  await draw(page, '.proof', [[0.02, 0.5], [0.1, 0.5]]);
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '0');
});

test('a curve of one’s own: kept from the shape that was there, nodes moved and made corners', async ({ page, app }) => {
  await openBrush(page, app, 'Limpet press');
  await draw(page, '.proof', [[0.5, 0.5]]);
  await page.getByLabel('Falloff', { exact: true }).selectOption('bell');
  const bell = await seen(page, '.proof');
  await page.getByLabel('Falloff', { exact: true }).selectOption('own');
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
