/** Parts: captured from a scan, brought down, seated, kept and written, with the real pointer. */
import { readFile } from 'node:fs/promises';
import { asPly, mooringStone } from '../demo/scans/mooringStone';
import { expect, giveFiles, openBrush, pick, place, pressAt, set, settled, test } from './app';

const stone = (): Buffer => Buffer.from(asPly(mooringStone(24)));

test('a region of a scan becomes a part: lasso, even faces, seat, size, undo, kept over a reload, and its files', async ({
  page,
  app,
}) => {
  test.slow();
  await page.goto(`${app.address}/sources`);
  await giveFiles(page, page.getByRole('button', { name: 'Open files…' }), {
    name: 'quay stone.ply',
    mimeType: 'application/octet-stream',
    buffer: stone(),
  });
  const scan = page.locator('.scan');
  await expect(scan).toHaveAttribute('data-busy', 'false', { timeout: 60_000 });
  const box = (await scan.boundingBox())!;
  const at = (x: number, y: number): [number, number] => [box.x + x * box.width, box.y + y * box.height];
  const ring = (turn: number): [number, number] =>
    at(0.5 + 0.14 * Math.cos(turn * 2 * Math.PI), 0.5 + 0.18 * Math.sin(turn * 2 * Math.PI));

  // A lasso that is given up leaves nothing.
  await page.getByRole('button', { name: 'A region' }).click();
  await page.mouse.move(...ring(0));
  await page.mouse.down();
  for (let n = 1; n <= 6; n++) await page.mouse.move(...ring(n / 16));
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect(page.locator('.lasso')).toHaveCount(0);
  await expect(page).toHaveURL(/scan/);

  await page.mouse.move(...ring(0));
  await page.mouse.down();
  for (let n = 1; n <= 16; n++) await page.mouse.move(...ring(n / 16));
  await page.mouse.up();
  await expect(page).toHaveURL(/bench\/part/, { timeout: 60_000 });
  const part = page.locator('.proof.part');
  await expect(part).toHaveAttribute('data-busy', 'false', { timeout: 60_000 });
  const numbers = part.locator('.numbers');
  const shape = await numbers.innerText();

  await pick(page, 'Even faces');
  await expect(numbers).not.toHaveText(shape);
  await expect(part).toHaveAttribute('data-busy', 'false');
  const even = await numbers.innerText();
  await page.getByLabel('Across, mm').last().fill('80');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Across, mm').last()).toHaveValue('80.0');

  // On its head and back again.
  await page.getByLabel('Tip, °').fill('180');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Turn it' }).click();
  await expect(page.getByRole('button', { name: /check/ })).toContainText('found something');
  await page.getByRole('button', { name: 'Flattest side', exact: true }).click();
  await expect(page.getByRole('button', { name: /All \d checks passed/ })).toBeVisible();
  await part.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('button', { name: /check/ })).toContainText('found something');
  await part.getByRole('button', { name: 'Redo', exact: true }).click();
  await expect(page.getByRole('button', { name: /All \d checks passed/ })).toBeVisible();

  // As it was captured, on the left of the line.
  const grip = part.locator('.grip');
  const held = (await grip.boundingBox())!;
  await page.mouse.move(held.x + held.width / 2, held.y + held.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + 300, held.y, { steps: 4 });
  await page.mouse.up();
  await expect(numbers).toContainText('captured');

  await page.keyboard.press('Control+s');
  await expect(page.getByText('saved', { exact: true })).toBeVisible();
  await page.reload();
  await expect(part).toHaveAttribute('data-busy', 'false', { timeout: 60_000 });
  await expect.poll(() => numbers.innerText()).toBe(even);
  await expect(page.getByLabel('Across, mm').last()).toHaveValue('80.0');

  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'GLB' }).click()]);
  const bytes = await readFile(await file.path());
  // What was lost, as an alpha and as normals.
  await page.getByRole('button', { name: 'Keep as an alpha' }).click();
  await expect(page.getByText('“quay stone part detail” is kept as an alpha, in Sources.')).toBeVisible();
  const [normals] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Normal picture' }).click(),
  ]);
  expect((await readFile(await normals.path())).subarray(1, 4).toString()).toBe('PNG');

  // Set down beside it at once; seated otherwise, the piece is too.
  const proof = page.locator('.proof:not(.part)');
  await expect(proof).toHaveAttribute('data-busy', 'false', { timeout: 60_000 });
  const body = (await proof.locator('canvas').boundingBox())!;
  await page.mouse.move(body.x + body.width * 0.5, body.y + body.height * 0.5);
  await page.mouse.down();
  await page.mouse.move(body.x + body.width * 0.65, body.y + body.height * 0.5, { steps: 4 });
  await page.mouse.up();
  await expect(proof).toHaveAttribute('data-pieces', '1');
  // Keys are those of the leaf that the hand is on.
  await page.keyboard.press('Control+z');
  await expect(proof).toHaveAttribute('data-pieces', '0');
  await expect(page.getByRole('button', { name: /checks passed/ })).toBeVisible();
  expect(bytes.subarray(0, 4).toString()).toBe('glTF');
  expect(bytes.toString('latin1')).toContain('quay stone part');

  // Into the set of a brush, as a change that can be undone there.
  await page.getByRole('button', { name: 'Add to a brush…' }).click();
  await page.getByRole('tooltip').getByRole('button', { name: 'Wharf fittings', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Part 9: quay stone part' })).toBeVisible();
  await expect(page).not.toHaveURL(/add=/);

  await page.goto(`${app.address}/sources`);
  await expect(page.getByRole('link', { name: 'Open quay stone part', exact: true })).toBeVisible();
});

