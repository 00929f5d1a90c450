/** The page without its server: kept by the browser, it opens, with what was drafted, and goes to every place. */
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { gzipSync } from 'node:zlib';
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

test('what the page begins with is light; the benches come when they are first wanted', () => {
  const built = (path: string): Buffer => readFileSync(resolve(import.meta.dirname, '../dist', path));
  const files = [
    ...built('index.html')
      .toString()
      .matchAll(/(?:src|href)="\/(assets\/[^"]+)"/g),
  ].map(([, path]) => path);
  expect(files.length).toBeGreaterThan(2);
  const kilobytes = files.reduce((sum, path) => sum + gzipSync(built(path)).length, 0) / 1000;
  expect(kilobytes).toBeLessThan(350);
});
