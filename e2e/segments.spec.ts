import { atChange, demoSite, expect, fill, newSite, open, saved, test, choose } from './site';

test('a new segment takes three keystrokes, everything else is proposed, saved and shown again', async ({
  page,
  request,
}) => {
  const site = await newSite(request);
  await open(page, site);
  await page.keyboard.press('+');
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.press('s');
  await expect(page.getByRole('button', { name: /Add it/ })).toBeFocused();
  await page.keyboard.press('Enter');
  const row = page.getByTestId('segment-10');
  await expect(row.getByLabel('Subnet of Staff')).toHaveValue('10.20.10.0/24');
  await expect(row.getByLabel('Gateway of Staff')).toHaveValue('.1');
  await expect(row).toContainText('.100–');
  await atChange(page, 1);
  await page.reload();
  await expect(page.getByTestId('segment-10').getByLabel('Subnet of Staff')).toHaveValue('10.20.10.0/24');
});

test('fields are edited in place; Esc gives up, wrong input stays with the reason beside it', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site);
  await fill(page, 'Name of Family', 'Family rooms');
  await expect(page.getByLabel('Name of Family rooms')).toBeVisible();
  const vid = page.getByLabel('VLAN id of Home office');
  await vid.fill('4095');
  await vid.press('Enter');
  await expect(
    page.getByRole('alert').filter({ hasText: 'VLAN id is 4095; write a whole number from 1 to 4094' }),
  ).toBeVisible();
  await expect(vid).toHaveValue('4095');
  await vid.press('Escape');
  await expect(vid).toHaveValue('30');
  await fill(page, 'VLAN id of Home office', '31');
  await expect(page.getByTestId('segment-31')).toBeVisible();
  await fill(page, 'Gateway of Home office', '.2');
  await expect(page.getByLabel('Gateway of Home office')).toHaveValue('.2');
  await fill(page, 'Subnet of Home office', '10.0.0.300/24');
  await expect(page.getByRole('alert').filter({ hasText: 'is not a subnet' })).toBeVisible();
  await expect(page.getByLabel('Subnet of Home office')).toHaveValue('10.0.0.300/24');
});

test('details: purpose, code, Internet, growth, visitors, DNS, domain and IPv6', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site);
  await page.getByLabel('Name of Home office').click();
  await choose(page.getByLabel('Purpose'), 'servers');
  await fill(page, 'Code', 'ho');
  await expect(page.getByRole('heading', { name: '30 HO Home office' })).toBeVisible();
  await page.getByLabel('may reach it').uncheck();
  await fill(page, 'Growth', '100');
  await fill(page, 'Devices now', '7');
  await expect(page.getByText('⌈7 × 2⌉ + 9 + 1 = 24')).toBeVisible();
  const before = await saved(page);
  await page.getByRole('button', { name: 'Count visitors' }).click();
  // Nothing is written before the numbers are.
  expect(await saved(page)).toBe(before);
  await fill(page, 'Arrivals per hour', '9');
  await expect(page.getByText('90 arrivals')).toBeVisible();
  await fill(page, 'DNS servers IPv4', '192.0.2.53, disk-station');
  await expect(page.getByLabel('DNS servers IPv4')).toHaveValue('192.0.2.53, 192.168.20.12');
  await fill(page, 'DNS servers IPv4', 'no-such-host');
  await expect(page.getByRole('alert').filter({ hasText: 'neither an address nor a host' })).toBeVisible();
  await page.getByLabel('DNS servers IPv4').press('Escape');
  await fill(page, 'Domain IPv4', 'office.example.net');
  await page.getByRole('button', { name: 'Use fd4c:71a:90:1e::/64' }).click();
  await expect(page.getByLabel('IPv6 subnet')).toHaveValue('fd4c:71a:90:1e::/64');
  await saved(page);
});

test('order changes with Alt and the arrow keys and with the buttons; removing says what hangs on it', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site);
  const names = () =>
    page
      .getByLabel(/^Name of /)
      .evaluateAll((fields) => fields.map((field) => (field as HTMLInputElement).value));
  await page.getByLabel('Name of Home office').focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect
    .poll(names)
    .toEqual([
      'House network gear',
      'Home office',
      'Family',
      'Heat pump and meters',
      'Door and yard',
      'Holiday flat',
    ]);
  await page.getByRole('button', { name: 'Down', exact: true }).click();
  await expect.poll(async () => (await names())[1]).toBe('Family');
  await page.getByLabel('Name of Door and yard').click();
  await page.getByRole('button', { name: 'Remove…' }).click();
  await expect(page.getByRole('alertdialog')).toContainText(
    '1 subnet, 1 pool, 3 fixed addresses, 1 gateway interface',
  );
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(page.getByLabel('Name of Door and yard')).toBeHidden();
  await page.keyboard.press('u');
  await expect(page.getByLabel('Name of Door and yard')).toBeVisible();
});

