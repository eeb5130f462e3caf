import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { demoSite, expect, open, saved, test } from './site';

async function openMap(page: Page, site: string) {
  await open(page, site, 'gear');
  await page.getByRole('radio', { name: 'map', exact: true }).click();
  const map = page.getByRole('region', { name: 'Site map' });
  await expect(map.getByRole('group', { name: /^gw-1,/ })).toBeVisible();
  return map;
}

test('the map says every box with its cables, counts end devices by segment and names them on demand', async ({
  page,
  request,
}) => {
  const map = await openMap(page, await demoSite(request, '2-clinic'));
  await expect(map.getByRole('group', { name: /^Internet, to gw-1 1$/ })).toBeVisible();
  const box = map.getByRole('group', {
    name: 'sw-kennels, switch, kennels, port 1 to ap-03 1, port 25 to sw-rack 49, 11 in Cameras, 7 in Kennel climate',
  });
  await box.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'sw-kennels' })).toBeVisible();
  await map.getByRole('button', { name: '7 in Kennel climate at sw-kennels' }).click();
  const row = map.getByRole('button', { name: /^7 in Kennel climate at sw-kennels: / });
  await expect(row).toHaveAttribute('aria-expanded', 'true');
  const names = /: (.+)$/.exec((await row.getAttribute('aria-label'))!)![1]!.split(', ');
  expect(names).toHaveLength(7);
  for (const name of names) await expect(map.getByText(new RegExp(`^\\d+ ${name}$`))).toBeVisible();
});

test('find brings a box or an end device into view; what is unknown is said', async ({ page, request }) => {
  const map = await openMap(page, await demoSite(request, '3-creamery'));
  const find = page.getByRole('form', { name: 'Map' }).getByLabel('find');
  await find.fill('cold-temp-01');
  await find.press('Enter');
  await expect(map.getByText('cold-temp-01')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'sw-c', exact: true })).toBeVisible();
  await find.fill('sw-zzz');
  await find.press('Enter');
  await expect(page.getByText('Nothing on the map is called “sw-zzz”')).toBeVisible();
});

test('a box moved by hand stands there for everybody, in the files too; it is undone, and can be put back', async ({
  page,
  request,
  browser,
  baseURL,
}) => {
  const site = await demoSite(request, '2-clinic');
  const map = await openMap(page, site);
  const ap = () => map.getByRole('group', { name: /^ap-05,/ });
  const before = (await ap().boundingBox())!;
  const drawn = async () => (await request.get(`/api/sites/${site}/file?path=map.svg`)).text();
  const first = await drawn();
  await ap().focus();
  await page.keyboard.press('Enter');
  for (let i = 0; i < 6; i++) await page.keyboard.press('Shift+ArrowUp');
  await expect(page.getByRole('button', { name: 'arrange anew' })).toBeVisible();
  await expect.poll(async () => (await ap().boundingBox())!.y).toBeLessThan(before.y - 20);
  await saved(page);
  await expect(page.getByTestId('last-change')).toContainText('ap-05 moved on the map');
  expect(await drawn()).not.toBe(first);

  const other = await (await browser.newContext({ baseURL: baseURL! })).newPage();
  await other.addInitScript(() => localStorage.setItem('dianome.author', 'Bea'));
  const theirs = await openMap(other, site);
  await expect(other.getByRole('button', { name: 'arrange anew' })).toBeVisible();
  // One that is dragged is one change, seen in the other window.
  const rack = (await theirs.getByRole('group', { name: /^sw-kennels,/ }).boundingBox())!;
  await other.mouse.move(rack.x + 20, rack.y + 12);
  await other.mouse.down();
  await other.mouse.move(rack.x + 60, rack.y + 40, { steps: 4 });
  await other.mouse.up();
  await saved(other);
  await expect(other.getByTestId('last-change')).toContainText('sw-kennels moved on the map');
  await expect
    .poll(async () => (await map.getByRole('group', { name: /^sw-kennels,/ }).boundingBox())!.y)
    .toBeGreaterThan(rack.y + 10);
  await other.context().close();

  await page.getByRole('button', { name: 'arrange anew' }).click();
  await expect(page.getByRole('button', { name: 'arrange anew' })).toBeHidden();
  await saved(page);
  expect(await drawn()).toBe(first);
  await page.getByRole('banner').getByRole('button', { name: 'undo' }).click();
  await expect(page.getByRole('button', { name: 'arrange anew' })).toBeVisible();
});

test('tree, probe and faults are layers of one picture', async ({ page, request }) => {
  const map = await openMap(page, await demoSite(request, '3-creamery'));
  const layers = page.getByRole('group', { name: 'Layers of the map' });
  await layers.getByLabel('spanning tree').click();
  await expect(map.getByText('ROOT').first()).toBeVisible();
  await layers.getByLabel('faults').click();
  await map.getByRole('group', { name: /^sw-d,/ }).click();
  await page.getByRole('button', { name: 'Switch off sw-d' }).click();
  await expect(page.getByText(/^Cut off: /)).toBeVisible();
  await expect(map.getByText('off', { exact: true })).toBeVisible();
  // The same faults stand under What if.
  await page.getByRole('link', { name: 'Rehearse' }).click();
  await page.getByRole('tab', { name: 'What if' }).click();
  await expect(page.getByRole('list', { name: 'Faults tried' })).toContainText('sw-d off');
});

test('the map is taken away as SVG and PNG', async ({ page, request }) => {
  await openMap(page, await demoSite(request, '2-clinic'));
  const tools = page.getByRole('form', { name: 'Map' });
  const [svg] = await Promise.all([
    page.waitForEvent('download'),
    tools.getByRole('button', { name: 'SVG' }).click(),
  ]);
  expect(svg.suggestedFilename()).toBe('harrow-lane-animal-clinic-map.svg');
  const text = readFileSync((await svg.path())!, 'utf8');
  expect(text).toMatch(/^<svg xmlns="http:\/\/www\.w3\.org\/2000\/svg"/);
  expect(text).toContain('>sw-kennels<');
  // Other programs know none of the page's colours by name.
  expect(text).not.toContain('var(');
  const [png] = await Promise.all([
    page.waitForEvent('download'),
    tools.getByRole('button', { name: 'PNG' }).click(),
  ]);
  const bytes = readFileSync((await png.path())!);
  expect(bytes.subarray(1, 4).toString()).toBe('PNG');
  expect(bytes.readUInt32BE(16)).toBeGreaterThan(1200);
});
