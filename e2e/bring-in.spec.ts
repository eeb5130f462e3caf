import ExcelJS from 'exceljs';
import { zipSync } from 'fflate';
import { truncateSync, writeFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { nftSample } from '../src/core/testing/files';
import { demoSite, expect, newSite, open, saved, test } from './site';

/** Tables and files of other programs, brought in as a change that is looked at first. */

const choose = (page: Page) => page.getByLabel('Choose a table');
const dialog = (page: Page) => page.getByRole('dialog', { name: 'Bring in a table' });
const csv = (name: string, ...lines: string[]) => ({
  name,
  mimeType: 'text/csv',
  buffer: Buffer.from(lines.join('\r\n')),
});
/** Opens a site and chooses a file that is one table; what is said of its rows. */
const bringTable = async (page: Page, site: string, file: ReturnType<typeof csv>) => {
  await open(page, site, 'handover');
  await choose(page).setInputFiles(file);
  return dialog(page).getByRole('region', { name: 'the table' });
};
const accept = async (page: Page, rows: string) => {
  await dialog(page)
    .getByRole('button', { name: `Review ${rows}` })
    .click();
  await page.getByRole('button', { name: 'Take these changes' }).click();
};

test('a table of segments comes in row by row, is reviewed, and is taken back by one undo', async ({
  page,
  request,
}) => {
  const site = await newSite(request);
  const table = await bringTable(
    page,
    site,
    csv(
      'segments.csv',
      'VLAN;Name;Network;For;Colour',
      '20;Offices;10.30.20.0/24;staff;blue',
      '80;Visitors;10.30.80.7/24;guests;red',
      '9000;Nowhere;;;',
    ),
  );
  await expect(table.getByRole('status')).toHaveText('1 good, 1 repaired, 1 refused, 0 as planned.');
  // The worst stands first, with what is wrong.
  await expect(table.getByRole('row').nth(1)).toContainText('“9000” is no VLAN id');
  await expect(table.getByRole('row', { name: /Visitors/ })).toContainText(
    '10.30.80.7/24 has host bits, read as 10.30.80.0/24',
  );
  await expect(table.getByRole('combobox', { name: 'Column 5' })).toHaveText('5: left out');
  await accept(page, '2 rows');
  expect(await saved(page)).toBe(1);
  await page.getByRole('navigation').getByRole('link', { name: 'Segments' }).click();
  await expect(page.getByLabel('Name of Visitors')).toBeVisible();
  await page.getByRole('banner').getByRole('button', { name: 'undo' }).click();
  await expect(page.getByLabel('Name of Visitors')).toHaveCount(0);
});

test('hosts that were edited in their table are changed: two swap addresses, one gets a note', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  const table = await bringTable(
    page,
    site,
    csv(
      'addresses.csv',
      'host,address,mac,kind,assignment,note',
      'records,10.20.30.11,00:00:5E:00:53:10,server,static on device,',
      'images,10.20.30.10,00:00:5E:00:53:11,server,static on device,X-ray archive',
      'directory,10.20.30.12,00:00:5E:00:53:12,server,static on device,in rack 2',
      'backup,10.20.30.13,00:00:5E:00:53:13,server,static on device,',
      'backup,10.20.30.12,,,,',
    ),
  );
  await expect(table.getByRole('status')).toHaveText('3 good, 0 repaired, 1 refused, 1 as planned.');
  await expect(table.getByRole('row', { name: /images/ })).toContainText('moves images from 10.20.30.11');
  await expect(table.getByRole('row', { name: /sets the note/ })).toContainText('directory');
  await expect(table.getByRole('row', { name: /refused/ })).toContainText(
    '10.20.30.12 is directory’s already',
  );
  await accept(page, '3 rows');
  expect(await saved(page)).toBe(1);
  await page.getByRole('navigation').getByRole('link', { name: 'Addresses' }).click();
  await page.getByRole('radio', { name: '30 SV' }).click();
  await expect(page.getByLabel('Address of records')).toHaveValue('.11');
  await expect(page.getByLabel('Address of images')).toHaveValue('.10');
  await expect(page.getByLabel('Note on directory')).toHaveValue('in rack 2');
  await expect(page.getByLabel('Note on images')).toHaveValue('X-ray archive');
});

