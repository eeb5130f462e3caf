import { choose, demoSite, expect, fill, open, saved, test, unfold } from './site';

/** What devices and boxes really do is recorded where it is seen, and the answers follow. */

test('own firewalls and listened-to services are recorded for many at once, and a call is stopped by them', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'addresses');
  await page.getByRole('radio', { name: '70 KC' }).click();
  const boxes = page.getByRole('checkbox', { name: /^Mark run-temp/ });
  for (const at of [0, 1]) await boxes.nth(at).check();
  const marked = page.getByRole('group', { name: 'With the marked ones' });
  await choose(marked.getByLabel('own firewall…'), { label: 'what it listens on' });
  await marked.getByLabel('A service they listen on').fill('tcp 99999');
  await marked.getByRole('button', { name: 'they listen on it' }).click();
  await expect(marked.getByRole('alert')).toContainText('write a port from 1 to 65535');
  await marked.getByLabel('A service they listen on').fill('tcp 502');
  await marked.getByRole('button', { name: 'they listen on it' }).click();
  await expect(marked.getByRole('alert')).toHaveCount(0);
  await saved(page);
  const probe = page.getByRole('region', { name: 'Probe', exact: true });
  await probe.getByLabel('from').fill('run-temp-03');
  await probe.getByLabel('to', { exact: true }).fill('run-temp-01');
  await probe.getByLabel('for').fill('ping');
  await expect(probe).toContainText('its own firewall lets in what is listed, and no ping');
  await probe.getByLabel('for').fill('tcp 502');
  await expect(probe).not.toContainText('its own firewall');
});

test('who leases a pool is typed, and a pool that nobody leases is told with its way out', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'addresses');
  await page.getByRole('radio', { name: '20 ST' }).click();
  await expect(page.getByLabel('Leased by')).toHaveValue('gw-1');
  await fill(page, 'Leased by', 'nobody-here');
  await expect(
    page.getByRole('alert').filter({ hasText: '“nobody-here” is no host of this site' }),
  ).toBeVisible();
  await fill(page, 'Leased by', 'directory');
  const told = page.getByText(/^Nobody leases the pool of Reception and practice$/);
  await expect(told).toBeVisible();
  await page.getByRole('button', { name: 'Let gw-1 pass questions on to directory' }).click();
  await expect(told).toHaveCount(0);
  await page.getByRole('link', { name: 'Segments' }).click();
  await page.getByLabel('Name of Reception and practice').focus();
  await expect(page.getByLabel('DHCP relay to')).toHaveValue('directory');
  await fill(page, 'DHCP relay to', 'none');
  await expect(page.getByLabel('DHCP relay to')).toHaveValue('');
  await saved(page);
});

test('PVID, accepted frames and the making of a bundle are facts of their own', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'gear');
  await page.getByRole('radio', { name: 'table' }).click();
  const range = page.getByLabel('choose by number');
  await range.fill('sw-kennels 17');
  await range.press('Enter');
  await expect(page.getByRole('button', { name: /^More PVID / })).toBeVisible();
  await unfold(page, 'More');
  await fill(page, 'PVID, the VLAN of untagged frames that come in', '30');
  await expect(page.getByText('PVID and untagged VLAN differ on sw-kennels 17')).toBeVisible();
  await choose(page.getByLabel('Frames it takes'), { label: 'all' });
  await range.fill('sw-rack 45-46');
  await range.press('Enter');
  await page.getByRole('button', { name: 'Bundle into one' }).click();
  await range.fill('sw-rack 45');
  await range.press('Enter');
  const bundle = page.getByRole('group', { name: /^Bundle bundle-/ });
  await bundle.getByLabel(/is made by LACP/).uncheck();
  await expect(bundle.getByLabel(/is made by LACP/)).not.toBeChecked();
  await saved(page);
});

test('who dials in by VPN is an end of the probe', async ({ page, request }) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'rehearse');
  const probe = page.getByRole('region', { name: 'Probe', exact: true });
  await probe.getByLabel('from').fill('plant north');
  await probe.getByLabel('to', { exact: true }).fill('historian');
  await probe.getByLabel('for').fill('HTTPS');
  await expect(probe).toContainText('Delivered: historian answers');
  await probe.getByLabel('to', { exact: true }).fill('pasteuriser');
  await expect(probe).toContainText('Stopped at gw-1');
  const keep = page.getByRole('form', { name: 'Keep a question' });
  await keep.getByLabel('from').fill('plant north');
  await keep.getByLabel('to', { exact: true }).fill('pasteuriser');
  await choose(keep.getByLabel('expected'), 'stopped');
  await keep.getByRole('button', { name: 'Keep' }).click();
  await saved(page);
  await expect(page.getByRole('row', { name: /plant north to pasteuriser/ })).toBeVisible();
});
