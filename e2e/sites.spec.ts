import { atChange, expect, fill, findSite, newSite, open, test, choose } from './site';

test('makes a site from a few decisions, with a gateway to stand on', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New site' }).click();
  const name = `Orchard ${Date.now()}`;
  await page.getByLabel('Name', { exact: true }).fill(name);
  await choose(page.getByLabel('Kind', { exact: true }), 'industrial');
  await page.getByLabel('Address space').fill('10.50.0.0/16');
  await choose(page.getByLabel('Fixed addresses'), 'reservation');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('heading', { name })).toBeVisible();
  await expect(page.getByText('No segments yet.')).toBeVisible();
  await page.getByRole('navigation').getByRole('link', { name: 'Brief' }).click();
  await page.getByRole('radio', { name: 'habits' }).click();
  await expect(page.getByRole('textbox', { name: 'Address space' })).toHaveValue('10.50.0.0/16');
  await expect(page.getByLabel('Fixed addresses')).toContainText(/reserv/i);
});

test('says what is wrong with a new site and keeps what was typed', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New site' }).click();
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'site’s name is empty' })).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill('Orchard');
  await page.getByLabel('Address space').fill('10.50.0.7/16');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(
    page.getByRole('alert').filter({ hasText: 'write the network itself, 10.50.0.0/16' }),
  ).toBeVisible();
  await expect(page.getByLabel('Address space')).toHaveValue('10.50.0.7/16');
});

test('renames, duplicates, archives and deletes a site', async ({ page, request }) => {
  const name = `Mill ${Date.now()}`;
  await newSite(request, { name });
  await page.goto('/');
  await findSite(page, name.toUpperCase());
  await page.getByRole('button', { name: `rename ${name}` }).click();
  await page.getByLabel('Name', { exact: true }).fill(`${name} B`);
  await page.getByRole('button', { name: 'Rename it' }).click();
  const press = (what: string) => page.getByRole('button', { name: what, exact: true }).click();
  await press(`duplicate ${name} B`);
  const copying = page.getByRole('dialog', { name: 'Duplicate' });
  await copying.getByLabel('Its IPv4 space').fill('10.300.0.0/16');
  await copying.getByRole('button', { name: 'Duplicate it' }).click();
  await expect(copying.getByRole('alert')).toContainText('“10.300.0.0/16” is no address space');
  await copying.getByLabel('Its IPv4 space').fill('10.77.0.0/16');
  await copying.getByLabel('In device names, instead of').fill('gw-');
  await copying.getByLabel('put', { exact: true }).fill('gateway-');
  await copying.getByRole('button', { name: 'Duplicate it' }).click();
  await expect(copying).toBeHidden();
  const copy = page.getByRole('link', { name: `${name} B copy` });
  const href = (await copy.getAttribute('href'))!;
  const plan = (await (await request.get(`/api/sites/${href.split('/')[2]}/plan`)).json()).plan;
  expect(plan.site[0].space).toEqual(['10.77.0.0/16']);
  expect(plan.device.map((one: { name: string }) => one.name)).toEqual(['gateway-1']);

  await press(`archive ${name} B copy`);
  await expect(page.getByRole('link', { name: `${name} B copy` })).toBeHidden();
  await page.getByLabel('archived sites too').check();
  await press(`restore ${name} B copy`);

  await press(`delete ${name} B copy`);
  await page.getByLabel('Type the name of the site').fill('something else');
  await page.getByRole('button', { name: 'Delete it for good' }).click();
  await expect(
    page.getByRole('alert').filter({ hasText: `the site is called “${name} B copy”` }),
  ).toBeVisible();
  await page.getByLabel('Type the name of the site').fill(`${name} B copy`);
  await page.getByRole('button', { name: 'Delete it for good' }).click();
  await expect(page.getByRole('link', { name: `${name} B copy` })).toBeHidden();
  await expect(page.getByRole('link', { name: `${name} B`, exact: true })).toBeVisible();
  await findSite(page, `${name} C`);
  await expect(page.getByText(`No site has “${name} C” in its name.`)).toBeVisible();
  await findSite(page, '');
  await expect(page.getByRole('row')).not.toHaveCount(0);
});

test('a file that is no plan is refused by its name, and that stays while the list is searched', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByLabel('Bring in a plan file').setInputFiles({
    name: 'cellar.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{ "format": "something else" }'),
  });
  const refusal = page.getByRole('alert').filter({ hasText: 'cellar.json: ' });
  await expect(refusal).toContainText('Nothing was changed.');
  await findSite(page, 'no site is called this');
  await expect(page.getByText('No site has “no site is called this” in its name.')).toBeVisible();
  await expect(refusal).toBeVisible();
});

test('lists the demo sites with their findings', async ({ page }) => {
  await page.goto('/');
  await findSite(page, 'creamery');
  // By its address: other tests work on copies of the same name.
  const row = page.getByRole('row').filter({ has: page.locator('a[href="/site/3creamery/segments"]') });
  await expect(row).toContainText('industrial');
  await expect(row).toContainText('12 segments, 146 fixed');
  await expect(row.getByLabel('stop')).toBeVisible();
});

test('asks once who works here', async ({ browser, baseURL, request }) => {
  const site = await newSite(request);
  const context = await browser.newContext({ baseURL: baseURL! });
  const page = await context.newPage();
  await page.goto(`/site/${site}/segments`);
  await page.getByLabel('Your name').fill('Grace');
  await page.getByRole('button', { name: 'Start' }).click();
  await page.reload();
  await expect(page.getByText('No segments yet.')).toBeVisible();
  await expect(page.getByLabel('Your name')).toBeHidden();
  await context.close();
});

test('an unknown site is said plainly', async ({ page }) => {
  await page.goto('/site/nowhere/segments');
  await expect(page.getByRole('alert').first()).toContainText('There is no site with the id “nowhere”');
});

test('a long note is saved whole and is there after a reload', async ({ page, request }) => {
  const site = await newSite(request);
  await open(page, site, 'brief?part=habits');
  const note = 'The key of the cupboard hangs behind the door of the workshop; ask for it in the morning. '
    .repeat(30)
    .trim();
  await fill(page, 'Notes', note);
  await atChange(page, 1);
  await page.reload();
  await expect(page.getByLabel('Notes', { exact: true })).toHaveValue(note);
});

test('Brief: habits and foreign networks are edited, wrong ones refused beside the field', async ({
  page,
  request,
}) => {
  const site = await newSite(request);
  await open(page, site, 'brief?part=habits');
  await choose(page.getByLabel('Gateway address'), 'last');
  await page.getByLabel('Infrastructure band').fill('twelve');
  await page.getByLabel('Infrastructure band').press('Enter');
  await expect(
    page.getByRole('alert').filter({ hasText: 'Infrastructure band “twelve” is not a whole number' }),
  ).toBeVisible();
  await page.getByLabel('Infrastructure band').fill('12');
  await page.getByLabel('Infrastructure band').press('Enter');
  await page.getByLabel('Foreign prefix').fill('10.20.10.0/24');
  await page.getByLabel('Whose network').fill('the tenant upstairs');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('the tenant upstairs', { exact: true })).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Infrastructure band')).toHaveValue('12');
  await expect(page.getByLabel('Gateway address')).toContainText('last');
});
