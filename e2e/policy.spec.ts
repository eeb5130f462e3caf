import { atChange, demoSite, expect, fill, newSite, open, saved, test, choose } from './site';

const cell = (page: import('@playwright/test').Page, pair: string) =>
  page.getByRole('gridcell', { name: new RegExp(`^${pair}:`) });

test('a starting point makes the zones; cells are decided by key, by services and by painting', async ({
  page,
  request,
}) => {
  const site = await newSite(request);
  await open(page, site);
  for (const key of ['m', 's', 'g', 'c']) {
    await page.keyboard.press('+');
    await page.keyboard.press(key);
    await page.keyboard.press('Enter');
  }
  await page.getByRole('link', { name: /Who may talk/ }).click();
  const start = page.getByRole('region', { name: 'Starting points' });
  await expect(start).toContainText('As in an office, like this site');
  await expect(start).toContainText('they print and look at pages, no more');
  await start.getByRole('button', { name: 'Begin with it' }).nth(1).click();
  await expect(cell(page, 'Staff to Devices')).toHaveAccessibleName(
    'Staff to Devices: only web pages, printing, decided here',
  );
  await expect(cell(page, 'Guests to Staff')).toHaveAccessibleName(
    'Guests to Staff: nothing passes, as usual',
  );
  await atChange(page, 5);

  await cell(page, 'Staff to Management').click();
  await expect(page.getByRole('region', { name: 'Chosen cells' })).toContainText(
    'Seen to by gw-1, which knows what belongs together',
  );
  await page.keyboard.press('a');
  await expect(cell(page, 'Staff to Management')).toHaveAccessibleName(/everything passes, decided here/);
  await page.keyboard.press('r');
  await expect(cell(page, 'Staff to Management')).toHaveAccessibleName(/nothing passes, as usual/);
  await page.keyboard.press('s');
  const services = page.getByLabel('Only these services');
  await expect(services).toBeFocused();
  await services.fill('HTTPS, nonsense');
  await services.press('Enter');
  await expect(
    page.getByRole('alert').filter({ hasText: '“nonsense” is no service here; there are NTP' }),
  ).toBeVisible();
  await expect(services).toHaveValue('HTTPS, nonsense');
  await services.fill('HTTPS, ping');
  await services.press('Enter');
  await expect(cell(page, 'Staff to Management')).toHaveAccessibleName(/only HTTPS, ping, decided here/);

  await page.getByRole('radiogroup', { name: 'Brush' }).getByRole('radio', { name: /Allow/ }).click();
  await cell(page, 'Guests to Staff').hover();
  await page.mouse.down();
  await cell(page, 'Guests to Devices').hover();
  await page.mouse.up();
  await expect(cell(page, 'Guests to Devices')).toHaveAccessibleName(/everything passes, decided here/);
  await expect(page.getByText('Guests reach all of Staff')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Take it back' }).first().click();
  // The next one is taken when the list has done without the first.
  await expect(page.getByText(/Guests reach all of/)).toHaveCount(1);
  await page.getByRole('button', { name: 'Take it back' }).first().click();
  await expect(page.getByText(/Guests reach all of/)).toHaveCount(0);

  await cell(page, 'Guests to Staff').click();
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByRole('heading', { name: '2 pairs of zones' })).toBeVisible();
  await page.keyboard.press('d');
  await expect(cell(page, 'Guests to Staff')).toHaveAccessibleName(/nothing passes, decided here/);
  await saved(page);
});

test('zones: a segment is in one at a time, and what is in none is a finding', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'policy');
  await page.getByRole('button', { name: 'Add zone' }).click();
  const name = page.getByLabel('Name of the new zone');
  await name.fill('guests');
  await name.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'There is a zone guests already' })).toBeVisible();
  await name.fill('Workshop');
  await name.press('Enter');
  const chosen = page.getByRole('region', { name: 'Chosen zone' });
  await choose(chosen.getByLabel('Put into this zone'), { label: '30 OF Home office, now in Family' });
  await expect(chosen.getByRole('list', { name: 'In Workshop' })).toContainText('Home office');
  await page.getByRole('button', { name: 'Family', exact: true }).click();
  await expect(chosen.getByRole('list', { name: 'In Family' })).not.toContainText('Home office');
  await page.getByRole('button', { name: 'Workshop', exact: true }).click();
  await chosen.getByRole('button', { name: 'Remove Workshop' }).click();
  await expect(page.getByText('Home office is in no zone')).toBeVisible();
  await page.getByRole('button', { name: 'Give it a zone of its own' }).click();
  await expect(page.getByText('Home office is in no zone')).toBeHidden();
  await expect(page.getByText('Guests may open the gateway’s pages')).toBeVisible();
  await page.getByRole('button', { name: 'Close them to Guests' }).click();
  await expect(page.getByText('Guests may open the gateway’s pages')).toBeHidden();
  await saved(page);
});

