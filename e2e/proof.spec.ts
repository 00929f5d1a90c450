import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createEncoderModule } from 'draco3d';
import { dracoGlb } from '../web/workers/dracoKit';
import { choose, draw, expect, giveFiles, listOf, openBrush, place, seen, set, settled, test } from './app';

// Smaller pictures, since they are drawn in software where there is no graphics card.
test.use({ viewport: { width: 1040, height: 620 } });

test('each stroke type with the pointer; Esc abandons; the body turns beside it', async ({ page, app }) => {
  await openBrush(page, app, 'Barnacle press');
  const bare = await seen(page, '.proof');
  const looks = [bare];
  for (const type of ['Trail', 'Ruler', 'Press', 'Grow', 'Pull']) {
    await page.getByRole('radio', { name: type }).click();
    await draw(page, '.proof', [
      [0.4, 0.5],
      [0.5, 0.48],
      [0.62, 0.38],
    ]);
    looks.push(await seen(page, '.proof'));
    await draw(
      page,
      '.proof',
      [
        [0.45, 0.4],
        [0.55, 0.5],
      ],
      false,
    );
    await page.keyboard.press('Escape');
    await page.mouse.up();
    await settled(page, '.proof');
    await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '1');
    await page.keyboard.press('Control+z');
    await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '0');
  }
  expect(await seen(page, '.proof')).toBe(bare);
  expect(new Set(looks).size).toBe(6);
  await draw(page, '.proof', [
    [0.02, 0.5],
    [0.1, 0.5],
  ]);
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '0');
});

test('Linger goes on while the pointer rests; Path is clicked, dragged, closed and kept as one stroke', async ({
  page,
  app,
}) => {
  await openBrush(page, app, 'Soft round');
  await page.getByRole('radio', { name: 'Linger' }).click();
  const bare = await seen(page, '.proof');
  await draw(page, '.proof', [[0.5, 0.5]]);
  const once = await seen(page, '.proof');
  await page.keyboard.press('Control+z');
  await page.mouse.move(...(await place(page, 0.5, 0.5)));
  await page.mouse.down();
  // The hand rests, and what it lays in that time is the point.
  await page.waitForTimeout(900);
  await page.mouse.up();
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '1');
  expect([bare, once]).not.toContain(await seen(page, '.proof'));
  await page.keyboard.press('Control+z');
  expect(await seen(page, '.proof')).toBe(bare);

  await page.getByRole('radio', { name: 'Path' }).click();
  for (const [x, y] of [
    [0.35, 0.4],
    [0.5, 0.6],
    [0.65, 0.4],
  ] as const) {
    await page.mouse.click(...(await place(page, x, y)));
    await settled(page, '.proof');
  }
  await expect(page.locator('svg.path rect')).toHaveCount(3);
  await page.locator('svg.path rect').nth(1).hover();
  await page.mouse.down();
  await page.mouse.move(...(await place(page, 0.5, 0.3)), { steps: 4 });
  await page.mouse.up();
  await page.getByRole('button', { name: 'Close it' }).click();
  await page.keyboard.press('Backspace');
  await expect(page.locator('svg.path rect')).toHaveCount(2);
  await page.keyboard.press('Enter');
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '1');
  await expect(page.locator('svg.path rect')).toHaveCount(0);
  expect(await seen(page, '.proof')).not.toBe(bare);
  await page.mouse.click(...(await place(page, 0.5, 0.5)));
  await page.keyboard.press('Escape');
  await expect(page.locator('svg.path rect')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  expect(await seen(page, '.proof')).toBe(bare);
});

