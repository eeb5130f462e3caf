import { atChange, demoSite, expect, fill, newSite, open, saved, test, choose, unfold } from './site';

const port = (page: import('@playwright/test').Page, name: string) =>
  page.getByRole('option', { name: new RegExp(`^${name}:`) });

test('a gateway gets its model, a switch comes from the shelf, one of one’s own is refused when it makes no sense', async ({
  page,
  request,
}) => {
  const site = await newSite(request);
  await open(page, site);
  for (const key of ['m', 's']) {
    await page.keyboard.press('+');
    await page.keyboard.press(key);
    await page.keyboard.press('Enter');
  }
  await page.getByRole('link', { name: /Gear/ }).click();
  const dialog = page.getByRole('dialog');
  await page.getByRole('button', { name: 'gw-1' }).click();
  await choose(dialog.getByLabel('Model', { exact: true }), { label: 'gateway, 6 ports' });
  await page.getByRole('button', { name: /Take it/ }).click();
  await expect(page.getByRole('listbox', { name: 'Ports of gw-1' }).getByRole('option')).toHaveCount(6);
  await page.keyboard.press('+');
  await choose(dialog.getByLabel('Model', { exact: true }), { label: '24 + 4 fibre, PoE 190 W' });
  await dialog.getByLabel('Location').fill('cupboard');
  await page.getByRole('button', { name: /Add it/ }).click();
  await expect(page.getByRole('listbox', { name: 'Ports of mg-switch-01' }).getByRole('option')).toHaveCount(
    28,
  );
  await page.keyboard.press('+');
  await choose(dialog.getByLabel('Model', { exact: true }), { label: 'a model of your own…' });
  await dialog.getByLabel('Copper ports').fill('5000');
  await page.getByRole('button', { name: /Add it/ }).click();
  await expect(
    page.getByRole('alert').filter({ hasText: 'write a whole number from 0 to 400' }),
  ).toBeVisible();
  await dialog.getByLabel('Copper ports').fill('6');
  await dialog.getByLabel('Combo ports').fill('2');
  await choose(dialog.getByLabel('Numbered'), { label: 'in two rows, even above odd' });
  await dialog.getByLabel('understands VLANs').uncheck();
  await page.getByRole('button', { name: /Add it/ }).click();
  await expect(page.getByText('our own model, no VLANs')).toBeVisible();
  const own = page.getByRole('listbox').last();
  await expect(own.getByRole('option')).toHaveCount(8);
  const [first, second] = await Promise.all(
    [1, 2].map((n) => own.getByRole('option', { name: new RegExp(` ${n}:`) }).boundingBox()),
  );
  expect(second!.y).toBeLessThan(first!.y);
  expect(second!.x).toBe(first!.x);
  await saved(page);
});

test('ports are chosen by drag, Shift and keyboard, and set by key and VLAN id', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'gear');
  await port(page, 'sw-b 6').click();
  await page.keyboard.press('a');
  const segment = page.getByLabel('Segment', { exact: true });
  await expect(segment).toBeFocused();
  await segment.fill('999');
  await segment.press('Enter');
  await expect(
    page.getByRole('alert').filter({ hasText: '“999” is no segment of this site; there are' }),
  ).toBeVisible();
  await segment.fill('cm');
  await segment.press('Enter');
  await expect(port(page, 'sw-b 6')).toHaveAttribute('title', 'sw-b 6: access 140 CM');
  await expect(page.getByLabel('Plug in here')).toContainText('you land in Cameras');
  await atChange(page, 1);

  await port(page, 'sw-b 7').hover();
  await page.mouse.down();
  await port(page, 'sw-b 8').hover();
  await page.mouse.up();
  await expect(page.getByRole('heading', { name: 'sw-b 7-8' })).toBeVisible();
  await page.keyboard.press('v');
  await page.getByLabel('Segment', { exact: true }).fill('120');
  await page.keyboard.press('Enter');
  await expect(port(page, 'sw-b 8')).toHaveAttribute('title', /access 120 OF \+ voice 130 VO/);
  await port(page, 'sw-b 8').focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press('x');
  // From where the drag began to where the arrow leads.
  await expect(port(page, 'sw-b 7')).toHaveAttribute('title', 'sw-b 7: parked');
  await expect(port(page, 'sw-b 6')).toHaveAttribute('title', 'sw-b 6: parked');
  await page.keyboard.press('t');
  await page.getByLabel('Tagged', { exact: true }).fill('all but 210');
  await page.getByLabel('Untagged', { exact: true }).fill('mg');
  await page.keyboard.press('Enter');
  await expect(port(page, 'sw-b 7')).toHaveAttribute('title', 'sw-b 7: trunk all but 210, untagged 110 MG');
});

