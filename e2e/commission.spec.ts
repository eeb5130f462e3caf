import type { Page } from '@playwright/test';
import { choose, demoSite, expect, fill, newSite, open, saved, test } from './site';

const order = (page: Page) => page.getByRole('list', { name: 'The order' });
const show = (page: Page, view: string) => page.getByRole('radio', { name: view, exact: true });

test('the order says where to sit, what to set and what is still reached; access points are set up before they are hung', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'commission');
  await expect(page.getByText(/^\d+ steps, 13 boxes, \d+ seats$/)).toBeVisible();
  await expect(page.getByRole('note').filter({ hasText: 'agree a stop with the operator' })).toBeVisible();
  const seats = order(page).getByRole('listitem');
  const hung = seats.filter({ has: page.getByRole('table', { name: 'Steps at ap-01 1' }) });
  await expect(hung.first()).toContainText('an address in the subnet it comes with');
  await expect(hung.first()).toContainText('on the same page its socket: untagged VLAN 110');
  await expect(hung.last()).toContainText('Plug in its cables to other boxes');
  const parachute = seats.filter({ hasText: 'parachute' }).first();
  await expect(parachute).toContainText(/10\.44\.110\.\d+/);
  await expect(order(page).getByText('console')).toHaveCount(0);
});

test('a step moved to where it cuts off is named with the reason, and the rest is worked out anew', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'commission');
  const rows = order(page).getByRole('row');
  const management = rows.filter({ hasText: 'Management address 192.168.10.' });
  const gateway = management.filter({ has: page.getByRole('rowheader', { name: 'sw-cellar' }) });
  await expect(gateway).toBeVisible();
  const before = await rows.allTextContents();
  const handle = gateway.getByRole('button', { name: /^Move step/ });
  const number = Number(/\d+/.exec((await handle.getAttribute('aria-label'))!)![0]);
  await handle.focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(`is at place ${number} of`)).toBeAttached();
  // Before the parachute that it needs.
  for (const up of [1, 2, 3]) {
    await page.keyboard.press('ArrowUp');
    await expect(page.getByText(`is at place ${number - up} of`)).toBeAttached();
  }
  await page.keyboard.press('Space');
  const alert = page.getByRole('alert').filter({ hasText: 'must not stand there' });
  await expect(alert).toContainText(
    /Step \d+ must not stand there\. (From here you do not reach|After it nothing reaches)/,
  );
  await alert.getByRole('button', { name: 'Work out anew from there' }).click();
  await expect(alert).toBeHidden();
  await page.getByRole('button', { name: 'Take the last move back' }).click();
  await expect(alert).toBeVisible();
  await page.getByRole('button', { name: 'Back to the order as worked out' }).click();
  await expect(alert).toBeHidden();
  await expect(rows.first()).toBeVisible();
  expect(await rows.allTextContents()).toEqual(before);
});

test('a box that is as planned has no steps; what boxes of one model come with is said once for all', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'commission');
  await expect(order(page).getByRole('rowheader', { name: 'sw-kennels' }).first()).toBeVisible();
  await show(page, 'boxes now').click();
  await choose(page.getByLabel('sw-kennels now'), { label: 'as planned' });
  await expect(page.getByLabel('Address sw-kennels comes with')).toBeHidden();
  await saved(page);

  await fill(page, 'Address ap-01 comes with', '192.168.1.300/24');
  await expect(page.getByRole('alert').filter({ hasText: '“' })).toContainText(
    '“192.168.1.300/24” is no address with a mask',
  );
  await fill(page, 'Address ap-01 comes with', '192.168.1.20');
  await expect(page.getByLabel('Address ap-01 comes with')).toHaveValue('192.168.1.20/24');
  await page.getByRole('button', { name: 'As ap-01: 4 more like it' }).click();
  await expect(page.getByLabel('Address ap-05 comes with')).toHaveValue('192.168.1.20/24');
  await saved(page);

  await show(page, 'order').click();
  await expect(order(page).getByRole('rowheader', { name: 'sw-rack' }).first()).toBeVisible();
  await expect(order(page).getByRole('rowheader', { name: 'sw-kennels' })).toHaveCount(0);
  const hung = order(page)
    .getByRole('listitem')
    .filter({ has: page.getByRole('table', { name: 'Steps at ap-01 1' }) });
  await expect(hung.first()).toContainText('192.168.1.254');
  await page.reload();
  await show(page, 'boxes now').click();
  await expect(page.getByLabel('sw-kennels now')).toContainText('as planned');
});

test('the settings of a box, page by page, with what is the same at all of its model; all of them to print', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'commission');
  await show(page, 'settings').click();
  await choose(page.getByLabel('Box', { exact: true }), { label: 'sw-b' });
  await expect(page).toHaveURL(/list=settings/);
  const own = page.getByRole('region', { name: 'sw-b', exact: true });
  await expect(own).toContainText('10.44.110.3, mask 255.255.255.224');
  await expect(own).toContainText('Ports 1-2, 4-5 (inside: fe0, index 9;');
  const shared = page.getByRole('region', { name: 'The same at sw-b, sw-c, sw-e' });
  await expect(shared).toContainText('VLAN 140');
  await expect(own).not.toContainText('Time zone');
  await choose(page.getByLabel('Box', { exact: true }), { label: 'gw-1' });
  const gateway = page.getByRole('region', { name: 'gw-1', exact: true });
  await expect(gateway).toContainText('lease 12 h');
  await expect(gateway).toContainText('deny anybody → anybody: everything');
  await page.reload();
  await expect(gateway).toBeVisible();

  await page.getByRole('link', { name: 'All boxes to print' }).click();
  await expect(page.getByRole('heading', { name: 'Saltmarsh Creamery: settings' })).toBeVisible();
  await expect(page.getByRole('region')).toHaveCount(16);
});

test('the kit list counts cables by length, and says what to ask for before', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'commission');
  await show(page, 'kit').click();
  const kit = page.getByRole('table', { name: 'Kit list' });
  await expect(
    kit
      .getByRole('row')
      .filter({ hasText: /copper cable, \d+ m/ })
      .first(),
  ).toBeVisible();
  await expect(kit.getByRole('row', { name: 'provider login for fibre' })).toContainText(
    'the customer or the provider has it',
  );
  await expect(kit.getByRole('row').filter({ hasText: 'PoE injector' })).toContainText('ap-01, ap-02');
  await expect(kit.getByRole('row').filter({ hasText: 'key of Harrow Lane' }).first()).toContainText(
    'password safe of the owner',
  );
});

test('a site without boxes has nothing to set, and says so', async ({ page, request }) => {
  const site = await newSite(request);
  await open(page, site, 'commission');
  await expect(page.getByText('Nothing is left to set')).toBeVisible();
  await show(page, 'kit').click();
  await expect(page.getByText('Nothing is planned yet that needs anything brought along.')).toBeVisible();
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 } });
  test('a step stands under its number with nothing cut off', async ({ page, request }) => {
    const site = await demoSite(request, '1-row-house');
    await page.goto(`/site/${site}/commission`);
    const row = order(page).getByRole('row').filter({ hasText: 'Management address' }).first();
    await expect(row).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    const box = (await row.boundingBox())!;
    expect(box.width).toBeGreaterThan(300);
  });
});