test('rules: typed, ordered, ended, and judged among themselves', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'policy');
  const table = page.getByRole('table', { name: 'Rules from the top' });
  const rows = table.getByRole('rowgroup').last().getByRole('row');
  await expect(page.getByText('Rule 2 never decides anything')).toBeVisible();
  await expect(page.getByText('Rule 3 has run out')).toBeVisible();
  await page.getByRole('button', { name: 'Put it above rule 1' }).click();
  await expect(page.getByText(/never decides anything/)).toHaveCount(0);
  await expect(rows.first()).toContainText('printers have no business there');
  await page.getByRole('button', { name: 'Rule 1', exact: true }).focus();
  await page.keyboard.press('Alt+ArrowDown');
  await expect(rows.first()).toContainText('practice software');
  await expect(page.getByText('Rule 2 never decides anything')).toBeVisible();

  const form = page.getByRole('form', { name: 'New rule' });
  await form.getByLabel('From').fill('nobody at all');
  await form.getByLabel('From').press('Enter');
  await expect(
    page
      .getByRole('alert')
      .filter({ hasText: '“nobody at all” is no zone, segment, device or network here' }),
  ).toBeVisible();
  await form.getByLabel('From').fill('');
  await form.getByLabel('Note').fill('just for now');
  await form.getByLabel('Note').press('Enter');
  await expect(
    page
      .getByRole('alert')
      .filter({ hasText: 'Nothing is written, and that would allow everybody everything' }),
  ).toBeVisible();
  await expect(rows).toHaveCount(3);
  await form.getByLabel('From').fill('anybody');
  await form.getByLabel('From').press('Enter');
  await expect(page.getByText('Rule 4 lets everybody do everything')).toBeVisible();
  await expect(rows).toHaveCount(4);
  await fill(page, 'Rule from', 'Staff, 203.0.113.8');
  await fill(page, 'Services of the rule', 'SSH');
  await expect(page.getByText('Rule 4 lets everybody do everything')).toBeHidden();
  await expect(rows.nth(3)).toContainText('Staff, 203.0.113.8/32');
  await fill(page, 'Last day of the rule', 'tomorrow');
  await expect(page.getByRole('alert').filter({ hasText: 'A day needs the form 2026-12-31' })).toBeVisible();
  await fill(page, 'Last day of the rule', '2099-12-31');
  await expect(rows.nth(3)).toContainText('2099-12-31');
  // Emptied, these would let more through.
  for (const [label, all] of [
    ['Rule from', 'anybody'],
    ['Services of the rule', 'everything'],
    ['Last day of the rule', 'for good'],
  ] as const) {
    const field = page.getByLabel(label);
    await fill(page, label, '');
    await expect(
      page.getByRole('alert').filter({ hasText: `Left empty, this would be ${all};` }),
    ).toBeVisible();
    await field.press('Escape');
    await expect(field).not.toHaveValue('');
  }
  await fill(page, 'Last day of the rule', 'for good');
  await expect(rows.nth(3)).not.toContainText('2099-12-31');

  const own = page.getByRole('form', { name: 'New: Services of this site' });
  await own.getByLabel('Name').fill('lab feed');
  await own.getByLabel('Ports').fill('443');
  await own.getByLabel('Ports').press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: '“443” is no port; write tcp 443' })).toBeVisible();
  await own.getByLabel('Ports').fill('tcp 7443');
  await own.getByLabel('Ports').press('Enter');
  await fill(page, 'Services of the rule', 'lab feed');
  await expect(rows.nth(3)).toContainText('lab feed');
  await page.getByRole('button', { name: 'Remove the service lab feed' }).click();
  await expect(rows).toHaveCount(3);
  await page.keyboard.press('u');
  await expect(rows).toHaveCount(4);
  await saved(page);
});

test('a rule for a segment is not taken for one for the zone of the same name', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'policy');
  const form = page.getByRole('form', { name: 'New rule' });
  await form.getByLabel('From').fill('Guests');
  await form.getByLabel('To').fill('Family');
  await form.getByLabel('To').press('Enter');
  await expect(
    page.getByRole('alert').filter({
      hasText: '“Family” may be the zone or the segment; write “zone Family” or “segment Family”.',
    }),
  ).toBeVisible();
  await form.getByLabel('To').fill('segment Family');
  await form.getByLabel('To').press('Enter');
  await expect(page.getByLabel('Rule to')).toHaveValue('segment Family');
  await fill(page, 'Rule to', 'segment Family, Devices');
  await expect(page.getByLabel('Rule to')).toHaveValue('segment Family, Devices');
  await saved(page);
});
