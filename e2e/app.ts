/** The built application on a data folder of its own, which can be stopped, killed and started again. */
import { createHash } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test as base, type FileChooser, type Locator, type Page } from '@playwright/test';
import { PACKED, spawnServer, type Spawned } from '../server/testKit';

export interface App {
  address: string;
  folder: string;
  start(): Promise<void>;
  stop(): Promise<void>;
  kill(): Promise<void>;
}

async function started(): Promise<App> {
  const app = makeApp(await mkdtemp(join(tmpdir(), 'mold-stamp-ui-')));
  await app.start();
  return app;
}

async function ended(app: App): Promise<void> {
  await app.stop();
  await rm(app.folder, { recursive: true, force: true });
}

/**
 * Tests share a server with those before them, since one takes seconds to start: what they save no other one looks at.
 * One that stops it, or counts what is there, says that it doesn't `share`. Drafts and what a page remembers are each
 * test's own.
 */
export const test = base.extend<{ app: App; shares: boolean }, { common: () => Promise<App> }>({
  shares: [true, { option: true }],
  common: [
    async ({}, use) => {
      let app: Promise<App> | null = null;
      await use(() => (app ??= started()));
      if (app) await ended(await app);
    },
    { scope: 'worker' },
  ],
  app: async ({ page, shares, common }, use) => {
    const app = await (shares ? common() : started());
    // Small bodies: where there is no graphics card the page is drawn in software.
    await page.addInitScript(() => {
      if (location.protocol === 'about:') return;
      localStorage['ways-in-closed'] ??= 'true';
      localStorage['proof-density'] ??= '64';
      localStorage['proof-texture'] ??= '512';
    });
    const errors: string[] = [];
    page.on('pageerror', (error) => errors.push(error.message));
    page.on('console', (message) => {
      if (message.type() === 'error' && !/Failed to load resource|ERR_CONNECTION/.test(message.text()))
        errors.push(message.text());
    });
    await use(app);
    if (!shares) await ended(app);
    expect(errors, 'errors in the page').toEqual([]);
  },
});
export { expect };

function makeApp(folder: string): App {
  let server: Spawned | null = null;
  const app: App = {
    address: '',
    folder,
    async start() {
      // The same port again, so that an open page finds the server where it was.
      server = await spawnServer(folder, app.address === '' ? '0' : new URL(app.address).port, PACKED);
      app.address = server.address;
    },
    async stop() {
      await server?.end('SIGTERM');
    },
    async kill() {
      await server?.end('SIGKILL');
    },
  };
  return app;
}

export type Point = readonly [number, number];

/** Opens a brush on its bench, by its address: the rack isn’t laid out for it. */
export async function openBrush(page: Page, app: App, name: string): Promise<void> {
  const { items } = await (await page.request.get(`${app.address}/api/brushes?limit=500`)).json();
  const brush = (items as { id: string; card: { name: string } }[]).find(({ card }) => card.name === name);
  if (!brush) throw new Error(`There is no brush called “${name}”.`);
  await page.goto(`${app.address}/bench/brush/${brush.id}`);
  await settled(page, '.proof');
}

/** Where a share of the proof's width and height is on the page. */
export async function place(page: Page, x: number, y: number): Promise<[number, number]> {
  const box = (await page.locator('.proof canvas').first().boundingBox())!;
  return [box.x + x * box.width, box.y + y * box.height];
}

/** Presses quickly at these places of the proof, one after the other. */
export async function pressAt(page: Page, points: readonly Point[]): Promise<void> {
  for (const [x, y] of points) {
    await page.mouse.move(...(await place(page, x, y)));
    await page.mouse.down();
    await page.mouse.up();
  }
}

/** Draws a stroke with the pointer over a view; places are shares of its width and height. */
export async function draw(
  page: Page,
  view: '.slab' | '.proof',
  points: readonly Point[],
  release = true,
): Promise<void> {
  await settled(page, view);
  const box = (await page.locator(`${view} canvas`).first().boundingBox())!;
  const at = ([x, y]: Point): [number, number] => [box.x + x * box.width, box.y + y * box.height];
  await page.mouse.move(...at(points[0]));
  await page.mouse.down();
  for (const point of points.slice(1)) await page.mouse.move(...at(point), { steps: 5 });
  if (release) await page.mouse.up();
  await settled(page, view);
}

/** Waits until the view's worker has done all it was asked. */
export async function settled(page: Page, view: '.slab' | '.proof' | '.compared'): Promise<void> {
  // Looked at frame by frame in the page: asked from here it would be heard of up to a second late.
  await page.locator(`${view}[data-busy="false"]`).waitFor({ timeout: 60_000 });
}

/**
 * The clay in the middle of the view as it is seen, hashed, once two pictures in a row are the same: a machine that
 * draws in software may be a frame behind. The pointer is moved away, so that no cursor lies on the body; lines,
 * numbers and menus over it are left out, for a menu that is closing can look the same in two pictures before it fades.
 */
export async function seen(page: Page, view: '.slab' | '.proof' | '.compared'): Promise<string> {
  await settled(page, view);
  const box = (await page.locator(view).boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, 24);
  const clip = { x: box.x + 20, y: box.y + 60, width: box.width - 40, height: box.height - 120 };
  let last = '';
  for (;;) {
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
    const now = createHash('sha256')
      .update(
        await page.screenshot({
          clip,
          style:
            '* { transition: none !important; } .frame, .over, .layers, .numbers, .beside, .hint, .compare, .el-notification, .el-popper { visibility: hidden !important; }',
        }),
      )
      .digest('hex');
    if (now === last) return now;
    last = now;
  }
}

/** Types a value into a setting's number field. */
export async function set(page: Page, label: string, value: string): Promise<void> {
  const field = page.getByLabel(new RegExp(`^${label}, `));
  await field.fill(value);
  await field.press('Enter');
}

/** A list that opens, by its name; its text is the choice that is taken. */
export function listOf(page: Page, name: string): Locator {
  return page.locator('.el-select').filter({ has: page.getByRole('combobox', { name, exact: true }) });
}

/** Takes a choice of a list that opens. */
export async function choose(page: Page, list: string, choice: string): Promise<void> {
  await listOf(page, list).click();
  await page.getByRole('option', { name: choice, exact: true }).click();
}

/** Takes one of a bar of choices by its label, which a hand presses, once it no longer moves with its dialog. */
export async function pick(within: Page | Locator, choice: string | RegExp): Promise<void> {
  const radio = within.getByRole('radio', { name: choice, exact: true });
  await radio.locator('xpath=..').click();
  await expect(radio).toBeChecked();
}

/** Answers the question before something is deleted that others hold. */
export async function sayDelete(page: Page, name: string): Promise<void> {
  const asked = page.getByRole('dialog', { name: `Delete ${name}?` });
  await asked.getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(asked).toBeHidden();
}

/** Presses what asks for files, and gives it these. */
export async function giveFiles(
  page: Page,
  asks: Locator,
  files: Parameters<FileChooser['setFiles']>[0],
): Promise<void> {
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), asks.click()]);
  await chooser.setFiles(files);
}

/** Keys that the open list of keys names twice: one key must not do two things. */
export async function keysNamedTwice(page: Page): Promise<string[]> {
  const keys = (await page.getByRole('dialog', { name: 'Keys' }).locator('kbd').allTextContents()).map((k) => k.trim());
  return keys.filter((key, i) => keys.indexOf(key) < i);
}
