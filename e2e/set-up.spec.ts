import type { Page } from '@playwright/test';
import { atChange, choose, demoSite, expect, fill, open, saved, test, unfold } from './site';

/** How boxes are before work begins: what is known of models, and boxes that were set up once. */

const show = (page: Page, view: string) => page.getByRole('radio', { name: view, exact: true }).click();
const order = (page: Page) => page.getByRole('list', { name: 'The order' });

test('what is known of a model is said once, and says where one begins', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'commission?list=boxes');
  const models = page.getByRole('region', { name: 'Models' });
  await models.getByRole('button', { name: /^access point, 1 port/ }).click();
  await choose(models.getByLabel('Way in of access point, 1 port'), {
    label: 'gives itself an address, 169.254.0.0/16',
  });
  await fill(page, 'Time to start of access point, 1 port', '9000');
  await expect(models.getByRole('alert')).toContainText('write a whole number from 1 to 3600');
  await fill(page, 'Time to start of access point, 1 port', '40');
  await saved(page);
  await models.getByRole('button', { name: /^8 \+ 2 fibre, PoE 65 W/ }).click();
  await fill(page, 'Address of 8 + 2 fibre, PoE 65 W', '192.168.7.1/300');
  await expect(models.getByRole('alert')).toContainText('is no address with a mask');
  await fill(page, 'Address of 8 + 2 fibre, PoE 65 W', '192.168.7.1');
  await expect(page.getByLabel('Address sw-cellar comes with')).toHaveAttribute(
    'placeholder',
    '192.168.7.1/24',
  );
  await models.getByRole('button', { name: /^home gateway, 1 \+ 4/ }).click();
  await choose(models.getByLabel('Way in of home gateway, 1 + 4'), { label: 'by console only' });
  await saved(page);

  await show(page, 'order');
  const seats = order(page).getByRole('listitem');
  await expect(seats.first()).toContainText('gw-1, console');
  await expect(seats.filter({ hasText: '192.168.7.254' }).first()).toBeVisible();
  await expect(seats.filter({ hasText: '169.254.254.255' }).first()).toContainText('ap-');

  // Forgotten, it is as before; undo brings it back.
  await show(page, 'boxes now');
  await models.getByRole('button', { name: 'Forget what is known of home gateway, 1 + 4' }).click();
  await models.getByRole('button', { name: 'Say how one gets into home gateway, 1 + 4' }).click();
  await expect(models.getByLabel('Way in of home gateway, 1 + 4')).toContainText('at any port');
});

test('a site that is set up is told what has changed since, and nothing else', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'commission?list=boxes');
  for (const name of ['gw-1', 'sw-cellar', 'ap-ground', 'ap-attic', 'ap-flat']) {
    await choose(page.getByLabel(`${name} now`), { label: 'as planned' });
    await expect(page.getByRole('row').filter({ has: page.getByLabel(`${name} now`) })).toContainText(
      /as it was planned at change \d/,
    );
    await saved(page);
  }
  await atChange(page, 5);
  await show(page, 'order');
  await expect(page.getByText('Nothing is left to set')).toBeVisible();

  // The plan of a change is that of that change; one that is not there yet is refused with the field.
  const at = (revision: number) => request.get(`/api/sites/${site}/plan`, { params: { at: revision } });
  const states = async (revision: number) =>
    ((await (await at(revision)).json()) as { plan: { present: object[] } }).plan.present.length;
  expect([await states(0), await states(3), await states(5)]).toEqual([0, 3, 5]);
  const unknown = await at(99);
  expect([unknown.status(), await unknown.json()]).toMatchObject([
    422,
    { detail: 'There is no change 99; the newest is 5.', path: ['at'] },
  ]);

  await open(page, site, 'segments');
  await fill(page, 'VLAN id of Family', '21');
  await atChange(page, 6);
  await open(page, site, 'commission');
  await expect(order(page)).toContainText('Make VLAN 21');
  await expect(order(page)).toContainText('Port 6: untagged VLAN 21');
  await expect(order(page)).not.toContainText('Port 5');
  await expect(order(page)).not.toContainText('Management address');
  await page.getByRole('checkbox', { name: 'show the way back' }).click();
  await expect(order(page)).toContainText('Back: Port 6: untagged VLAN 20, takes untagged frames only.');

  await show(page, 'settings');
  const own = page.getByRole('region', { name: 'gw-1', exact: true });
  await expect(own).toContainText('In VLAN 21 Family');
  await expect(own).toContainText('No longer: In VLAN 20 Family');
  await expect(own).not.toContainText('VLAN 30');
  await page.getByRole('link', { name: 'All boxes to print' }).click();
  await expect(page.getByRole('region', { name: 'gw-1', exact: true })).toContainText('In VLAN 21 Family');
  await expect(page.getByRole('region', { name: 'gw-1', exact: true })).not.toContainText('VLAN 30');
});

