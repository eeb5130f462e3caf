import type { Locator, Page } from '@playwright/test';
import { demoSite, expect, open, saved, test } from './site';

const order = (page: Page) =>
  page
    .getByRole('table')
    .first()
    .getByLabel(/^Name of /)
    .evaluateAll((fields) => fields.map((field) => (field as HTMLInputElement).value));
const middle = async (of: Locator) => {
  const { x, y, width, height } = (await of.boundingBox())!;
  return [x + width / 2, y + height / 2] as const;
};
async function drag(page: Page, from: Locator, to: Locator, end: () => Promise<void>) {
  const [x, y] = await middle(from);
  const [tx, ty] = await middle(to);
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x, y + 10, { steps: 3 });
  await page.mouse.move(tx, ty, { steps: 12 });
  await end();
}

test('segments are put in order by mouse and by keyboard; Esc puts a row back', async ({ page, request }) => {
  await open(page, await demoSite(request, '2-clinic'));
  const before = await order(page);
  const handle = (name: string) => page.getByRole('button', { name: `Move ${name}`, exact: true });
  await drag(page, handle(before[0]!), handle(before[2]!), () => page.keyboard.press('Escape'));
  await page.mouse.up();
  expect(await order(page)).toEqual(before);
  await drag(page, handle(before[0]!), handle(before[2]!), () => page.mouse.up());
  const dragged = [before[1]!, before[2]!, before[0]!, ...before.slice(3)];
  await expect.poll(() => order(page)).toEqual(dragged);
  await saved(page);
  await handle(before[0]!).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(`${before[0]} is at place 3 of ${before.length}.`)).toBeAttached();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText(`${before[0]} is at place 2 of ${before.length}.`)).toBeAttached();
  await page.keyboard.press('Space');
  await expect.poll(() => order(page)).toEqual([before[1]!, before[0]!, before[2]!, ...before.slice(3)]);
});

test('a drag over the strip, over pool edges and over ports is called off by Esc', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site);
  const revision = await saved(page);
  const segment = page.getByTestId('strip').getByRole('button').first();
  const [x, y] = await middle(segment);
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 160, y, { steps: 6 });
  await expect(page.getByRole('status').filter({ hasText: '→' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect(page.getByRole('status').filter({ hasText: '→' })).toBeHidden();

  await open(page, site, 'addresses');
  await page.getByRole('radio', { name: '20 ST' }).click();
  const edge = page
    .getByTestId('cells')
    .getByRole('button', { name: /^Pool start/ })
    .first();
  const name = (await edge.getAttribute('aria-label'))!;
  const [ex, ey] = await middle(edge);
  await page.mouse.move(ex, ey);
  await page.mouse.down();
  await page.mouse.move(ex + 60, ey, { steps: 4 });
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect(page.getByRole('button', { name, exact: true })).toBeVisible();
  expect(await saved(page)).toBe(revision);
});

test('what was done is told beside undo, and what changed is marked for a moment', async ({
  page,
  request,
}) => {
  // A mark is gone again before a busy machine looks: the page writes down what it marks.
  await page.addInitScript(() => {
    const animate = Element.prototype.animate;
    Element.prototype.animate = function (...args) {
      this.setAttribute('data-marked', '');
      return animate.apply(this, args);
    };
  });
  await open(page, await demoSite(request, '2-clinic'));
  await expect(page.getByTestId('segment-40')).toBeVisible();
  await expect(page.locator('[data-marked]')).toHaveCount(0);
  const field = page.getByLabel('Name of Voice', { exact: true });
  await field.fill('Everybody');
  await field.press('Enter');
  const told = page.getByRole('region', { name: /^Told/ });
  // What is pointed at stays.
  await told.getByText(/Everybody/).hover();
  await expect(page.locator('[data-testid="segment-40"][data-marked]')).toBeVisible();
  await expect(page.locator('[data-testid="segment-10"][data-marked]')).toHaveCount(0);
  await told.getByRole('button', { name: 'undo' }).click();
  await expect(page.getByLabel('Name of Voice', { exact: true })).toBeVisible();
  await told.getByRole('button', { name: 'redo' }).click();
  await expect(page.getByLabel('Name of Everybody', { exact: true })).toBeVisible();
  await told.getByRole('button', { name: 'dismiss' }).click();
  await expect(told.getByText(/Everybody/)).toBeHidden();
});
