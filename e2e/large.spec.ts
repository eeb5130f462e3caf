import { largeSite } from '../scripts/bench/site';
import { writePlanFile } from '../src/core/formats';
import { demoSite, expect, fill, open, saved, test } from './site';

test('of many segments only those in view exist, and each is still found, edited and reached', async ({
  page,
  request,
}) => {
  const file = writePlanFile(largeSite(300, 20));
  const made = await request.post('/api/sites', { data: { file } });
  const { id: site } = (await made.json()) as { id: string };
  await open(page, site);
  await expect(page.getByRole('heading', { name: '300 segments' })).toBeVisible();
  await expect(page.getByTestId('segment-10')).toBeVisible();
  await expect(page.getByTestId('segment-250')).toHaveCount(0);
  await page.getByRole('combobox', { name: 'Find' }).fill('Cell 240');
  await page.getByRole('combobox', { name: 'Find' }).press('Enter');
  await expect(page.getByTestId('segment-250')).toBeInViewport();
  await fill(page, 'Name of Cell 240', 'Filling line');
  await expect(page.getByLabel('Name of Filling line')).toBeVisible();
  expect(await saved(page)).toBe(1);
  await page.getByRole('link', { name: /Addresses/ }).click();
  await expect(page.getByRole('heading', { name: 'Filling line' }).first()).toBeVisible();
  await page.getByLabel('Find a segment').fill('299');
  await page.getByLabel('Find a segment').press('Enter');
  await expect(page.getByRole('heading', { name: 'Cell 289' }).first()).toBeVisible();
  await page.getByLabel('Find a segment').fill('nothing of the kind');
  await expect(page.getByText('No segment is called “nothing of the kind”.')).toBeVisible();
});

test('columns are chosen, and the choice stays', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site);
  await page.getByRole('button', { name: 'columns' }).press('Enter');
  await page.getByRole('menuitemcheckbox', { name: 'Gateway' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Need' }).press('Enter');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('columnheader', { name: 'Gateway' })).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('columnheader', { name: 'Pool' })).toBeVisible();
  await expect(page.getByRole('columnheader', { name: 'Need' })).toHaveCount(0);
  await open(page, site, 'addresses');
  await expect(page.getByLabel(/^MAC of/).first()).toBeVisible();
  await page.getByRole('button', { name: 'columns' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'MAC' }).click();
  await expect(page.getByLabel(/^MAC of/)).toHaveCount(0);
});
