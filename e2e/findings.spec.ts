import { demoSite, expect, fill, open, saved, test } from './site';

test('a remedy is previewed, taken with one click, and undone', async ({ page, request }) => {
  await open(page, await demoSite(request, '1-row-house'), 'addresses');
  const card = page.getByRole('article', { name: 'garage-door 192.168.20.120 is static inside the pool' });
  await expect(card).toContainText('the server may lease 192.168.20.120 to another device');
  await card.getByRole('button', { name: 'Move it to the next free address' }).hover();
  await expect(card).toContainText('garage-door 192.168.20.120: address 192.168.20.120 → 192.168.20.14');
  await card.getByRole('button', { name: 'Move it to the next free address' }).click();
  await expect(card).toBeHidden();
  await expect(page.getByTestId('last-change')).toHaveText(
    'garage-door: 192.168.20.120 → 192.168.20.14; one finding fewer',
  );
  await saved(page);
  await page.keyboard.press('u');
  await expect(card).toBeVisible();
  await page.keyboard.press('Shift+U');
  await expect(card).toBeHidden();
});

test('a finding is accepted with a reason, stays listed, and comes back when its evidence changes', async ({
  page,
  request,
}) => {
  await open(page, await demoSite(request, '3-creamery'), 'findings');
  const card = page.getByRole('article', { name: 'Exchange is too small' });
  const stops = page.getByRole('button', { name: /^stop: / });
  await expect(card).toBeVisible();
  const before = Number((await stops.getAttribute('aria-label'))!.split(': ')[1]);
  await card.getByRole('button', { name: 'Accept…' }).click();
  await card.getByRole('button', { name: 'Accept', exact: true }).click();
  await expect(card.getByRole('alert')).toContainText('The reason is empty');
  await card.getByLabel('Why is this all right here?').fill('replaced next spring');
  await card.getByRole('button', { name: 'Accept', exact: true }).click();
  await expect(card).toContainText('Accepted by Ada: replaced next spring');
  await expect(stops).toHaveAttribute('aria-label', `stop: ${before - 1}`);
  await page.getByRole('link', { name: 'Segments' }).click();
  await page.getByLabel('Name of Exchange').click();
  await fill(page, 'Devices now', '41');
  await expect(
    page
      .getByRole('article', { name: 'Exchange is too small' })
      .getByRole('button', { name: 'Grow it to a /25' }),
  ).toBeVisible();
});

test('findings are counted per station, filtered, and n goes to the next one', async ({ page, request }) => {
  await open(page, await demoSite(request, '3-creamery'));
  await expect(page.getByRole('link', { name: /Segments/ })).toContainText('22');
  await page.getByRole('button', { name: /^fix: / }).click();
  await expect(page.getByRole('article', { name: 'Drivers Wi-Fi is too small' })).toBeHidden();
  await page.getByRole('button', { name: /^fix: / }).click();
  await page.keyboard.press('n');
  await expect(
    page.getByRole('article', { name: 'Silo yard overlaps Cold store' }).getByRole('button').first(),
  ).toBeFocused();
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { name: '240 HX Exchange' })).toBeVisible();
});

test('findings follow an edit at once and say what the change did', async ({ page, request }) => {
  await open(page, await demoSite(request, '2-clinic'));
  await fill(page, 'VLAN id of Voice', '20');
  await expect(page.getByRole('article', { name: 'VLAN id 20 is used twice' })).toBeVisible();
  await expect(page.getByTestId('last-change')).toContainText('VLAN id 40 → 20');
  await page
    .getByRole('article', { name: 'VLAN id 20 is used twice' })
    .getByRole('button', { name: /next free id/ })
    .click();
  await expect(page.getByRole('article', { name: 'VLAN id 20 is used twice' })).toBeHidden();
});
