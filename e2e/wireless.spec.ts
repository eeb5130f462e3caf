import { atChange, choose, demoSite, expect, fill, open, saved, test } from './site';

test('a network is put on the air, led into a segment, and joined in words', async ({ page, request }) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'wireless');
  const form = page.getByRole('form', { name: 'New wireless network' });
  await form.getByLabel('New network').fill('Drivers');
  await form.getByLabel('New network').press('Enter');
  await expect(
    page.getByText('There is a network “Drivers” already; give this one another name.'),
  ).toBeVisible();
  await form.getByLabel('New network').fill('Weighing');
  await choose(form.getByLabel('Leads to'), { label: '120 OF Office' });
  await form.getByRole('button', { name: 'Put it on the air' }).click();
  const details = page.getByRole('region', { name: 'Chosen network' });
  await expect(details).toContainText('Join Weighing at ap-01 and you land in Office, get 10.44.120.');
  // A name of 17 letters with marks is longer on the air than it looks.
  await fill(page, 'Name', 'äääääääääääääääää');
  await expect(details.getByRole('alert')).toContainText('more than 32 octets in UTF-8');
  await page.getByLabel('Name', { exact: true }).press('Escape');
  // At 6 GHz WPA2 is not allowed; the remedy makes it WPA3.
  await details.getByRole('checkbox', { name: '6', exact: true }).click();
  await expect(page.getByText('Weighing cannot be sent at 6 GHz')).toBeVisible();
  await page.getByRole('button', { name: 'WPA3 only' }).click();
  await expect(page.getByText('Weighing cannot be sent at 6 GHz')).toBeHidden();
  const row = page.getByRole('row', { name: /^Weighing/ });
  await expect(row).toContainText('WPA3, one key');
  await details.getByRole('checkbox', { name: 'keeps its clients apart' }).click();
  await expect(row).toContainText('clients kept apart');
  await expect(details).toContainText('you do not hear the others on it');
  await details.getByRole('checkbox', { name: 'on all of them, later ones too' }).click();
  await details.getByRole('checkbox', { name: 'ap-06' }).click();
  await expect(row).toContainText('ap-01, ap-02, ap-03, ap-04, ap-05');
  await details.getByRole('button', { name: 'A name for each box…' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Name them' }).click();
  await expect(page.getByRole('row', { name: /^Weighing ap-03/ })).toBeVisible();
  await saved(page);
});

test('what an access point sends is carried to it by one change', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'wireless');
  await page.getByRole('button', { name: 'Medical' }).click();
  const details = page.getByRole('region', { name: 'Chosen network' });
  await expect(details).toContainText(
    'Join Medical at ap-02 and you are not heard: ap-02 itself is not in VLAN 60.',
  );
  await page.getByRole('button', { name: 'Carry them to ap-02' }).click();
  await expect(details).toContainText('Join Medical at ap-02 and you land in Medical devices');
  await expect(page.getByText('sends networks that it is not given')).toHaveCount(0);
  await saved(page);
});

test('the country says what is allowed; a channel is typed, refused in words, and found where it may not be', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'wireless');
  await expect(
    page.getByText('Channel 149 is for indoors only in GB, and ap-05 hangs outdoors.'),
  ).toBeVisible();
  await choose(page.getByLabel('Country'), 'US');
  await expect(page.getByText('Channel 13 with 20 MHz is not allowed in US')).toBeVisible();
  await page.getByRole('radio', { name: 'air', exact: true }).click();
  const strip = page.getByRole('figure', { name: 'The air at 2.4 GHz' });
  await expect(strip.getByRole('button', { name: /^ap-02, shares its channel/ })).toBeVisible();
  const channel = page.getByLabel('Channel of ap-05');
  await channel.fill('eleven');
  await channel.press('Enter');
  await expect(
    page.getByText('The channel “eleven” is not a whole number; write digits only.'),
  ).toBeVisible();
  await expect(channel).toHaveValue('eleven');
  await channel.fill('11');
  await channel.press('Enter');
  await expect(page.getByText('Channel 13 with 20 MHz is not allowed in US')).toBeHidden();
  await strip.getByRole('button', { name: /^ap-05/ }).press('Enter');
  const radio = page.getByRole('region', { name: 'Radio 2.4 GHz' });
  await expect(radio).toContainText('11 channels of 20 MHz allowed, here up to 30 dBm');
  await choose(radio.getByLabel('Width of 2.4 GHz'), '40');
  await expect(page.getByText('ap-05 2.4 GHz takes half the band')).toBeVisible();
  await saved(page);
});

