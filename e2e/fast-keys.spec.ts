import type { Page } from '@playwright/test';
import { expect, newSite, open, saved, test } from './site';

/** Keys come as fast as the browser takes them, on a slow machine and without a look at the page between them. */

const slowly = async (page: Page) =>
  (await page.context().newCDPSession(page)).send('Emulation.setCPUThrottlingRate', { rate: 6 });
const ahead = (page: Page, keys: readonly string[]) =>
  Promise.all(keys.map((key) => page.keyboard.press(key)));

test('keys typed ahead are heard by what they are meant for', async ({ page, request }) => {
  const site = await newSite(request);
  await open(page, site);
  await slowly(page);
  const purposes = ['m', 's', 'g', 'i', 'm', 's', 'g', 'i'];
  await ahead(
    page,
    purposes.flatMap((purpose) => ['+', purpose, 'Enter']),
  );
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByRole('banner')).toContainText(`change ${purposes.length}`);
  await saved(page);
});

test('the find box keeps what is typed right after a sheet was closed', async ({ page, request }) => {
  const site = await newSite(request);
  await open(page, site);
  await slowly(page);
  for (const word of ['internet', 'rehearse', 'segments', 'policy', 'guards', 'wireless']) {
    await ahead(page, ['+', 'Escape', '/', ...word]);
    await expect(page.getByRole('combobox', { name: 'Find' })).toHaveValue(word);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('combobox', { name: 'Find' })).toHaveValue('');
  }
});
