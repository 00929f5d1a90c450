/**
 * What holds of every place: axe finds nothing grave by day and in the evening, it has a heading and a title, and in
 * no window is a control cut off or under another.
 */
import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, pick, test } from './app';

const SOURCE = (n: number): string => `d0000000-0000-4000-8000-00000000000${n}`;

async function places(address: string): Promise<{ path: string; title: RegExp }[]> {
  const all = async (of: string): Promise<{ id: string; kind: string; card: { name: string } }[]> =>
    (await (await fetch(`${address}/api/${of}?limit=500`)).json()).items;
  const [sources, alphas, parts, brushes] = await Promise.all(['sources', 'alphas', 'parts', 'brushes'].map(all));
  const kinds = ['slab', 'sheet', 'scan', 'lettering', 'pattern'];
  const brush = brushes.find(({ card }) => card.name === 'Soft glaze') ?? brushes[0];
  const smallest = sources.find(({ id }) => id === SOURCE(2));
  return [
    { path: '/', title: /^Rack – Mold Stamp$/ },
    { path: '/sources', title: /^Sources – Mold Stamp$/ },
    ...kinds.map((kind) => {
      const { id, card } = kind === 'slab' && smallest ? smallest : sources.find((one) => one.kind === kind)!;
      return { path: `/bench/${kind}/${id}`, title: new RegExp(`^${card.name} – ${kind}`, 'i') };
    }),
    { path: `/bench/alpha/${alphas[0].id}`, title: /– Alpha – / },
    { path: `/bench/part/${parts[0].id}`, title: /– Part – / },
    { path: `/bench/brush/${brush.id}`, title: /– Brush – / },
    { path: `/proof/${brush.id}`, title: /– Proof – / },
    { path: `/lineage/${brush.id}`, title: /– Lineage – / },
    { path: '/bench', title: /^Bench – Mold Stamp$/ },
    { path: '/settings', title: /^Settings – Mold Stamp$/ },
    { path: '/settings?tab=keys', title: /^Settings – Mold Stamp$/ },
  ];
}

/** Those that hold the others’ colours between them. */
const EVENING = /^\/$|slab|alpha|brush|sources|settings$/;

async function grave(page: Page, rules?: string[]): Promise<string[]> {
  const look = new AxeBuilder({ page }).options({ resultTypes: ['violations'] });
  if (rules) look.withRules(rules);
  const { violations } = await look.analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .flatMap(({ id, nodes }) => nodes.map(({ target }) => `${id}: ${target.join(' ')}`));
}

const SIZES = [
  [853, 533],
  [1024, 700],
  [1280, 800],
  [1920, 1080],
  [2560, 1440],
] as const;

/** Controls that are cut off, out of reach, or under another: what scrolls can be scrolled to. */
const unreachable = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const out: string[] = [];
    const controls = 'button, a[href], input:not([type=hidden]), textarea, [role=slider]';
    for (const one of document.querySelectorAll<HTMLElement>(controls)) {
      const own = one.getBoundingClientRect();
      const { visibility, opacity } = getComputedStyle(one);
      const unseen = visibility === 'hidden' || (opacity === '0' && one.tagName !== 'INPUT');
      // What marks a place on the clay may lie where the clay does.
      if (unseen || own.width < 2 || own.height < 2 || one.closest('.unseen, .rim, .node')) continue;
      const said = (one.ariaLabel || one.innerText || one.closest('label')?.innerText || one.className).trim();
      const [x, y] = [(own.left + own.right) / 2, (own.top + own.bottom) / 2];
      const scrolls = { x: false, y: false };
      let inSight = x >= 0 && x <= innerWidth && y >= 0 && y <= innerHeight;
      for (let around = one.parentElement; around; around = around.parentElement) {
        const { overflowX, overflowY, position } = getComputedStyle(around);
        const box = around.getBoundingClientRect();
        if (overflowX === 'visible' && overflowY === 'visible') continue;
        scrolls.x ||= /auto|scroll/.test(overflowX) && around.scrollWidth > around.clientWidth + 1;
        scrolls.y ||= /auto|scroll/.test(overflowY) && around.scrollHeight > around.clientHeight + 1;
        if (!scrolls.x && (own.left < box.left - 2 || own.right > box.right + 2)) out.push(`${said}: cut at a side`);
        if (!scrolls.y && (own.top < box.top - 2 || own.bottom > box.bottom + 2)) out.push(`${said}: cut off`);
        inSight &&= x >= box.left && x <= box.right && y >= box.top && y <= box.bottom;
        if (position === 'fixed') break;
      }
      if (!inSight) continue;
      const at = document.elementFromPoint(x, y);
      const whole = 'label, .el-radio-button, .el-select, .el-input, .el-slider, .el-checkbox, .el-textarea';
      const same = one.closest(whole) !== null && one.closest(whole) === at?.closest(whole);
      if (at && at !== one && !one.contains(at) && !at.contains(one) && !same)
        out.push(`${said}: under ${at.className || at.tagName}`);
    }
    return [...new Set(out)];
  });

