/** The page without its server: kept by the browser, it opens, with what was drafted, and goes to every place. */
import { expect, openBrush, set, test } from './app';

test.use({ shares: false, serviceWorkers: 'allow' });

test('once it was opened the page opens without the server, with its drafts; back again all is there', async ({
  page,
  app,
}) => {
  test.slow();
  await openBrush(page, app, 'Limpet press');
  await set(page, 'Strength', '62');
  await expect(page.locator('.state')).toContainText('not saved');
  // Every part of the page is kept.
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await app.stop();
  const bench = page.url();
  await page.goto(app.address);
  await expect(page.getByText('The server can’t be reached.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Open Limpet press' })).toBeVisible();
  // A place that was never opened comes from what is kept.
  await page.getByRole('link', { name: 'Sources' }).click();
  await expect(page.getByRole('heading', { name: 'Sources' })).toBeVisible();
  await page.goto(bench);
  await expect(page.getByLabel(/^Strength, /)).toHaveValue('62 %');

  await app.start();
  await page.goto(app.address);
  await expect(page.getByRole('button', { name: 'Open Barnacle press' })).toBeVisible();
  await expect(page.getByText('The server can’t be reached.')).toBeHidden();
});
