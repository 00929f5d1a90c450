/** A busy photograph: straightened by its corners, a thing picked out of it by strokes, heights from its shading. */
import type { Locator, Page } from '@playwright/test';
import sharp from 'sharp';
import { seeded } from '#core/random';
import { expect, giveFiles, test } from './app';

const [WIDE, HIGH] = [480, 360];

/** A brown lump before leaves. */
async function photo(): Promise<Buffer> {
  const random = seeded(8);
  const leaves = Array.from({ length: 260 }, () => {
    const [x, y] = [random() * WIDE, random() * HIGH];
    const green = 60 + Math.floor(random() * 130);
    return `<ellipse cx="${x}" cy="${y}" rx="${8 + random() * 20}" ry="${4 + random() * 8}" fill="rgb(${green >> 2},${green},${green >> 1})" transform="rotate(${random() * 180} ${x} ${y})"/>`;
  });
  const lumps = Array.from({ length: 60 }, () => {
    const [a, r] = [random() * 2 * Math.PI, Math.sqrt(random()) * 78];
    const tone = 120 + Math.floor(random() * 90);
    return `<circle cx="${240 + Math.cos(a) * r}" cy="${180 + Math.sin(a) * r}" r="${9 + random() * 7}" fill="rgb(${tone},${tone * 0.7},${tone * 0.5})"/>`;
  });
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDE}" height="${HIGH}"><rect width="100%" height="100%" fill="#1d4a1d"/>${leaves.join('')}<circle cx="240" cy="180" r="84" fill="#a0703f"/>${lumps.join('')}</svg>`;
  return sharp(Buffer.from(svg)).jpeg({ quality: 92 }).toBuffer();
}

/** Where a place of the picture, in its own pixels, lies on the screen. */
async function onPhoto(page: Page, x: number, y: number): Promise<[number, number]> {
  const box = (await page.locator('.alpha-view .surface').boundingBox())!;
  const side = Math.min(box.width, box.height) - 28;
  return [
    box.x + box.width / 2 + ((x - WIDE / 2) / WIDE) * side,
    box.y + box.height / 2 + ((y - HIGH / 2) / WIDE) * side,
  ];
}

async function stroke(page: Page, ...points: [number, number][]): Promise<void> {
  await page.mouse.move(...(await onPhoto(page, ...points[0])));
  await page.mouse.down();
  for (const point of points.slice(1)) await page.mouse.move(...(await onPhoto(page, ...point)), { steps: 4 });
  await page.mouse.up();
}

const shown = (page: Page): Promise<void> =>
  expect(page.locator('.alpha-view')).toHaveAttribute('data-busy', 'false', { timeout: 60_000 });
const step = (page: Page, kind: string): Locator => page.locator(`[data-step="${kind}"]`);

async function add(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByRole('button', { name, exact: true }).click();
  await shown(page);
}

