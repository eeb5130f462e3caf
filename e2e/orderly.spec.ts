import { demoSite, demoWithBoxes, expect, fill, findSite, open, saved, test, unfold } from './site';

/** Long lists and long columns stay readable: what is seldom needed, or the same again, stands behind a line. */

test('seldom needed fields of a box stand behind lines that tell what is in them, and stay open once opened', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'gear');
  await page.getByRole('button', { name: /^sw-a/ }).click();
  const box = page.getByRole('region', { name: 'Chosen box' });
  await expect(box.getByRole('button', { name: /^Power PoE 190 W/ })).toBeVisible();
  await expect(page.getByLabel('Serial number')).toHaveCount(0);
  await unfold(page, 'On the case');
  await fill(page, 'Serial number', 'A-0042');
  await saved(page);
  await page.getByRole('button', { name: /^sw-b/ }).click();
  await expect(page.getByLabel('Serial number')).toHaveValue('');
  await page.reload();
  await page.getByRole('button', { name: /^sw-a/ }).click();
  await expect(page.getByLabel('Serial number')).toHaveValue('A-0042');
  await box.getByRole('button', { name: /^On the case/ }).press('Enter');
  await expect(box.getByRole('button', { name: 'On the case A-0042' })).toBeVisible();
});

test('the same finding about many boxes is one line, opened by a click and by going to one of them', async ({
  page,
  request,
}) => {
  const site = await demoWithBoxes(request, '2-clinic', { supportedUntil: '2020-01-31' });
  await open(page, site, 'findings');
  const list = page.getByRole('region', { name: 'All findings' });
  const ended = list.getByRole('article', { name: /^Firmware support for (?!gw-1).* has ended$/ });
  await expect(ended).toHaveCount(1);
  const more = list.getByRole('button', { name: /^\d+ more like this$/ });
  const count = Number(/\d+/.exec((await more.textContent())!)![0]);
  expect(count).toBeGreaterThan(2);
  await more.click();
  await expect(ended).toHaveCount(count + 1);
  await more.click();
  await expect(ended).toHaveCount(1);
});

test('a long label of a change keeps to its line in the history', async ({ page, request }) => {
  await open(page, await demoSite(request, '1-row-house'));
  await fill(page, 'Name of Family', 'The segment where all of the house live');
  await saved(page);
  await page.getByRole('link', { name: 'History' }).click();
  const row = page.getByRole('row').filter({ hasText: 'all of the house' });
  expect((await row.boundingBox())!.height).toBeLessThan(40);
});

test('exercises stand below the sites', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'rehearse');
  await page.getByRole('tab', { name: 'Faults to find' }).click();
  await page.getByRole('button', { name: 'Set the exercise' }).click();
  await expect(page.getByRole('region', { name: 'Exercise', exact: true })).toBeVisible();
  await page.goto('/');
  const rows = page.getByRole('row');
  await findSite(page, 'clinic');
  await expect(rows.filter({ hasText: 'exercise, open' }).first()).toBeVisible();
  const texts = await rows.allTextContents();
  const head = texts.indexOf('Exercises');
  expect(texts.findIndex((text) => text.includes('exercise, open'))).toBeGreaterThan(head);
  expect(texts.slice(1, head).some((text) => /exercise, /.test(text))).toBe(false);
});

test('pointing at a port of a narrow page tells what it is and moves nothing', async ({ page, request }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const site = await demoSite(request, '3-creamery');
  await page.goto(`/site/${site}/gear`);
  const port = page.getByRole('option', { name: /^sw-a 5:/ });
  await port.scrollIntoViewIfNeeded();
  const before = await port.boundingBox();
  await port.hover();
  await expect(page.getByTestId('pointed')).toHaveText(/^sw-a 5: access 140/);
  expect(await port.boundingBox()).toEqual(before);
});