test('each mapping stamps in its own way; the stencil is moved by pointer and keys; a tooth is taken up', async ({
  page,
  app,
}) => {
  await openBrush(page, app, 'Limpet press');
  const looks: string[] = [];
  for (const mapping of ['On surface', 'From view', 'Wrapped', 'Shuffled', 'Stencil']) {
    await page.getByRole('radio', { name: mapping }).click();
    if (mapping === 'Stencil') {
      await page.getByRole('button', { name: 'Move the stencil' }).click();
      const sheet = (await page.locator('.stencil .sheet').boundingBox())!;
      await page.mouse.move(sheet.x + sheet.width / 2, sheet.y + sheet.height / 2);
      await page.mouse.down();
      await page.mouse.move(sheet.x + sheet.width / 2 - 30, sheet.y + sheet.height / 2 + 20, { steps: 3 });
      await page.mouse.up();
      await page.keyboard.press('.');
      await page.keyboard.press('-');
      const moved = (await page.locator('.stencil .sheet').boundingBox())!;
      expect(moved.x + moved.width / 2).toBeCloseTo(sheet.x + sheet.width / 2 - 30, 0);
      await page.getByRole('button', { name: 'Stroke through it' }).click();
    }
    await draw(page, '.proof', [[0.46, 0.52]]);
    looks.push(await seen(page, '.proof'));
    await page.keyboard.press('Control+z');
    await settled(page, '.proof');
  }
  expect(new Set(looks).size).toBe(5);
  await page.getByRole('radio', { name: 'On surface' }).click();
  await draw(page, '.proof', [[0.46, 0.52]]);
  const plain = await seen(page, '.proof');
  await page.getByRole('tab', { name: 'Tooth' }).click();
  await page.getByRole('button', { name: 'No tooth: choose a picture' }).click();
  await page.locator('.el-popover:visible').getByRole('button', { name: 'Sponge print' }).click();
  await expect.poll(() => seen(page, '.proof')).not.toBe(plain);
  await page.getByRole('button', { name: 'Sponge print' }).click();
  await page.locator('.el-popover:visible').getByRole('button', { name: 'No tooth' }).click();
  await expect.poll(() => seen(page, '.proof')).toBe(plain);
});

test('held keys smooth, mask and turn the light; masks are inverted and cleared; clay and faces change', async ({
  page,
  app,
}) => {
  await openBrush(page, app, 'Plain press');
  const bare = await seen(page, '.proof');
  await page.keyboard.down('m');
  await draw(page, '.proof', [
    [0.45, 0.5],
    [0.5, 0.5],
  ]);
  await page.keyboard.up('m');
  const masked = await seen(page, '.proof');
  expect(masked).not.toBe(bare);
  await page.keyboard.press('i');
  expect(await seen(page, '.proof')).not.toBe(masked);
  await page.keyboard.press('u');
  expect(await seen(page, '.proof')).toBe(bare);
  await draw(page, '.proof', [[0.5, 0.5]]);
  const stamped = await seen(page, '.proof');
  await page.keyboard.down('s');
  await draw(page, '.proof', [
    [0.4, 0.5],
    [0.6, 0.5],
    [0.4, 0.5],
  ]);
  await page.keyboard.up('s');
  const smoothed = await seen(page, '.proof');
  expect(smoothed).not.toBe(stamped);
  await page.mouse.move(...(await place(page, 0.5, 0.5)));
  await page.keyboard.down('l');
  await page.mouse.move(...(await place(page, 0.7, 0.6)), { steps: 4 });
  await page.keyboard.up('l');
  expect(await seen(page, '.proof')).not.toBe(smoothed);
  await page.getByRole('button', { name: 'Clay and light' }).click();
  await page.getByRole('button', { name: 'Light from the upper left' }).click();
  await page.keyboard.press('Escape');
  expect(await seen(page, '.proof')).toBe(smoothed);
  await page.getByRole('button', { name: 'Clay and light' }).click();
  await page.getByRole('radio', { name: 'Wax' }).click();
  await page.getByLabel('Show the faces').check();
  await page.keyboard.press('Escape');
  expect(await seen(page, '.proof')).not.toBe(smoothed);

  // Looked at from its sides, by keys, by the cross and by hand; strokes stay as many.
  const strokes = await page.locator('.proof').getAttribute('data-strokes');
  const looks = [await seen(page, '.proof')];
  for (const key of ['j', 'k', 'o']) {
    await page.keyboard.press(key);
    looks.push(await seen(page, '.proof'));
  }
  await page.getByRole('button', { name: 'From the right' }).click();
  looks.push(await seen(page, '.proof'));
  await page.keyboard.down('e');
  await draw(page, '.proof', [
    [0.5, 0.5],
    [0.6, 0.4],
  ]);
  await page.keyboard.up('e');
  looks.push(await seen(page, '.proof'));
  expect(new Set(looks).size).toBe(6);
  expect(await page.locator('.proof').getAttribute('data-strokes')).toBe(strokes);

  // Guides are drawn, and a stamp is laid at a typed place.
  await page.keyboard.press('h');
  const unguided = await seen(page, '.proof');
  await page.getByRole('button', { name: 'Guides' }).click();
  await page.getByText('Centre lines', { exact: true }).click();
  expect(await seen(page, '.proof')).not.toBe(unguided);
  await page.getByLabel('X, body units').fill('0.3');
  await page.getByRole('button', { name: 'Stamp there' }).click();
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', String(Number(strokes) + 1));
});

