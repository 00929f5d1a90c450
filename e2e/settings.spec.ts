/** Preferences of the hand, keys that are changed, the tour, and the way from a first start to a brush of one's own. */
import { draw, expect, openBrush, pick, place, settled, test } from './app';

test('keys are changed, exchanged where they clash, kept, and put back', async ({ page, app }) => {
  await page.goto(`${app.address}/settings?tab=keys`);
  const key = (what: string) => page.getByRole('button', { name: `Key of: ${what}` });
  const whole = key('All of it, from the front');
  const cleared = key('Clear the mask');
  await expect(whole).toHaveText('H');
  await whole.click();
  await page.keyboard.press('u');
  await expect(page.getByRole('alert')).toContainText('U belongs to “Clear the mask”');
  await page.getByRole('button', { name: 'Use it here' }).click();
  await expect(whole).toHaveText('U');
  await expect(cleared).toHaveText('H');
  // Keys that hands know stay, and Esc leaves all as it was.
  await whole.click();
  await page.keyboard.press('5');
  await expect(page.getByRole('alert')).toContainText('5 stays with');
  await page.keyboard.press('Escape');
  await expect(whole).toHaveText('U');
  await page.getByRole('searchbox', { name: 'Search keys' }).fill('mask clear');
  await expect(whole).toBeHidden();
  await expect(cleared).toBeVisible();

  // Another page of the same browser has it too; on a bench the hint names it.
  const { items } = await (await page.request.get(`${app.address}/api/sources?limit=500`)).json();
  const sheet = (items as { id: string; kind: string }[]).find(({ kind }) => kind === 'sheet')!;
  await page.goto(`${app.address}/bench/sheet/${sheet.id}`);
  await expect(page.getByRole('button', { name: 'The whole sheet' })).toHaveAttribute('title', 'The whole sheet (U)');
  await page.goto(`${app.address}/settings?tab=keys`);
  await expect(whole).toHaveText('U');
  await page.getByRole('button', { name: 'All as usual' }).click();
  await expect(whole).toHaveText('H');
  await page.locator('.el-notification').getByRole('button', { name: 'Undo' }).click();
  await expect(whole).toHaveText('U');
});

test('the author goes onto what is new, and the scale into what is said of lengths', async ({ page, app }) => {
  await page.goto(`${app.address}/settings`);
  await pick(page, 'Millimetres');
  await page.getByLabel('A body unit is, mm').fill('30');
  await page.getByLabel('A body unit is, mm').press('Enter');
  await expect(page.getByText('The slab is 60 mm across.')).toBeVisible();
  await openBrush(page, app, 'Limpet press');
  const size = page.getByLabel('Size, mm');
  await expect(size).toHaveValue(/ mm$/);
  await size.fill('6');
  await size.press('Enter');
  await expect(size).toHaveValue('6.00 mm');
  await expect(page.locator('.state')).toContainText('not saved');
  await page.goto(`${app.address}/settings`);
  await pick(page, 'Body units');
  await openBrush(page, app, 'Limpet press');
  await expect(page.getByLabel('Size, body')).toHaveValue('0.200');
  await page.goto(`${app.address}/settings`);
  await page.getByLabel('Author').fill('Wharf & Daughters');
  await page.goto(`${app.address}/sources`);
  await page.getByRole('button', { name: 'New lettering' }).click();
  await page.waitForURL(/bench\/lettering/);
  const id = page.url().split('/').at(-1)!;
  const { doc } = await (await page.request.get(`${app.address}/api/sources/${id}`)).json();
  expect(doc.card.author).toBe('Wharf & Daughters');
});

test('settings travel: copied from one brush, pasted on another and on many in the rack, and undone', async ({
  page,
  app,
}) => {
  const docOf = async (name: string) => {
    const { items } = await (await page.request.get(`${app.address}/api/brushes?limit=500`)).json();
    const { id } = (items as { id: string; card: { name: string } }[]).find(({ card }) => card.name === name)!;
    return (await (await page.request.get(`${app.address}/api/brushes/${id}`)).json()).doc;
  };
  await openBrush(page, app, 'Limpet press');
  const from = await docOf('Limpet press');
  await page.getByRole('button', { name: 'Copy or paste settings' }).click();
  await page.locator('.el-popper').getByText('Pen', { exact: true }).click();
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await expect(page.getByText('Copied: touch and pen of “Limpet press”.')).toBeVisible();

  await openBrush(page, app, 'Sponge trail');
  await page.getByRole('button', { name: 'Copy or paste settings' }).click();
  await page.getByRole('button', { name: 'Paste', exact: true }).click();
  await expect(page.locator('.state')).toContainText('not saved');
  await page.keyboard.press('Control+Alt+z');

  await page.goto(app.address);
  const before = await Promise.all(['Chisel marks', 'Sea pits'].map(docOf));
  for (const name of ['Chisel marks', 'Sea pits'])
    await page.getByRole('button', { name: `Open ${name}` }).click({ modifiers: ['Control'] });
  await page.getByRole('button', { name: 'Paste settings' }).click();
  await expect(page.getByText('2 brushes took touch and pen of “Limpet press”.')).toBeVisible();
  for (const [i, name] of ['Chisel marks', 'Sea pits'].entries()) {
    const { touch, pen, stroke } = await docOf(name);
    expect([touch, pen, stroke]).toEqual([from.touch, from.pen, before[i].stroke]);
  }
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await docOf('Sea pits')).touch).toEqual(before[1].touch);
  await expect.poll(async () => (await docOf('Chisel marks')).pen).toEqual(before[0].pen);
});

