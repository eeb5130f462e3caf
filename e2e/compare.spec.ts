import { choose, demoSite, expect, fill, open, saved, test } from './site';

test('how the plan was is laid beside how it is, and beside another site', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  const other = await demoSite(request, '1-row-house');
  await open(page, site, 'segments');
  await fill(page, 'Name of Servers', 'Machines');
  await saved(page);
  await fill(page, 'Name of Machines', 'Machine room');
  await saved(page);
  await open(page, site, 'history');
  await page.getByRole('link', { name: 'Compare change 0 with now' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(
    'Harrow Lane Animal Clinic: change 0 against change 2',
  );
  const segments = page.getByRole('region', { name: 'Segment', exact: true });
  await expect(segments.getByRole('row')).toHaveText([
    'WhatFieldFirstSecond',
    'Servers (VLAN 30)nameServersMachine room',
  ]);
  await expect(page.getByRole('region')).toHaveCount(1);

  // A number that is none is refused where it was typed, and one that is not there by the server.
  const second = page.getByLabel('The second change');
  await second.fill('twelve');
  await second.press('Enter');
  await expect(
    page.getByRole('alert').filter({ hasText: '“twelve” is no number of a change' }),
  ).toBeVisible();
  await second.fill('1');
  await second.press('Enter');
  await expect(segments.getByRole('row').nth(1)).toHaveText('Servers (VLAN 30)nameServersMachines');
  await second.fill('99');
  await second.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'There is no change 99' })).toBeVisible();
  await second.fill('0');
  await second.press('Enter');
  await expect(page.getByText('The two are alike.')).toBeVisible();

  await page.goto(`/site/${site}/compare?with=${other}`);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(
    /^Harrow Lane Animal Clinic against Row house/,
  );
  await expect(page.getByRole('region', { name: 'Device', exact: true })).toContainText(/fewer: .*x-ray/);
  await choose(page.getByLabel('The second site'), { label: 'this site' });
  await expect(page.getByText('The two are alike.')).toBeVisible();
});