test('parts set down: a row in turn, one by hand from the tray, undone one by one, and run again as a setting moves', async ({
  page,
  app,
}) => {
  test.slow();
  await openBrush(page, app, 'Wharf fittings');
  const proof = page.locator('.proof');
  await pick(page, 'In turn');
  await pick(page, 'Press');
  await settled(page, '.proof');
  const press = (x: number, y: number): Promise<void> => pressAt(page, [[x, y]]);
  // Three presses in a hurry are three pieces.
  await press(0.4, 0.4);
  await press(0.5, 0.5);
  await press(0.6, 0.45);
  await expect(proof).toHaveAttribute('data-pieces', '3');
  // Picked from the tray with the wheel.
  await page.mouse.move(...(await place(page, 0.45, 0.6)));
  await page.keyboard.down('t');
  await page.mouse.wheel(0, 100);
  await expect(page.getByRole('listbox', { name: 'Parts of the brush' })).toContainText('Trenail');
  await page.mouse.wheel(0, 100);
  await expect(page.getByRole('listbox', { name: 'Parts of the brush' })).toContainText('Trenail, struck');
  await page.keyboard.up('t');
  await expect(page.getByRole('listbox')).toHaveCount(0);
  await press(0.45, 0.6);
  await expect(proof).toHaveAttribute('data-pieces', '4');
  await page.keyboard.press('Control+z');
  await expect(proof).toHaveAttribute('data-pieces', '3');
  await page.keyboard.press('Control+Shift+z');
  await expect(proof).toHaveAttribute('data-pieces', '4');
  // A row, run again at another spacing.
  await pick(page, 'Trail');
  await set(page, 'Spacing', '250');
  await settled(page, '.proof');
  await page.mouse.move(...(await place(page, 0.3, 0.3)));
  await page.mouse.down();
  await page.mouse.move(...(await place(page, 0.7, 0.32)), { steps: 12 });
  await page.mouse.up();
  await expect.poll(async () => Number(await proof.getAttribute('data-pieces'))).toBeGreaterThan(4);
  const before = Number(await proof.getAttribute('data-pieces'));
  await set(page, 'Spacing', '120');
  await expect.poll(async () => Number(await proof.getAttribute('data-pieces'))).toBeGreaterThan(before);
  await page.screenshot({ path: 'build/test-results/pieces.png' });
});

