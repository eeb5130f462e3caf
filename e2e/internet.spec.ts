import { atChange, demoSite, expect, fill, newSite, open, saved, test, choose } from './site';

test('an uplink is recorded, and what is known of it decides what gets in', async ({ page, request }) => {
  const site = await newSite(request);
  await open(page, site, 'gear');
  await page.getByRole('button', { name: 'gw-1' }).click();
  await choose(page.getByRole('dialog').getByLabel('Model', { exact: true }), { label: 'gateway, 6 ports' });
  await page.getByRole('button', { name: /Take it/ }).click();
  await page.getByRole('link', { name: /Internet side/ }).click();
  await expect(page.getByText('Nothing is recorded of the uplink at gw-1 1')).toBeVisible();
  await page.keyboard.press('+');
  const section = page.getByRole('region', { name: 'Uplink Internet' });
  await expect(section).toContainText('at gw-1 1');
  await expect(section).toContainText('packets of 1500 bytes, in them 1460 of TCP (1440 over IPv6)');
  await expect(section).toContainText('Whether forwards get in is not known');
  await expect(page.getByText('Nothing is recorded of the uplink at gw-1 1')).toBeHidden();

  await choose(page.getByLabel('How it gets its address'), { label: 'PPPoE' });
  await expect(section).toContainText('packets of 1492 bytes, in them 1452 of TCP (1432 over IPv6)');
  await fill(page, 'Provider VLAN', '4095');
  await expect(
    page
      .getByRole('alert')
      .filter({ hasText: 'The provider’s VLAN id is 4095; write a whole number from 1 to 4094' }),
  ).toBeVisible();
  await expect(page.getByLabel('Provider VLAN')).toHaveValue('4095');
  await fill(page, 'Provider VLAN', '7');
  await fill(page, 'Address', '100.64.3.4');
  await expect(section).toContainText('No forward gets in: its outside address is shared by customers');
  const way = page.getByRole('list', { name: 'Way out over Internet' });
  await expect(way.getByRole('listitem').filter({ hasText: 'translates addresses' })).toHaveCount(2);
  await expect(way).toContainText('100.64.3.4, tagged 7');
  await fill(page, 'Address', '203.0.113.4');
  await expect(section).toContainText('Forwards get in: its outside address is public.');
  await expect(way.getByRole('listitem').filter({ hasText: 'translates addresses' })).toHaveCount(1);
  await choose(page.getByLabel('What stands upstream'), { label: 'the provider’s box, routing' });
  await expect(section).toContainText('No forward gets in: the router upstream passes nothing on');
  await page.getByRole('button', { name: 'Have it pass everything on to this gateway' }).click();
  await expect(section).toContainText('Forwards get in: the router upstream passes everything on');
  await saved(page);
});

