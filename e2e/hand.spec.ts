/** A hurried hand: strokes in quick succession, keys and windows that are left, fingers, places that are left. */
import { randomBytes } from 'node:crypto';
import sharp from 'sharp';
import type { CDPSession } from '@playwright/test';
import { draw, expect, giveFiles, openBrush, place, pressAt, set, settled, test } from './app';

test.use({ viewport: { width: 1040, height: 620 } });

test('a dozen short strokes, each pressed right after the last was released, are all there', async ({ page, app }) => {
  await openBrush(page, app, 'Soft round');
  const [x, y] = await place(page, 0.38, 0.4);
  for (let n = 0; n < 12; n++) {
    const [left, top] = [x + (n % 6) * 18, y + Math.floor(n / 6) * 18];
    await page.mouse.move(left, top);
    await page.mouse.down();
    await page.mouse.move(left + 9, top + 4);
    await page.mouse.move(left + 14, top + 9);
    await page.mouse.up();
  }
  await settled(page, '.proof');
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '12');
  for (let n = 0; n < 12; n++) await page.keyboard.press('Control+z');
  await settled(page, '.proof');
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '0');
});

test('a held key is let go with the window; Ctrl+S takes what is typed; Enter presses what has the focus', async ({
  page,
  app,
}) => {
  await openBrush(page, app, 'Crust, grown');
  await page.keyboard.down('s');
  await expect(page.locator('.beside .held')).toHaveText('smooth');
  await page.evaluate(() => window.dispatchEvent(new Event('blur')));
  await expect(page.locator('.beside .held')).toHaveCount(0);
  await page.keyboard.up('s');

  const depth = page.getByLabel(/^Depth, /);
  await depth.fill('40');
  await depth.press('Control+s');
  await expect(page.locator('.state')).toHaveText('saved');
  const stored = await (await fetch(`${app.address}/api/brushes/d0000000-0000-4000-8000-000000000021`)).json();
  expect(stored.doc.form.depth).toBe(40);

  await page.getByRole('link', { name: 'Rack', exact: true }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Open Crust, grown', exact: true })).toBeVisible();
});

async function touch(
  client: CDPSession,
  type: 'touchStart' | 'touchMove' | 'touchEnd',
  points: readonly (readonly [number, number])[],
): Promise<void> {
  await client.send('Input.dispatchTouchEvent', { type, touchPoints: points.map(([x, y], id) => ({ x, y, id })) });
}

test('one finger strokes and turns nothing; two move the view and stamp nothing', async ({ page, app }) => {
  await openBrush(page, app, 'Soft round');
  const client = await page.context().newCDPSession(page);
  const at = (x: number, y: number): Promise<[number, number]> => place(page, x, y);
  await touch(client, 'touchStart', [await at(0.45, 0.45)]);
  for (const x of [0.48, 0.52, 0.55]) await touch(client, 'touchMove', [await at(x, 0.5)]);
  await touch(client, 'touchEnd', []);
  await settled(page, '.proof');
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '1');

  await touch(client, 'touchStart', [await at(0.45, 0.5)]);
  await touch(client, 'touchStart', [await at(0.45, 0.5), await at(0.55, 0.5)]);
  for (const d of [0.02, 0.05, 0.09])
    await touch(client, 'touchMove', [await at(0.45 - d, 0.5), await at(0.55 + d, 0.5)]);
  await touch(client, 'touchEnd', []);
  await settled(page, '.proof');
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '1');
});

test('switching brushes and places leaves nothing behind', async ({ page, app }) => {
  test.slow();
  await openBrush(page, app, 'Crust, grown');
  const client = await page.context().newCDPSession(page);
  await client.send('Performance.enable');
  const counts = async (): Promise<{ nodes: number; listeners: number }> => {
    for (let n = 0; n < 3; n++) await client.send('HeapProfiler.collectGarbage');
    const { metrics } = await client.send('Performance.getMetrics');
    const of = (name: string): number => metrics.find((m) => m.name === name)!.value;
    return { nodes: of('Nodes'), listeners: of('JSEventListeners') };
  };
  const discs = page.locator('.belt button');
  const around = async (times: number): Promise<void> => {
    for (let n = 0; n < times; n++) {
      await discs.nth(1 + (n % 5)).click();
      await expect(discs.nth(1 + (n % 5))).toHaveAttribute('aria-pressed', 'true');
    }
    for (let n = 0; n < times / 10; n++) {
      await page.getByRole('link', { name: 'Rack', exact: true }).click();
      await page.getByRole('button', { name: 'Open Crust, grown', exact: true }).click();
      await settled(page, '.proof');
    }
  };
  // What is made once, for good, is made in the first rounds.
  await around(6);
  const before = await counts();
  await around(10);
  const after = await counts();
  expect(after.nodes).toBeLessThan(before.nodes + 200);
  expect(after.listeners).toBeLessThan(before.listeners + 60);
});