test.describe('on a server of its own', () => {
  test.use({ shares: false });

  test('a body of one’s own: dropped in, told of its faults, subdivided with its strokes, kept over a reload; broken files say why', async ({
    page,
    app,
  }) => {
    await openBrush(page, app, 'Soft round');
    const open = page.getByRole('button', { name: 'Open a body' });
    const bring = async (name: string, held: string | Uint8Array): Promise<void> => {
      const path = join(app.folder, name);
      writeFileSync(path, held);
      await giveFiles(page, open, path);
    };
    for (const [name, text, says] of [
      ['nothing.obj', '', 'is empty'],
      ['points.obj', 'v 0 0 0\nv 1 0 0\n', 'no triangles'],
      ['nan.obj', 'v nan 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n', 'not a number'],
      ['flat.obj', 'v 0 0 0\nv 0 0 0\nv 0 0 0\nf 1 2 3\n', 'one place'],
      ['cut.stl', 'solid x', 'cut short'],
    ] as const) {
      await bring(name, text);
      await expect(page.locator('.proof').getByRole('alert')).toContainText(says);
    }
    await expect(listOf(page, 'Body')).toHaveText('Plain ball');
    const drop = async (name: string, text: string): Promise<void> => {
      const dataTransfer = await page.evaluateHandle(
        ([called, held]) => {
          const transfer = new DataTransfer();
          transfer.items.add(new File([held], called));
          return transfer;
        },
        [name, text],
      );
      await page.dispatchEvent('.proof', 'drop', { dataTransfer });
    };
    await drop('notes.txt', 'barnacles');
    await expect(page.locator('.proof').getByRole('alert')).toContainText('isn’t a mesh file');
    // A cube without its top, 6 cells a side, brought while the server is away: it is there at once, and sent later.
    await app.kill();
    await drop('open box.obj', box(6));
    await settled(page, '.proof');
    // The demo has bodies of its own, with pieces and painted.
    const kept = (): Promise<string[]> =>
      page.evaluate(async () => {
        const { items } = (await (await fetch('/api/bodies')).json()) as { items: { card: { name: string } }[] };
        return items.map((i) => i.card.name).filter((name) => !/^Plank with mussels$|, painted$/.test(name));
      });
    await expect(page.locator('.body')).toContainText('open edges');
    await app.start();
    await expect.poll(kept).toEqual(['open box']);
    await expect(page.locator('.body')).toContainText('open edges');
    await expect(page.locator('.body')).toContainText('360 faces');
    await draw(page, '.proof', [
      [0.45, 0.5],
      [0.55, 0.5],
    ]);
    await page.getByRole('button', { name: 'Subdivide the body', exact: true }).first().click();
    await expect(page.locator('.body')).toContainText('subdivided 1×');
    await settled(page, '.proof');
    await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '1');
    await page.getByRole('button', { name: 'Step down a level' }).click();
    await expect(page.locator('.body')).not.toContainText('subdivided');
    await page.reload();
    await settled(page, '.proof');
    await expect(page.locator('.body')).toContainText('360 faces');
    await page.getByRole('button', { name: 'Remove this body from the list' }).click();
    await expect(listOf(page, 'Body')).toHaveText('Plain ball');
    await expect.poll(kept).toEqual([]);
    await page.locator('.el-notification').getByRole('button', { name: 'Undo' }).click();
    await expect(page.locator('.body')).toContainText('360 faces');
    await expect.poll(kept).toEqual(['open box']);
    // A GLB packed with Draco, whole and cut short.
    const wedge = dracoGlb(
      await createEncoderModule(),
      new Float32Array([0, 0, 0, 2, 0, 0, 0, 1, 0, 0, 0, 1]),
      new Uint32Array([0, 2, 1, 0, 1, 3, 0, 3, 2, 1, 2, 3]),
      12,
    );
    await bring('cut wedge.glb', new Uint8Array(wedge.glb.slice(0, -8)));
    await expect(page.locator('.proof').getByRole('alert')).toContainText('can’t be read as GLB');
    await bring('wedge.glb', new Uint8Array(wedge.glb));
    await expect(page.locator('.body')).toContainText('4 faces');
  });
});