test('forwards: a taken port is refused and a free one named; what is wrong with one is a finding', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'internet');
  const form = page.getByRole('form', { name: 'New forward on fibre' });
  const add = async (host: string, inside: string, outside: string) => {
    await form.getByLabel('Let in to').fill(host);
    await form.getByLabel('Inside port').fill(inside);
    await form.getByLabel('Outside port').fill(outside);
    await form.getByLabel('Outside port').press('Enter');
  };
  for (const [host, inside, outside, why] of [
    ['nobody', '443', '', 'There is no device “nobody” in this site.'],
    ['historian', '70000', '', 'The inside port “70000” is no port; write a number from 1 to 65535.'],
    ['historian', '443', '5009-5000', '“5009-5000” runs backwards; write 5000-5009.'],
    ['historian', '443', '443', 'tcp 443 on fibre leads to jump-host already; tcp 8443 is free.'],
  ] as const) {
    await add(host, inside, outside);
    await expect(page.getByRole('alert').filter({ hasText: why })).toBeVisible();
    await expect(form.getByLabel('Let in to')).toHaveValue(host);
  }
  await add('historian', '443', '');
  const table = page.getByRole('table', { name: 'Forwards of fibre' });
  await expect(table.getByRole('row').filter({ hasText: 'tcp 8443' })).toContainText('443 HTTPS');
  await atChange(page, 1);

  const chosen = page.getByRole('region', { name: 'Chosen forward' });
  await fill(chosen, 'First inside port', '502');
  await expect(page.getByText('Modbus of historian is open to the whole Internet')).toBeVisible();
  await fill(chosen, 'Who may come', '203.0.113.300');
  await expect(page.getByRole('alert').filter({ hasText: '“203.0.113.300” is not a subnet' })).toBeVisible();
  await fill(chosen, 'Who may come', '203.0.113.9');
  await expect(page.getByText('Modbus of historian is open to the whole Internet')).toBeHidden();
  await fill(chosen, 'Who may come', '');
  await expect(
    page.getByRole('alert').filter({ hasText: 'Left empty, this would be anybody;' }),
  ).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(chosen.getByLabel('Who may come')).toHaveValue('203.0.113.9/32');
  await expect(page.getByText('historian does not listen on 502')).toBeVisible();
  await chosen.getByLabel('A service historian listens on').fill('tcp 502');
  await page.keyboard.press('Enter');
  await expect(chosen.getByText('tcp 502 Modbus')).toBeVisible();
  await expect(page.getByText('historian does not listen on 502')).toBeHidden();

  await expect(page.getByText('tcp 8883 to historian cannot work on mobile')).toBeVisible();
  await page.getByRole('button', { name: 'Let it in on fibre' }).click();
  await expect(page.getByText('tcp 8883 to historian cannot work on mobile')).toBeHidden();
  await expect(table.getByRole('row').filter({ hasText: 'tcp 8884' })).toContainText('the same by mobile');
  await table.getByRole('button', { name: 'tcp 8884' }).click();
  await page.getByRole('button', { name: 'Remove the forward' }).click();
  await expect(table.getByRole('button', { name: 'tcp 8884' })).toHaveCount(0);
  await page.keyboard.press('u');
  await expect(table.getByRole('button', { name: 'tcp 8884' })).toBeVisible();
  await saved(page);
});

test('when a link fails: seconds by arithmetic, and what works over which uplink', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'internet');
  const fails = page.getByRole('region', { name: 'When a link fails' });
  const choose = (name: string) =>
    page
      .getByRole('region', { name: `Uplink ${name}` })
      .getByRole('button')
      .first()
      .click();
  await expect(fails).toContainText('(3 + 1) × 10 s = 40 s away, 6 × 10 s = 60 s back');
  const row = fails.getByRole('row').filter({ hasText: 'tcp 443 to jump-host' });
  await expect(row.getByRole('cell')).toHaveText([/^works/, /^no, no forward is recorded here/]);
  await choose('fibre');
  await fill(page, 'Seconds between pings', '5');
  await expect(fails).toContainText('(3 + 1) × 5 s = 20 s away');
  await expect(page.getByText('fibre is judged by the box next to it')).toBeVisible();
  await fill(page, 'Pings', '192.0.2.1');
  await expect(page.getByText('fibre is judged by the box next to it')).toBeHidden();
  await choose('mobile');
  await fill(page, 'Tier', '1');
  await fill(page, 'Weight', '3');
  await expect(fails).toContainText('fibre 25 % beside mobile 75 %');
  await saved(page);
});

test('the ways to a device from outside are ranked with what each needs, and a forward is made of one', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'internet');
  await page.getByLabel('Which device').fill('disk-station');
  const ways = page.getByRole('list', { name: 'Ways in' });
  await expect(ways.getByText('1. the device calls out')).toBeVisible();
  await expect(ways).toContainText(
    'It would have to be let in on cable, and the router upstream passes nothing on to this gateway.',
  );
  await expect(ways.getByRole('button', { name: /Make the forward/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Have the box upstream bridged' }).click();
  await expect(ways.getByText('1. VPN to the gateway')).toBeVisible();
  await expect(ways).toContainText('somebody who keeps weir12.example.net up to date');
  await choose(page.getByLabel('By whom'), 'anybody');
  await expect(ways.getByText('2. port forward')).toBeVisible();
  await page.getByLabel('Its port').fill('445');
  await expect(ways).toContainText('opens file sharing, which is a way to control the device, to everybody');
  await page.getByLabel('Its port').fill('443');
  await ways.getByRole('button', { name: 'Make the forward on cable' }).click();
  await expect(
    page.getByRole('table', { name: 'Forwards of cable' }).getByRole('row').filter({ hasText: 'tcp 443' }),
  ).toContainText('disk-station');
  await saved(page);
});
