import { demoSite, expect, open, saved, test } from './site';

const bar = (page: import('@playwright/test').Page) => page.getByRole('region', { name: 'Probe' });

async function ask(page: import('@playwright/test').Page, from: string, to: string, service: string) {
  await bar(page).getByLabel('from').fill(from);
  await bar(page).getByLabel('to', { exact: true }).fill(to);
  await bar(page).getByLabel('for').fill(service);
}

test('the probe goes through switch, gateway and rule and back, on every page', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site);
  await page.keyboard.press('q');
  await expect(bar(page).getByLabel('from')).toBeFocused();
  await ask(page, 'desk-dock', 'heat-pump', 'tcp 502');
  await expect(bar(page)).toContainText('Delivered: heat-pump answers');
  await page.keyboard.press('Enter');
  const forth = page.getByRole('region', { name: 'Forth' });
  await expect(forth.getByRole('listitem').filter({ hasText: 'sw-cellar' }).first()).toContainText(
    'sw-cellar 5 untagged',
  );
  await expect(forth).toContainText('Family to Devices: everything passes');
  await expect(page.getByRole('region', { name: 'And back' })).toContainText('has its answer');

  // A hop leads to what decided it; the question stays.
  await forth.getByRole('button', { name: 'sw-cellar' }).first().click();
  await expect(page).toHaveURL(/\/gear/);
  await expect(bar(page)).toContainText('Delivered: heat-pump answers');
});

test('a stopped probe says what would let it through, and is asked again after every change', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'policy');
  await ask(page, 'tv-flat', 'yard-cam', 'tcp 8554');
  await expect(bar(page)).toContainText('Stopped at gw-1: Guests to Devices');
  await bar(page).getByRole('button', { name: 'Show the way' }).click();
  await bar(page).getByRole('button', { name: 'Allow just this: tcp 8554 from tv-flat to yard-cam' }).click();
  await expect(bar(page)).toContainText('Delivered: yard-cam answers');
  await saved(page);
  await expect(page.getByRole('row', { name: /tv-flat/ })).toContainText('tcp 8554');
  await page.getByRole('heading', { name: 'Who may talk' }).click();
  await page.keyboard.press('u');
  await expect(bar(page)).toContainText('Stopped at gw-1: Guests to Devices');
});

test('what the probe cannot read is said beside it, and nothing typed is lost', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site);
  await ask(page, 'sw-cellar 77', 'internet', 'ping');
  await expect(bar(page).getByRole('alert')).toContainText(
    'sw-cellar has no port 77; it has the ports 1 to 10',
  );
  await ask(page, 'sw-cellar 5', 'internet', 'https please');
  await expect(bar(page).getByRole('alert')).toContainText(
    '“https please” is no service here; write one like',
  );
  await expect(bar(page).getByLabel('from')).toHaveValue('sw-cellar 5');
  await ask(page, 'internet', 'heat-pump', 'tcp 502');
  await expect(bar(page)).toContainText('Stopped at the way in');
});

test('on a phone the probe is a tab', async ({ page, request }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const site = await demoSite(request, '1-row-house');
  await page.goto(`/site/${site}/segments`);
  await page.getByRole('toolbar', { name: 'Tabs' }).getByRole('button', { name: 'Probe' }).click();
  const tab = page.getByRole('region', { name: 'probe', exact: true });
  await tab.getByLabel('from').fill('desk-dock');
  await tab.getByLabel('to', { exact: true }).fill('internet');
  await expect(tab).toContainText('Delivered: the Internet is reached');
});
