/** Painting with the real pointer: strokes, layers, colours, files, and nothing lost over a reload. */
import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import { draw, expect, openBrush, place, seen, set, settled, test } from './app';

test.describe('on a server of its own', () => {
  test.use({ shares: false });

  test('strokes of paint follow their settings, go on layers, are undone with the clay, and survive a reload', async ({
    page,
    app,
  }) => {
    test.slow();
    await openBrush(page, app, 'Salt speckle');
    const bare = await seen(page, '.proof');
    await draw(page, '.proof', [
      [0.38, 0.4],
      [0.5, 0.36],
      [0.6, 0.42],
    ]);
    const painted = await seen(page, '.proof');
    expect(painted).not.toBe(bare);
    // Its colour stays when another is chosen; every other setting is replayed.
    await page.getByRole('button', { name: 'Oxide', exact: true }).click();
    await settled(page, '.proof');
    expect(await seen(page, '.proof')).toBe(painted);
    await page.getByRole('tab', { name: 'Colour' }).click();
    await set(page, 'Hue drift', '120');
    await settled(page, '.proof');
    const drifted = await seen(page, '.proof');
    expect(drifted).not.toBe(painted);
    // The version that is saved is painted beside it, and follows the layers.
    await page.getByRole('button', { name: 'Side by side' }).click();
    await settled(page, '.compared');
    const beside = await seen(page, '.compared');
    await page.getByRole('button', { name: 'Hide Layer 1' }).click();
    await expect.poll(() => seen(page, '.compared')).not.toBe(beside);
    await page.keyboard.press('Control+z');
    await page.getByRole('button', { name: 'Side by side' }).click();
    await settled(page, '.proof');
    expect(await seen(page, '.proof')).toBe(drifted);
    // Unless strokes stay as they were drawn.
    await page.getByRole('button', { name: 'Strokes follow the brush' }).click();
    await draw(page, '.proof', [
      [0.4, 0.55],
      [0.5, 0.55],
    ]);
    const stays = await seen(page, '.proof');
    await set(page, 'Hue drift', '10');
    await settled(page, '.proof');
    expect(await seen(page, '.proof')).toBe(stays);
    await page.keyboard.press('Escape');
    await page.locator('.proof').getByRole('button', { name: 'Undo', exact: true }).click();
    await settled(page, '.proof');
    expect(await seen(page, '.proof')).toBe(drifted);
    await set(page, 'Hue drift', '120');
    await page.getByRole('button', { name: 'Strokes follow the brush' }).click();
    await settled(page, '.proof');

    // A layer of its own, hidden and shown.
    await page.getByRole('button', { name: 'Add a layer' }).click();
    await expect(page.getByRole('button', { name: '2 layers' })).toBeVisible();
    await draw(page, '.proof', [
      [0.4, 0.6],
      [0.58, 0.62],
    ]);
    const both = await seen(page, '.proof');
    expect(both).not.toBe(drifted);
    await page.getByRole('button', { name: 'Hide Layer 2' }).click();
    expect(await seen(page, '.proof')).toBe(drifted);
    await page.getByRole('button', { name: 'Show Layer 2' }).click();
    for (const key of ['Control+z', 'Control+z', 'Control+z']) await page.keyboard.press(key);
    expect(await seen(page, '.proof')).toBe(drifted);
    for (const key of ['Control+y', 'Control+y', 'Control+y']) await page.keyboard.press(key);
    expect(await seen(page, '.proof')).toBe(both);

    // Abandoned before its release a stroke leaves nothing.
    await draw(
      page,
      '.proof',
      [
        [0.4, 0.5],
        [0.6, 0.5],
      ],
      false,
    );
    await page.keyboard.press('Escape');
    await page.mouse.up();
    expect(await seen(page, '.proof')).toBe(both);

    // What is seen is what is written, and it is there after the server was killed and the page reloaded.
    const written = async (): Promise<Buffer> => {
      await page.getByRole('button', { name: 'Texture', exact: true }).click();
      const [file] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('button', { name: 'PNG 16', exact: true }).click(),
      ]);
      return readFile(await file.path());
    };
    const png = await written();
    const { width, channels, depth } = await sharp(png).metadata();
    expect([width, channels, depth]).toEqual([512, 4, 'ushort']);
    const cover = (await sharp(png).stats()).channels[3]!;
    expect(cover.mean).toBeGreaterThan(20);
    await expect(page.locator('.proof')).toHaveAttribute('data-kept', 'true');
    await app.kill();
    await app.start();
    await page.reload();
    await settled(page, '.proof');
    await expect(page.getByRole('button', { name: '2 layers' })).toBeVisible();
    expect(
      Buffer.compare(
        await sharp(await written())
          .raw()
          .toBuffer(),
        await sharp(png).raw().toBuffer(),
      ),
    ).toBe(0);
  });
});

test('a painted body is kept and opened with its layers; the colour under the pointer is taken with C held', async ({
  page,
  app,
}) => {
  test.slow();
  await page.addInitScript(() => (localStorage['proof-body'] ??= 'd0000000-0000-4000-8000-000000000091'));
  await openBrush(page, app, 'Hard paint');
  await expect(page.getByRole('button', { name: '2 layers' })).toBeVisible();
  await page.keyboard.down('c');
  await page.mouse.click(...(await place(page, 0.5, 0.6)));
  await page.keyboard.up('c');
  await expect(page.locator('.wells code').first()).not.toHaveText('#9c4a2a');
  await page.getByRole('button', { name: 'Verdigris', exact: true }).click();
  await expect(page.locator('.wells code').first()).toHaveText('#4f8577');
  await draw(page, '.proof', [
    [0.45, 0.7],
    [0.55, 0.7],
  ]);
  const now = await seen(page, '.proof');
  await page.getByRole('button', { name: 'Keep or download the body' }).click();
  await page.getByLabel('Name of the body').fill('My buoy');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('Kept as “My buoy”.')).toBeVisible({ timeout: 30_000 });
  await settled(page, '.proof');
  expect(await seen(page, '.proof')).toBe(now);
  await expect
    .poll(async () => {
      const { items } = await (await fetch(`${app.address}/api/bodies`)).json();
      return items.find((one: { card: { name: string } }) => one.card.name === 'My buoy')?.painted;
    })
    .toBe(true);
  const [glb] = await Promise.all([
    page.waitForEvent('download'),
    (async () => {
      await page.getByRole('button', { name: 'Keep or download the body' }).click();
      await page.getByRole('button', { name: 'GLB', exact: true }).click();
    })(),
  ]);
  expect((await readFile(await glb.path())).includes('image/png')).toBe(true);
});
