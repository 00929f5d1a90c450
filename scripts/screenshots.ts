/** Draws the pictures of the README anew: the built application with the demo data, at 1280 × 800. */
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { chromium } from '@playwright/test';
import sharp from 'sharp';
import { growPattern } from '#core/pattern';
import { newGrow } from '#core/settings';
import { startFlatbed } from '../demo/devices/flatbed';
import { choose, giveFiles, pick } from '../e2e/app';
import { PACKED, spawnServer } from '../server/testKit';
import { installed } from './browser.mjs';

const out = resolve(import.meta.dirname, '../docs/screenshots');
const folder = await mkdtemp(join(tmpdir(), 'mold-stamp-shots-'));
const server = await spawnServer(folder, '0', PACKED);
const browser = await chromium.launch({
  executablePath: installed(),
  args: ['--no-sandbox', '--enable-unsafe-swiftshader'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' });
await page.addInitScript(() => {
  if (location.protocol !== 'about:') localStorage['ways-in-closed'] = 'true';
});
const demo = (n: number): string => `d0000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

try {
  await page.goto(server.address);
  await page.getByText('Limpet press').waitFor();
  await shoot('rack');
  await page.goto(`${server.address}/settings?tab=keys`);
  await page.getByText('All keys are as usual').waitFor();
  await shoot('settings');
  await page.goto(`${server.address}/sources`);
  await page.getByText('One barnacle').waitFor();
  await shoot('sources');

  // A height map of its own, a page of marks and a surface arrive.
  await giveFiles(page, page.getByRole('button', { name: 'Open files…' }), await arrivals(`${server.address}`));
  await page.getByText('Clear the list').waitFor({ timeout: 60_000 });
  await page.waitForTimeout(2000);
  await shoot('arrivals');

  await page.goto(`${server.address}/bench/slab/${demo(1)}`);
  await ready('.slab');
  await page.locator('.picture[data-cast]:not([data-cast=""])').waitFor();
  await page.mouse.move(640, 560);
  await shoot('slab-bench');

  await page.goto(`${server.address}/bench/sheet/${demo(3)}`);
  await ready('.sheet-view');
  await shoot('sheet-bench');

  await page.goto(`${server.address}/bench/scan/${demo(61)}`);
  await ready('.scan');
  await page.locator('.picture[data-cast]:not([data-cast=""])').waitFor();
  await page.waitForTimeout(3000);
  await shoot('scan-bench');

  await page.goto(`${server.address}/bench/part/${demo(73)}`);
  await ready('.part');
  const line = (await page.locator('.part .grip').boundingBox())!;
  await page.mouse.move(line.x + line.width / 2, line.y + line.height / 2);
  await page.mouse.down();
  await page.mouse.move(400, line.y, { steps: 4 });
  await page.mouse.up();
  await page.waitForTimeout(2500);
  await shoot('part-bench');

  await page.goto(`${server.address}/bench/brush/${demo(81)}`);
  await ready('.proof');
  await page.waitForTimeout(2000);
  const view = (await page.locator('.proof .surface').boundingBox())!;
  for (const [x, y, dx, dy] of [
    [0.4, 0.4, 40, 10],
    [0.55, 0.5, 60, 20],
    [0.5, 0.35, 30, -30],
    [0.42, 0.6, -40, 30],
    [0.6, 0.64, 50, 0],
    [0.32, 0.5, 14, 40],
    [0.48, 0.74, 40, 20],
  ] as const) {
    await page.mouse.move(view.x + x * view.width, view.y + y * view.height);
    await page.mouse.down();
    await page.mouse.move(view.x + x * view.width + dx, view.y + y * view.height + dy, { steps: 5 });
    await page.mouse.up();
    await ready('.proof');
  }
  await page.keyboard.press('g');
  await page.mouse.click(view.x + 0.55 * view.width, view.y + 0.5 * view.height);
  await page.waitForTimeout(1500);
  await shoot('pieces');
  await page.evaluate(() => localStorage.clear());

  await page.evaluate((body) => {
    localStorage['proof-body'] = body;
    localStorage['brush-swatches'] = 'true';
    localStorage['brush-tab'] = 'Colour';
  }, demo(91));
  await page.goto(`${server.address}/bench/brush/${demo(33)}`);
  await ready('.proof');
  await page.getByRole('button', { name: 'A stroke a colour' }).click();
  await ready('.sheet');
  await shoot('painting');
  await page.evaluate(() => localStorage.clear());

  const bed = await startFlatbed(0);
  await page.goto(`${server.address}/sources`);
  await page.getByRole('button', { name: 'Scan a page…' }).click();
  await page.getByLabel('Address of the scanner').fill(bed.address);
  await page.getByRole('button', { name: 'Find it' }).click();
  await page.getByText('Tidewrack Flatbed').waitFor();
  await page.getByRole('button', { name: 'Preview' }).click();
  await page.getByAltText('What lies on the glass').waitFor();
  const glass = (await page.locator('.glass').boundingBox())!;
  await drag(
    [
      [glass.x + 24, glass.y + 26],
      [glass.x + 250, glass.y + 330],
    ],
    null,
  );
  await shoot('scan-page');
  await bed.close();

  await page.goto(`${server.address}/bench/alpha/${demo(14)}`);
  await ready('.alpha-view');
  await page.getByRole('button', { name: 'Levels', exact: true }).click();
  await ready('.alpha-view');
  await shoot('alpha-bench');

  await page.goto(`${server.address}/bench/lettering/${demo(4)}`);
  await ready('.made-view');
  await shoot('lettering-bench');

  await page.goto(`${server.address}/lineage/${demo(1)}`);
  await page.locator('.picture .card img').last().waitFor();
  await page.waitForLoadState('networkidle');
  await shoot('lineage');

  await page.goto(`${server.address}/bench/pattern/${demo(5)}`);
  await ready('.made-view');
  await shoot('pattern-bench');

  await page.goto(`${server.address}/bench/brush/${demo(21)}`);
  await ready('.proof');
  for (const [x0, y0, x1, y1] of [
    [840, 300, 900, 250],
    [880, 470, 950, 480],
    [1040, 290, 1080, 330],
    [760, 400, 790, 420],
  ] as const) {
    await drag([
      [x0, y0],
      [x1, y1],
    ]);
  }
  await page.locator('.belt').getByText('Barnacle trail').click();
  await ready('.proof');
  await drag([
    [980, 440],
    [1020, 430],
    [1070, 400],
    [1100, 350],
  ]);
  await page.locator('.belt').getByText('Crust, grown').click();
  await ready('.proof');
  await page.mouse.move(990, 210);
  await shoot('brush-bench');
  await theme('Evening');
  await page.mouse.move(990, 210);
  await shoot('evening');
  await theme('Day');

  await page.locator('.belt').getByText('Barnacle trail').click();
  await ready('.proof');
  await page.getByRole('button', { name: 'Test strokes' }).click();
  await page.getByRole('button', { name: 'A long curve' }).click();
  await ready('.proof');
  await page.keyboard.press('p');
  await page.getByRole('tab', { name: 'Drift' }).click();
  await page.getByLabel(/^Size drift, /).fill('75');
  await page.keyboard.press('Enter');
  await page.getByRole('radio', { name: 'a run' }).click();
  await page.getByRole('button', { name: 'Side by side' }).click();
  await ready('.compared');
  await ready('.proof');
  await shoot('brush-compare');

  await page.goto(`${server.address}/proof/${demo(24)}`);
  await ready('.proof');
  await choose(page, 'Body', 'Bollard');
  await ready('.proof');
  for (const at of [
    [600, 350],
    [700, 460],
    [560, 470],
    [640, 180],
  ] as const)
    await drag([at, at]);
  await page.mouse.move(720, 330);
  await shoot('proof');
} finally {
  await browser.close();
  await server.end('SIGTERM');
  await rm(folder, { recursive: true, force: true });
}

async function ready(view: string): Promise<void> {
  await page.locator(`${view}[data-busy=false]`).waitFor({ timeout: 120_000 });
}

async function drag(points: readonly (readonly [number, number])[], view: string | null = '.proof'): Promise<void> {
  await page.mouse.move(...points[0]);
  await page.mouse.down();
  for (const point of points.slice(1)) await page.mouse.move(...point, { steps: 5 });
  await page.mouse.up();
  if (view) await ready(view);
}

async function theme(name: string): Promise<void> {
  await page.getByRole('button', { name: 'Theme' }).click();
  await pick(page, name);
  await page.keyboard.press('Escape');
}

/** Dense bodies take their time where they are drawn in software. */
async function shoot(name: string): Promise<void> {
  await page.waitForTimeout(2500);
  await page.screenshot({ path: join(out, `${name}.png`) });
}

/**
 * Files made of the demo's own: an alpha as it goes out, its page of prints, and a pattern as a photograph would have
 * it.
 */
async function arrivals(address: string): Promise<{ name: string; mimeType: string; buffer: Buffer }[]> {
  const at = async (path: string): Promise<Buffer> =>
    Buffer.from(await (await fetch(`${address}/api${path}`)).arrayBuffer());
  const sheet = JSON.parse((await at(`/sources/${demo(3)}`)).toString()) as { doc: { file: { blob: string } } };
  const tint = growPattern(newGrow('weave', 3), 480).data.map((v) => 60 + 150 * v);
  const rgb = Uint8Array.from({ length: 480 * 360 * 3 }, (_, i) => tint[Math.floor(i / 3)] * [1, 0.86, 0.66][i % 3]);
  return [
    { name: 'barnacle heights.png', mimeType: 'image/png', buffer: await at(`/alphas/${demo(11)}/png`) },
    { name: 'prints, second page.jpg', mimeType: 'image/jpeg', buffer: await at(`/blobs/${sheet.doc.file.blob}`) },
    {
      name: 'creel side.jpg',
      mimeType: 'image/jpeg',
      buffer: await sharp(rgb, { raw: { width: 480, height: 360, channels: 3 } })
        .jpeg()
        .toBuffer(),
    },
    { name: 'cut short.exr', mimeType: 'image/x-exr', buffer: (await at(`/alphas/${demo(11)}/exr`)).subarray(0, 300) },
  ];
}