test('one finger strokes or moves the view by choice; once a pen was seen fingers only move it', async ({
  page,
  app,
}) => {
  await openBrush(page, app, 'Limpet press');
  const proof = page.locator('.proof');
  const [x, y] = await place(page, 0.5, 0.5);
  /** A drag of one pointer of that kind over the body. */
  const drag = async (pointerType: string): Promise<void> => {
    await page.locator('.proof .surface').evaluate(
      (surface, { pointerType, x, y }) => {
        const say = (type: string, dx: number): boolean =>
          surface.querySelector('canvas')!.dispatchEvent(
            new PointerEvent(type, {
              pointerId: pointerType === 'pen' ? 71 : 72,
              pointerType,
              clientX: x + dx,
              clientY: y,
              button: type === 'pointermove' ? -1 : 0,
              buttons: type === 'pointerup' ? 0 : 1,
              pressure: 0.6,
              bubbles: true,
            }),
          );
        say('pointerdown', 0);
        say('pointermove', 12);
        say('pointerup', 12);
      },
      { pointerType, x, y },
    );
    await settled(page, '.proof');
  };
  await page.evaluate(() => {
    // No such pointers are really down.
    Element.prototype.setPointerCapture = () => undefined;
    Element.prototype.releasePointerCapture = () => undefined;
  });
  await drag('touch');
  await expect(proof).toHaveAttribute('data-strokes', '1');
  await drag('pen');
  await expect(proof).toHaveAttribute('data-strokes', '2');
  await drag('touch');
  await expect(proof).toHaveAttribute('data-strokes', '2');
  await drag('pen');
  await expect(proof).toHaveAttribute('data-strokes', '3');
});

test('what is searched stands in the address: reloaded, opened and gone back to, it is there again', async ({
  page,
  app,
}) => {
  await page.goto(app.address);
  const search = page.getByRole('searchbox', { name: 'Search the rack' });
  const cards = page.locator('[data-card]');
  await search.fill('barnacle');
  await page.getByRole('button', { name: 'trail', exact: true }).click();
  await expect(page).toHaveURL(/\?search=barnacle&tag=trail$/);
  await expect(cards).toHaveCount(1);
  await page.reload();
  await expect(search).toHaveValue('barnacle');
  await expect(cards).toHaveCount(1);
  await cards.getByRole('button', { name: /^Open / }).click();
  await expect(page).toHaveTitle(/– Brush –/);
  await page.goBack();
  await expect(search).toHaveValue('barnacle');
  await search.fill('');
  await page.getByRole('button', { name: 'trail', exact: true }).click();
  await expect(page).toHaveURL(`${app.address}/`);
});

test('the tour stops six times, is left and goes on there', async ({ page, app }) => {
  await page.goto(`${app.address}/settings?tab=about`);
  await page.getByRole('button', { name: 'Take the tour' }).click();
  const title = (text: string) => page.getByText(text, { exact: true });
  await expect(title('1 of 6: The rack')).toBeVisible();
  await page.getByRole('button', { name: 'Next' }).click();
  await expect(title('2 of 6: Get a form')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(title('2 of 6: Get a form')).toBeHidden();
  await page.goto(`${app.address}/settings?tab=about`);
  await page.getByRole('button', { name: 'Take the tour' }).click();
  await expect(title('2 of 6: Get a form')).toBeVisible();
  for (const text of ['3 of 6: Make the brush', '4 of 6: Prove it', '5 of 6: The belt', '6 of 6: Make it yours']) {
    await page.getByRole('button', { name: 'Next' }).click();
    await expect(title(text)).toBeVisible();
  }
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(title('6 of 6: Make it yours')).toBeHidden();
});

test.describe('a first start', () => {
  test.use({ shares: false });

  test('from the first page to a saved brush of one’s own in under 25 clicks', async ({ page, app }) => {
    await page.addInitScript(() => localStorage.removeItem('ways-in-closed'));
    let clicks = 0;
    await page.exposeFunction('clicked', () => clicks++);
    await page.addInitScript(() =>
      addEventListener('pointerdown', () => void (window as unknown as { clicked: () => void }).clicked(), true),
    );
    await page.goto(app.address);
    const ways = page.getByRole('region', { name: 'Ways in' });
    await expect(ways.getByRole('button', { name: 'Sculpt a form' })).toBeVisible();
    await ways.getByRole('button', { name: 'Try a brush' }).click();
    await settled(page, '.proof');
    await draw(page, '.proof', [[0.5, 0.5]]);
    await expect(page.locator('.proof')).toHaveAttribute('data-strokes', '1');
    expect(clicks).toBeLessThanOrEqual(3);
    await page.getByLabel('Name', { exact: true }).fill('My first press');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.locator('.state')).toHaveText('saved');
    expect(clicks).toBeLessThan(25);
    const { items } = await (await page.request.get(`${app.address}/api/brushes?limit=500`)).json();
    expect(items.map((one: { card: { name: string } }) => one.card.name)).toContain('My first press');
  });

  test('the bench without anything on it offers what can be opened', async ({ page, app }) => {
    await page.goto(app.address);
    await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Bench' }).click();
    await expect(page.getByText('Nothing is on the bench')).toBeVisible();
    await page.getByRole('link', { name: 'Limpet press' }).click();
    await expect(page).toHaveTitle(/^Limpet press – Brush/);
    await page.goto(app.address);
    await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Bench' }).click();
    await expect(page).toHaveTitle(/^Limpet press – Brush/);
  });
});
