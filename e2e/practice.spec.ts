import type { Page } from '@playwright/test';
import { choose, demoSite, expect, fill, open, test } from './site';

/** Pretend boxes: a whole site is set up on them, and whoever deserves it is cut off. */

const told = (page: Page) => page.getByRole('main').locator('[role=status][aria-busy]');
const settled = (page: Page) => expect(told(page)).toHaveAttribute('aria-busy', 'false');
const boxes = (page: Page) => page.getByRole('list', { name: 'Pretend boxes' });

test('a whole house is set up on pretend boxes by following the order', async ({ page, request }) => {
  test.slow();
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'commission?list=practice');
  const next = page.getByRole('button', { name: /^Next by the order: / });
  await expect(boxes(page).getByRole('button')).toHaveCount(5);
  await expect(next).toHaveText('Next by the order: Sit down at sw-cellar 9');
  const done = page.getByText('Nothing is left to set.');
  let last = '';
  for (let pressed = 0; pressed < 120; pressed++) {
    await expect(next.or(done)).toBeVisible();
    if (await done.isVisible()) break;
    await settled(page);
    const says = (await next.textContent())!;
    await next.click();
    // The same words may come twice, of another box; what was done is told by what is left.
    if (says !== last)
      await expect(next.filter({ hasText: says }).and(page.locator(':enabled'))).toHaveCount(0);
    last = says;
    await settled(page);
  }
  await expect(done).toBeVisible();
  // One socket stays open, as this house plans none that it is managed from.
  await expect(boxes(page).getByRole('button', { name: /as planned$/ })).toHaveCount(4);
  await expect(boxes(page)).not.toContainText('not saved');
  await expect(boxes(page)).not.toContainText('apart');
});

test('who sets a box in the wrong order is cut off, and gets in again by its plug', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'commission?list=practice');
  await boxes(page)
    .getByRole('button', { name: /^sw-cellar/ })
    .click();
  const box = page.getByRole('region', { name: 'sw-cellar', exact: true });
  await expect(box).toContainText('The laptop is plugged in nowhere.');
  await expect(box.getByRole('button', { name: /^Set: Make VLAN/ })).toBeDisabled();
  await choose(page.getByLabel('Socket of the laptop'), { label: 'sw-cellar 9' });
  await fill(page, 'Address of the laptop', '10.9.9');
  await expect(page.getByRole('alert').filter({ hasText: '“10.9.9”' })).toContainText(
    'is no address with a mask',
  );
  await page.keyboard.press('Escape');
  await box.getByRole('button', { name: /^Set: Make VLAN/ }).click();
  await expect(boxes(page).getByRole('button', { name: /^sw-cellar/ })).toContainText('not saved');
  await box.getByRole('button', { name: /^Set: Management address/ }).click();
  await expect(told(page)).toContainText('You cut yourself off: sw-cellar no longer answer');
  await expect(box).toContainText('No answer');
  await box.getByRole('button', { name: 'Pull its plug: sw-cellar' }).click();
  await expect(box.getByRole('button', { name: /^Set: Make VLAN/ })).toBeEnabled();
  await expect(boxes(page)).not.toContainText('not saved');
  // What is there is kept while somebody looks elsewhere, and begins anew when it is asked for.
  await page.getByRole('radio', { name: 'kit', exact: true }).click();
  await page.getByRole('radio', { name: 'practice', exact: true }).click();
  await expect(page.getByLabel('Socket of the laptop')).toContainText('sw-cellar 9');
  await page.getByRole('button', { name: 'Begin anew' }).click();
  await expect(page.getByLabel('Socket of the laptop')).toContainText('nowhere');
});