test('how long it takes is told, until when one can turn back, and the bench is another order', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'commission');
  const time = page.getByRole('region', { name: 'Time' });
  await expect(time).toContainText(/Takes about 1 h \d+ min, by the models/);
  await fill(page, 'Minutes there are', 'an hour');
  await expect(time.getByRole('alert')).toContainText('is not a whole number');
  await fill(page, 'Minutes there are', '30');
  await expect(time.getByRole('status')).toContainText(
    /It does not fit: .* too long\. You can turn back until step \d+/,
  );
  await fill(page, 'Minutes there are', '90');
  await expect(time.getByRole('status')).toContainText(/It fits\. Point of no return: after step \d+/);
  await fill(page, 'Minutes there are', '600');
  await expect(time.getByRole('status')).toHaveText('It fits, and so does the whole way back.');

  await expect(order(page).getByRole('row').filter({ hasText: 'Plug in its cables' })).toHaveCount(3);
  await time.getByRole('radio', { name: 'on the bench' }).click();
  await expect(order(page).getByRole('row').filter({ hasText: 'Plug in its cables' })).toHaveCount(5);
  await saved(page);

  // The run takes the time along.
  await fill(page, 'Minutes there are', '90');
  await page.getByRole('button', { name: 'Start a run' }).click();
  const dialog = page.getByRole('dialog', { name: 'Start a run' });
  await dialog.getByLabel('Must work again by').fill('25:00');
  await page.keyboard.press('Enter');
  await expect(dialog.getByRole('alert')).toContainText('“25:00” is no time of day');
  await dialog.getByLabel('Must work again by').fill('23:59');
  await page.keyboard.press('Enter');
  const line = page.getByRole('status').filter({ hasText: 'Must work again by' });
  await expect(line).toContainText('Nothing is to be taken back yet.');
  const card = page.getByRole('region', { name: 'What to do now' });
  await card.getByRole('button', { name: 'I sit there' }).click();
  await card.getByRole('button', { name: 'Done and seen' }).click();
  await expect(line).toContainText(/The way back takes \d+ min: turn back by|that is past/);
  await expect(card).toContainText('Until it is saved, a restart brings back what was before.');
});

test('lines of the settings are ticked, one or a page at once, and everybody sees who did it', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'commission?list=settings');
  await choose(page.getByLabel('Box', { exact: true }), { label: 'gw-1' });
  const own = page.getByRole('region', { name: 'gw-1', exact: true });
  await unfold(page, 'Ready files, should it run Linux');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Download ruleset for nft' }).click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/\.nft$/);
  const line = own.getByRole('checkbox', { name: 'Name gw-1 is set' });
  await line.click();
  await expect(line).toBeChecked();
  const all = own.getByRole('checkbox', { name: 'All of DHCP is set' });
  await all.click();
  await expect(all).toBeChecked();
  const pool = own.getByRole('checkbox', { name: /^VLAN 20 Family: pool/ });
  await pool.click();
  await expect(pool).not.toBeChecked();
  await page.reload();
  await expect(line).toBeChecked();
  await expect(pool).not.toBeChecked();
  await show(page, 'logbook');
  const book = page.getByRole('table', { name: 'Logbook' });
  await expect(book).toContainText('set at gw-1, Identity: Name gw-1');
  await expect(book).toContainText(/set at gw-1, DHCP: \d+ lines/);
  await expect(book).toContainText('not set after all at gw-1, DHCP: VLAN 20 Family: pool');
});

test('the other pages of a box are a step of the run, with every line to tick', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'commission?list=boxes');
  for (const name of ['gw-1', 'sw-cellar', 'ap-ground', 'ap-attic', 'ap-flat']) {
    await choose(page.getByLabel(`${name} now`), { label: 'as planned' });
    await saved(page);
  }
  await atChange(page, 5);
  await open(page, site, 'segments');
  await fill(page, 'Name of Family', 'Household');
  await atChange(page, 6);
  await open(page, site, 'commission');
  await page.getByRole('button', { name: 'Start a run' }).click();
  await expect(page.getByRole('textbox', { name: 'Name', exact: true })).toBeFocused();
  await page.keyboard.press('Enter');
  const card = page.getByRole('region', { name: 'What to do now' });
  // Nobody has a free socket in this house that is managed from: a desk lends its own meanwhile.
  await expect(card).toContainText('Sit down at');
  await expect(card).toContainText(/Unplug \S+ meanwhile, and plug it in again when you leave\./);
  await card.getByRole('button', { name: 'I sit there' }).click();
  await expect(card).toContainText('Set its other pages: Wireless');
  const tick = card.getByRole('checkbox', { name: /Household/ }).first();
  await tick.click();
  await expect(tick).toBeChecked();
});

test('a visit is written down from coming to leaving, with what became of it', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'commission?list=log');
  await page.getByRole('button', { name: 'I am on site' }).click();
  const coming = page.getByRole('form', { name: 'I am on site' });
  await coming.getByLabel('What for').fill('kennel camera dark');
  await coming.getByLabel('Who else is there').fill('Rhys');
  await page.keyboard.press('Enter');
  const row = page.getByRole('table', { name: 'Visits' }).getByRole('row').nth(1);
  await expect(row).toContainText('Ada, Rhys');
  await expect(row).toContainText('nothing written yet');

  await page.getByRole('button', { name: 'Write something down' }).click();
  await page.getByLabel('What was done, measured or seen?').fill('plug crimped anew');
  await page.getByLabel('Reading').fill('wire map good');
  await page.getByRole('button', { name: 'Open as a defect' }).click();
  await expect(row).toContainText('1 defect opened');
  await row.getByRole('button', { name: 'I leave' }).click();
  const leaving = page.getByRole('form', { name: 'I leave the site' });
  await expect(leaving.getByLabel('What is left open')).toHaveValue('Left open: 1 open defect.');
  await leaving.getByRole('button', { name: 'I leave' }).click();
  await expect(row).toContainText('Left open: 1 open defect.');
  await expect(row.getByRole('button')).toHaveCount(0);
  await page.reload();
  await expect(row).toContainText('Left open: 1 open defect.');
});
