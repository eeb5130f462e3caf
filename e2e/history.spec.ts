import { atChange, demoSite, expect, fill, newSite, open, test } from './site';

test('undo and redo walk through all my changes; the history names who, when and what', async ({
  page,
  request,
}) => {
  await open(page, await demoSite(request, '1-row-house'));
  await fill(page, 'Name of Family', 'One');
  await fill(page, 'Name of One', 'Two');
  await fill(page, 'Name of Two', 'Three');
  await atChange(page, 3);
  await page.locator('h1').click();
  for (const name of ['Two', 'One', 'Family']) {
    await page.keyboard.press('u');
    await expect(page.getByLabel(`Name of ${name}`, { exact: true })).toBeVisible();
  }
  for (const name of ['One', 'Two']) {
    await page.keyboard.press('Shift+U');
    await expect(page.getByLabel(`Name of ${name}`, { exact: true })).toBeVisible();
  }
  await atChange(page, 8);
  await page.getByRole('link', { name: 'History' }).click();
  const first = page
    .getByRole('row')
    .filter({ has: page.getByRole('rowheader', { name: '1', exact: true }) });
  await expect(first).toContainText('Ada');
  await expect(first).toContainText('name Family → One');
});

test('goes back to an earlier change as a new one, and names a change', async ({ page, request }) => {
  await open(page, await newSite(request));
  for (const key of ['s', 'c', 'v']) {
    await page.keyboard.press('+');
    await page.keyboard.press(key);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog')).toBeHidden();
  }
  await atChange(page, 3);
  await page.getByRole('link', { name: 'History' }).click();
  await page.getByLabel('Name of change 2').fill('before voice');
  await page.getByLabel('Name of change 2').press('Enter');
  await page.getByRole('button', { name: 'Go back to change 1' }).click();
  await expect(page.getByRole('dialog')).toContainText('Cameras');
  await page.getByRole('button', { name: 'Go back', exact: true }).click();
  await atChange(page, 4);
  await page.reload();
  await expect(page.getByLabel('Name of change 2')).toHaveValue('before voice');
  await page.getByRole('link', { name: 'Segments' }).click();
  await expect(page.getByLabel(/^Name of /)).toHaveCount(1);
});

test('single keys can be switched off', async ({ page, request }) => {
  await open(page, await demoSite(request, '1-row-house'));
  await page.keyboard.press('?');
  await page.getByLabel('Single keys act as commands').uncheck();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.keyboard.press('+');
  await expect(page.getByRole('dialog')).toBeHidden();
});
