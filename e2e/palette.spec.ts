import { demoSite, expect, open, saved, test } from './site';

/** The find box as a palette, the list of keys, and the panes. */

test('what can be done on the page is found by its name and done, with its key beside it', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'segments');
  const find = page.getByRole('combobox', { name: 'Find' });
  await page.keyboard.press('Control+k');
  await expect(find).toBeFocused();
  await expect(page.getByRole('option', { name: 'add a segment +' })).toBeVisible();

  await page.keyboard.type('add a seg');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toContainText('New segment');
  await page.keyboard.press('Escape');

  await page.keyboard.press('/');
  await page.keyboard.type('internet side');
  await page.getByRole('option', { name: /go to Internet side/ }).click();
  await expect(page.getByRole('heading', { name: 'Internet side' })).toBeVisible();
  // The page it was is left with its commands.
  await page.keyboard.press('/');
  await expect(page.getByRole('option', { name: 'add an uplink +' })).toBeVisible();
  await expect(page.getByRole('option', { name: 'add a segment +' })).toHaveCount(0);
  await page.keyboard.press('Escape');
  await expect(find).not.toBeFocused();
  await expect(page.getByRole('listbox', { name: 'Found' })).toHaveCount(0);
  await expect(find).toHaveAttribute('aria-expanded', 'false');
});

test('records come before commands, and the arrows go through both', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'segments');
  await page.keyboard.press('/');
  await page.keyboard.type('re');
  const options = page.getByRole('listbox', { name: 'Found' }).getByRole('option');
  await expect(options.last()).toContainText('go to Rehearse');
  await expect(options.first()).not.toContainText('go to');
  await expect(options.first()).toHaveAttribute('aria-selected', 'true');
  const second = await options.nth(1).textContent();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('option', { selected: true })).toHaveText(second!);
});

test('the list of keys is that of the page', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'segments');
  const keys = page.getByRole('dialog');
  await page.keyboard.press('?');
  await expect(keys).toContainText('Fit: re-pack the subnets');
  await expect(keys).not.toContainText('type a cable');
  await page.keyboard.press('Escape');
  await page.keyboard.press('4');
  await expect(page.getByRole('heading', { name: 'Gear & ports' })).toBeVisible();
  await page.keyboard.press('?');
  await expect(keys).toContainText('type a cable');
  await expect(keys).not.toContainText('Fit: re-pack the subnets');
});

test('Ctrl Z undoes outside of fields, and in a field is the field’s own', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'segments');
  const name = page.getByLabel('Name of Family');
  await name.fill('Upstairs');
  await name.press('Control+z');
  await expect(name).toHaveValue('Family');
  await page.keyboard.press('Escape');
  await name.fill('Upstairs');
  await name.press('Enter');
  await saved(page);
  await page.getByRole('heading', { name: 'Segments', exact: true }).click();
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('Name of Family')).toBeVisible();
  await page.keyboard.press('Control+Shift+z');
  await expect(page.getByLabel('Name of Upstairs')).toBeVisible();
});

test('the right side is made wider by mouse and by key, and stays so', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'segments');
  const side = page.getByRole('complementary', { name: 'Details and findings' });
  const edge = page.getByRole('separator', { name: 'Width of the right side' });
  const width = async () => Math.round((await side.boundingBox())!.width);
  const before = await width();
  const box = (await edge.boundingBox())!;
  await page.mouse.move(box.x + 2, box.y + 200);
  await page.mouse.down();
  await page.mouse.move(box.x - 98, box.y + 200, { steps: 5 });
  await page.mouse.up();
  expect(Math.abs((await width()) - before - 100)).toBeLessThan(4);
  const dragged = await width();
  await edge.focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(width).toBeLessThan(dragged);
  const chosen = await width();
  await page.reload();
  await expect(side).toBeVisible();
  expect(Math.abs((await width()) - chosen)).toBeLessThan(4);
});
