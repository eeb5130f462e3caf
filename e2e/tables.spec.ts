import type { Locator } from '@playwright/test';
import { demoSite, expect, fill, open, saved, test } from './site';

/** As Ctrl V does it, with a block of cells from a spreadsheet. */
const paste = (field: Locator, text: string) =>
  field.evaluate((element, copied) => {
    const data = new DataTransfer();
    data.setData('text/plain', copied);
    element.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, text);

test('cells are gone through by arrow keys, pasted over in a block, and copied with their heads', async ({
  page,
  request,
}) => {
  await open(page, await demoSite(request, '2-clinic'), 'addresses');
  await page.getByRole('radio', { name: '30 SV' }).click();
  const grid = page.getByRole('grid', { name: 'fixed addresses' });
  const notes = grid.getByRole('textbox', { name: /^Note on / });
  await expect(notes.nth(1)).toBeVisible();
  await notes.first().focus();
  await page.keyboard.press('ArrowDown');
  await expect(notes.nth(1)).toBeFocused();
  await page.keyboard.press('ArrowLeft');
  await expect(grid.getByRole('combobox', { name: /^Assignment of / }).nth(1)).toBeFocused();
  await page.keyboard.press('ArrowLeft');
  await expect(grid.getByRole('textbox', { name: /^MAC of / }).nth(1)).toBeFocused();

  const revision = await saved(page);
  await paste(notes.first(), 'top shelf\nunder the desk\n');
  await expect(notes.first()).toHaveValue('top shelf');
  await expect(notes.nth(1)).toHaveValue('under the desk');
  // One change, taken back at once.
  expect(await saved(page)).toBe(revision + 1);
  await page.getByRole('banner').getByRole('button', { name: 'undo' }).click();
  await expect(notes.first()).not.toHaveValue('top shelf');

  const macs = grid.getByRole('textbox', { name: /^MAC of / });
  const first = await macs.first().inputValue();
  await paste(macs.first(), '00:00:5E:00:53:E1\nno address\n');
  await expect(page.getByRole('alert').filter({ hasText: 'Nothing was pasted.' })).toContainText(/^MAC of /);
  await expect(macs.first()).toHaveValue(first);

  const marks = grid.getByRole('checkbox', { name: /^Mark (?!all)/ });
  await marks.first().click();
  const copied = await grid.evaluate((element) => {
    const data = new DataTransfer();
    element
      .querySelector('[role=checkbox]')!
      .dispatchEvent(new ClipboardEvent('copy', { clipboardData: data, bubbles: true, cancelable: true }));
    return data.getData('text/plain');
  });
  expect(copied.split('\n')).toHaveLength(2);
  expect(copied.split('\n')[0]).toBe('Address\tHost name\tKind\tMAC\tFixed by\tNote');
});

test('segments are ordered and filtered; moved only in their own order; widths and order stay', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site);
  const names = () =>
    page
      .getByRole('textbox', { name: /^Name of / })
      .evaluateAll((fields) => fields.map((field) => (field as HTMLInputElement).value));
  const own = await names();
  await page.getByRole('button', { name: 'Need', exact: true }).click();
  await expect(page.getByRole('columnheader', { name: /^Need/ })).toHaveAttribute('aria-sort', 'ascending');
  await expect.poll(names).not.toEqual(own);
  await expect(page.getByRole('button', { name: `Move ${own[0]}`, exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Filter and width of Subnet' }).click();
  await page.getByLabel('Subnet contains').fill('10.44.2');
  await expect.poll(async () => (await names()).length).toBeLessThan(own.length);
  const width = async () => (await page.getByRole('columnheader', { name: /^Gateway/ }).boundingBox())!.width;
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Filter and width of Gateway' }).click();
  const before = await width();
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'wider' }).click();
  await expect.poll(width).toBeGreaterThan(before + 40);
  await page.reload();
  await expect(page.getByRole('columnheader', { name: /^Need/ })).toHaveAttribute('aria-sort', 'ascending');
  await page.getByRole('button', { name: 'Need', exact: true }).click();
  await page.getByRole('button', { name: 'Need', exact: true }).click();
  await expect.poll(names).toEqual(own);
});

test('a cable is laid and a port assigned in the table, by typing and by pasting', async ({
  page,
  request,
}) => {
  await open(page, await demoSite(request, '2-clinic'), 'gear');
  await page.getByRole('radio', { name: 'table' }).click();
  await page.getByLabel('Filter the ports').fill('sw-rack 4');
  await fill(page, 'What sw-rack 41 carries', 'trunk 20+30 untagged none');
  await expect(page.getByLabel('What sw-rack 41 carries')).toHaveValue(/^trunk 20 ST\+30 SV|^trunk 20/);
  await fill(page, 'Where sw-rack 42 leads', 'sw-kennels 13');
  await expect(page.getByLabel('Where sw-rack 42 leads')).toHaveValue('sw-kennels 13');
  await fill(page, 'Where sw-rack 42 leads', 'sw-kennels 12');
  await expect(page.getByText('sw-rack 42 leads to sw-kennels 13; empty this first')).toBeVisible();
  await page.keyboard.press('Escape');
  await fill(page, 'Where sw-rack 42 leads', 'none');
  await expect(page.getByLabel('Where sw-rack 42 leads')).toHaveValue('');
  await paste(page.getByLabel('What sw-rack 43 carries'), 'access 20\t\nparked\t\n');
  await expect(page.getByLabel('What sw-rack 43 carries')).toHaveValue('access 20 ST');
  await expect(page.getByLabel('What sw-rack 44 carries')).toHaveValue('parked');
});