test('a column that was guessed wrongly is put right, and a row that is there is left as it is', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  const table = await bringTable(
    page,
    site,
    csv(
      'hosts.csv',
      'rack 1,10.20.30.77,scanner-7',
      'rack 1,10.20.30.10,records',
      'rack 2,192.0.2.1,far-off',
    ),
  );
  await expect(table.getByRole('combobox', { name: 'the table is about' })).toHaveText('fixed addresses');
  await table.getByRole('combobox', { name: 'Column 3' }).click();
  await page.getByRole('option', { name: '3: name' }).click();
  await expect(table.getByRole('status')).toHaveText('1 good, 0 repaired, 1 refused, 1 as planned.');
  await expect(table.getByRole('row', { name: /far-off/ })).toContainText('lies in no subnet of this site');
  await expect(table.getByRole('row', { name: /records/ })).toContainText('as planned');
  await accept(page, '1 row');
  expect(await saved(page)).toBe(1);
  await page.getByRole('navigation').getByRole('link', { name: 'Addresses' }).click();
  await page.getByRole('radio', { name: '30 SV' }).click();
  await expect(page.getByLabel('Address of scanner-7')).toHaveValue('.77');
});

test('a workbook with a title, joined cells and several sheets is read sheet by sheet', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '3-creamery');
  const book = new ExcelJS.Workbook();
  const cables = book.addWorksheet('Cabling');
  cables.addRow(['Cabling of the bottling hall']);
  cables.mergeCells('A1:D1');
  cables.addRow(['From', 'From port', 'To', 'Length']);
  cables.addRow(['sw-f', 20, 'spare-laptop', 12.6]);
  cables.addRow(['', 21, 'spare-screen', 8]);
  cables.mergeCells('A3:A4');
  const hosts = book.addWorksheet('Hosts');
  hosts.addRow(['Name', 'IP address', 'Kind']);
  hosts.addRow(['spare-laptop', '10.44.120.40', 'computer']);
  hosts.addRow(['spare-screen', { formula: '"10.44.120."&41', result: '10.44.120.41' }, 'computer']);
  book.addWorksheet('Empty');
  const file = test.info().outputPath('plan.xlsx');
  await book.xlsx.writeFile(file);
  await open(page, site, 'handover');
  await choose(page).setInputFiles(file);
  await expect(dialog(page).getByRole('region', { name: 'Empty' })).toHaveCount(0);
  const sheet = dialog(page).getByRole('region', { name: 'Cabling' });
  await expect(sheet.getByRole('row', { name: /spare-screen/ })).toContainText(
    'the cells A3:A4 are joined, read as the same in each',
  );
  await expect(sheet.getByRole('row', { name: /spare-laptop/ })).toContainText('length rounded to 13 m');
  await expect(sheet.getByRole('status')).toHaveText('0 good, 2 repaired, 0 refused, 0 as planned.');
  // Without the sheet that names the devices their cables cannot be laid.
  await dialog(page).getByRole('checkbox', { name: 'Hosts' }).click();
  await expect(sheet.getByRole('status')).toHaveText('0 good, 0 repaired, 2 refused, 0 as planned.');
  await expect(dialog(page).getByRole('button', { name: 'Review 0 rows' })).toBeDisabled();
  await dialog(page).getByRole('checkbox', { name: 'Hosts' }).click();
  await accept(page, '4 rows');
  expect(await saved(page)).toBe(1);
  await page.goto(`/site/${site}/ports`);
  await expect(page.getByRole('row', { name: /^20 .*spare-laptop/ })).toBeVisible();
});