test('channels are assigned as one change, with what each channel carries before and after, and taken back', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'wireless');
  const clash = page.getByText(/shares the air with/).first();
  await expect(clash).toBeVisible();
  await page.keyboard.press('c');
  const proposal = page.getByRole('region', { name: 'Channels proposed' });
  await proposal.getByRole('button', { name: 'Work them out' }).click();
  await expect(
    proposal.getByRole('heading', { name: /^2\.4 GHz: disturbance \d+ → \d+ \(nothing is better: proved\)/ }),
  ).toBeVisible();
  await expect(
    proposal.getByRole('figure', { name: /on each channel at 2\.4 GHz/ }).getByText('pairs after'),
  ).toBeVisible();
  const changes = proposal.getByRole('table', { name: 'What changes' });
  await expect(changes.getByRole('row', { name: /ap-06 5 .* 30 → 26/ })).toBeVisible();
  await proposal.getByRole('checkbox', { name: 'widths too' }).click();
  await expect(changes).toContainText('40 → 80');
  await proposal.getByRole('radio', { name: '2.4 GHz' }).click();
  await expect(changes.getByRole('row', { name: /ap-06 5 / })).toBeHidden();
  await proposal.getByRole('button', { name: 'Take this' }).click();
  await expect(proposal).toBeHidden();
  await atChange(page, 1);
  await page.keyboard.press('u');
  await atChange(page, 2);
  await expect(clash).toBeVisible();
});

test('levels and scans are pasted as tools print them; lines that cannot be read are named', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'wireless?show=air');
  const levels = page.getByRole('region', { name: 'Measured levels at 2.4 GHz' });
  await levels.getByLabel('Levels, one to a line').fill('ap-01 ap-99 2.4 -60');
  await levels.getByRole('button', { name: 'Note levels' }).click();
  await expect(levels.getByRole('alert')).toContainText('There is no device “ap-99” in this site');
  await expect(levels.getByLabel('Levels, one to a line')).toHaveValue('ap-01 ap-99 2.4 -60');
  await levels.getByLabel('Levels, one to a line').fill('ap-02 ap-06 2.4 -73');
  await levels.getByRole('button', { name: 'Note levels' }).click();
  await expect(levels.getByRole('row', { name: /^ap-02 ap-06 -73 dBm/ })).toBeVisible();
  const others = page.getByRole('region', { name: 'Networks of others at 2.4 GHz' });
  await choose(others.getByLabel('Scanned at'), { label: 'ap-01' });
  await others
    .getByLabel('A scan as a tool printed it')
    .fill('SSID       CHAN  SIGNAL\nBakery     11    60\nSaltmarsh  1     90');
  await others.getByRole('button', { name: 'Note networks' }).click();
  await expect(others.getByRole('row', { name: /^Bakery 11, 20 MHz -70 dBm ap-01/ })).toBeVisible();
  await expect(others.getByRole('row', { name: /Saltmarsh/ })).toBeHidden();
  await others.getByRole('button', { name: 'remove Bakery' }).click();
  await expect(others.getByRole('row', { name: /Bakery/ })).toBeHidden();
  await saved(page);
});

test('access points are hung by figures, by keys and by dragging; Esc puts one back', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'wireless');
  await page.keyboard.press('l');
  const floor = page.getByRole('figure', { name: 'Floor 0' });
  const ap = floor.getByRole('button', { name: /^ap-ground/ });
  await expect(ap).toHaveAccessibleName('ap-ground, 4.0 m right, 6.0 m down');
  await ap.press('ArrowRight');
  await expect(ap).toHaveAccessibleName('ap-ground, 4.5 m right, 6.0 m down');
  await fill(page, 'ap-ground right, m', 'far');
  await expect(page.getByText('ap-ground right “far” is no length; write metres like 12.4.')).toBeVisible();
  await fill(page, 'ap-ground right, m', '5,5');
  await expect(ap).toHaveAccessibleName('ap-ground, 5.5 m right, 6.0 m down');
  // A click on its name chooses it and leaves it where it is.
  await floor.getByText('ap-ground', { exact: true }).click();
  await expect(page.getByRole('region', { name: 'Chosen access point' })).toContainText('ap-ground');
  await expect(ap).toHaveAccessibleName('ap-ground, 5.5 m right, 6.0 m down');
  const box = (await ap.locator('circle').boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 60, y, { steps: 4 });
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect(ap).toHaveAccessibleName('ap-ground, 5.5 m right, 6.0 m down');
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 60, y, { steps: 4 });
  await page.mouse.up();
  await expect(ap).not.toHaveAccessibleName('ap-ground, 5.5 m right, 6.0 m down');
  const walls = page.getByRole('region', { name: 'Walls' });
  await walls.getByLabel('From, m right and down').fill('3 0');
  await walls.getByLabel('To', { exact: true }).fill('3 10');
  await walls.getByLabel('Takes, dB').fill('8');
  await walls.getByRole('button', { name: 'Draw wall' }).click();
  await expect(walls).toContainText('3.0 0.0 to 3.0 10.0, 8 dB');
  await saved(page);
});

test('the probe, DHCP and kept questions begin on the air', async ({ page, request }) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'rehearse');
  await page
    .getByRole('textbox', { name: 'from', exact: true })
    .or(page.getByLabel('from', { exact: true }))
    .first()
    .fill('Drivers at ap-03');
  await page.getByLabel('to', { exact: true }).first().fill('internet');
  await page.getByLabel('to', { exact: true }).first().press('Enter');
  await expect(page.getByText('Delivered: the Internet is reached').first()).toBeVisible();
  await page.goto(`/site/${site}/rehearse?view=dhcp`);
  await fill(page, 'Plug a laptop into, or join', 'Saltmarsh at ap-05');
  await expect(page.getByRole('region', { name: 'DHCP' })).toContainText('120 OF Office:');
  await expect(page.getByRole('list', { name: 'The conversation' })).toContainText('OFFER');
});