test('cables are typed or dragged; what is wrong with one is said', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'gear');
  await page.keyboard.press('c');
  const line = page.getByLabel('Cable', { exact: true });
  for (const [typed, why] of [
    ['sw-rack 99 = sw-kennels 28', 'There is no port 99 on sw-rack; it has ports 1–52'],
    ['sw-rack 51 = sw-rack 51', 'cannot be joined to itself'],
    ['sw-rack 1 = sw-kennels 28', 'holds a cable to gw-1 2 already'],
    ['sw-rack 51', 'has no two ends'],
  ] as const) {
    await line.fill(typed);
    await line.press('Enter');
    await expect(page.getByRole('alert').filter({ hasText: why })).toBeVisible();
    await expect(line).toHaveValue(typed);
  }
  await line.fill('SW-Rack 51 = sw-kennels 28');
  await line.press('Enter');
  await expect(page.getByText('Laid: sw-rack 51 = sw-kennels 28')).toBeVisible();
  await line.press('Escape');
  await port(page, 'sw-rack 51').click();
  await expect(page.getByText('cable to sw-kennels 28')).toBeVisible();
  await page.getByRole('button', { name: 'take out' }).click();
  await expect(port(page, 'sw-rack 51')).toHaveAttribute('title', 'sw-rack 51: undecided');
  await port(page, 'sw-surgery 10').scrollIntoViewIfNeeded();
  await port(page, 'sw-surgery 8').hover();
  await page.mouse.down();
  await port(page, 'ap-01 1').hover();
  await page.mouse.up();
  await expect(page.getByRole('alert').filter({ hasText: 'ap-01 1 holds a cable to' })).toBeVisible();
});

test('a segment is followed: carry shows which ports change, and the finding goes', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'gear');
  await expect(page.getByText('Kennel climate does not get through')).toBeVisible();
  await page.getByRole('radiogroup', { name: 'Follow a segment' }).getByTitle('Kennel climate').click();
  await expect(page.getByText('Needed and not carried: sw-kennels 25.')).toBeVisible();
  await port(page, 'sw-kennels 14').click();
  await expect(page.getByLabel('Plug in here')).toContainText('do not reach the gateway gw-1');
  await page.getByLabel('Follow a frame to').fill('gw-1');
  await expect(
    page.getByText('sw-kennels 25 does not carry VLAN 70. sw-kennels 25 would have to carry 70 KC.'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Carry…' }).click();
  await expect(page.getByRole('dialog')).toContainText('sw-kennels 25');
  await page.getByRole('button', { name: 'Carry it' }).click();
  await expect(page.getByText('Kennel climate is one piece')).toBeVisible();
  await expect(page.getByText('Kennel climate does not get through')).toBeHidden();
  const hops = page.getByRole('list', { name: 'Hops' }).getByRole('listitem');
  await expect(hops).toHaveText([
    /sw-kennels in at 14 untagged, becomes VLAN 70 by the PVID; out at 25 tagged 70/,
    /sw-rack in at 49 tagged 70, carried by the port; out at 1 tagged 70/,
    /gw-1 in at 2 tagged 70, carried by the port; to the box itself tagged 70/,
  ]);
  await page.getByRole('radio', { name: 'map' }).click();
  await expect(
    page.getByRole('region', { name: 'Site map' }).getByRole('group', { name: /^sw-kennels,/ }),
  ).toBeVisible();
});

