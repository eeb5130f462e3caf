import { atChange, demoSite, expect, fill, newSite, open, openWithStaff, saved, test, choose } from './site';

/** Where somebody new stumbles: each of these once cost somebody their work or their way. */

test('ports typed wrongly are not the ports chosen before, and # begins anew', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'gear');
  await page.keyboard.press('#');
  const line = page.getByLabel('choose by number');
  await line.fill('sw-rack 41-43');
  const chosen = page.locator('[role=option][aria-selected=true]');
  await expect(chosen).toHaveCount(3);
  await line.fill('sw-rack 41-43,x');
  await expect(page.locator('#choose-ports-echo')).toContainText('“x” in “41-43,x” is not a port or a range');
  await expect(chosen).toHaveCount(0);
  await line.press('Enter');
  await expect(line).toBeFocused();
  await line.fill('sw-rack 41');
  await line.press('Enter');
  await expect(line).not.toBeFocused();
  await page.keyboard.press('#');
  await page.keyboard.type('sw-rack 42');
  await expect(line).toHaveValue('sw-rack 42');
});

test('with Ctrl, ports of a second box are chosen beside those of the first', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'gear');
  await page.getByRole('option', { name: /^sw-rack 41:/ }).click();
  await page.getByRole('option', { name: /^sw-surgery 8:/ }).click({ modifiers: ['Control'] });
  await expect(page.locator('[role=option][aria-selected=true]')).toHaveCount(2);
  await page.getByRole('option', { name: /^sw-rack 41:/ }).click({ modifiers: ['Control'] });
  await expect(page.locator('[role=option][aria-selected=true]')).toHaveCount(1);
});

test('a pool stays in its subnet, whichever way it is typed', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'addresses');
  const pools = page.getByRole('region', { name: 'Pools' }).first();
  const count = pools.getByLabel('Pool count').first();
  const before = await count.inputValue();
  await count.fill('500');
  await count.press('Enter');
  await expect(pools.getByRole('alert')).toContainText(
    /lies outside 192\.168\.\d+\.0\/24; end at .*\.255 at the latest/,
  );
  await expect(count).toHaveValue('500');
  await count.press('Escape');
  await expect(count).toHaveValue(before);
  const form = pools.getByRole('form', { name: 'New range' });
  await form.getByLabel('Start').fill('10.9.9.5');
  await form.getByLabel('or count').fill('10');
  await form.getByRole('button', { name: 'Add pool' }).click();
  await expect(form.getByRole('alert')).toContainText('10.9.9.5 lies outside 192.168.');
  await expect(form.getByLabel('Start')).toHaveValue('10.9.9.5');
  expect(await saved(page)).toBe(0);
});

test('the probe takes addresses and zones, and offers what is nearly right', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'segments');
  const probe = page.getByRole('region', { name: 'Probe' });
  await probe.getByLabel('from').fill('192.168.20.77');
  await probe.getByLabel('to').fill('internet');
  await probe.getByLabel('for').fill('HTTPS');
  await expect(probe).toContainText('Delivered: the Internet is reached');
  await probe.getByLabel('to').fill('gw');
  await expect(probe.getByRole('alert')).toContainText('Nearest here: gw-1');
});

test('of a plan without devices nothing is said to survive', async ({ page, request }) => {
  const site = await newSite(request);
  await open(page, site, 'rehearse');
  await page.getByRole('tab', { name: 'What if' }).click();
  const whatIf = page.getByRole('region', { name: 'What if' });
  await choose(whatIf.getByLabel('what if I'), 'taken');
  await whatIf.getByLabel('box or device').fill('gw-1');
  await whatIf.getByRole('button', { name: 'Try it' }).click();
  await expect(whatIf.getByRole('status')).not.toContainText('Nothing changes for anybody');
});

test('a cell of the matrix shows the forwards that lead in', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'policy');
  const cell = page.getByRole('gridcell', { name: /^Internet to .*forwards? leads? in: / }).first();
  await expect(cell).toContainText('→');
  await cell.click();
  await expect(page.getByRole('list', { name: 'Forwards' })).toContainText('Let in by a forward:');
});

