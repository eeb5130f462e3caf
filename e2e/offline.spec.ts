import { demoSite, expect, fill, open, saved, test } from './site';

test.use({ serviceWorkers: 'allow' });

test('without a server every station opens, an edit is kept over closing, and is saved when it is back', async ({
  page,
  context,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site);
  // The program and the stations of this site are in the browser once they are all in its cache.
  await expect
    .poll(() =>
      page.evaluate(async (path) => {
        const cache = await caches.open('dianome-pages');
        return (await cache.keys()).filter(({ url }) => url.includes(path)).length;
      }, `/site/${site}/`),
    )
    .toBeGreaterThan(9);
  await context.setOffline(true);
  await fill(page, 'Name of Family', 'Upstairs');
  await expect(page.getByText('One change waits in this browser')).toBeVisible();
  page.on('dialog', (dialog) => void dialog.accept());
  await page.getByRole('link', { name: /Gear & ports/ }).click();
  await expect(page.getByRole('heading', { name: 'Gear & ports' })).toBeVisible();
  await page.getByRole('link', { name: /Segments/ }).click();
  await expect(page.getByLabel('Name of Upstairs')).toBeVisible();
  await page.close();
  const later = await context.newPage();
  await later.goto(`/site/${site}/segments`);
  await expect(later.getByLabel('Name of Upstairs')).toBeVisible();
  await expect(later.getByText('One change waits in this browser')).toBeVisible();
  await context.setOffline(false);
  expect(await saved(later)).toBe(1);
});

test('a change that waits is not lost by a look at the list of sites in the same window', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site);
  await page.route('**/changes', (route) => route.abort());
  await fill(page, 'Name of Family', 'Upstairs');
  await expect(page.getByText('One change waits in this browser')).toBeVisible();
  await page.getByRole('link', { name: 'Dianome, all sites' }).click();
  await expect(page.getByRole('heading', { name: 'Dianome', exact: true })).toBeVisible();
  await page.goBack();
  await expect(page.getByLabel('Name of Upstairs')).toBeVisible();
  await page.unroute('**/changes');
  expect(await saved(page)).toBe(1);
});