test('a brush whose alpha is gone says so; absurd numbers are brought into their range', async ({ page, app }) => {
  await openBrush(page, app, 'Barnacle trail');
  await set(page, 'Spacing', '1e9');
  await expect(page.getByLabel(/^Spacing, /)).toHaveValue('400 %');
  await set(page, 'Size', '-5');
  await expect(page.getByLabel(/^Size, /)).toHaveValue('0.005');
  await set(page, 'Strength', 'Infinity');
  await expect(page.getByLabel(/^Strength, /)).toHaveValue('100 %');
  await page.evaluate(async () => {
    const rows = (await (await fetch('/api/alphas')).json()) as { items: { id: string; card: { name: string } }[] };
    const { id } = rows.items.find((a) => a.card.name === 'One barnacle')!;
    // An alpha goes only when nobody uses it; brushes that come back from the trash afterwards miss it.
    const { users } = (await (await fetch(`/api/alphas/${id}/users`)).json()) as {
      users: { collection: string; id: string }[];
    };
    for (const user of users) await fetch(`/api/${user.collection}/${user.id}`, { method: 'DELETE' });
    if (!(await fetch(`/api/alphas/${id}`, { method: 'DELETE' })).ok) throw new Error('The alpha is still there.');
    for (const user of users) await fetch(`/api/${user.collection}/${user.id}/restore`, { method: 'POST' });
  });
  await page.reload();
  await settled(page, '.proof');
  await expect(page.getByText('The alpha of this brush is gone')).toBeVisible();
  await draw(page, '.proof', [
    [0.4, 0.5],
    [0.6, 0.5],
  ]);
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '1');
});

/** An open box of side 2 as OBJ, each side its own grid. */
function box(cells: number): string {
  const lines: string[] = [];
  let first = 1;
  const sides: ((u: number, v: number) => [number, number, number])[] = [
    (u, v) => [u, v, 1],
    (u, v) => [-u, v, -1],
    (u, v) => [1, v, -u],
    (u, v) => [-1, v, u],
    (u, v) => [u, -1, v],
  ];
  for (const side of sides) {
    for (let j = 0; j <= cells; j++)
      for (let i = 0; i <= cells; i++) lines.push(`v ${side((2 * i) / cells - 1, (2 * j) / cells - 1).join(' ')}`);
    for (let j = 0; j < cells; j++) {
      for (let i = 0; i < cells; i++) {
        const a = first + j * (cells + 1) + i;
        lines.push(`f ${a} ${a + 1} ${a + cells + 2}`, `f ${a} ${a + cells + 2} ${a + cells + 1}`);
      }
    }
    first += (cells + 1) ** 2;
  }
  return `${lines.join('\n')}\n`;
}

