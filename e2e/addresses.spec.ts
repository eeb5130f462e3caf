import { demoSite, expect, fill, open, saved, test, choose } from './site';

test.beforeEach(async ({ page, request }) => {
  await open(page, await demoSite(request, '2-clinic'), 'addresses');
});
const segment = (name: string) => ({ name });

test('the grid, its sum and the pool edges by keyboard, dragging and typing', async ({ page }) => {
  await page.getByRole('radio', segment('20 ST')).click();
  await expect(page.getByTestId('sum')).toContainText('= 254');
  const end = page.getByRole('button', { name: /^Pool end 10\.20\.20\.177/ });
  await end.focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByLabel('Pool end', { exact: true })).toHaveValue('.178');
  await fill(page, 'Pool count', '50');
  await expect(page.getByLabel('Pool end', { exact: true })).toHaveValue('.149');
  await fill(page, 'Pool start', '.120');
  await expect(page.getByLabel('Pool count')).toHaveValue('30');

  const handle = (await page.getByRole('button', { name: /^Pool end 10\.20\.20\.149/ }).boundingBox())!;
  const target = (await page.locator('[data-cell="10.20.20.160 free"]').boundingBox())!;
  await page.mouse.move(handle.x + 3, handle.y + 8);
  await page.mouse.down();
  await page.mouse.move(target.x + target.width / 2, target.y + target.height / 2, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByLabel('Pool end', { exact: true })).toHaveValue('.160');

  await fill(page, 'Pool end', '.90');
  await expect(page.getByRole('alert').filter({ hasText: 'The start lies after the end' })).toBeVisible();
  await expect(page.getByLabel('Pool end', { exact: true })).toHaveValue('.90');
});

test('pool calculator: start and count give the end, both counted; exclusions', async ({ page }) => {
  await page.getByRole('radio', segment('50 CM')).click();
  const form = page.getByRole('form', { name: 'New range' });
  await form.getByLabel('Start').fill('.100');
  await form.getByLabel('or count').fill('50');
  await expect(page.getByTestId('range-sum')).toHaveText('10.20.50.100 – 10.20.50.149 = 50');
  await form.getByRole('button', { name: 'Add pool' }).click();
  await expect(page.getByLabel('Pool end', { exact: true })).toHaveValue('.149');
  await form.getByLabel('Start').fill('.110');
  await form.getByLabel('End').fill('.119');
  await form.getByRole('button', { name: 'Exclude' }).click();
  await fill(page, 'Reason of the exclusion', 'kept for the new wing');
  await expect(page.getByTestId('sum')).toContainText('10 excluded + 40 pool');
  await choose(page.getByLabel('Lease time'), '3600');
  await form.getByRole('button', { name: 'Add pool' }).click();
  await expect(form.getByRole('alert')).toContainText('Write the end or the count');
  await page.getByRole('button', { name: 'Remove exclusion 10.20.50.110' }).click();
  await expect(page.getByTestId('sum')).toContainText('50 pool');
});

test('need from visitors, arrivals and lease time is shown as arithmetic', async ({ page }) => {
  await page.getByRole('radio', segment('80 GU')).click();
  await expect(
    page.getByText('max(25 present, 180 arrivals within a lease of 12 h) = 180; 181; but only 78 leases'),
  ).toBeVisible();
  await choose(page.getByLabel('Lease time'), '14400');
  await expect(
    page.getByText(/72 arrivals within a lease of 4 h\) = 72; 73; held by 78 leases/),
  ).toBeVisible();
});

test('a fixed address is added with proposals; a bad name offers its repair', async ({ page }) => {
  await page.getByRole('radio', segment('70 KC')).click();
  const form = page.getByRole('form', { name: 'New fixed address' });
  await form.getByLabel('Host name').fill('pump 1');
  await form.getByLabel('MAC').fill('0000.5e00.53fa');
  await form.getByRole('button', { name: /^Add/ }).click();
  await expect(form.getByRole('alert')).toContainText(
    '“pump 1” may hold only letters, digits and inner hyphens; write pump-1',
  );
  await form.getByRole('button', { name: 'Use pump-1' }).click();
  await form.getByRole('button', { name: /^Add/ }).click();
  await expect(page.getByLabel('Address of pump-1')).toHaveValue('.19');
  await expect(page.getByLabel('MAC of pump-1')).toHaveValue('00:00:5E:00:53:FA');
  await form.getByLabel('Address').fill('10.20.99.4');
  await form.getByRole('button', { name: /^Add/ }).click();
  await expect(form.getByRole('alert')).toContainText('10.20.99.4 lies outside 10.20.70.0/24');
  await expect(form.getByLabel('Address')).toHaveValue('10.20.99.4');
});

test('hosts are edited in place, with settings of their own, and many at once', async ({ page }) => {
  await page.getByRole('radio', segment('30 SV')).click();
  await fill(page, 'Address of records', '.40');
  await expect(page.getByLabel('Address of records')).toHaveValue('.40');
  await fill(page, 'Name of records', 'records-a');
  await fill(page, 'MAC of records-a', 'zz');
  await expect(page.getByRole('alert').filter({ hasText: '“zz” is not a MAC address' })).toBeVisible();
  await page.getByLabel('MAC of records-a').press('Escape');
  await choose(page.getByLabel('Kind of records-a'), 'recorder');
  await fill(page, 'Note on records-a', 'top shelf');
  await fill(page, 'Own mask', '255.255.0.0');
  await expect(page.getByText('Set on the device: mask /16 (255.255.0.0) instead of /24.')).toBeVisible();
  await page.getByLabel('Mark records-a').check();
  await page.getByLabel('Mark images').check();
  await page.getByRole('button', { name: 'make reserved' }).click();
  await expect(page.getByLabel('Assignment of images')).toHaveText('reserved');
  await page.getByRole('button', { name: 'Remove', exact: true }).first().click();
  await expect(page.getByRole('heading', { name: '2 fixed addresses' })).toBeVisible();
});