test('files of other programs say what they hold, and what was not understood is listed', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'handover');
  await choose(page).setInputFiles({
    name: 'dnsmasq.conf',
    mimeType: 'text/plain',
    buffer: Buffer.from(
      [
        'domain=clinic.example.net',
        'dhcp-range=10.20.50.200,10.20.50.220,6h',
        'dhcp-host=02:00:5e:00:53:aa,till-9,10.20.20.99',
        'dhcp-script=/bin/true',
      ].join('\n'),
    ),
  });
  await expect(dialog(page).getByRole('combobox', { name: 'Read as' })).toHaveText(
    'a configuration of dnsmasq',
  );
  await dialog(page)
    .getByRole('button', { name: /2 lines not taken/ })
    .click();
  const left = dialog(page).getByRole('list', { name: 'Lines not taken' });
  await expect(left).toContainText('4 dhcp-script=/bin/true');
  await accept(page, '2 rows');
  expect(await saved(page)).toBe(1);
  await choose(page).setInputFiles({
    name: 'hosts',
    mimeType: 'text/plain',
    buffer: Buffer.from('127.0.0.1 localhost\n10.20.20.99 till-9\n10.20.20.98 till-8\n'),
  });
  const table = dialog(page).getByRole('region', { name: 'fixed addresses' });
  await expect(table.getByRole('status')).toHaveText('1 good, 0 repaired, 0 refused, 1 as planned.');
  // Read as something that it is not, it says so, and can be read as what it is again.
  await dialog(page).getByRole('combobox', { name: 'Read as' }).click();
  await page.getByRole('option', { name: 'a configuration of Kea' }).click();
  await expect(dialog(page).getByRole('alert')).toContainText('The file is no JSON');
  await accept(page, '1 row');
  expect(await saved(page)).toBe(2);
});

test('a ruleset becomes cells and rules, and nothing below a line that nobody understood', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'handover');
  await choose(page).setInputFiles({
    name: 'nftables.conf',
    mimeType: 'text/plain',
    buffer: Buffer.from(nftSample),
  });
  const ways = dialog(page).getByRole('region', { name: 'who may talk' });
  await expect(ways.getByRole('row', { name: /Staff Devices tcp 554 allow/ })).toContainText('good');
  await expect(
    ways.getByRole('row', { name: /10\.20\.20\.10 10\.20\.30\.11 everything deny/ }),
  ).toContainText('as a rule above the cells');
  await dialog(page)
    .getByRole('button', { name: /4 lines not taken/ })
    .click();
  await expect(dialog(page).getByRole('list', { name: 'Lines not taken' })).toContainText(
    '19 iifname vlan80 oifname vlan20 accept: it stands below line 18, which nobody understood',
  );
  await accept(page, '3 rows');
  expect(await saved(page)).toBe(1);
  await page.getByRole('navigation').getByRole('link', { name: 'Who may talk' }).click();
  await expect(page.getByRole('gridcell', { name: /^Staff to Devices: .*camera pictures/ })).toBeVisible();
});

test('what cannot be read is refused with why, and nothing is changed', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'handover');
  const refused = async (file: Parameters<ReturnType<typeof choose>['setInputFiles']>[0], says: string) => {
    await choose(page).setInputFiles(file);
    await expect(page.getByRole('alert').filter({ hasText: says })).toContainText('Nothing was changed.');
    await expect(dialog(page)).toHaveCount(0);
  };
  const large = test.info().outputPath('large.csv');
  writeFileSync(large, '');
  truncateSync(large, 50 * 1024 * 1024);
  await refused(large, 'The file has 50 MB; at most 10 MB are read.');
  const bomb = test.info().outputPath('bomb.xlsx');
  writeFileSync(bomb, zipSync({ 'xl/worksheets/sheet1.xml': new Uint8Array(150 * 1024 * 1024) }));
  await refused(bomb, 'Unpacked the file would have 150 MB; at most 100 MB are read.');
  await refused(
    { name: 'a.xlsx', mimeType: 'application/zip', buffer: Buffer.from('PK nothing') },
    'broken archive',
  );
  await refused(
    {
      name: 'b.xlsx',
      mimeType: 'application/zip',
      buffer: Buffer.from(zipSync({ 'a.txt': new Uint8Array(3) })),
    },
    'Nothing stands in this workbook.',
  );
  await refused({ name: 'c.csv', mimeType: 'text/csv', buffer: Buffer.alloc(0) }, 'The file is empty.');
  await refused(
    { name: 'd.xls', mimeType: 'application/vnd.ms-excel', buffer: Buffer.from([0xd0, 0xcf, 0, 0]) },
    'neither text nor a workbook',
  );
  await refused(
    { name: 'e.json', mimeType: 'application/json', buffer: Buffer.from('{ "format": "dianome-plan" }') },
    'This is a plan file',
  );
  await choose(page).setInputFiles(
    csv('many.csv', ...Array.from({ length: 20_001 }, (_, i) => `h-${i},10.0.0.1`)),
  );
  await expect(dialog(page).getByRole('alert')).toContainText('There are 20,001 rows; at most 20,000');
  await dialog(page).getByRole('button', { name: 'Bring in nothing' }).click();
  expect(await saved(page)).toBe(0);
});
