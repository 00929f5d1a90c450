/** Belts with the real pointer and keys: favourites, a belt of one's own, its order, and going along it. */
import type { Locator } from '@playwright/test';
import { expect, keysNamedTwice, openBrush, settled, test } from './app';

test.use({ shares: false });

test('favourites and a belt of one’s own: made, filled, dragged into order, gone along by keys, found again', async ({
  page,
  app,
}) => {
  await page.goto(app.address);
  for (const name of ['Limpet press', 'Sea pits', 'Chisel marks'])
    await page.getByRole('button', { name: `Make ${name} a favourite` }).click();
  await page.getByRole('link', { name: /^Favourites/ }).click();
  const cards = page.locator('.card .name');
  await expect(cards).toHaveText(['Limpet press', 'Sea pits', 'Chisel marks']);
  await page.getByRole('button', { name: 'Remove Chisel marks from the favourites' }).click();
  await expect(cards).toHaveText(['Limpet press', 'Sea pits']);

  await openBrush(page, app, 'Sea pits');
  const belt = page.locator('.belt');
  const discs = belt.locator('.at-hand');
  const which = belt.locator('.about');
  const open = (name: string): Locator => belt.getByRole('button', { name, pressed: true });
  await expect(which).toContainText('At hand');
  await page.keyboard.press('Control+ArrowDown');
  await expect(which).toContainText('Favourites');
  await expect(discs).toHaveText(['Limpet press', 'Sea pits']);
  await which.click();
  await page.getByRole('button', { name: 'Copy this one' }).click();
  const name = page.getByLabel('Name of the belt');
  await name.fill('Stone work');
  await name.press('Enter');
  await page.keyboard.press('Escape');
  await expect(which).toContainText('Stone work');
  // Dragged behind the other; a drag opens nothing.
  const [from, to] = [(await discs.first().boundingBox())!, (await discs.last().boundingBox())!];
  await page.mouse.move(from.x + 30, from.y + 30);
  await page.mouse.down();
  await page.mouse.move(from.x + 50, from.y + 32, { steps: 4 });
  await page.mouse.move(to.x + to.width - 10, to.y + 32, { steps: 10 });
  await page.waitForTimeout(200);
  await page.mouse.up();
  await expect(discs).toHaveText(['Sea pits', 'Limpet press']);
  await expect(open('Sea pits')).toBeVisible();
  await page.keyboard.press('Control+ArrowRight');
  await expect(open('Limpet press')).toBeVisible();
  await settled(page, '.proof');
  await page.keyboard.press('Control+ArrowRight');
  await expect(open('Sea pits')).toBeVisible();
  await which.click();
  await page.getByRole('button', { name: 'Take this brush off the belt' }).click();
  await page.keyboard.press('Escape');
  // What is open stands on it as long as it is open.
  await page.keyboard.press('Control+ArrowLeft');
  await expect(open('Limpet press')).toBeVisible();
  await expect(discs).toHaveText(['Limpet press']);
  await page.keyboard.press('?');
  expect(await keysNamedTwice(page)).toEqual([]);
  await page.keyboard.press('Escape');

  await page.goto(app.address);
  await page.getByRole('link', { name: /^Recently opened/ }).click();
  await expect(cards).toHaveText(['Limpet press', 'Sea pits']);
  await page.getByRole('link', { name: /^Stone work/ }).click();
  await expect(cards).toHaveText(['Limpet press']);
});