test('a photograph is straightened, a thing picked out of it, and its shading made heights', async ({ page, app }) => {
  test.slow();
  await page.goto(`${app.address}/sources`);
  await giveFiles(page, page.getByRole('button', { name: 'Open files…' }), {
    name: 'husk.jpg',
    mimeType: 'image/jpeg',
    buffer: await photo(),
  });
  await page.getByRole('button', { name: 'Cast the whole picture' }).click();
  const id = await idOf(page, app.address);
  await page.goto(`${app.address}/bench/alpha/${id}`);
  await shown(page);
  // What it was cast with is for a surface.
  for (const button of (await page.getByRole('button', { name: /^Take .* away$/ }).all()).reverse())
    await button.click();

  // Nothing is picked out until it is drawn on; one stroke is enough, another corrects it, each is a step of undo.
  await add(page, 'Pick out a thing');
  await expect(step(page, 'pickOut').getByRole('alert')).toContainText('Draw a stroke over what you want');
  await stroke(page, [205, 160], [240, 200], [275, 165]);
  await expect(step(page, 'pickOut').getByRole('alert')).toHaveCount(0, { timeout: 60_000 });
  await shown(page);
  await page.keyboard.press('i');
  await stroke(page, [60, 60], [420, 60]);
  await expect(step(page, 'pickOut')).toContainText('1 inside, 1 outside');
  await page.keyboard.press('Control+z');
  await expect(step(page, 'pickOut')).not.toContainText('1 outside');
  await page.keyboard.press('Control+Shift+z');
  await shown(page);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.locator('.state')).toHaveText('saved', { timeout: 60_000 });
  const inside = await greys(page, app.address, id);
  // The middle keeps its tones, the leaves are gone.
  expect(inside(240, 180)).toBeGreaterThan(0.2);
  expect(inside(200, 160)).toBeGreaterThan(0.2);
  for (const [x, y] of [
    [60, 60],
    [420, 300],
    [120, 200],
    [380, 120],
  ])
    expect(inside(x, y)).toBeLessThan(0.02);

  // Corners are dragged on the step’s input; crossed ones say so.
  await add(page, 'Perspective');
  const corner = page.getByRole('button', { name: 'Upper left corner' });
  const at = (await corner.locator('.dot').boundingBox())!;
  await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
  await page.mouse.down();
  await page.mouse.move(...(await onPhoto(page, 120, 90)), { steps: 4 });
  await page.mouse.up();
  await shown(page);
  await corner.focus();
  for (let n = 0; n < 3; n++) await page.keyboard.press('Shift+ArrowRight');
  await expect(step(page, 'perspective').getByRole('alert')).toHaveCount(0);
  const moved = (await corner.locator('.dot').boundingBox())!;
  expect(moved.x).toBeGreaterThan(at.x + 5);
  await page.mouse.move(moved.x + moved.width / 2, moved.y + moved.height / 2);
  await page.mouse.down();
  await page.mouse.move(...(await onPhoto(page, 470, 350)), { steps: 4 });
  await page.mouse.up();
  await expect(step(page, 'perspective').getByRole('alert')).toContainText('make no four-sided shape');
  await page.keyboard.press('Control+z');
  await expect(step(page, 'perspective').getByRole('alert')).toHaveCount(0);

  // The lamp is dragged round; its angle is the setting.
  await add(page, 'Heights from shading');
  const lamp = (await page.locator('.lamp .dot').boundingBox())!;
  const light = page.getByLabel(/^Light from, /);
  await expect(light).toHaveValue(/135/);
  await page.mouse.move(lamp.x + lamp.width / 2, lamp.y + lamp.height / 2);
  await page.mouse.down();
  const box = (await page.locator('.alpha-view .surface').boundingBox())!;
  await page.mouse.move(box.x + box.width - 20, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect(light).toHaveValue(/^0/);
  await shown(page);
  await page.keyboard.press('Shift+B');
  await expect(page.locator('.lamp')).toHaveCount(0);
});

async function idOf(page: Page, address: string): Promise<string> {
  let id = '';
  await expect
    .poll(
      async () => {
        const { items } = (await (await page.request.get(`${address}/api/alphas`)).json()) as {
          items: { id: string; card: { name: string } }[];
        };
        id = items.findLast(({ card }) => card.name.startsWith('husk'))?.id ?? '';
        return id;
      },
      { timeout: 30_000 },
    )
    .not.toBe('');
  return id;
}

/** Heights of a saved alpha by the photograph's pixels: it lies in the middle of the square. */
async function greys(page: Page, address: string, id: string): Promise<(x: number, y: number) => number> {
  const { doc } = (await (await page.request.get(`${address}/api/alphas/${id}`)).json()) as {
    doc: { blob: string; size: number };
  };
  const bytes = await (await page.request.get(`${address}/api/blobs/${doc.blob}`)).body();
  const words = new Uint16Array(new Uint8Array(bytes).buffer);
  const on = (v: number, whole: number): number => Math.floor((0.5 + (v - whole / 2) / WIDE) * doc.size);
  return (x, y) => words[on(y, HIGH) * doc.size + on(x, WIDE)] / 65535;
}
