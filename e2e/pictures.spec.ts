import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { draw, expect, giveFiles, listOf, set, settled, test } from './app';

/** A page with four marks and a little dust, as a scanner would give it. */
async function page4(): Promise<Buffer> {
  const shapes = [
    '<circle cx="150" cy="140" r="70" fill="#222"/>',
    '<rect x="320" y="90" width="150" height="90" fill="#2a2a2a"/>',
    '<path d="M120 320l90 120h-180z" fill="#1c1c1c"/>',
    '<ellipse cx="420" cy="360" rx="90" ry="50" fill="#333"/>',
    '<circle cx="270" cy="250" r="1.6" fill="#444"/>',
    '<circle cx="560" cy="60" r="1.4" fill="#444"/>',
  ];
  return sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="600" height="480"><rect width="600" height="480" fill="#e9e4da"/>${shapes.join('')}</svg>`,
    ),
  )
    .jpeg({ quality: 90 })
    .toBuffer();
}

const shown = (page: Page): Promise<void> =>
  expect(page.locator('.alpha-view')).toHaveAttribute('data-busy', 'false', { timeout: 30_000 });

/** Where a place of the sheet, 0–1, lies on the screen. */
async function onSheet(page: Page, x: number, y: number): Promise<[number, number]> {
  const box = (await page.locator('.page').boundingBox())!;
  return [box.x + x * box.width, box.y + y * box.height];
}

test('a sheet becomes three saved brushes', async ({ page, app }) => {
  test.slow();
  await page.goto(`${app.address}/sources`);
  const prints = { name: 'prints.jpg', mimeType: 'image/jpeg', buffer: await page4() };
  await giveFiles(page, page.getByRole('button', { name: 'Open files…' }), prints);
  await expect(page.locator('.sheet-view')).toHaveAttribute('data-marks', '4', { timeout: 30_000 });
  await expect(page.getByText('4 marks, 4 included')).toBeVisible();

  // A click leaves one; a line splits another, undo brings it back; a lasso adds one that Delete takes away.
  await page.mouse.click(...(await onSheet(page, 420 / 600, 360 / 480)));
  await expect(page.getByRole('button', { name: 'Cast 3 alphas' })).toBeEnabled();
  await page.keyboard.press('Shift+X');
  await page.mouse.move(...(await onSheet(page, 150 / 600, 0.05)));
  await page.mouse.down();
  await page.mouse.move(...(await onSheet(page, 150 / 600, 0.55)), { steps: 4 });
  await page.mouse.up();
  await expect(page.locator('.sheet-view')).toHaveAttribute('data-marks', '5');
  await page.keyboard.press('Control+z');
  await expect(page.locator('.sheet-view')).toHaveAttribute('data-marks', '4');
  await page.keyboard.press('Shift+L');
  await page.mouse.move(...(await onSheet(page, 0.85, 0.7)));
  await page.mouse.down();
  for (const [x, y] of [
    [0.95, 0.72],
    [0.93, 0.9],
    [0.84, 0.86],
  ] as const)
    await page.mouse.move(...(await onSheet(page, x, y)), { steps: 3 });
  await page.mouse.up();
  await expect(page.locator('.sheet-view')).toHaveAttribute('data-marks', '5');
  await page.keyboard.press('Delete');
  await expect(page.locator('.sheet-view')).toHaveAttribute('data-marks', '4');

  await set(page, 'Size', '128');
  await page.getByRole('button', { name: 'Cast 3 alphas' }).click();
  await expect(page.locator('.panel li')).toHaveCount(3, { timeout: 60_000 });

  await page.getByRole('button', { name: 'Make a brush of prints 1' }).click();
  await settled(page, '.proof');
  await draw(page, '.proof', [
    [0.5, 0.5],
    [0.5, 0.5],
  ]);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.locator('.state', { hasText: /^saved/ })).toBeVisible();
  await page.goBack();
  await expect(page.locator('.sheet-view')).toHaveAttribute('data-marks', '4');

  await page.getByRole('button', { name: 'Make brushes of all…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Make brushes' });
  let letGo = (): void => undefined;
  const cancelled = new Promise<void>((done) => (letGo = done));
  await dialog.getByRole('radio', { name: 'Counted' }).click();
  await dialog.getByRole('textbox', { name: 'Name' }).fill('Pier print');
  await dialog.getByRole('textbox', { name: 'Author' }).fill('Tidewrack Workshop');
  // Cancel while the marks are cast: no brush comes of it, and the dialog is there for another try.
  await page.route('**/api/alphas/*', async (route) => {
    if (route.request().method() === 'PUT') await cancelled;
    await route.continue();
  });
  await dialog.getByRole('radio', { name: '3 marks, cast first' }).click();
  await dialog.getByRole('button', { name: 'Make 3 brushes' }).click();
  await expect(dialog.getByRole('status')).toContainText('Casting');
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  letGo();
  await expect(page.getByText('0 of 3 brushes were made.')).toBeVisible();
  await page.unroute('**/api/alphas/*');
  await dialog.getByRole('radio', { name: /cast already/ }).click();
  await dialog.getByRole('button', { name: /^Make \d brushes$/ }).click();
  await expect(page.getByText(/[34] brushes are in the rack\./)).toBeVisible();
  await page.goto(app.address);
  for (const name of ['prints 1', 'Pier print 1', 'Pier print 2', 'Pier print 3'])
    await expect(page.getByRole('button', { name: `Open ${name}`, exact: true })).toBeVisible();
  // Each alpha is a mark on clean black, white at its densest.
  const { items } = (await (await fetch(`${app.address}/api/alphas`)).json()) as {
    items: { id: string; card: { name: string } }[];
  };
  const own = items.filter((i) => i.card.name.startsWith('prints'));
  const { data, info } = await sharp(
    Buffer.from(await (await fetch(`${app.address}/api/alphas/${own[0].id}/png`)).arrayBuffer()),
  )
    .raw()
    .toBuffer({ resolveWithObject: true });
  expect([info.width, info.height]).toEqual([128, 128]);
  expect(data[3 * 128 + 3]).toBe(0);
  expect(data[64 * 128 + 64]).toBeGreaterThan(220);
});

test('a recipe is built, reordered, undone, retouched and baked; the brush that follows gets it; a draft survives', async ({
  page,
  app,
}) => {
  test.slow();
  const id = 'd0000000-0000-4000-8000-000000000013';
  await page.goto(`${app.address}/bench/alpha/${id}`);
  await shown(page);
  const picture = async (): Promise<string> => {
    await shown(page);
    return page
      .locator('.alpha-view canvas')
      .first()
      .evaluate((c: HTMLCanvasElement) => {
        const d = c.getContext('2d')!.getImageData(0, 0, c.width, c.height).data;
        let sum = 0;
        for (let i = 0; i < d.length; i += 4) sum = (sum * 31 + d[i]) >>> 0;
        return String(sum);
      });
  };
  const steps = page.locator('.steps li');
  const add = async (name: string): Promise<void> => {
    await page.getByRole('button', { name: 'Add a step' }).click();
    await page.locator('.offer').getByText(name, { exact: true }).click();
  };
  const looks = [await picture()];
  await add('Invert');
  looks.push(await picture());
  await add('Levels');
  await set(page, 'White', '0.5');
  looks.push(await picture());
  expect(new Set(looks).size).toBe(3);
  await expect(steps).toHaveCount(2);
  await page.getByRole('button', { name: 'Move Levels' }).focus();
  await page.keyboard.press('ArrowUp');
  await expect(steps.first()).toHaveAttribute('data-step', 'levels');
  expect(looks).not.toContain(await picture());
  await page.keyboard.press('Control+z');
  expect(await picture()).toBe(looks[2]);
  await page.getByRole('button', { name: 'Turn off Levels' }).click();
  expect(await picture()).toBe(looks[1]);
  await page.keyboard.press('Control+z');

  await add('Retouch');
  await page.getByRole('radio', { name: 'Paint', exact: true }).click();
  const before = await picture();
  const box = (await page.locator('.alpha-view canvas').first().boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.45, box.y + box.height * 0.5);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.6, box.y + box.height * 0.55, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByText('1 stroke', { exact: true })).toBeVisible();
  const painted = await picture();
  expect(painted).not.toBe(before);
  await expect(page.locator('.state')).toContainText('draft kept');
  await page.reload();
  await expect(steps).toHaveCount(3);

  const brushPicture = async (): Promise<string> =>
    Buffer.from(
      await (await fetch(`${app.address}/api/brushes/d0000000-0000-4000-8000-000000000024/picture`)).arrayBuffer(),
    ).toString('base64');
  const old = await brushPicture();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.locator('.state')).toHaveText('saved', { timeout: 60_000 });
  expect(await brushPicture()).not.toBe(old);
  const { doc } = await (await fetch(`${app.address}/api/alphas/${id}`)).json();
  expect(doc.recipe.steps.map((s: { kind: string }) => s.kind)).toEqual(['invert', 'levels', 'retouch']);
  expect(doc.recipe.base.kind).toBe('cast');
});

test('lettering and patterns: made, changed, surprised, cast, and cast anew', async ({ page, app }) => {
  test.slow();
  await page.goto(`${app.address}/sources`);
  await page.getByRole('button', { name: 'New lettering' }).click();
  const view = page.locator('.made-view');
  await expect(view).toHaveAttribute('data-busy', 'false');
  await page.getByLabel('Text', { exact: true }).fill('HULL 漢');
  await expect(page.getByText('The font has no “漢”; left out.')).toBeVisible();
  await listOf(page, 'Font').click();
  const nonsense = { name: 'nonsense.ttf', mimeType: 'font/ttf', buffer: Buffer.from('no font at all') };
  await giveFiles(page, page.getByRole('option', { name: 'Font from a file…' }), nonsense);
  await expect(page.getByText('nonsense.ttf isn’t a font.')).toBeVisible();

  // On a slow line: stopped, and then read while another block is made. The one it was chosen for gets it.
  const own = {
    name: 'stamp.woff',
    mimeType: 'font/woff',
    buffer: readFileSync('node_modules/@fontsource/oswald/files/oswald-latin-400-normal.woff'),
  };
  let go: () => void = () => undefined;
  await page.route('**/api/fonts*', async (route) => {
    await new Promise<void>((done) => (go = done));
    await route.continue().catch(() => undefined);
  });
  const pick = async (): Promise<void> => {
    await listOf(page, 'Font').click();
    await giveFiles(page, page.getByRole('option', { name: 'Font from a file…' }), own);
  };
  await pick();
  const reading = page.getByRole('status').filter({ hasText: 'Reading “stamp.woff”' });
  await reading.getByRole('button', { name: 'Cancel' }).click();
  await expect(reading).toBeHidden();
  go();
  await pick();
  await expect(reading).toBeVisible();
  await page.getByRole('button', { name: 'Another block' }).click();
  await expect(page.getByLabel('Text', { exact: true })).toHaveValue('New block');
  go();
  await page.getByRole('button', { name: 'HULL 漢', exact: true }).click();
  await expect(page.getByLabel('Text', { exact: true })).toHaveValue('HULL 漢');
  await expect(listOf(page, 'Font')).toContainText('stamp.woff');
  await page.getByRole('button', { name: 'New block', exact: true }).click();
  await expect(listOf(page, 'Font')).not.toContainText('stamp.woff');
  await page.getByRole('button', { name: 'Take New block away' }).click();
  await page.getByRole('radio', { name: '256' }).click();
  await page.getByRole('button', { name: 'Cast', exact: true }).click();
  await expect(page.getByText('256 px · relief 0.040')).toBeVisible({ timeout: 30_000 });
  const picture = page.locator('.cast li img');
  const first = await picture.getAttribute('src');
  await page.getByLabel('Text', { exact: true }).fill('KEEL');
  await page.getByRole('button', { name: /^Cast .* anew$/ }).click();
  await expect(picture).not.toHaveAttribute('src', first!, { timeout: 30_000 });

  await page.goto(`${app.address}/bench/pattern/d0000000-0000-4000-8000-000000000006`);
  await expect(view).toHaveAttribute('data-busy', 'false');
  await page.getByRole('radio', { name: 'Scales' }).click();
  await page.getByRole('button', { name: 'Surprise me' }).click();
  await expect(page.locator('.offers canvas')).toHaveCount(16, { timeout: 60_000 });
  await page.getByRole('button', { name: 'Use variation 5' }).click();
  await expect(page.locator('.state')).toContainText('not saved');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('radio', { name: 'Pebbles' })).toBeChecked();
});

test('pictures that can’t be read say why, and the others come in; an empty sheet says so', async ({ page, app }) => {
  await page.goto(`${app.address}/sources`);
  const blank = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#e8e2d8' } })
    .png()
    .toBuffer();
  await giveFiles(page, page.getByRole('button', { name: 'Open files…' }), [
    { name: 'words.png', mimeType: 'image/png', buffer: Buffer.from('these are words') },
    { name: 'cut.png', mimeType: 'image/png', buffer: blank.subarray(0, blank.length >> 1) },
    { name: 'blank.png', mimeType: 'image/png', buffer: blank },
  ]);
  await expect(page.getByText('words.png isn’t a picture that can be read')).toBeVisible();
  await expect(page.getByText(/^cut\.png (can’t be decoded|isn’t a picture)/)).toBeVisible();
  await page.getByRole('link', { name: 'Open blank' }).click();
  await expect(page.getByText('Nothing was found on this sheet.')).toBeVisible({ timeout: 30_000 });
});