test.describe('on a server of its own', () => {
  test.use({ shares: false });

  test('pieces: chosen, moved along the surface, sized, copied, hidden, taken away; kept with the body over a restart, and written', async ({
    page,
    app,
  }) => {
    test.slow();
    await openBrush(page, app, 'Wharf fittings');
    const proof = page.locator('.proof');
    await pick(page, 'Press');
    await pick(page, 'In turn');
    await settled(page, '.proof');
    await pressAt(page, [
      [0.42, 0.42],
      [0.58, 0.5],
    ]);
    await expect(proof).toHaveAttribute('data-pieces', '2');
    const list = page.getByRole('complementary', { name: 'Pieces on the body' });
    await page.keyboard.press('g');
    await page.mouse.move(...(await place(page, 0.42, 0.42)));
    await page.mouse.down();
    await page.mouse.move(...(await place(page, 0.5, 0.6)), { steps: 6 });
    await page.mouse.up();
    await settled(page, '.proof');
    await expect(list).toContainText('1 of 1');
    const strokes = await proof.getAttribute('data-strokes');
    // Moved away from where it was, and there where it went.
    await page.keyboard.press('Escape');
    await page.mouse.click(...(await place(page, 0.42, 0.42)));
    await expect(list).not.toContainText('1 of 1');
    await page.mouse.click(...(await place(page, 0.5, 0.6)));
    await expect(list).toContainText('1 of 1');
    await page.keyboard.press(']');
    await page.keyboard.press('Control+d');
    await expect(proof).toHaveAttribute('data-pieces', '3');
    // Mirrored, replaced, named, and kept as a part of its own.
    await list.getByRole('button', { name: 'Mirror' }).click();
    await expect(proof).toHaveAttribute('data-pieces', '4');
    await page.keyboard.press('Control+z');
    await expect(proof).toHaveAttribute('data-pieces', '3');
    await page.mouse.click(...(await place(page, 0.5, 0.6)));
    await expect(page.getByLabel('Name of the piece')).not.toHaveValue('');
    await page.getByLabel('Name of the piece').fill('Leaning peg');
    await page.keyboard.press('Enter');
    await expect(list).toContainText('Leaning peg');
    await list.getByRole('button', { name: 'Replace' }).click();
    await page.getByRole('button', { name: /^Cork float/ }).click();
    await expect(list).toContainText('Cork float');
    await list.getByRole('button', { name: 'Keep as a part' }).click();
    await expect(page.getByText('“Cork float” is kept as a part, in Sources.')).toBeVisible();
    await page.keyboard.press('Shift+G');
    await expect(list).toContainText('Show 1 hidden');
    await page.getByRole('button', { name: 'Show 1 hidden' }).click();
    await page.keyboard.press('Delete');
    await expect(proof).toHaveAttribute('data-pieces', '2');
    await page.keyboard.press('Control+z');
    await expect(proof).toHaveAttribute('data-pieces', '3');
    expect(Number(await proof.getAttribute('data-strokes'))).toBeGreaterThan(Number(strokes));

    await page.getByRole('button', { name: 'Keep or download the body' }).click();
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'OBJ', exact: true }).click(),
    ]);
    const text = (await readFile(await file.path())).toString();
    expect(text.match(/^o /gm)).toHaveLength(4);
    await page.getByRole('button', { name: 'Keep or download the body' }).click();
    await page.getByLabel('Name of the body').fill('Ball with pegs');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByText('Kept as “Ball with pegs”.')).toBeVisible();
    await settled(page, '.proof');
    await expect(proof).toHaveAttribute('data-pieces', '3');
    await app.kill();
    await app.start();
    await page.reload();
    await settled(page, '.proof');
    await expect(proof).toHaveAttribute('data-pieces', '3');
    await expect(list).toContainText('3 pieces');
  });
});