test('casting goes on while one is elsewhere, and says what came of it', async ({ page, app }) => {
  test.slow();
  await page.goto(`${app.address}/sources`);
  await page.getByRole('link', { name: 'Open Sponge and bristle' }).click();
  await page.getByRole('button', { name: 'Exclude all' }).click();
  const box = (await page.locator('.page').boundingBox())!;
  for (const [u, v] of [
    [0.1, 0.12],
    [0.3, 0.12],
    [0.5, 0.12],
  ] as const)
    await page.mouse.click(box.x + u * box.width, box.y + v * box.height);
  await page.getByRole('button', { name: /^Cast \d alphas?$/ }).click();
  await expect(page.getByRole('button', { name: /^Casting “Sponge and bristle”/ })).toBeVisible();
  await page.getByRole('link', { name: 'Rack', exact: true }).click();
  await expect(page.getByRole('button', { name: /^Casting “Sponge and bristle”/ })).toBeVisible();
  await expect(page.getByText(/alphas? (is|are) cast from “Sponge and bristle”/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('button', { name: /^Casting/ })).toHaveCount(0);
});

test('two dozen pictures at once come in with progress; the three that are broken say why', async ({ page, app }) => {
  test.slow();
  const png = async (n: number): Promise<Buffer> => {
    const greys = Uint16Array.from({ length: 64 * 64 }, (_, i) =>
      Math.hypot((i % 64) - 32, Math.floor(i / 64) - 32) < 20 ? 9000 + n * 500 + (i % 13) * 300 : 0,
    );
    return sharp(greys, { raw: { width: 64, height: 64, channels: 1 } })
      .toColourspace('grey16')
      .png()
      .toBuffer();
  };
  const files = await Promise.all(
    Array.from({ length: 24 }, async (_, n) => ({
      name: `height ${n}.png`,
      mimeType: 'image/png',
      buffer: n % 8 === 7 ? (await png(n)).subarray(0, 60) : await png(n),
    })),
  );
  await page.goto(`${app.address}/sources`);
  await giveFiles(page, page.getByRole('button', { name: 'Open files…' }), files);
  await expect(page.getByText(/\d+ of 24/).first()).toBeVisible();
  await expect(page.getByText('21 in, 3 refused')).toBeVisible({ timeout: 180_000 });
  expect(await page.locator('.arrived li.refused').allInnerTexts()).toEqual(
    ['height 7.png', 'height 15.png', 'height 23.png'].map((name) =>
      expect.stringMatching(new RegExp(`^${name} .*\\.$`)),
    ),
  );
  const alphas: { card: { name: string }; format: string }[] = [];
  for (let after = ''; ;) {
    const { items, next } = await (await page.request.get(`${app.address}/api/alphas?limit=60${after}`)).json();
    alphas.push(...items);
    if (next === null) break;
    after = `&after=${encodeURIComponent(next)}`;
  }
  expect(alphas.filter((a) => a.card.name.startsWith('height ')).length).toBe(21);

  // What one was taken for is changed with a click: the alpha goes, a sheet comes.
  await page.getByRole('button', { name: 'Remove height 1.png from this list' }).scrollIntoViewIfNeeded();
  await page.getByLabel('What height 0.png is').getByRole('radio', { name: 'Marks' }).click();
  await expect(page.getByRole('link', { name: 'Open height 0', exact: true })).toHaveAttribute('href', /sheet/, {
    timeout: 20_000,
  });
});

test('a picture on a slow line is given up midway, and comes in when it is opened again', async ({ page, app }) => {
  await page.goto(`${app.address}/sources`);
  const png = await sharp(randomBytes(90_000), { raw: { width: 300, height: 300, channels: 1 } })
    .png()
    .toBuffer();
  const file = { name: 'slow.png', mimeType: 'image/png', buffer: png };
  const line = await page.context().newCDPSession(page);
  await line.send('Network.enable');
  const atMost = (uploadThroughput: number): Promise<unknown> =>
    line.send('Network.emulateNetworkConditions', {
      offline: false,
      latency: 0,
      downloadThroughput: -1,
      uploadThroughput,
    });
  await atMost(png.length / 20);
  await giveFiles(page, page.getByRole('button', { name: 'Open files…' }), file);
  const arrived = page.getByRole('region', { name: 'Arrived' });
  await expect(arrived.getByText('1 to come')).toBeVisible();
  await arrived.getByRole('button', { name: 'Cancel' }).click();
  await expect(arrived).toBeHidden();
  await atMost(-1);
  await giveFiles(page, page.getByRole('button', { name: 'Open files…' }), file);
  await expect(arrived.getByText('1 in')).toBeVisible();
});

test('the form takes a dropped picture as it is', async ({ page, app }) => {
  await openBrush(page, app, 'Crust, grown');
  const greys = Uint16Array.from({ length: 128 * 128 }, (_, i) =>
    Math.hypot((i % 128) - 64, Math.floor(i / 128) - 64) < 50 ? (i * 37) % 65536 : 0,
  );
  const bytes = await sharp(greys, { raw: { width: 128, height: 128, channels: 1 } })
    .toColourspace('grey16')
    .png()
    .toBuffer();
  const data = await page.evaluateHandle(
    (list) => {
      const transfer = new DataTransfer();
      transfer.items.add(new File([new Uint8Array(list)], 'dropped crust.png', { type: 'image/png' }));
      return transfer;
    },
    [...bytes],
  );
  await page.getByTitle('Choose another alpha').dispatchEvent('drop', { dataTransfer: data });
  await expect(page.getByRole('link', { name: /dropped crust/ })).toBeVisible({ timeout: 20_000 });
  await settled(page, '.proof');
  await page.getByTitle('Choose another alpha').click();
  await page.getByLabel('Search alphas').fill('dropped');
  await expect(page.locator('.chooser .alphas button')).toHaveCount(1);
  await page.keyboard.press('Escape');
  await draw(page, '.proof', [
    [0.5, 0.5],
    [0.56, 0.5],
  ]);
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '1');
  await set(page, 'Depth', '90');
});

