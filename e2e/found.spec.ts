import type { Page } from '@playwright/test';
import { demoSite, expect, open, test } from './site';

const rows = (page: Page) => page.getByRole('table', { name: 'As found' }).getByRole('row');
async function paste(page: Page, text: string, box?: string): Promise<void> {
  const form = page.getByRole('form', { name: 'What the site shows' });
  if (box) {
    await form.getByRole('combobox', { name: 'Read at' }).click();
    await page.getByRole('option', { name: box, exact: true }).click();
  }
  await form.getByRole('textbox').fill(text);
  await form.getByRole('button', { name: 'Put it beside the plan' }).click();
}

test('what the site shows is understood, put beside the plan, and taken into it row by row', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'commission?list=found');
  await paste(
    page,
    [
      '10.20.30.77 dev lan0 lladdr 00:00:5e:00:53:f2 REACHABLE',
      '192.168.1.5 dev lan0 lladdr 00:00:5e:00:53:f8 STALE',
      '01:00:5e:00:00:01 dev lan0',
      'fe80::1 dev lan0 lladdr 00:00:5e:00:53:01 STALE',
    ].join('\n'),
  );
  const lists = page.getByRole('list', { name: 'Lists that were read' });
  await expect(lists).toContainText('Read as neighbours (ARP, NDP): 2 rows');
  await lists.getByText('1 passed over').click();
  await expect(lists).toContainText('Line 4: fe80::1 is of its own box or wire only.');
  await expect(rows(page)).toHaveCount(3);
  const stranger = rows(page).filter({ hasText: '10.20.30.77' });
  await expect(stranger).toContainText('unknown');

  // Into the plan: looked at before it is taken, and as planned from then on.
  await stranger.getByRole('button', { name: /^take it in…: Add / }).click();
  const review = page.getByRole('dialog');
  await expect(review).toContainText('00:00:5E:00:53:F2');
  await review.getByRole('button', { name: 'Take it into the plan' }).click();
  await expect(rows(page)).toHaveCount(2);
  await expect(page.getByText('1 as planned', { exact: true }).first()).toBeVisible();

  // As a defect: it stands in the logbook, and is not opened twice.
  const foreign = rows(page).filter({ hasText: '192.168.1.5' });
  await expect(foreign).toContainText('other network');
  await foreign.getByRole('button', { name: /^defect: / }).click();
  await expect(foreign).toContainText('a defect is open');
  await page.getByRole('radio', { name: 'logbook' }).click();
  await expect(page.getByRole('table', { name: 'Defects' })).toContainText(
    '00:00:5E:00:53:F8 has 192.168.1.5, of a network that nobody planned.',
  );
  await page.getByRole('radio', { name: 'as found' }).click();
  await expect(foreign).toContainText('a defect is open');
  await page.getByRole('button', { name: 'drop it: list 1' }).click();
  await expect(page.getByRole('table', { name: 'As found' })).toHaveCount(0);
});

test('a MAC table is read at a box, from a file too, and what is no list is refused with its text kept', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'commission?list=found');
  await paste(page, '[{"dst":"10.20.30.77","lladdr":"00:00:5e');
  await expect(page.getByRole('alert').filter({ hasText: 'copy all of it' })).toBeVisible();
  const text = page.getByRole('form', { name: 'What the site shows' }).getByRole('textbox');
  await expect(text).toHaveValue(/10\.20\.30\.77/);
  await page.getByLabel('Open a file').setInputFiles({
    name: 'table.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('VLAN,MAC,Port\n20,00:00:5e:00:53:f9,48\n'),
  });
  await expect(text).toHaveValue(/VLAN,MAC,Port/);
  const form = page.getByRole('form', { name: 'What the site shows' });
  await form.getByRole('combobox', { name: 'Read at' }).click();
  await page.getByRole('option', { name: 'sw-rack', exact: true }).click();
  await form.getByRole('button', { name: 'Put it beside the plan' }).click();
  await expect(page.getByRole('list', { name: 'Lists that were read' })).toContainText(
    'Read as a MAC table at sw-rack: 1 row',
  );
  await expect(rows(page).nth(1)).toContainText('sw-rack 48');
  await expect(rows(page).nth(1)).toContainText('unknown');
});