test('the strip: segments move by keyboard and by dragging, a taken place is refused, zoom works', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site);
  const block = page.getByRole('button', { name: /^120 Office 10\.44\.120\.0\/25/ });
  await block.focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByLabel('Subnet of Office')).toHaveValue('10.44.120.128/25');
  await expect(page.getByLabel('Gateway of Office')).toHaveValue('.129');

  await page.getByRole('button', { name: 'used' }).click();
  const strip = (await page.getByTestId('strip').boundingBox())!;
  const voice = page.getByRole('button', { name: /^130 Voice/ });
  const from = (await voice.boundingBox())!;
  await page.mouse.move(from.x + from.width / 2, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(strip.x + strip.width * 0.5, strip.y + 20, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByLabel('Subnet of Voice')).not.toHaveValue('10.44.130.0/27');
  const moved = await page.getByLabel('Subnet of Voice').inputValue();
  expect(moved).toMatch(/^10\.44\.1[5-9]\d\.\d+\/27$/);

  const again = (await page.getByRole('button', { name: /^130 Voice/ }).boundingBox())!;
  const pasteuriser = (await page.getByRole('button', { name: /^210 Pasteuriser/ }).boundingBox())!;
  await page.mouse.move(again.x + again.width / 2, again.y + 20);
  await page.mouse.down();
  await page.mouse.move(pasteuriser.x + 3, pasteuriser.y + 20, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByText(/is not free; drop Voice on a white place/)).toBeVisible();
  await expect(page.getByLabel('Subnet of Voice')).toHaveValue(moved);
});

test('Fit shows before and after, and nothing happens until it is accepted', async ({ page, request }) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site);
  await page.keyboard.press('f');
  const dialog = page.getByRole('dialog');
  await expect(
    dialog.getByRole('row', {
      name: /10\.44\.240\.0\/27 \(subnet\) prefix 10\.44\.240\.0\/27 10\.44\.240\.0\/25/,
    }),
  ).toBeVisible();
  await dialog.getByRole('button', { name: 'Leave as it is' }).click();
  await expect(page.getByLabel('Subnet of Exchange')).toHaveValue('10.44.240.0/27');
  await page.keyboard.press('f');
  await dialog.getByRole('button', { name: 'Take this packing' }).click();
  await expect(page.getByLabel('Subnet of Exchange')).toHaveValue('10.44.240.0/25');
  await expect(page.getByLabel('Subnet of Silo yard')).toHaveValue(/^10\.44\.160\.0\//);
  await expect(page.getByText('Exchange is too small')).toBeHidden();
});

test('split, grow and shrink say what moves and what no longer fits', async ({ page, request }) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site);
  await page.getByLabel('Name of Cameras').click();
  await page.getByRole('button', { name: 'Shrink to /27' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('row').filter({ hasText: 'prefix' })).toContainText('10.44.140.0/27');
  await expect(dialog.getByRole('row').filter({ hasText: 'dock-cam' })).toContainText('10.44.140.40');
  await dialog.getByRole('button', { name: 'Leave as it is' }).click();
  await page.getByLabel('Name of Pasteuriser cell').click();
  await page.getByRole('button', { name: 'Grow to /25' }).click();
  await expect(page.getByLabel('Subnet of Pasteuriser cell')).toHaveValue('10.44.210.0/25');
  await page.getByRole('button', { name: 'Split…' }).click();
  // What held for the whole holds for both halves.
  await expect(dialog.getByRole('row').filter({ hasText: '(zone)' })).toContainText('Pasteuriser cell upper');
  await expect(dialog.getByRole('row').filter({ hasText: 'gw-1 inside' })).toContainText(
    'also Pasteuriser cell upper',
  );
  await dialog.getByRole('button', { name: 'Split it' }).click();
  await expect(page.getByLabel('Subnet of Pasteuriser cell upper')).toHaveValue('10.44.210.64/26');
  await expect(page.getByLabel('Subnet of Pasteuriser cell', { exact: true })).toHaveValue('10.44.210.0/26');
});