test('a group of tools is one stop of Tab, gone along by arrows; pressed by the pointer a tool leaves them alone', async ({
  page,
  app,
}) => {
  await openBrush(page, app, 'Limpet press');
  const tools = page.getByRole('toolbar', { name: 'View and clay' });
  const focused = (): Promise<string | null> =>
    page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? null);
  await tools.getByRole('button', { name: 'Symmetry' }).focus();
  await page.keyboard.press('ArrowRight');
  expect(await focused()).toBe('Guides');
  // The keyboard is told what it is on, as the pointer is.
  const hint = page.getByRole('tooltip').filter({ hasText: 'Guides' });
  await expect(hint).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(hint).toBeHidden();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowLeft');
  await expect(hint).toBeVisible();
  // Taken, the pointer doesn't find it in its way.
  await page.mouse.move(600, 400);
  await page.mouse.move(610, 405);
  await expect(hint).toBeHidden();
  await page.keyboard.press('End');
  expect(await focused()).toBe('View from the front');
  await page.keyboard.press('Shift+Tab');
  expect(await tools.locator(':focus').count()).toBe(0);
  await page.keyboard.press('Tab');
  expect(await focused()).toBe('View from the front');
  await page.keyboard.press('ArrowRight');
  expect(await focused()).toBe('Symmetry');
  // An undo that can be done takes its place in the row.
  await pressAt(page, [[0.5, 0.5]]);
  await settled(page, '.proof');
  await tools.getByRole('button', { name: 'Undo' }).click();
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '0');
  expect(['Undo', null]).toContain(await focused());
});

test('a body that is being subdivided is given up by Esc, and what was there stays', async ({ page, app }) => {
  await openBrush(page, app, 'Limpet press');
  await pressAt(page, [[0.5, 0.5]]);
  await settled(page, '.proof');
  const proof = page.locator('.proof');
  const before = await proof.getAttribute('data-vertices');
  const subdivide = page.getByRole('button', { name: 'Subdivide the body' });
  await subdivide.evaluate((button: HTMLElement) => {
    button.click();
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', code: 'Escape', bubbles: true }));
  });
  await settled(page, '.proof');
  await expect(proof).toHaveAttribute('data-vertices', before!);
  await expect(proof).toHaveAttribute('data-strokes', '1');
  await expect(page.getByText('subdivided 1×')).toBeHidden();
  await subdivide.click();
  await expect(page.getByText('subdivided 1×')).toBeVisible();
  await settled(page, '.proof');
  await expect(proof).toHaveAttribute('data-strokes', '1');
  expect(Number(await proof.getAttribute('data-vertices'))).toBeGreaterThan(3.5 * Number(before));
});

test('strokes drawn right after a click on the belt are kept, and drawn with the brush that was chosen', async ({
  page,
  app,
}) => {
  await openBrush(page, app, 'Soft round');
  const engine = await page.context().newCDPSession(page);
  await engine.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  const discs = page.locator('.belt .at-hand');
  const strokes = (): Promise<number> =>
    page.locator('.proof').evaluate((proof) => Number(proof.getAttribute('data-strokes')));
  const path = new Set<string>();
  let drawn = await strokes();
  for (const [i, delay] of [0, 60, 150, 400, 1200].entries()) {
    await discs.nth(i + 1).click();
    await page.waitForTimeout(delay);
    for (const row of [0.4, 0.55]) {
      await page.mouse.move(...(await place(page, 0.42, row)));
      await page.mouse.down();
      await page.mouse.move(...(await place(page, 0.5, row)), { steps: 3 });
      await page.mouse.move(...(await place(page, 0.58, row)), { steps: 3 });
      await page.mouse.up();
    }
    drawn += 2;
    await expect.poll(strokes, { timeout: 60_000 }).toBe(drawn);
    path.add(new URL(page.url()).pathname);
    expect(await page.evaluate(() => getSelection()?.toString() ?? '')).toBe('');
  }
  expect(path.size).toBe(5);
});
