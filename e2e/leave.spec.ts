/** A page that is left in the moment of a change: what was changed is there when it is opened again. */
import type { Page } from '@playwright/test';
import { draw, expect, openBrush, set, settled, test } from './app';

test('a setting typed right before the page is left, reloaded or gone back from is there again', async ({
  page,
  app,
}) => {
  test.slow();
  await openBrush(page, app, 'Limpet press');
  await crowdDrafts(page);
  await set(page, 'Strength', '41');
  await expect(page.locator('.state')).toContainText('not saved');
  const bench = page.url();
  const strength = page.getByLabel(/^Strength, /);
  const ways = [
    async () => {
      await page.goto(`${app.address}/sources`);
      await page.goto(bench);
    },
    () => page.reload(),
    async () => {
      await page.goBack();
      await page.goForward();
    },
  ];
  for (const [i, leave] of ways.entries()) {
    const typed = String(42 + i);
    await strength.fill(typed);
    await strength.press('Enter');
    await busyDrafts(page);
    await leave();
    await expect(strength).toHaveValue(`${typed} %`);
  }
});

/** Many drafts lie in the browser’s database: to read them all takes it a while. */
const crowdDrafts = (page: Page): Promise<void> =>
  page.evaluate(
    () =>
      new Promise((done) => {
        indexedDB.open('mold-stamp').onsuccess = ({ target }) => {
          const all = (target as IDBOpenDBRequest).result.transaction('drafts', 'readwrite');
          for (let n = 0; n < 300; n++) all.objectStore('drafts').put({ text: 'x'.repeat(5000) }, `other:${n}`);
          all.oncomplete = () => done();
        };
      }),
  );

/** The database reads for others: what is written now waits behind that, and is undone if the page goes before. */
const busyDrafts = (page: Page): Promise<void> =>
  page.evaluate(
    () =>
      new Promise((done) => {
        indexedDB.open('mold-stamp').onsuccess = ({ target }) => {
          const reads = (target as IDBOpenDBRequest).result.transaction('drafts').objectStore('drafts');
          for (let n = 0; n < 12; n++) reads.getAll();
          done();
        };
      }),
  );

test('a name typed on a bench of sources right before the page is reloaded is there again', async ({ page, app }) => {
  await page.goto(`${app.address}/sources`);
  await page.getByRole('button', { name: 'New pattern' }).click();
  const name = page.getByLabel('Name', { exact: true });
  for (const typed of ['Left at once', 'Left once more', 'Left a third time']) {
    await name.fill(typed);
    await name.press('Enter');
    await page.reload();
    await expect(name).toHaveValue(typed);
  }
});

test('clay that has no draft yet: the browser asks before the page is closed, and no longer once it has one', async ({
  page,
  app,
}) => {
  test.slow();
  await page.goto(`${app.address}/sources`);
  await page.getByRole('button', { name: 'New slab' }).click();
  await page.getByRole('radio', { name: '256' }).click();
  await page.getByRole('button', { name: 'Create' }).click();
  await settled(page, '.slab');
  const asked: string[] = [];
  page.on('dialog', (dialog) => {
    asked.push(dialog.type());
    void dialog.dismiss();
  });
  await draw(page, '.slab', [
    [0.45, 0.5],
    [0.55, 0.5],
  ]);
  await page.evaluate(() => void setTimeout(() => location.reload()));
  await expect.poll(() => asked).toEqual(['beforeunload']);
  await expect(page.locator('.state')).toContainText('kept');
});

test('files that are dropped beside every place for them don’t take the page away', async ({ page, app }) => {
  await page.goto(`${app.address}/sources`);
  await expect(page.getByRole('heading', { name: 'Sources' })).toBeVisible();
  const leaves = await page.evaluate(() => {
    const dataTransfer = new DataTransfer();
    dataTransfer.items.add(new File(['not ours'], 'notes.txt', { type: 'text/plain' }));
    const dropped = (on: Element): boolean =>
      ['dragover', 'drop'].every((type) =>
        on.dispatchEvent(new DragEvent(type, { dataTransfer, bubbles: true, cancelable: true })),
      );
    // The browser goes by what wasn’t prevented.
    return [dropped(document.body), dropped(document.querySelector('header')!)];
  });
  expect(leaves).toEqual([false, false]);
  await expect(page).toHaveURL(/sources/);
});