test('test strokes are laid and kept; refining makes the clay finer under the stroke; what it raised is cut off as a body', async ({
  page,
  app,
}) => {
  await openBrush(page, app, 'Limpet press');
  await page.getByRole('button', { name: 'Test strokes' }).click();
  await page.getByRole('button', { name: 'Stamps at three sizes' }).click();
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '3');
  await page.getByRole('button', { name: 'Test strokes' }).click();
  await page.getByLabel('Name of these strokes').fill('My three');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('button', { name: /^My three/ })).toBeVisible();
  await page.getByRole('button', { name: 'Remove My three from the list' }).click();
  await expect(page.getByRole('button', { name: /^My three/ })).toHaveCount(0);
  // Clicked away, and its button clicked before any timer could run: the menu is open.
  const undo = await page.locator('.el-notification').getByRole('button', { name: 'Undo' }).elementHandle();
  await page.getByRole('button', { name: 'Test strokes' }).evaluate(async (opener: HTMLElement, away) => {
    (away as HTMLElement).click();
    for (let n = 0; n < 9; n++) await Promise.resolve();
    opener.click();
  }, undo);
  await expect(page.getByRole('button', { name: /^My three/ })).toBeVisible();
  await page.getByRole('button', { name: 'Across an edge' }).click();
  await expect(listOf(page, 'Body')).toHaveText('Crate plank');
  await settled(page, '.proof');
  await page.getByRole('button', { name: 'Test strokes' }).click();
  await page.getByRole('button', { name: /^My three/ }).click();
  await expect(listOf(page, 'Body')).toHaveText('Plain ball');
  await settled(page, '.proof');
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '3');
  await page.getByRole('button', { name: 'Back to the untouched body' }).click();
  await settled(page, '.proof');

  const before = Number(await page.locator('.proof').getAttribute('data-vertices'));
  await page.getByRole('button', { name: 'Refine under the brush' }).click();
  await page.getByRole('checkbox', { name: 'Refine under the brush' }).check();
  await page.keyboard.press('Escape');
  const vertices = async (): Promise<number> => Number(await page.locator('.proof').getAttribute('data-vertices'));
  // Seen while it is drawn; given up, the body is the coarse one again.
  await draw(
    page,
    '.proof',
    [
      [0.5, 0.5],
      [0.52, 0.52],
    ],
    false,
  );
  let to = 0.5;
  await expect
    .poll(async () => {
      to = to === 0.5 ? 0.51 : 0.5;
      await page.mouse.move(...(await place(page, to, 0.5)));
      return vertices();
    })
    .toBeGreaterThan(before);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect.poll(vertices).toBe(before);
  await draw(page, '.proof', [[0.5, 0.5]]);
  await expect.poll(vertices).toBeGreaterThan(before);
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '1');
  // The stroke goes on asking for fine clay when the body is another.
  await page.getByRole('button', { name: 'Subdivide the body', exact: true }).first().click();
  await expect(page.locator('.body')).toContainText('subdivided 1×');
  await page.getByRole('button', { name: 'Step down a level' }).click();
  await expect(page.locator('.body')).not.toContainText('subdivided');
  await settled(page, '.proof');
  expect(Number(await page.locator('.proof').getAttribute('data-vertices'))).toBeGreaterThan(before);
  await page.keyboard.press('Shift+C');
  await expect(page.locator('.proof').getByRole('alert')).toContainText('nothing to cut off');
  await page.keyboard.press('Shift+M');
  await settled(page, '.proof');
  // A cut that neither the browser nor the server can keep stays on the body.
  await page.evaluate(() => {
    const { put } = IDBObjectStore.prototype;
    IDBObjectStore.prototype.put = () => {
      IDBObjectStore.prototype.put = put;
      throw new DOMException('full', 'QuotaExceededError');
    };
  });
  await page.route('**/api/blobs/*', (route) => route.abort());
  await page.keyboard.press('Shift+C');
  await expect(page.locator('.proof').getByRole('alert')).toContainText(
    'There was no room for “Limpet press, cut off”',
  );
  await page.unroute('**/api/blobs/*');
  await settled(page, '.proof');
  await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '2');
  await page.keyboard.press('Shift+C');
  await expect(page.getByText(/^Cut off: “Limpet press, cut off”/)).toBeVisible();
  await choose(page, 'Body', 'Limpet press, cut off');
  await settled(page, '.proof');
  await expect(page.locator('.body')).not.toContainText('open edges');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Keep or download the body' }).click();
  await page.getByRole('button', { name: 'OBJ', exact: true }).click();
  expect((await download).suggestedFilename()).toBe('Limpet press, cut off.obj');
});