test('all ports as a table: filtered, chosen by number, set at once; a profile is kept and applied', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'gear');
  await page.getByRole('radio', { name: 'table' }).click();
  await page.getByLabel('Filter the ports').fill('kennel-cam');
  await expect(page.getByRole('status').filter({ hasText: /^10 of \d+$/ })).toBeVisible();
  await page.getByLabel('Filter the ports').fill('');
  const range = page.getByLabel('choose by number');
  await range.fill('sw-rack 35-37,x');
  await expect(page.getByText('“x” in “35-37,x” is not a port or a range')).toBeVisible();
  await range.fill('sw-rack 35-37,51');
  await expect(
    page.getByRole('status').filter({ hasText: '4 ports, 1 of them fibre, 3 with PoE' }),
  ).toBeVisible();
  await page.getByRole('radio', { name: /^Park/ }).click();
  await page.getByLabel('Filter the ports').fill('sw-rack 35');
  await expect(page.getByLabel('What sw-rack 35 carries')).toHaveValue('parked');
  await range.fill('sw-rack 31');
  await page.getByRole('button', { name: 'keep as profile' }).click();
  await page.getByLabel('Name of the profile').fill('desk');
  await page.getByLabel('Name of the profile').press('Enter');
  await range.fill('sw-rack 41-42');
  await choose(page.getByLabel('Profile', { exact: true }), 'desk');
  await page.getByLabel('Filter the ports').fill('sw-rack 41');
  await expect(page.getByLabel('What sw-rack 41 carries')).toHaveValue('access 20 ST');
  await page.getByRole('button', { name: 'Paste rows…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Rows').fill('sw-rack\t43-44\taccess 60\tward\nsw-rack\t99\t60\nsw-rack\t45');
  await expect(dialog.getByText('1 good, 2 refused.')).toBeVisible();
  await expect(dialog).toContainText('There is no port 99; this box has ports 1–52');
  await expect(dialog).toContainText('The column carries is empty.');
  await dialog.getByRole('button', { name: 'Set 1 row' }).click();
  await page.getByLabel('Filter the ports').fill('ward');
  await expect(page.getByRole('status').filter({ hasText: /^2 of \d+$/ })).toBeVisible();
  await saved(page);
  await page.getByRole('button', { name: 'Paste rows…' }).click();
  await dialog.getByLabel('Rows').fill("sw-rack\t43-44\taccess 60\tward\nsw-rack\t45\t\t'-K1\npp\t1\t60");
  await expect(dialog.getByText('1 good, 1 refused, 1 as they are.')).toBeVisible();
  await dialog.getByRole('button', { name: 'Set 1 row' }).click();
  await page.getByLabel('Filter the ports').fill('-K1');
  await expect(page.getByRole('status').filter({ hasText: /^1 of \d+$/ })).toBeVisible();
});

test('ports are chosen by typing their numbers; facts of many are set at once; a trunk takes what is needed', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'gear');
  await page.keyboard.press('#');
  const line = page.getByLabel('choose by number');
  await expect(line).toBeFocused();
  for (const [typed, says] of [
    ['sw-rack 1-4,x', '“x” in “1-4,x” is not a port or a range; write numbers like 1-4,9,12.'],
    ['sw-rack 60', 'There is no port 60; this box has ports 1–52'],
    ['nobox 1', 'Write a box and its ports, like sw-a 1-4,9,12.'],
    ['sw-rack 51-52', '2 ports, all fibre'],
  ] as const) {
    await line.fill(typed);
    await expect(page.locator('#choose-ports-echo')).toContainText(says);
  }
  await line.press('Enter');
  const facts = page.getByRole('group', { name: 'Facts of these ports' });
  await fill(facts, 'Optic', 'ten gigabit, short reach');
  await facts.getByLabel('strangers can reach it').check();
  await page.keyboard.press('x');
  await port(page, 'sw-rack 52').click();
  await expect(page.getByLabel('Optic')).toHaveValue('ten gigabit, short reach');
  await expect(page.getByLabel('strangers can reach it')).toBeChecked();
  await expect(port(page, 'sw-rack 52')).toHaveAttribute('title', 'sw-rack 52: parked');

  await port(page, 'sw-rack 49').click();
  await page.keyboard.press('t');
  await page.getByLabel('Tagged', { exact: true }).fill('needed');
  await page.keyboard.press('Enter');
  await expect(port(page, 'sw-rack 49')).toHaveAttribute(
    'title',
    /^sw-rack 49: trunk 10, 20, 50, 70, 80, untagged none/,
  );
  await port(page, 'sw-rack 52').click();
  await page.keyboard.press('t');
  await page.getByLabel('Tagged', { exact: true }).fill('needed');
  await page.keyboard.press('Enter');
  await expect(
    page
      .getByRole('alert')
      .filter({ hasText: 'Beyond sw-rack 52 no box uses a segment; lay its cable first' }),
  ).toBeVisible();

  await port(page, 'sw-rack 31').click();
  await page.getByRole('button', { name: 'keep as profile' }).click();
  await page.getByLabel('Name of the profile').fill('desk');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'rename', exact: true }).click();
  await page.getByLabel('Name of the profile').fill('front desk');
  await page.keyboard.press('Enter');
  const profile = page.getByLabel('Profile', { exact: true });
  await expect(profile).toHaveText('front desk');
  await choose(profile, 'none');
  await expect(profile).toHaveText('none');
  await choose(profile, 'front desk');
  await page.getByRole('button', { name: 'remove', exact: true }).click();
  await profile.click();
  await expect(page.getByRole('listbox').getByRole('option')).toHaveText(['none']);
  await page.keyboard.press('Escape');
  await saved(page);
});

