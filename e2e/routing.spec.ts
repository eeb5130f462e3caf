import { demoSite, expect, open, saved, test, choose, unfold } from './site';

test('a tunnel, a route and a 1:1 translation are added, refused with the remedy, and taken away', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'internet');
  const tunnels = page.getByRole('region', { name: 'Tunnels to other sites' });
  await expect(tunnels).toContainText('plant north');
  await tunnels.getByLabel('Name').fill('depot');
  await tunnels.getByLabel('Networks at the other end').fill('10.46.0.0/33');
  await tunnels.getByRole('button', { name: 'Add tunnel' }).click();
  await expect(tunnels.getByRole('alert')).toContainText('“10.46.0.0/33” is no network; write one like');
  await expect(tunnels.getByLabel('Name')).toHaveValue('depot');
  await tunnels.getByLabel('Networks at the other end').fill('10.46.0.0/16, 10.47.0.0/16');
  await tunnels.getByRole('button', { name: 'Add tunnel' }).click();
  await expect(tunnels.getByRole('listitem').filter({ hasText: 'depot' })).toContainText(
    '10.46.0.0/16, 10.47.0.0/16',
  );
  await choose(
    tunnels.getByRole('listitem').filter({ hasText: 'depot' }).getByLabel('Uplink of depot'),
    'over mobile',
  );
  await expect(page.getByRole('row', { name: /the tunnel depot/ })).toContainText('bound to another uplink');
  await tunnels.getByRole('button', { name: 'Remove the tunnel depot' }).click();
  await expect(tunnels).not.toContainText('depot');

  const routes = page.getByRole('region', { name: 'Static routes' });
  await routes.getByLabel('To network').fill('10.48.0.0/16');
  await routes.getByLabel('By router').fill('10.99.0.1');
  await routes.getByLabel('By router').press('Enter');
  await expect(routes).toContainText('10.48.0.0/16 by 10.99.0.1');
  const finding = page.getByRole('article', { name: 'The route to 10.48.0.0/16 leads nowhere' });
  await expect(finding).toContainText('10.99.0.1 is in no network gw-1 stands in');
  await finding.getByRole('button', { name: 'Remove the route' }).click();
  await expect(routes).not.toContainText('10.48.0.0/16');

  const cells = page.getByRole('region', { name: '1:1 translation' });
  await choose(cells.getByLabel('Inside'), { label: 'Pasteuriser cell 10.44.210.0/26' });
  await cells.getByLabel('Known elsewhere as').fill('172.20.5.0/24');
  await cells.getByRole('button', { name: 'Translate' }).click();
  await expect(cells.getByRole('alert')).toContainText('one to one needs a /26');
  await cells.getByLabel('Known elsewhere as').fill('172.20.5.0/26');
  await cells.getByRole('button', { name: 'Translate' }).click();
  await expect(cells).toContainText('is known elsewhere as 172.20.5.0/26');
  await saved(page);

  // The other address reaches the same machine.
  const bar = page.getByRole('region', { name: 'Probe' });
  await bar.getByLabel('from').fill('100 CR');
  await bar.getByLabel('to', { exact: true }).fill('172.20.5.9');
  await bar.getByLabel('for').fill('OPC UA');
  await expect(bar).toContainText(/gateway/);
});

test('the telephone box kept behind the gateway says what it needs and what is lost when', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'internet');
  const box = page.getByRole('region', { name: 'Telephone box kept behind the gateway' });
  await expect(box).toContainText('fibre fails: no call in or out, there is no other uplink.');
  const finding = page.getByRole('article', { name: /Telephones at provider-voice/ });
  await finding.getByRole('button', { name: 'Set tag, marking and queue as it needs them' }).click();
  await expect(box.getByLabel('DSCP of provider-voice')).toHaveValue('46');
  await expect(finding).toHaveCount(0);
  await box.getByLabel('DSCP of provider-voice').fill('99');
  await box.getByLabel('DSCP of provider-voice').press('Enter');
  await expect(box.getByRole('alert')).toContainText('The DSCP');
});

