/** The picture of a brush: its light and body, one of one's own cropped in place; and a clean picture of the proof. */
import { readFile } from 'node:fs/promises';
import sharp, { type Sharp } from 'sharp';
import { draw, expect, giveFiles, openBrush, pick, set, test } from './app';

test('the picture of a brush follows its look, is cropped from a file or the proof; the proof is saved clean', async ({
  page,
  app,
}) => {
  await openBrush(page, app, 'Limpet press');
  await page.getByRole('tab', { name: 'Card' }).click();
  const picture = page.locator('.picture img');
  const shown = async (): Promise<string> => (await picture.getAttribute('src')) ?? '';
  let last = await shown();
  const another = async (): Promise<void> => {
    await expect(picture).not.toHaveAttribute('src', last);
    last = await shown();
  };
  await pick(page, 'Ball');
  await another();
  await set(page, 'Light from', '-30');
  await another();
  await set(page, 'Zoom', '150');
  await another();

  // Cropped in place: of a picture that is half red and half blue, the right half.
  const half = await sharp({ create: { width: 300, height: 300, channels: 3, background: '#2040c0' } })
    .png()
    .toBuffer();
  const both = await sharp({ create: { width: 600, height: 300, channels: 3, background: '#c02020' } })
    .composite([{ input: half, left: 300, top: 0 }])
    .png()
    .toBuffer();
  await giveFiles(page, page.getByRole('button', { name: 'From a file…' }), {
    name: 'halves.png',
    mimeType: 'image/png',
    buffer: both,
  });
  const dialog = page.getByRole('dialog', { name: 'Picture of the brush' });
  const stencil = dialog.locator('.vue-rectangle-stencil');
  await expect(stencil).toBeVisible();
  const box = (await stencil.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 1.6, box.y + box.height / 2, { steps: 8 });
  await page.mouse.up();
  await dialog.getByRole('button', { name: 'Use it' }).click();
  await expect(dialog).toBeHidden();
  await expect(picture).toHaveAttribute('src', /^data:/);
  const own = Buffer.from((await shown()).split(',')[1]!, 'base64');
  const { data, info } = await sharp(own).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  expect([info.width, info.height]).toEqual([320, 320]);
  expect(data[2]!).toBeGreaterThan(data[0]! * 2);
  last = await shown();
  await giveFiles(page, page.getByRole('button', { name: 'From a file…' }), {
    name: 'broken.png',
    mimeType: 'image/png',
    buffer: Buffer.from('no picture'),
  });
  await expect(dialog.getByRole('alert')).toContainText('can’t be read as a picture');
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
  await page.getByRole('button', { name: 'Draw its stroke' }).click();
  await another();

  await draw(page, '.proof', [[0.5, 0.45]]);
  await page.getByRole('button', { name: 'From the proof…' }).click();
  await dialog.getByRole('button', { name: 'Use it' }).click();
  await expect(dialog).toBeHidden();
  await another();
  expect(last).toContain('data:image/webp');

  // The body alone, clear round it, at the size that was typed; then with what lies behind.
  const save = async (ground: boolean): Promise<Sharp> => {
    await page.getByRole('button', { name: 'Clay and light' }).click();
    await page.getByRole('button', { name: 'Save a picture…' }).click();
    const asked = page.getByRole('dialog', { name: 'Picture of the proof' });
    for (const [label, value] of [
      ['Width', '400'],
      ['Height', '240'],
    ] as const)
      await set(page, label, value);
    const box = asked.getByRole('checkbox');
    if ((await box.isChecked()) !== ground) await asked.getByText('With the ground').click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      asked.getByRole('button', { name: 'Save PNG' }).click(),
    ]);
    await expect(asked).toBeHidden();
    expect(download.suggestedFilename()).toBe('Limpet press.png');
    return sharp(await readFile(await download.path()));
  };
  const alphaAt = async (of: Sharp, x: number, y: number): Promise<number> => {
    const { data: bytes, info: is } = await of.clone().ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    expect([is.width, is.height]).toEqual([400, 240]);
    return bytes[(y * 400 + x) * 4 + 3]!;
  };
  const clear = await save(false);
  expect([await alphaAt(clear, 4, 4), await alphaAt(clear, 200, 120)]).toEqual([0, 255]);
  const whole = await save(true);
  expect(await alphaAt(whole, 4, 4)).toBe(255);
});
