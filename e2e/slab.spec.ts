import { draw, expect, seen, settled, test, type App } from './app';
import type { Page } from '@playwright/test';

async function newSlab(page: Page, app: App): Promise<void> {
  await page.goto(`${app.address}/sources`);
  await page.getByRole('button', { name: 'New slab' }).click();
  await page.getByRole('radio', { name: '256²' }).click();
  await page.getByRole('button', { name: 'Make it' }).click();
  await settled(page, '.slab');
}

test('strokes, digging, mirror, undo and redo, Esc', async ({ page, app }) => {
  await newSlab(page, app);
  const bare = await seen(page, '.slab');
  await draw(page, '.slab', [[0.3, 0.4], [0.4, 0.5]]);
  const lifted = await seen(page, '.slab');
  expect(lifted).not.toBe(bare);
  await page.keyboard.press('Control+z');
  expect(await seen(page, '.slab')).toBe(bare);
  await page.keyboard.press('Control+Shift+z');
  expect(await seen(page, '.slab')).toBe(lifted);
  await page.keyboard.press('Control+z');

  await page.keyboard.down('d');
  await draw(page, '.slab', [[0.3, 0.4], [0.4, 0.5]]);
  await page.keyboard.up('d');
  const dug = await seen(page, '.slab');
  expect([bare, lifted]).not.toContain(dug);
  await page.keyboard.press('Control+z');

  await page.keyboard.press('x');
  await draw(page, '.slab', [[0.3, 0.4], [0.4, 0.5]]);
  await page.keyboard.press('x');
  const mirrored = await seen(page, '.slab');
  expect([bare, lifted, dug]).not.toContain(mirrored);
  await page.keyboard.press('Control+z');

  await draw(page, '.slab', [[0.3, 0.4], [0.4, 0.5]], false);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  expect(await seen(page, '.slab')).toBe(bare);
  await expect(page.locator('.slab')).toHaveAttribute('data-strokes', '0');
});

test.describe('each brush of the slab', () => {
  for (const [key, name] of [['l', 'Lift'], ['c', 'Crease'], ['s', 'Smooth'], ['m', 'Move']] as const) {
    test(name, async ({ page, app }) => {
      await newSlab(page, app);
      await draw(page, '.slab', [[0.4, 0.5], [0.6, 0.5]]);
      const before = await seen(page, '.slab');
      await page.keyboard.press(key);
      await expect(page.locator('.belt .tool.on')).toHaveText(name);
      await draw(page, '.slab', [[0.5, 0.48], [0.55, 0.56]]);
      expect(await seen(page, '.slab')).not.toBe(before);
    });
  }
});

test('the view is zoomed, panned, turned and set upright again', async ({ page, app }) => {
  await newSlab(page, app);
  await draw(page, '.slab', [[0.35, 0.4], [0.45, 0.5]]);
  const home = await seen(page, '.slab');
  const box = (await page.locator('.slab').boundingBox())!;
  const looks = [home];
  await page.mouse.move(box.x + 300, box.y + 300);
  await page.mouse.wheel(0, -400);
  looks.push(await seen(page, '.slab'));
  await page.mouse.move(box.x + 300, box.y + 300);
  await page.mouse.down({ button: 'right' });
  await page.mouse.move(box.x + 380, box.y + 340, { steps: 3 });
  await page.mouse.up({ button: 'right' });
  looks.push(await seen(page, '.slab'));
  await page.keyboard.press(',');
  looks.push(await seen(page, '.slab'));
  expect(new Set(looks).size).toBe(4);
  await page.keyboard.press('h');
  expect(await seen(page, '.slab')).toBe(home);
});

test('floor and crown by hand and found again; the margin is checked', async ({ page, app }) => {
  await newSlab(page, app);
  await draw(page, '.slab', [[0.5, 0.5], [0.52, 0.5]]);
  const crown = page.getByLabel('Crown, body units');
  await expect(crown).not.toHaveValue('0.000');
  const found = await crown.inputValue();
  await crown.fill('0.2');
  await crown.press('Enter');
  await expect(page.locator('.picture')).toHaveAttribute('data-cast', '0.20000');
  await page.getByRole('button', { name: 'auto' }).first().click();
  await expect(crown).toHaveValue(found);
  await expect(page.locator('.note')).toHaveCount(0);
  // Out over the frame's edge.
  await draw(page, '.slab', [[0.5, 0.3], [0.5, 0.06]]);
  await draw(page, '.slab', [[0.5, 0.3], [0.5, 0.06]]);
  await expect(page.locator('.note')).toContainText('side of the frame');
});

test('clay that was not saved survives a reload, and is saved with the cast', async ({ page, app }) => {
  await newSlab(page, app);
  await draw(page, '.slab', [[0.3, 0.4], [0.5, 0.5]]);
  await expect(page.locator('.state')).toContainText('draft kept');
  const form = await seen(page, '.slab');
  await page.reload();
  await settled(page, '.slab');
  await expect(page.locator('.state')).toContainText('draft kept');
  expect(await seen(page, '.slab')).toBe(form);
  await page.getByRole('radio', { name: '256', exact: true }).click();
  await page.getByRole('button', { name: 'Cast', exact: true }).click();
  await expect(page.getByText('256 px · relief')).toBeVisible();
  await expect(page.locator('.state')).toHaveText('saved');
  // A name that is taken is refused with a sentence.
  await page.getByLabel('Name of the alpha').fill('slab CAST');
  await page.getByRole('button', { name: 'Cast', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('already an alpha');
});
