import { atChange, demoSite, expect, fill, open, openWithStaff, saved, test } from './site';

test('a change in one window appears in the other', async ({ page, context, request }) => {
  const site = await demoSite(request, '1-row-house');
  const other = await context.newPage();
  await open(page, site);
  await open(other, site);
  await fill(page, 'Name of Family', 'Upstairs');
  await expect(other.getByLabel('Name of Upstairs')).toBeVisible();
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

test('what somebody else has built on is not undone, and it is said what stands in the way', async ({
  page,
  browser,
  request,
}) => {
  const site = await openWithStaff(page, request);
  const elsewhere = await browser.newContext();
  await elsewhere.addInitScript(() => localStorage.setItem('dianome.author', 'Bo'));
  const other = await elsewhere.newPage();
  await open(other, site, 'addresses');
  const form = other.getByRole('form', { name: 'New fixed address' });
  await form.getByLabel('Host name').fill('printer');
  await form.getByRole('button', { name: /^Add/ }).click();
  await atChange(page, 2);
  await page.getByRole('banner').getByRole('button', { name: 'undo' }).click();
  await expect(page.getByRole('region', { name: 'Edits not applied' })).toContainText(
    'The subnet “10.20.10.0/24” is still used by the address “printer 10.20.10.10”. Change or remove that first.',
  );
  await expect(page.getByTestId('segment-10').getByLabel('Subnet of Staff')).toHaveValue('10.20.10.0/24');
  await page.getByRole('button', { name: 'Let it go' }).click();
  expect(await saved(page)).toBe(2);
  await elsewhere.close();
});

test('an unsaved change survives a reload of the window, which is asked about, and its closing', async ({
  page,
  context,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site);
  await context.route('**/changes', (route) => route.abort());
  await fill(page, 'Name of Family', 'Kept');
  await expect(page.getByRole('status').filter({ hasText: 'change 0 offline, kept here' })).toBeVisible();
  await expect(page.getByText('One change waits in this browser')).toBeVisible();
  const asked: string[] = [];
  page.on('dialog', (dialog) => {
    asked.push(dialog.type());
    void dialog.accept();
  });
  await page.reload();
  expect(asked).toEqual(['beforeunload']);
  await expect(page.getByLabel('Name of Kept')).toBeVisible();
  await page.close();
  await context.unroute('**/changes');
  const later = await context.newPage();
  await later.goto(`/site/${site}/segments`);
  await expect(later.getByLabel('Name of Kept')).toBeVisible();
  expect(await saved(later)).toBe(1);
});

test('seven windows of one browser: each saves, and each hears of the others', async ({
  page,
  context,
  request,
}) => {
  // Each of the seven is a whole program.
  test.slow();
  const site = await demoSite(request, '1-row-house');
  const windows = [page, ...(await Promise.all(Array.from({ length: 6 }, () => context.newPage())))];
  for (const window of windows) await open(window, site);
  let before = '30';
  for (const [i, window] of windows.entries()) {
    await expect(window.getByLabel('VLAN id of Home office')).toHaveValue(before);
    before = String(300 + i);
    await fill(window, 'VLAN id of Home office', String(300 + i));
    await atChange(window, i + 1);
  }
  for (const window of windows) {
    await atChange(window, windows.length);
    await expect(window.getByLabel('VLAN id of Home office')).toHaveValue('306');
  }
});

test('without a server undo takes back what waits, at once and once, and nothing later', async ({
  page,
  context,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site);
  await fill(page, 'Name of Family', 'First');
  await saved(page);
  await context.setOffline(true);
  await fill(page, 'Name of First', 'Second');
  await expect(page.getByText('One change waits in this browser')).toBeVisible();
  await page.getByRole('banner').getByRole('button', { name: 'undo' }).click();
  await expect(page.getByLabel('Name of First')).toBeVisible();
  await page.getByRole('banner').getByRole('button', { name: 'undo' }).click();
  await expect(page.getByTestId('last-change')).toContainText('Nothing was undone');
  await context.setOffline(false);
  await atChange(page, 3);
  await expect(page.getByLabel('Name of First')).toBeVisible();
});

test('undo is of this browser, not of everybody of the same name', async ({ page, browser, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site);
  await fill(page, 'Name of Family', 'Mine');
  await saved(page);
  const elsewhere = await browser.newContext();
  await elsewhere.addInitScript(() => localStorage.setItem('dianome.author', 'Ada'));
  const other = await elsewhere.newPage();
  await open(other, site);
  await other.getByRole('banner').getByRole('button', { name: 'undo' }).click();
  await expect(other.getByTestId('last-change')).toHaveText('Nothing of yours to undo');
  await expect(other.getByLabel('Name of Mine')).toBeVisible();
  await elsewhere.close();
});

test('a conflict stays until it is decided: over Escape and over a reload', async ({
  page,
  context,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  const other = await context.newPage();
  await open(page, site);
  await open(other, site);
  await page.route('**/changes*', (route) => route.abort());
  await fill(page, 'Name of Family', 'Downstairs');
  await fill(other, 'Name of Family', 'Upstairs');
  await saved(other);
  await page.unroute('**/changes*');
  const conflicts = page.getByRole('region', { name: 'Edits not applied' });
  await expect(conflicts).toBeVisible();
  await conflicts.getByRole('button', { name: 'Apply to the plan as it is now…' }).click();
  // Behind the dialog the page is hidden from roles, so a key that came before it hears keys would leave it open.
  await expect(page.getByRole('dialog', { name: 'Apply again' }).locator(':focus')).toHaveCount(1);
  await page.keyboard.press('Escape');
  await expect(conflicts).toBeVisible();
  await page.reload();
  await expect(conflicts).toContainText('Downstairs');
  await conflicts.getByRole('button', { name: 'Let it go' }).click();
  await expect(conflicts).toBeHidden();
  await page.reload();
  await expect(page.getByLabel('Name of Upstairs')).toBeVisible();
  await expect(conflicts).toBeHidden();
});