test('a second router: a segment is routed by it, it stands behind the first, and who reaches whom is told', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'gear');
  await page.keyboard.press('+');
  const form = page.getByRole('dialog');
  await choose(form.getByLabel('Model', { exact: true }), { label: 'home gateway, 1 + 4' });
  await form.getByLabel('Name').fill('gw-2');
  await page.getByRole('button', { name: /Add it/ }).click();
  await expect(page.getByRole('listbox', { name: 'Ports of gw-2' })).toBeVisible();

  await page.getByRole('link', { name: /Segments/ }).click();
  await page.getByLabel('Name of Holiday flat').click();
  await choose(page.getByLabel('Routed by'), 'gw-2');
  await saved(page);
  await page.getByRole('link', { name: /Internet side/ }).click();
  await page.getByRole('button', { name: /Add uplink/ }).click();
  const inner = page.getByRole('region', { name: 'Chosen uplink' });
  await expect(inner).toBeVisible();
  await choose(inner.getByLabel('Its outside stands in'), { label: '20 FA Family' });
  const cascade = page.getByRole('region', { name: /behind a router/ });
  await expect(cascade).toContainText('gw-2 stands in Family, behind its router');
  await expect(cascade.getByRole('row').nth(1)).toBeVisible();

  // It is used as an access point after all: what changes on it is shown first.
  await page.getByRole('link', { name: /Segments/ }).click();
  await page.getByLabel('Name of Holiday flat').click();
  await choose(page.getByLabel('Routed by'), 'gw-1');
  await page.getByRole('link', { name: /Gear/ }).click();
  const use = page.getByRole('region', { name: 'Chosen box' });
  await choose(use.getByLabel('Use it as an access point in'), { label: '20 FA Family' });
  await use.getByRole('button', { name: 'Show what changes' }).click();
  const review = page.getByRole('dialog');
  await expect(review).toContainText('gw-2: access point in Family at');
  await review.getByRole('button', { name: 'Use it so' }).click();
  await unfold(page, 'Frames');
  await expect(use.getByLabel('routes')).not.toBeChecked();
  await saved(page);
});

test('policy is taken away as a ruleset, as CSV and on paper', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'handover');
  await unfold(page, 'One by one, for other programs');
  const ruleset = page.getByRole('link', { name: 'Download gw-1/ruleset.nft' });
  const [file] = await Promise.all([page.waitForEvent('download'), ruleset.click()]);
  expect(file.suggestedFilename()).toBe('harrow-lane-animal-clinic-gw-1-ruleset.nft');
  const href = (await ruleset.getAttribute('href'))!;
  const text = await (await request.get(href)).text();
  expect(text).toContain('table inet dianome_filter');
  expect(text).toContain('comment "Staff to Devices"');
  const wrong = await request.get(`/api/sites/${site}/file?path=gw-9%2Fruleset.nft`);
  expect(wrong.status()).toBe(422);
  expect(await wrong.text()).toContain('is no file of this site');
  const csv = await (await request.get(`/api/sites/${site}/rules`)).text();
  expect(csv.split('\r\n')[0]).toBe('line,box,action,from,to,service,ports,log,until,from where,note');
  await page.getByRole('listitem').filter({ hasText: 'Rule schedule to print' }).getByRole('link').click();
  await expect(page.getByRole('heading', { name: 'Harrow Lane Animal Clinic: rule schedule' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Zones' })).toContainText('Guests may reach the Internet');
});

test('a cell shows in its corner that more passes, and the finding mends it', async ({ page, request }) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'policy');
  const cell = page.getByRole('gridcell', { name: /^Cold store to Pasteuriser cell:/ });
  await expect(cell).toHaveAccessibleName(/rehearsed, more passes/);
  await cell.click();
  await expect(page.getByRole('list', { name: 'Rehearsed' })).toContainText(
    'plugged into sw-c 3: that is VLAN 210 Pasteuriser cell',
  );
  await page.getByRole('button', { name: 'Put sw-c 3 into Cold store' }).first().click();
  await page.getByRole('button', { name: 'Put sw-c 4 into Cold store' }).first().click();
  await expect(cell).not.toHaveAccessibleName(/rehearsed/);
  await page
    .getByRole('row', { name: /^Cold store/ })
    .getByRole('button')
    .click();
  await expect(page.getByRole('note', { name: 'In one sentence' })).toContainText(
    'Cold store may reach nothing',
  );
});

test('accepted advice makes the records: a VPN with a network, a zone and a rule of its own', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'internet');
  await page.getByLabel('Which device').fill('historian');
  await page.getByLabel('Its port').fill('8883');
  const ways = page.getByRole('list', { name: 'Ways in' });
  await ways.getByRole('button', { name: 'Make the VPN on fibre' }).click();
  await expect(page.getByRole('region', { name: 'Tunnels to other sites' })).toContainText('dial-in');
  await saved(page);
  await page.getByRole('link', { name: /Who may talk/ }).click();
  await expect(page.getByRole('row', { name: /dial-in.*historian/ })).toContainText('MQTT over TLS');
});