/** Controls that are smaller than a fingertip; a link within a sentence is as high as its line. */
const small = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const whole = '.el-input, .el-select__wrapper, .el-radio-button, .el-checkbox, .el-textarea';
    const inSentences = '.look-link, .look-face, p a, .heading a, .unseen, .rim';
    return [
      ...document.querySelectorAll<HTMLElement>('button, a[href], input:not([type=hidden]), textarea, [role=slider]'),
    ].flatMap((one) => {
      const { width, height } = (one.closest(whole) ?? one).getBoundingClientRect();
      const seen = one.getBoundingClientRect().width > 2 && getComputedStyle(one).visibility !== 'hidden';
      if (!seen || one.closest(inSentences) || Math.min(width, height) >= 43) return [];
      return `${one.ariaLabel || one.innerText || one.className}: ${Math.round(width)} × ${Math.round(height)}`;
    });
  });

/** Those with a view of clay, which is drawn in software here, and the others. */
const IN_CLAY = /slab|scan|part\/|brush|proof/;

for (const clay of [false, true])
  test(`every place ${clay ? 'with' : 'without'} clay: axe finds nothing serious by day and in the evening; a heading, a title; nothing cut in any window`, async ({
    page,
    app,
  }) => {
    test.slow();
    await everyPlace(
      page,
      app.address,
      (await places(app.address)).filter(({ path }) => IN_CLAY.test(path) === clay),
    );
  });

async function everyPlace(page: Page, address: string, all: Awaited<ReturnType<typeof places>>): Promise<void> {
  for (const { path, title } of all) {
    await page.goto(address + path);
    await expect(page).toHaveTitle(title);
    await expect(page.getByRole('heading', { level: 1 })).toHaveCount(1);
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'day');
    expect(await grave(page), `${path} by day`).toEqual([]);
    for (const [width, height] of SIZES) {
      await page.setViewportSize({ width, height });
      await expect.poll(() => unreachable(page), { message: `${path} at ${width} × ${height}` }).toEqual([]);
    }
    await page.setViewportSize({ width: 1280, height: 800 });
    if (!EVENING.test(path)) continue;
    await page.getByRole('button', { name: 'Theme' }).click();
    // The settings have the same choice on the page.
    const menu = page.locator('.el-popper').filter({ has: page.getByRole('radio', { name: 'Evening' }) });
    await pick(menu, 'Evening');
    await page.keyboard.press('Escape');
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'evening');
    await expect(menu).toBeHidden();
    expect(await grave(page, ['color-contrast']), `${path} in the evening`).toEqual([]);
    await page.evaluate(() => localStorage.removeItem('preferences'));
  }
}

test.describe('under a finger', () => {
  test.use({ hasTouch: true, isMobile: true, viewport: { width: 1024, height: 700 } });

  test('every place: no target is smaller than 44 px, none is cut or under another', async ({ page, app }) => {
    for (const { path, title } of await places(app.address)) {
      await page.goto(app.address + path);
      await expect(page).toHaveTitle(title);
      await expect.poll(() => small(page), { message: path }).toEqual([]);
      await expect.poll(() => unreachable(page), { message: path }).toEqual([]);
    }
  });
});
