import { choose, demoSite, expect, open, test, unfold } from './site';

test('labels are chosen, begin where the sheet is still whole, and are a PDF', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'handover');
  await unfold(page, 'Labels to stick');
  await expect(page.getByText('101 labels on 5 sheets')).toBeVisible();
  await choose(page.getByLabel('Labels for'), { label: 'cables' });
  await choose(page.getByLabel('Sheet of labels'), { label: 'A4, around cables, 25 × 38 mm' });
  await expect(page.getByText('106 labels on 3 sheets')).toBeVisible();
  const gone = page.getByLabel('Labels gone from the first sheet');
  await gone.fill('60');
  await gone.press('Enter');
  await expect(
    page.getByRole('alert').filter({ hasText: '“60” is not a number of labels; a sheet has 49' }),
  ).toBeVisible();
  await gone.fill('45');
  await gone.press('Enter');
  await expect(page.getByText('106 labels on 4 sheets')).toBeVisible();
  const base = page.getByLabel('Where the codes lead to');
  await base.fill('the office');
  await base.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'is no address of this program' })).toBeVisible();
  await base.fill('http://192.0.2.10:4380/');
  await base.press('Enter');
  await choose(page.getByLabel('Labels of'), { label: 'sw-kennels' });
  const link = page.getByRole('link', { name: 'Download labels' });
  const [file] = await Promise.all([page.waitForEvent('download'), link.click()]);
  expect(file.suggestedFilename()).toBe('harrow-lane-animal-clinic-labels-cables.pdf');
  const answer = await request.get((await link.getAttribute('href'))!);
  expect(answer.headers()['content-type']).toBe('application/pdf');
  expect((await answer.body()).subarray(0, 5).toString()).toBe('%PDF-');
  const wrong = await request.get(
    `/api/sites/${site}/labels?what=ports&grid=a4-24&skip=24&base=http://192.0.2.10`,
  );
  const sheet = await request.get(`/api/sites/${site}/labels?what=ports&grid=a9&base=http://192.0.2.10`);
  expect((await sheet.json()).detail).toContain('“a9” is not known; there are a4-24, a4-65');
  expect(wrong.status()).toBe(422);
  expect((await wrong.json()).detail).toContain('A sheet has 24 labels, and 24 are said to be gone');
});
