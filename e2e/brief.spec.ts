import { choose, demoSite, expect, fill, newSite, open, saved, test } from './site';

test('a brief is written by hand and from a pasted table, with wrong numbers and columns put right', async ({
  page,
  request,
}) => {
  const site = await newSite(request);
  await open(page, site, 'brief');
  await expect(page.getByRole('button', { name: 'Go on to the proposal' })).toBeDisabled();
  const needs = page.getByRole('region', { name: 'What has to be connected' });
  const add = needs.getByRole('button', { name: 'Add', exact: true });
  await needs.getByLabel('Number', { exact: true }).fill('a dozen');
  await add.click();
  await expect(needs.getByText('The number “a dozen” is not a whole number')).toBeVisible();
  await expect(needs.getByLabel('Number', { exact: true })).toHaveValue('a dozen');
  await needs.getByLabel('Number', { exact: true }).fill('12');
  await needs.getByLabel('Place', { exact: true }).fill('Upstairs');
  await add.click();
  await expect(needs.getByRole('row').nth(1)).toContainText('workstations');
  // The place it names is there now.
  const places = page.getByRole('region', { name: 'Places' });
  await expect(places.getByLabel('Name of Upstairs')).toHaveValue('Upstairs');

  await needs.getByRole('button', { name: 'Paste a table…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog
    .getByLabel('Rows')
    .fill(
      '12\tdesks\tOffices\twired\n70\tguests\tHall\twi-fi\nmany\tcameras\tHall\n3\tfrobnicators\tHall\twired',
    );
  await expect(dialog.getByText(/2 good, 1 repaired, 1 refused/)).toBeVisible();
  await expect(dialog.getByText('“many” is no number of things from 0 to 100,000')).toBeVisible();
  await expect(
    dialog.getByText('nobody can tell what “frobnicators” is, taken as an appliance'),
  ).toBeVisible();
  // A column that was guessed is left out.
  await choose(dialog.getByLabel('Column 3'), { label: '3: left out' });
  await expect(dialog.getByRole('row').nth(1)).toContainText('main place');
  await choose(dialog.getByLabel('Column 3'), { label: '3: place' });
  await expect(dialog.getByRole('row').nth(1)).toContainText('Offices');
  await dialog.getByRole('button', { name: 'Add 3 rows' }).click();
  await expect(needs.getByRole('row')).toHaveCount(5);
  await expect(needs.getByLabel('Connected of guests')).toHaveText('wireless');
  await fill(page, 'Number now of desks', '15');
  await needs.getByRole('button', { name: 'Remove frobnicators' }).click();
  await expect(needs.getByRole('row')).toHaveCount(4);
  await saved(page);
  await page.reload();
  await expect(needs.getByLabel('Number now of desks')).toHaveValue('15');
});

test('wishes that contradict each other, and more devices than addresses, are said before anything is planned', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '4-library');
  await open(page, site, 'brief');
  const wishes = page.getByRole('region', { name: 'Rules the customer gives' });
  await choose(wishes.getByLabel('From', { exact: true }), { label: 'cameras' });
  await choose(wishes.getByLabel('May', { exact: true }), { label: 'may' });
  await choose(wishes.getByLabel('Reach', { exact: true }), { label: 'the Internet' });
  await wishes.getByRole('button', { name: 'Add rule' }).click();
  await saved(page);
  await page.getByRole('radio', { name: 'proposal' }).click();
  const told = page.getByRole('alert').filter({ hasText: 'Two wishes contradict each other' });
  await expect(told).toContainText(
    '“Cameras may not reach the Internet” and “Cameras may reach the Internet”',
  );
  await told.getByRole('button', { name: 'Back to the brief' }).click();
  await wishes.getByRole('button', { name: 'Remove wish from cameras to internet' }).last().click();
  await fill(page, 'Number now of readers’ own devices', '90000');
  await saved(page);
  await page.getByRole('radio', { name: 'proposal' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'What would fit: a prefix of /13' })).toBeVisible();
});

test('the first plan is compared with what it could be, taken in part and whole, and taken back', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '4-library');
  await open(page, site, 'brief');
  await page.getByRole('button', { name: 'Go on to the proposal' }).click();
  const table = page.getByRole('table', { name: 'Alternatives' });
  await expect(table.getByRole('columnheader')).toHaveCount(5);
  await expect(table.getByRole('row', { name: /^Wishes kept/ })).toContainText('5 of 5');
  await expect(table.getByRole('row', { name: /^Single points of failure/ })).toContainText(
    /\d+ of \d+ tried/,
  );
  // In one network some wishes cannot be kept, and which is said.
  await table.getByRole('button', { name: 'One network' }).click();
  await expect(page.getByText('in one network nothing stands between them').first()).toBeVisible();
  await table.getByRole('button', { name: 'VLANs', exact: true }).click();

  const bill = page.getByRole('region', { name: 'Proposal', exact: true });
  await expect(bill.getByRole('region', { name: 'Segments and pools' })).toContainText('VLAN 40');
  for (const part of ['Who may talk', 'Guards', 'Questions to keep'])
    await bill.getByRole('checkbox', { name: part }).click();
  await bill.getByRole('button', { name: 'Take 7 parts' }).click();
  await saved(page);
  await page.getByRole('button', { name: 'Work it out again' }).click();
  // What was left is all that is left to take.
  await expect(bill.getByRole('region', { name: 'Segments and pools' })).toContainText('as it is');
  await expect(bill.getByRole('region', { name: 'Guards' })).toContainText(/\d+ new/);
  await bill.getByRole('button', { name: 'Take the whole proposal' }).click();
  await saved(page);
  await page.getByRole('button', { name: 'Work it out again' }).click();
  await expect(bill.getByText('The plan is what the brief asks for: nothing would differ.')).toBeVisible();
  await expect(bill.getByRole('button', { name: 'Take the whole proposal' })).toBeDisabled();

  await page.getByRole('link', { name: 'Segments' }).click();
  await expect(page.getByLabel('Name of Guests')).toBeVisible();
  const undo = page.getByRole('banner').getByRole('button', { name: 'undo' });
  await undo.click();
  await expect(page.getByTestId('last-change')).toHaveText('Undo: Proposal accepted: VLANs');
  await undo.click();
  await expect(page.getByText('No segments yet.')).toBeVisible();
});

test('what somebody set themselves stays when the brief grows and is proposed anew', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '4-library');
  await open(page, site, 'brief?part=proposal');
  const bill = page.getByRole('region', { name: 'Proposal', exact: true });
  await bill.getByRole('button', { name: 'Take the whole proposal' }).click();
  await saved(page);
  await page.getByRole('link', { name: 'Segments' }).click();
  await fill(page, 'Name of Guests', 'Readers');
  await saved(page);
  await page.getByRole('link', { name: 'Brief' }).click();
  await page.getByRole('radio', { name: 'brief', exact: true }).click();
  await fill(page, 'Number now of telephones', '9');
  await saved(page);
  await page.getByRole('radio', { name: 'proposal' }).click();
  const things = bill.getByRole('region', { name: 'What is connected' });
  await expect(things).toContainText('6 new');
  await things.getByRole('button', { name: /^Record by record/ }).click();
  await expect(things.getByText('+ device vo-phone-08')).toBeVisible();
  await bill.getByRole('button', { name: 'Take the whole proposal' }).click();
  await saved(page);
  await page.getByRole('link', { name: 'Segments' }).click();
  await expect(page.getByLabel('Name of Readers')).toHaveValue('Readers');
});
