/** What holds of every place: axe finds nothing grave by day and in the evening, it has a heading and a title. */
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
  ];
}

/** Those that hold the others’ colours between them. */
const EVENING = /^\/$|slab|alpha|brush|sources/;

async function grave(page: Page, rules?: string[]): Promise<string[]> {
  const look = new AxeBuilder({ page }).options({ resultTypes: ['violations'] });
  if (rules) look.withRules(rules);
  const { violations } = await look.analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .flatMap(({ id, nodes }) => nodes.map(({ target }) => `${id}: ${target.join(' ')}`));
}

test('axe finds nothing serious on any place, by day and in the evening; each has a heading and a title', async ({
  page,
  app,
}) => {
  test.slow();
  for (const { path, title } of await places(app.address)) {
    await page.goto(app.address + path);
    await expect(page).toHaveTitle(title);
    await expect(page.getByRole('heading', { level: 1 })).toHaveCount(1);
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'day');
    expect(await grave(page), `${path} by day`).toEqual([]);
    if (!EVENING.test(path)) continue;
    await page.getByRole('button', { name: 'Theme' }).click();
    await pick(page, 'Evening');
    await page.keyboard.press('Escape');
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'evening');
    await expect(page.getByRole('radio', { name: 'Evening' })).toBeHidden();
    expect(await grave(page, ['color-contrast']), `${path} in the evening`).toEqual([]);
    await page.evaluate(() => localStorage.removeItem('theme'));
  }
});