test('boxes that one device configures are changed together, and the port schedule is printed', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'gear');
  for (const name of ['ap-01', 'ap-02']) {
    await page.getByRole('button', { name: new RegExp(`^${name}`) }).click();
    if (name === 'ap-01') await unfold(page, 'Set-up');
    await choose(page.getByLabel('Configured by'), 'gw-1');
  }
  await expect(page.getByText('One change reaches ap-01 too.')).toBeVisible();
  await page.getByRole('button', { name: 'what the box itself is in' }).click();
  await page.keyboard.press('t');
  await page.getByLabel('Tagged', { exact: true }).fill('20, 60, 80');
  await page.keyboard.press('Enter');
  await atChange(page, 3);
  await page.getByRole('button', { name: /^ap-02/ }).click();
  await page.getByRole('button', { name: 'Make ap-01 the same inside' }).click();
  await expect(page.getByRole('button', { name: /the same inside/ })).toBeHidden();
  await unfold(page, 'Frames');
  await page.getByLabel('BPDU').check();
  await unfold(page, 'Power');
  await fill(page, 'Power feeds', '5');
  await expect(
    page.getByRole('alert').filter({ hasText: 'The power feeds is 5; write a whole number from 1 to 4' }),
  ).toBeVisible();
  await page.getByLabel('Power feeds').press('Escape');
  await saved(page);
  await page.getByRole('link', { name: /Hand over/ }).click();
  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('listitem').filter({ hasText: 'Port schedule as CSV' }).getByRole('link').click(),
  ]);
  expect(csv.suggestedFilename()).toBe('harrow-lane-animal-clinic-ports.csv');
  await page.getByRole('listitem').filter({ hasText: 'Port schedule to print' }).getByRole('link').click();
  const block = page.getByRole('region', { name: 'ap-02' });
  await expect(block.getByRole('row').filter({ hasText: 'inside' })).toContainText('trunk 20, 60, 80');
  await expect(page.getByRole('region', { name: 'panel-a' })).toContainText('rear printer-01');
});

test('a box: facts, port names by pattern, and it goes with its cables', async ({ page, request }) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'gear');
  await page.getByRole('button', { name: /^sw-d/ }).click();
  await fill(page, 'Location', 'pasteuriser hall');
  await unfold(page, 'Upkeep');
  await fill(page, 'Supported until', 'next year');
  await expect(page.getByRole('alert').filter({ hasText: 'A day needs the form 2026-12-31' })).toBeVisible();
  await page.getByLabel('Supported until').press('Escape');
  await page.getByLabel('in the configuration').fill('ge{n}');
  await page.getByLabel('index inside').fill('{5-n}');
  await page.getByRole('button', { name: 'Fill', exact: true }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'does not work for port 6' })).toBeVisible();
  await page.getByLabel('index inside').fill('{n-1}');
  await page.getByRole('button', { name: 'Fill', exact: true }).click();
  await port(page, 'sw-d 3').click();
  await unfold(page, 'More');
  await expect(page.getByLabel('Name in the configuration')).toHaveValue('ge3');
  await expect(page.getByLabel('Index inside')).toHaveValue('2');
  await page.getByRole('button', { name: /^sw-d/ }).click();
  await page.getByRole('button', { name: 'Remove sw-d' }).click();
  await expect(page.getByRole('listbox', { name: 'Ports of sw-d' })).toHaveCount(0);
  await page.getByRole('button', { name: /^gw-1/ }).click();
  await page.getByRole('button', { name: 'Remove gw-1' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'gw-1 is the gateway of a segment' })).toBeVisible();
});

test('a device and its port are one record: plugged in under Addresses, moved under Gear & ports with its plan', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'addresses');
  const find = page.getByRole('combobox', { name: 'Find' });
  await find.fill('kennel-cam-02');
  await find.press('Enter');
  const plug = page.getByLabel('Plugged into');
  await expect(plug).toHaveValue('sw-kennels 3');
  await plug.fill('sw-kennels 4');
  await plug.press('Enter');
  await expect(
    page.getByRole('alert').filter({ hasText: 'sw-kennels 4 holds a cable to kennel-cam-03 already' }),
  ).toBeVisible();
  await plug.fill('sw-kennels 13');
  await plug.press('Enter');
  await atChange(page, 1);
  await find.fill('sw-kennels 13');
  await expect(page.getByRole('option').first()).toContainText('sw-kennels 13');
  await find.press('Enter');
  await expect(page.getByRole('heading', { name: 'sw-kennels 13' })).toBeVisible();
  await expect(page.getByText('cable to kennel-cam-02')).toBeVisible();
  await page.getByRole('button', { name: 'move this plug…' }).click();
  await page.getByLabel('to port').fill('sw-kennels 22');
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'sw-kennels 22' })).toBeVisible();
  await expect(port(page, 'sw-kennels 22')).toHaveAttribute('title', /access 50 CM, to kennel-cam-02/);
  await expect(port(page, 'sw-kennels 13')).toHaveAttribute('title', 'sw-kennels 13: parked');
  await open(page, site, 'gear');
  await expect(page.getByText('Firmware support for sw-kennels has ended')).toBeVisible();
});
