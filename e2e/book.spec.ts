import { execFileSync } from 'node:child_process';
import { unzipSync } from 'fflate';
import { readFileSync, writeFileSync } from 'node:fs';
import { demoSite, expect, open, test, unfold } from './site';

/** The book of a site: looked at, cut down to the chapters that are wanted, and taken away. */

const textOf = (file: string): string =>
  execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });

test('the book is opened under Hand over, read, and taken away with the chapters that are wanted', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'handover');
  await page.getByRole('link', { name: 'Open the book' }).click();
  const contents = page.getByRole('navigation', { name: 'Contents' });
  await expect(contents.getByRole('link', { name: 'Where secrets are kept' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Map', level: 2 })).toBeVisible();
  await expect(page.getByRole('img', { name: /^Map: Internet; gw-1 in comms cupboard/ })).toBeVisible();
  await expect(page.getByRole('group', { name: 'Addresses of Servers, 10.20.30.0/24' })).toContainText(
    '10.20.30.10',
  );
  // By keyboard: a chapter that is left out is gone from the page and from its contents.
  const trees = page.getByRole('checkbox', { name: 'Trees' });
  await trees.focus();
  await page.keyboard.press('Space');
  await expect(contents.getByRole('link', { name: 'Trees' })).toHaveCount(0);
  await expect(page.getByRole('heading', { name: 'Trees' })).toHaveCount(0);
  await page.getByRole('radio', { name: 'Letter' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download PDF' }).click();
  const saved = await download;
  expect(saved.suggestedFilename()).toBe('harrow-lane-animal-clinic-book.pdf');
  const file = test.info().outputPath('book.pdf');
  await saved.saveAs(file);
  const info = execFileSync('pdfinfo', [file], { encoding: 'utf8' });
  expect(info).toMatch(/\(letter\)/);
  expect(info).toMatch(/^Tagged: +yes$/m);
  const text = textOf(file);
  for (const words of [
    'In plain words',
    '10.20.30.10',
    'What to do when',
    'sw-surgery 9',
    '– Management may',
  ])
    expect(text.replace(/ +/g, ' ')).toContain(words);
  expect(text).not.toMatch(/^ *Trees$/m);
});

test('nothing is made of a book without a chapter, and a wrong one is told', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await page.goto(`/site/${site}/book`);
  const chapters = page.getByRole('group', { name: 'What the book holds' }).getByRole('checkbox');
  await expect(chapters.first()).toBeVisible();
  for (const chapter of await chapters.all()) await chapter.click();
  await expect(page.getByRole('button', { name: 'Download PDF' })).toBeDisabled();
  await expect(page.getByText('Every chapter is left out; choose at least one.')).toBeVisible();
  for (const [query, says] of [
    ['without=maps', '“maps” is no chapter'],
    ['paper=a3', '“a3” is no paper; there are a4, letter.'],
  ]) {
    const answer = await request.get(`/api/sites/${site}/book?${query}`);
    expect([answer.status(), (await answer.json()).detail]).toEqual([422, expect.stringContaining(says!)]);
  }
});

test('a failure on the way is told, and it can be tried again', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await page.goto(`/site/${site}/book`);
  const button = page.getByRole('button', { name: 'Download PDF' });
  await expect(button).toBeVisible();
  await page.route('**/book?**', (route) => route.abort());
  await button.click();
  await expect(page.getByRole('alert').filter({ hasText: 'The server cannot be reached.' })).toBeVisible();
  await page.unroute('**/book?**');
  const download = page.waitForEvent('download');
  await button.click();
  await download;
  await expect(page.getByRole('alert').filter({ hasText: 'cannot be reached' })).toHaveCount(0);
});

test('all schedules leave as one workbook, the map as a drawing, the plan as a running network', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'handover');
  await unfold(page, 'One by one, for other programs');
  const sheets = page.getByRole('region', { name: 'Files for spreadsheets' });
  const href = await sheets.getByRole('link', { name: 'Download schedules.xlsx' }).getAttribute('href');
  const book = test.info().outputPath('schedules.xlsx');
  writeFileSync(book, await (await request.get(href!)).body());
  const csv = test.info().outputPath('addresses.csv');
  execFileSync('xlsx2csv', ['-n', 'address schedule', book, csv]);
  expect(readFileSync(csv, 'utf8')).toContain('10.44.110.2,sw-a,switch');
  const map = page.getByRole('region', { name: 'Files for drawings' });
  const at = await map.getByRole('link', { name: 'Download map.svg' }).getAttribute('href');
  expect(await (await request.get(at!)).text()).toContain('>sw-a</text>');
  const lab = await page.getByRole('link', { name: 'Download network.zip' }).getAttribute('href');
  const answer = await request.get(lab!);
  expect(answer.headers()['content-type']).toBe('application/zip');
  expect(Object.keys(unzipSync(new Uint8Array(await answer.body())))).toContain('network/lab.sh');
});
