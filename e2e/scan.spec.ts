/** A scan from the file to the brush, with the real pointer. */
import { appendFile, mkdir, readdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { startFlatbed } from '../demo/devices/flatbed';
import { asPly, asScanned, mooringStone } from '../demo/scans/mooringStone';
import { draw, expect, giveFiles, seen, set, settled, test } from './app';

const rough = (): Buffer => Buffer.from(asPly(asScanned(mooringStone(28), 5)));

test('a scan: brought in, mended and taken back, a patch laid, moved and turned, cast, and made into a brush', async ({
  page,
  app,
}) => {
  test.slow();
  await page.goto(`${app.address}/sources`);
  await giveFiles(page, page.getByRole('button', { name: 'Open files…' }), {
    name: 'harbour stone.ply',
    mimeType: 'application/octet-stream',
    buffer: rough(),
  });
  const view = page.locator('.scan');
  await expect(view).toHaveAttribute('data-busy', 'false', { timeout: 60_000 });
  const column = page.locator('.column');
  await expect(column).toContainText('PLY, coloured');
  await expect(column).toContainText('60 loose bits');
  const faces = column.locator('dd').first();
  const before = await faces.textContent();
  await page.getByRole('button', { name: 'Drop them' }).click();
  await expect(column).not.toContainText('loose bits');
  await expect(faces).not.toHaveText(before!);
  await expect(column).toContainText('1 hole or open rim');
  await page.getByRole('button', { name: 'Fill the small ones' }).click();
  await expect(column).not.toContainText('open rim');
  await expect(page.getByRole('button', { name: 'All 6 checks passed' })).toBeVisible();
  // Mends are taken back like everything else.
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(column).toContainText('1 hole or open rim');
  await page.getByRole('button', { name: 'Redo', exact: true }).click();
  await expect(column).not.toContainText('open rim');

  // A patch: pressed on the surface, its size dragged out.
  const box = (await view.boundingBox())!;
  const at = (x: number, y: number): [number, number] => [box.x + x * box.width, box.y + y * box.height];
  await page.mouse.move(...at(0.45, 0.6));
  await page.mouse.down();
  await page.mouse.move(...at(0.54, 0.66), { steps: 5 });
  await page.mouse.up();
  await expect(view).toHaveAttribute('data-patches', '1');
  const picture = page.locator('.picture');
  await expect(picture).toHaveAttribute('data-cast', /^-?\d/);
  const first = await picture.getAttribute('data-cast');
  const patch = page.getByRole('button', { name: 'Patch Patch 1' });
  const frame = await patch.getAttribute('points');
  // Moved along the surface, taken hold of off its middle.
  await page.mouse.move(...at(0.46, 0.62));
  await page.mouse.down();
  await page.mouse.move(...at(0.5, 0.55), { steps: 5 });
  await page.mouse.up();
  await expect(patch).not.toHaveAttribute('points', frame!);
  await expect(picture).not.toHaveAttribute('data-cast', first!);
  const moved = await patch.getAttribute('points');
  await page.keyboard.press('.');
  await expect(patch).not.toHaveAttribute('points', moved!);
  // Dragged beside the scan the eye turns and the patch stays.
  await page.mouse.move(...at(0.06, 0.9));
  await page.mouse.down();
  await page.mouse.move(...at(0.12, 0.88), { steps: 3 });
  await page.mouse.up();
  await expect(view).toHaveAttribute('data-patches', '1');

  const heights = await picture.getAttribute('data-cast');
  await page.getByRole('radio', { name: 'None' }).click();
  await expect(picture).not.toHaveAttribute('data-cast', heights!);
  await page.getByRole('radio', { name: 'Dome' }).click();
  await page.getByRole('radio', { name: 'Fade' }).click();
  await page.getByRole('radio', { name: 'Output' }).click();
  await set(page, 'Size', '128');
  await page.getByLabel('Name of the alpha').fill('Stone skin');
  await page.getByRole('button', { name: 'Cast', exact: true }).click();
  await expect(page.getByRole('link', { name: 'Open Stone skin' })).toBeVisible({ timeout: 60_000 });
  await expect(page.locator('.panel li')).toContainText('colours');
  const { items } = (await (await fetch(`${app.address}/api/alphas`)).json()) as {
    items: { id: string; card: { name: string } }[];
  };
  const id = items.find((i) => i.card.name === 'Stone skin')!.id;
  const colours = await sharp(
    Buffer.from(await (await fetch(`${app.address}/api/alphas/${id}/colours`)).arrayBuffer()),
  ).metadata();
  expect([colours.width, colours.height, colours.channels]).toEqual([128, 128, 4]);
  await page.reload();
  await expect(view).toHaveAttribute('data-patches', '1', { timeout: 60_000 });

  await page.getByRole('button', { name: 'Make brush' }).click();
  // The scan's own view is gone, so that the proof is the one that is waited for.
  await expect(page).toHaveURL(/bench\/brush/);
  await expect(view).toHaveCount(0);
  await settled(page, '.proof');
  const bare = await seen(page, '.proof');
  await draw(page, '.proof', [
    [0.4, 0.5],
    [0.6, 0.5],
  ]);
  expect(await seen(page, '.proof')).not.toBe(bare);
});

test('meshes that can’t be scans say why; what is broken in one is left out and told', async ({ page, app }) => {
  await page.goto(`${app.address}/sources`);
  const ply = (vertices: string[], faces: string[]): string =>
    [
      'ply',
      'format ascii 1.0',
      `element vertex ${vertices.length}`,
      'property float x\nproperty float y\nproperty float z',
      `element face ${faces.length}`,
      'property list uchar int vertex_indices',
      'end_header',
      ...vertices,
      ...faces,
    ].join('\n') + '\n';
  const grid = Array.from({ length: 121 }, (_, i) => `${i % 11} ${Math.floor(i / 11)} ${Math.sin(i)}`);
  const faces = Array.from({ length: 100 }, (_, i) => {
    const a = Math.floor(i / 10) * 11 + (i % 10);
    return `4 ${a} ${a + 1} ${a + 12} ${a + 11}`;
  });
  const files: [string, string][] = [
    ['points.ply', ply(grid, [])],
    ['torn.ply', 'ply\nformat ascii 1.0\nelement vert'],
    ['empty.obj', ''],
    ['one place.obj', 'v 1 1 1\nv 1 1 1\nv 1 1 1\nf 1 2 3\n'],
    ['odd.ply', ply([...grid.slice(0, 60), 'nan 0 0', ...grid.slice(61)], faces)],
  ];
  await giveFiles(
    page,
    page.getByRole('button', { name: 'Open files…' }),
    files.map(([name, text]) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(text) })),
  );
  const list = page.getByRole('region', { name: 'Arrived' });
  await expect(list).toContainText('1 in, 4 refused', { timeout: 60_000 });
  await expect(list).toContainText('points.ply holds no triangles');
  await expect(list).toContainText('torn.ply');
  await expect(list).toContainText('“empty.obj” is empty.');
  await expect(list).toContainText('All points of the mesh lie at one place');
  await list.getByRole('link', { name: 'Open what odd.ply became' }).click();
  await expect(page.locator('.column')).toContainText('named a vertex that isn’t a number', { timeout: 30_000 });
});

