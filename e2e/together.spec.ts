import { demoSite, expect, fill, open, saved, test } from './site';

test('a change in one window appears in the other', async ({ page, context, request }) => {
  const site = await demoSite(request, '1-row-house');
  const other = await context.newPage();
  await open(page, site);
  await open(other, site);
  await fill(page, 'Name of Family', 'Upstairs');
  await expect(other.getByLabel('Name of Upstairs')).toBeVisible({ timeout: 3000 });
  await expect(other.getByTestId('last-change')).toContainText('Ada:');
});

test('edits to different fields on an old revision are both kept', async ({ page, context, request }) => {
  const site = await demoSite(request, '1-row-house');
  const other = await context.newPage();
  await open(page, site);
  await open(other, site);
  await context.setOffline(true);
  await fill(page, 'Name of Family', 'Upstairs');
  await fill(other, 'VLAN id of Home office', '33');
  await expect(page.getByText('offline, kept here')).toBeVisible();
  await context.setOffline(false);
  for (const window of [page, other]) {
    await expect(window.getByLabel('Name of Upstairs')).toBeVisible();
    await expect(window.getByLabel('VLAN id of Home office')).toHaveValue('33');
  }
  await expect(page.getByText('change 2 saved')).toBeVisible();
  await expect(other.getByText('change 2 saved')).toBeVisible();
});

test('two edits of one field: the later one is shown with what came between, never lost, never overwriting', async ({
  page,
  context,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  const other = await context.newPage();
  await open(page, site);
  await open(other, site);
  await other.context().setOffline(true);
  await fill(other, 'Name of Family', 'Downstairs');
  await fill(page, 'Name of Family', 'Upstairs');
  await context.setOffline(false);
  const conflict = async (window: typeof page) =>
    window.getByRole('region', { name: 'Edits not applied' }).isVisible();
  await expect.poll(async () => (await conflict(page)) !== (await conflict(other))).toBe(true);
  const refused = (await conflict(page)) ? page : other;
  const mine = refused === page ? 'Upstairs' : 'Downstairs';
  const theirs = refused === page ? 'Downstairs' : 'Upstairs';
  await expect(refused.getByRole('region', { name: 'Edits not applied' })).toContainText(
    `name was Family when you edited it and is ${theirs} now`,
  );
  await expect(refused.getByLabel(`Name of ${theirs}`)).toBeVisible();
  await refused.getByRole('button', { name: 'Apply to the plan as it is now…' }).click();
  await refused.getByRole('button', { name: 'Apply it now' }).click();
  await expect(refused.getByLabel(`Name of ${mine}`)).toBeVisible();
  await expect((refused === page ? other : page).getByLabel(`Name of ${mine}`)).toBeVisible();
});

test('an unsaved change survives a reload of the window', async ({ page, context, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site);
  await page.route('**/changes', (route) => route.abort());
  await fill(page, 'Name of Family', 'Kept');
  await expect(page.getByText('offline, kept here')).toBeVisible();
  await page.unroute('**/changes');
  await page.reload();
  await expect(page.getByLabel('Name of Kept')).toBeVisible();
  expect(await saved(page)).toBe(1);
  await context.close();
});
