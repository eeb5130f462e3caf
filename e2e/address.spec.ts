import { demoSite, expect, open, test } from './site';

test('what is chosen stands in the address: reload, Back and a copied link come back to it', async ({
  page,
  context,
  request,
}) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'gear');
  await page.getByRole('option', { name: /^sw-a 3:/ }).click();
  const heading = page.getByRole('region', { name: 'Chosen ports' }).getByRole('heading');
  const chosen = (await heading.textContent())!;
  await expect(page).toHaveURL(/\/gear\?.*port=/);
  await page.reload();
  await expect(heading).toHaveText(chosen);
  const copied = await context.newPage();
  await copied.goto(page.url());
  await expect(copied.getByRole('region', { name: 'Chosen ports' }).getByRole('heading')).toHaveText(chosen);

  await page.getByRole('link', { name: /Segments/ }).click();
  await page.getByLabel('Name of Office').focus();
  await expect(page).toHaveURL(/\/segments\?vlan=/);
  const first = page.url();
  await page.getByLabel('Name of Management').focus();
  await expect(page).not.toHaveURL(first);
  await page.goBack();
  await expect(page).toHaveURL(first);
  await expect(page.getByRole('heading', { name: /Office/, level: 2 })).toBeVisible();
});

test('a tab of Rehearse and its question come back, and a link to what is gone chooses nothing', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'rehearse');
  await page.getByRole('tab', { name: 'Trees' }).click();
  await expect(page).toHaveURL(/view=trees/);
  await page.reload();
  await expect(page.getByRole('tab', { name: 'Trees', selected: true })).toBeVisible();
  await page.goto(`/site/${site}/gear?device=nothing&port=none`);
  await expect(page.getByRole('heading', { name: 'Gear & ports' })).toBeVisible();
  await expect(page).toHaveURL(/\/gear$/);
});