test('fixed addresses are filtered, ordered, marked in one go and changed together', async ({ page }) => {
  await page.getByRole('radio', segment('50 CM')).click();
  const table = page.getByRole('region', { name: 'Fixed addresses' });
  const names = () =>
    table
      .getByRole('textbox', { name: /^Name of / })
      .evaluateAll((fields) => fields.map((field) => (field as HTMLInputElement).value));
  await table.getByRole('button', { name: 'Host name', exact: true }).click();
  const up = await names();
  expect(up).toEqual([...up].sort((a, b) => a.localeCompare(b, 'en', { numeric: true })));
  await table.getByRole('button', { name: 'Host name', exact: true }).click();
  await expect.poll(async () => (await names())[0]).not.toBe(up[0]);
  await table.getByLabel('Filter the fixed addresses').fill('kennel-cam');
  await expect(table.getByRole('status')).toContainText(/^\d+ of \d+$/);
  for (const name of await names()) expect(name).toContain('kennel-cam');
  // From the first to the third with Shift.
  const boxes = table.getByRole('checkbox', { name: /^Mark kennel/ });
  await boxes.first().click();
  await boxes.nth(2).click({ modifiers: ['Shift'] });
  const marked = table.getByRole('group', { name: 'With the marked ones' });
  await expect(marked).toContainText('3 marked');
  const [one] = await names();
  await choose(marked.getByLabel('kind…'), 'appliance');
  await expect(table.getByLabel(`Kind of ${one}`)).toHaveText('appliance');
  await choose(marked.getByLabel('move to…'), { label: '70 Kennel climate' });
  await expect(marked).toHaveCount(0);
  await expect(table.getByLabel(`Name of ${one}`)).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(table.getByLabel(`Name of ${one}`)).toBeVisible();
  await table.getByLabel('Mark all that are shown').check();
  await expect(marked).toContainText(/^\d+ marked/);
  await page.reload();
  await expect(table.getByRole('columnheader', { name: /^Host name/ })).toHaveAttribute(
    'aria-sort',
    'descending',
  );
});

test('rows from a spreadsheet are previewed as good, repaired or refused before they are added', async ({
  page,
}) => {
  await page.getByRole('radio', segment('70 KC')).click();
  await page.keyboard.press('p');
  const dialog = page.getByRole('dialog');
  await dialog
    .getByLabel('Rows')
    .fill(
      [
        'Host name\tIP address\tMAC\tType\tNote',
        'fan-01\t10.20.70.60\t00:00:5E:00:53:E1\tcontroller\troof',
        'fan 02\t.61\t00-00-5e-00-53-e2\tcontroller\troof',
        'fan-03\t10.20.70.60\t00:00:5E:00:53:E3\tcontroller\t',
        'fan-04\t10.99.0.1\t\tcontroller\t',
        'fan-05\t\tnonsense\tcontroller\t',
      ].join('\n'),
    );
  await expect(dialog.getByText('1 good, 1 repaired, 3 refused')).toBeVisible();
  await expect(dialog).toContainText('10.20.70.60 stands in line 2 too');
  await expect(dialog).toContainText('10.99.0.1 lies in no subnet of this site');
  await expect(dialog).toContainText('MAC “nonsense” needs twelve hexadecimal digits');
  await expect(dialog).toContainText('name “fan 02” written as fan-02');
  await dialog.getByRole('button', { name: 'Add 2 rows' }).click();
  await expect(page.getByLabel('Address of fan-02')).toHaveValue('.61');
  await saved(page);
  await page.keyboard.press('p');
  await dialog.getByLabel('Rows').fill('fan-09, 10.20.70.69, 00005E0053E9');
  await expect(dialog.getByText('Columns by what they hold: name, address, mac')).toBeVisible();
  await dialog.getByRole('button', { name: 'Add nothing' }).click();
});

test('one more address for a device in another segment, and none for a gateway it does not have', async ({
  page,
}) => {
  await page.getByRole('radio', segment('30 SV')).click();
  await page.getByLabel('Name of records').click();
  const more = page.getByRole('region', { name: 'More addresses of records' });
  await expect(more.getByRole('heading', { name: 'Has no other address' })).toBeVisible();
  const form = more.getByRole('form', { name: 'One more address for records' });
  await choose(form.getByLabel('In'), { label: 'Cameras 10.20.50.0/24' });
  await form.getByLabel('Address').fill('10.20.20.9');
  await form.getByRole('button', { name: 'Add it' }).click();
  await expect(form.getByRole('alert')).toContainText('10.20.20.9 lies outside 10.20.50.0/24');
  await expect(form.getByLabel('Address')).toHaveValue('10.20.20.9');
  await form.getByLabel('Address').fill('.90');
  await page.keyboard.press('Enter');
  await expect(more.getByRole('heading', { name: 'Has besides' })).toBeVisible();

  await fill(page, 'Own gateway', 'none');
  await expect(page.getByLabel('Own gateway')).toHaveValue('none');
  await expect(page.getByText('Set on the device: no gateway instead of 10.20.30.1')).toBeVisible();
  await fill(page, 'Own DNS', 'none');
  await expect(page.getByLabel('Own DNS')).toHaveValue('none');
  await fill(page, 'Own gateway', '');
  await expect(page.getByLabel('Own gateway')).toHaveValue('');

  await more.getByRole('button', { name: '10.20.50.90' }).click();
  await expect(page.getByRole('radio', segment('50 CM'))).toBeChecked();
  await expect(page.getByLabel('Name of records')).toBeVisible();
});