test('pieces freely: a box chooses, a handle moves, strokes go on one alone, all are merged; each is one step of undo', async ({
  page,
  app,
}) => {
  test.slow();
  await openBrush(page, app, 'Wharf fittings');
  const proof = page.locator('.proof');
  await pick(page, 'Press');
  await pick(page, 'In turn');
  await settled(page, '.proof');
  await pressAt(page, [
    [0.5, 0.4],
    [0.62, 0.4],
    [0.55, 0.66],
  ]);
  await expect(proof).toHaveAttribute('data-pieces', '3');
  const list = page.getByRole('complementary', { name: 'Pieces on the body' });
  await page.keyboard.press('g');
  // Given up with Esc the box chooses nothing; let go it takes what is seen in it.
  const drawBox = async (): Promise<void> => {
    await page.mouse.move(...(await place(page, 0.45, 0.2)));
    await page.keyboard.down('Shift');
    await page.mouse.down();
    await page.mouse.move(...(await place(page, 0.7, 0.5)), { steps: 3 });
  };
  await drawBox();
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await page.keyboard.up('Shift');
  await expect(list).not.toContainText('1 of 1');
  await drawBox();
  await page.mouse.up();
  await page.keyboard.up('Shift');
  await expect(list.getByText('1 of 1')).toHaveCount(2);
  await page.keyboard.press('Escape');

  // One alone, by its handle: up as it is seen.
  await page.mouse.click(...(await place(page, 0.55, 0.66)));
  const up = list.getByLabel('y, body units');
  const before = Number(await up.inputValue());
  await list.getByRole('button', { name: 'Move freely' }).click();
  const [x, y] = await place(page, 0.55, 0.66);
  const dragHandle = async (): Promise<void> => {
    await page.mouse.move(x, y - 40);
    await page.mouse.down();
    await page.mouse.move(x, y - 80, { steps: 4 });
  };
  await dragHandle();
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await settled(page, '.proof');
  expect(Number(await up.inputValue())).toBe(before);
  await dragHandle();
  await page.mouse.up();
  await expect.poll(async () => Number(await up.inputValue())).toBeGreaterThan(before + 0.05);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => Number(await up.inputValue())).toBe(before);
  await list.getByRole('button', { name: 'Move freely' }).click();
  await list.getByLabel('Turn, °').fill('30');
  await page.keyboard.press('Enter');
  await expect(list.getByLabel('Turn, °')).toHaveValue('30');

  // Another brush, on this piece and on nothing else.
  await pick(page, 'Chosen');
  await page.keyboard.press('g');
  await page.getByRole('button', { name: 'Soft round', exact: true }).click();
  await settled(page, '.proof');
  const strokes = Number(await proof.getAttribute('data-strokes'));
  const [px, py] = await place(page, 0.545, 0.65);
  await page.mouse.move(px - 8, py);
  await page.mouse.down();
  await page.mouse.move(px + 8, py + 4, { steps: 4 });
  await page.mouse.up();
  await expect(proof).toHaveAttribute('data-strokes', String(strokes + 1));
  // Beside it the body is there, and takes nothing.
  await page.mouse.move(...(await place(page, 0.4, 0.55)));
  await page.mouse.down();
  await page.mouse.up();
  await settled(page, '.proof');
  await expect(proof).toHaveAttribute('data-strokes', String(strokes + 1));

  // A colour, and a file of its own.
  await page.keyboard.press('g');
  await list.getByTitle('Colour of the piece').click();
  await page.locator('.el-color-predefine__color-selector:visible').first().click();
  await page.getByRole('button', { name: 'OK', exact: true }).click();
  await list.getByRole('button', { name: 'Download' }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'GLB', exact: true }).click(),
  ]);
  const bytes = await readFile(await file.path());
  expect(bytes.toString('latin1')).toContain('baseColorFactor');
  await page.keyboard.press('Escape');

  const faces = (await page.locator('.said').innerText()).split('\n')[0]!;
  await page.getByRole('button', { name: 'Merge the chosen' }).click();
  await expect(page.getByText('1 piece merged into the body.')).toBeVisible();
  await expect(proof).toHaveAttribute('data-pieces', '2');
  await page.getByRole('button', { name: 'Join all' }).click();
  await expect(page.getByText('2 pieces joined to the body.')).toBeVisible();
  await expect(proof).toHaveAttribute('data-pieces', '0');
  await expect(page.locator('.said')).not.toContainText(faces);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(proof).toHaveAttribute('data-pieces', '3');
  await expect(page.locator('.said')).toContainText(faces);
});