test.describe('on a server of its own', () => {
  test.use({ shares: false });

  test('what another program writes into the inbox arrives by itself, once it is whole; what can’t is told', async ({
    page,
    app,
  }) => {
    const inbox = join(app.folder, 'inbox');
    await mkdir(inbox, { recursive: true });
    await page.goto(`${app.address}/sources`);
    const note = page.getByRole('region', { name: 'Inbox' });
    await expect(note).toContainText(inbox);
    const bytes = rough();
    const path = join(inbox, 'from the scanner.ply');
    await writeFile(path, bytes.subarray(0, 9000));
    await writeFile(join(inbox, 'notes.txt'), 'none of these');
    // Written on and on, chunk by chunk, until the page has seen it so.
    let at = 9000;
    let writing = Promise.resolve();
    const pen = setInterval(() => {
      const chunk = bytes.subarray(at, at + 100);
      at += 100;
      writing = writing.then(() => appendFile(path, chunk));
    }, 400);
    await expect(note).toContainText('from the scanner.ply is still being written');
    clearInterval(pen);
    await writing;
    await appendFile(path, bytes.subarray(at));
    const list = page.getByRole('region', { name: 'Arrived' });
    await expect(list).toContainText('1 in', { timeout: 40_000 });
    await expect(list).toContainText('PLY');
    await expect(note).toContainText('notes.txt is neither a picture nor a mesh');
    await expect.poll(() => readdir(join(inbox, 'taken'))).toEqual(['from the scanner.ply']);
    // It came once, and is there after a reload.
    await page.reload();
    await expect(page.getByRole('link', { name: 'Open from the scanner' })).toHaveCount(1);
  });
});

test('a page from a flatbed: found, previewed, its area dragged, cancelled, scanned onto the sheet bench', async ({
  page,
  app,
}) => {
  const bed = await startFlatbed(0);
  await page.goto(`${app.address}/sources`);
  await page.getByRole('button', { name: 'Scan a page…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Scan a page' });
  const address = dialog.getByLabel('Address of the scanner');
  await address.fill('two words');
  await dialog.getByRole('button', { name: 'Find it' }).click();
  await expect(dialog.getByRole('alert')).toContainText('isn’t an address');
  await address.fill('203.0.113.9');
  await address.press('Enter');
  await expect(dialog.getByRole('alert')).toContainText('isn’t on the local network');
  await address.fill(bed.address);
  await address.press('Enter');
  await expect(dialog).toContainText('Tidewrack Flatbed');
  await dialog.getByRole('button', { name: 'Preview' }).click();
  await expect(dialog.getByAltText('What lies on the glass')).toBeVisible();
  const glass = (await dialog.locator('.glass').boundingBox())!;
  await page.mouse.move(glass.x + glass.width * 0.1, glass.y + glass.height * 0.08);
  await page.mouse.down();
  await page.mouse.move(glass.x + glass.width * 0.9, glass.y + glass.height * 0.5, { steps: 4 });
  await page.mouse.up();
  await expect(dialog.getByLabel('Width, mm')).toHaveValue(/^17\d/);
  bed.faults = { slowMs: 200 };
  await dialog.getByRole('button', { name: 'Scan', exact: true }).click();
  await expect(dialog.getByRole('status')).toContainText('Scanning at 300 dpi');
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  await expect(dialog.getByRole('status')).toBeHidden();
  await expect(dialog.getByRole('alert')).toBeHidden();
  bed.faults = {};
  await dialog.getByRole('button', { name: 'Scan', exact: true }).click();
  await expect(page.getByText(/\d+ marks, \d+ included/)).toBeVisible({ timeout: 60_000 });
  await expect(page.locator('.trail')).toContainText('scan at 300 dpi');
  await bed.close();
});