test('after adding, giving up and taking back the keys are commands again', async ({ page, request }) => {
  await openWithStaff(page, request);
  await expect(page.locator('#station')).toBeFocused();
  const name = page.getByLabel('Name of Staff');
  await name.fill('Crew');
  await name.press('Escape');
  await expect(name).toHaveValue('Staff');
  await expect(page.locator('#station')).toBeFocused();
  await page.keyboard.press('Control+z');
  await atChange(page, 2);
  await expect(page.getByTestId('segment-10')).toHaveCount(0);
  await page.keyboard.press('Control+Shift+z');
  await atChange(page, 3);
  await expect(page.getByTestId('segment-10')).toBeVisible();
  await page.keyboard.press('4');
  await expect(page).toHaveURL(/gear$/);
  await page.keyboard.press('2');
  await expect(page).toHaveURL(/\/segments/);
  // In a field Ctrl Z is the field's own, and a digit is text.
  await page.getByLabel('Name of Staff').fill('Crew 4');
  await page.keyboard.press('Control+z');
  await expect(page).toHaveURL(/\/segments/);
  expect(await saved(page)).toBe(3);
});

test('keyboard users can skip to the station', async ({ page, request }) => {
  const site = await newSite(request);
  await open(page, site);
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'Skip to the station' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.locator('#station')).toBeFocused();
});

test.describe('somebody new', () => {
  test.use({ author: '' });
  test('who puts the first question off is asked again, and a name can be changed', async ({
    page,
    request,
  }) => {
    const site = await newSite(request);
    await page.goto(`/site/${site}/segments`);
    const question = page.getByRole('dialog', { name: 'Who are you?' });
    await expect(question).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(question).toHaveCount(0);
    await page.getByRole('button', { name: /No name in the history/ }).click();
    await question.getByLabel('Your name').fill('Bo');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('button', { name: /You are Bo/ })).toBeVisible();
    await page.keyboard.press('+');
    await page.keyboard.press('s');
    await page.getByRole('button', { name: /Add it/ }).click();
    await atChange(page, 1);
    await page.getByRole('link', { name: 'History' }).click();
    await expect(page.getByRole('cell', { name: 'Bo', exact: true })).toBeVisible();
    await expect(page.getByRole('columnheader', { name: /^When \(.+\)/ })).toBeVisible();
  });
});

test('on a phone a tapped port is edited under a tab that says so', async ({ page, request }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const site = await demoSite(request, '1-row-house');
  await page.goto(`/site/${site}/gear`);
  await page.getByRole('option', { name: /^gw-1 3:/ }).click();
  await page.getByRole('button', { name: '1 port', exact: true }).click();
  await fill(page.getByRole('region', { name: 'details' }), 'Label', 'to the attic');
  await page.getByRole('button', { name: '1 port', exact: true }).click();
  await expect(page.getByRole('option', { name: /^gw-1 3:/ })).toBeVisible();
});

for (const [where, width, height] of [
  ['on a phone', 390, 844],
  ['at 200 % zoom', 640, 400],
] as const)
  test(`the list of sites prints nothing over itself ${where}`, async ({ page, request }) => {
    await newSite(request, { name: 'A long-named works of the northern harbour and its yard' });
    await page.setViewportSize({ width, height });
    await page.goto('/');
    const row = page.getByRole('row', { name: /northern harbour/ }).first();
    await expect(row).toBeVisible();
    const overlaps = await page.getByRole('table').evaluate((table) => {
      const rows = [...table.querySelectorAll('tbody tr')].slice(0, 4);
      const boxes = rows
        .flatMap((element) => [...element.querySelectorAll('a, button, td')])
        .filter((item) => item.children.length === 0 || item.matches('a, button'))
        .map((item) => item.getBoundingClientRect())
        .filter(({ width: wide }) => wide > 0);
      return boxes.flatMap((a, i) =>
        boxes
          .slice(i + 1)
          .filter(
            (b) =>
              a.left < b.right - 1 && b.left < a.right - 1 && a.top < b.bottom - 1 && b.top < a.bottom - 1,
          ),
      ).length;
    });
    expect(overlaps).toBe(0);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
  });
