/** rack_open_ms_5000, search_ms: a rack of 5000 brushes in the real browser. */
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Browser, type Page } from '@playwright/test';
import sharp from 'sharp';
import { newBrush, newPack } from '#core/settings';
import { judged } from '../server/reading/judged';
import { openPglite } from '../server/store/pglite/open';
import { PACKED, spawnServer } from '../server/testKit';
import { median, type Figure } from './measure';
import { installed } from '../scripts/browser.mjs';

const BRUSHES = 5000;
const IN_PACKS = 3000;
const RUNS = 5;

export async function rackFigures(): Promise<Figure[]> {
  const folder = await mkdtemp(join(tmpdir(), 'mold-stamp-bench-'));
  const empty = await spawnServer(join(folder, 'few'), '0', PACKED, '');
  try {
    await filled(join(folder, 'many'));
    const many = await spawnServer(join(folder, 'many'), '0', PACKED, '');
    const browser = await chromium.launch({
      executablePath: installed(),
      args: ['--no-sandbox', '--disable-quic', '--no-first-run', '--disable-background-networking'],
    });
    try {
      const opened = async (address: string): Promise<number> => {
        const page = await newPage(browser);
        const began = performance.now();
        await page.goto(address, { waitUntil: 'commit' });
        await page
          .getByRole('button', { name: /^Open (Brush 0|Soft round)$/ })
          .first()
          .click({ trial: true });
        const ms = performance.now() - began;
        await page.close();
        return ms;
      };
      const times = { few: [] as number[], many: [] as number[] };
      for (let run = 0; run <= RUNS; run++) {
        const [few, lots] = [await opened(empty.address), await opened(many.address)];
        if (run === 0) continue;
        times.few.push(few);
        times.many.push(lots);
      }
      const page = await newPage(browser);
      await page.goto(many.address);
      await page.getByRole('button', { name: 'Open Brush 0', exact: true }).waitFor();
      // In the page: from the keystroke until what is found is laid out.
      const searched = await page.evaluate(async () => {
        const field = document.querySelector<HTMLInputElement>('input[aria-label="Search the rack"]')!;
        const out: number[] = [];
        for (const text of ['4', '49', '493', '4932', '493', '49', '4', '47', '471', '47']) {
          await new Promise((done) => setTimeout(done, 400));
          const began = performance.now();
          field.value = text;
          field.dispatchEvent(new Event('input', { bubbles: true }));
          await new Promise((done) => requestAnimationFrame(done));
          out.push(performance.now() - began);
        }
        return out;
      });
      const [open, few, search] = [median(times.many), median(times.few), median(searched)];
      return [
        {
          key: 'rack_open_ms_5000',
          what: `the address typed until a brush of ${BRUSHES} can be pressed`,
          value: open,
          unit: 'ms',
          floor: { what: 'the same with the base brushes alone', value: few },
          target: { text: '≤ 1500', met: open <= 1500 },
        },
        {
          key: 'search_ms',
          what: `a keystroke until what is found among ${BRUSHES} is laid out`,
          value: search,
          unit: 'ms',
          floor: { what: 'a frame', value: 1000 / 60 },
          target: { text: '≤ 50', met: search <= 50 },
        },
      ];
    } finally {
      await browser.close();
      await many.end('SIGTERM');
    }
  } finally {
    await empty.end('SIGTERM');
    await rm(folder, { recursive: true, force: true });
  }
}

/** New each time: nothing of the page is kept from before. */
const newPage = (browser: Browser): Promise<Page> =>
  browser.newPage({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' });

async function filled(folder: string): Promise<void> {
  const store = await openPglite({ folder });
  const picture = await sharp({ create: { width: 192, height: 192, channels: 3, background: '#b5aa98' } })
    .png()
    .toBuffer();
  const ids: string[] = [];
  for (let n = 0; n < BRUSHES; n++) {
    const brush = newBrush(crypto.randomUUID(), `Brush ${n}`, n % 3 ? 'Tidewrack Workshop' : 'Northquay');
    brush.card.tags = [`tag ${n % 12}`, n % 2 ? 'crust' : 'stone'];
    await store.save(judged('brushes', brush), { revision: null, picture });
    ids.push(brush.id);
  }
  for (let n = 0; n < 6; n++) {
    const own = ids.slice((n * IN_PACKS) / 6, ((n + 1) * IN_PACKS) / 6);
    const pack = newPack(crypto.randomUUID(), `Pack ${n}`, { groups: [{ name: '', brushes: own }] });
    await store.save(judged('packs', pack), { revision: null });
  }
  await store.close();
}
