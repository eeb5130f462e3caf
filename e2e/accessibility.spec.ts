import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { demoSite, expect, test } from './site';

const axe = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

const STATIONS = [
  'segments',
  'addresses',
  'gear',
  'wireless',
  'wireless?show=air',
  'wireless?show=floor',
  'guards',
  'internet',
  'policy',
  'rehearse',
  'findings',
  'brief',
  'handover',
  'history',
];

async function violations(page: Page): Promise<string[]> {
  await page.evaluate(axe);
  return page.evaluate(async () => {
    const { violations: found } = await (
      window as never as {
        axe: {
          run: (options: object) => Promise<{
            violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[];
          }>;
        };
      }
    ).axe.run({
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
    });
    return found
      .filter(({ impact }) => impact === 'serious' || impact === 'critical')
      .map(
        ({ id, nodes }) =>
          `${id} ×${nodes.length}: ${nodes[0]!.html.slice(0, 160)} ${nodes[0]!.failureSummary.slice(0, 200)}`,
      );
  });
}

for (const theme of ['day', 'night'])
  test(`no serious accessibility violations by ${theme}`, async ({ page, request, context }) => {
    // More than twenty screens, each looked through whole.
    test.setTimeout(240_000);
    await context.addInitScript((value) => localStorage.setItem('dianome.theme', value), theme);
    const site = await demoSite(request, '3-creamery');
    const found: Record<string, string[]> = {};
    await page.goto('/');
    await expect(page.getByRole('link', { name: 'Saltmarsh Creamery' }).first()).toBeVisible();
    found.sites = await violations(page);
    for (const station of [...STATIONS, 'schedule', 'ports', 'rules']) {
      await page.goto(`/site/${site}/${station}`);
      await expect(page.getByRole('heading').first()).toBeVisible();
      if (station === 'segments') {
        await page.getByLabel('Name of Cameras').click();
        await expect(page.getByRole('heading', { name: '140 CM Cameras' })).toBeVisible();
      }
      if (station === 'rehearse') {
        await expect(page.getByText('2 of 12 not as expected')).toBeVisible();
        found['rehearse, Questions'] = await violations(page);
        for (const tab of ['DHCP', 'What if', 'Spanning trees']) {
          await page.getByRole('tab', { name: tab }).click();
          if (tab === 'What if') {
            await page.getByRole('button', { name: 'Run all of them' }).click();
            await expect(page.getByRole('table', { name: 'Single points of failure' })).toBeVisible();
          }
          if (tab === 'Spanning trees') {
            await page.getByRole('button', { name: 'sw-b 9', exact: true }).click();
            await page.getByRole('button', { name: 'sw-a', exact: true }).last().click();
          }
          found[`rehearse, ${tab}`] = await violations(page);
        }
      }
      if (station === 'addresses') {
        await page.getByRole('radio', { name: '140 CM' }).click();
        await expect(page.getByRole('article').first()).toBeVisible();
      }
      if (station === 'policy') {
        await page.getByRole('gridcell', { name: /^Office to Exchange/ }).click();
        await expect(page.getByRole('region', { name: 'Chosen cells' })).toBeVisible();
        const bar = page.getByRole('region', { name: 'Probe' });
        await bar.getByLabel('from').fill('printer-01');
        await bar.getByLabel('to', { exact: true }).fill('pasteuriser');
        await bar.getByRole('button', { name: 'Show the way' }).click();
      }
      if (station === 'internet') {
        await page.getByRole('button', { name: 'tcp 443' }).click();
        await page.getByLabel('Which device').fill('historian');
        await expect(page.getByRole('list', { name: 'Ways in' })).toBeVisible();
      }
      if (station === 'gear') {
        await page.getByRole('option', { name: /^sw-c 3:/ }).click();
        await expect(page.getByRole('heading', { name: 'sw-c 3' })).toBeVisible();
        for (const view of ['table', 'map']) {
          await page.getByRole('radio', { name: view, exact: true }).click();
          found[view] = await violations(page);
        }
        await page.getByRole('radio', { name: 'faces', exact: true }).click();
      }
      found[station] = await violations(page);
    }
    await page.goto(`/site/${site}/rehearse?view=exercise`);
    // The page takes the tab from its address.
    await expect(page.getByRole('button', { name: 'Set the exercise' })).toBeVisible();
    found.exercises = await violations(page);
    await page.getByRole('button', { name: 'Set the exercise' }).click();
    await page.getByRole('button', { name: /^A hint for 1 point/ }).click();
    found.exercise = await violations(page);
    await page.getByRole('button', { name: 'Hand in' }).click();
    await page.getByRole('button', { name: 'Hand it in' }).click();
    await expect(page.getByRole('region', { name: 'Report', exact: true })).toBeVisible();
    found.report = await violations(page);
    await page.goto(`/site/${site}/segments`);
    await page.getByRole('button', { name: /Add segment/ }).click();
    found.dialog = await violations(page);
    expect(Object.entries(found).filter(([, list]) => list.length > 0)).toEqual([]);
  });

test('on a phone: thumb tabs, cards, and nothing wider than the screen', async ({ page, request }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const site = await demoSite(request, '2-clinic');
  await page.goto(`/site/${site}/segments`);
  await expect(page.getByLabel('Name of Voice')).toBeVisible();
  for (const station of STATIONS) {
    await page.goto(`/site/${site}/${station}`);
    await expect(page.getByRole('toolbar', { name: 'Tabs' })).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth), station).toBeLessThanOrEqual(390);
  }
  for (const sheet of ['schedule', 'ports', 'rules']) {
    await page.goto(`/site/${site}/${sheet}`);
    await expect(page.getByRole('table').first()).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth), sheet).toBeLessThanOrEqual(390);
  }
  await page.goto(`/site/${site}/rehearse`);
  await page.getByRole('button', { name: 'Stations' }).click();
  await page.getByRole('link', { name: 'Segments' }).click();
  await expect(page).toHaveURL(/segments$/);
  await page.getByRole('button', { name: /^Findings \d+/ }).click();
  await expect(page.getByRole('article').first()).toBeVisible();
});

test('with forced colours what carries meaning keeps its colour, and what is chosen has a frame', async ({
  page,
  request,
}) => {
  await page.emulateMedia({ forcedColors: 'active' });
  const site = await demoSite(request, '2-clinic');
  await page.goto(`/site/${site}/addresses`);
  await page.getByRole('radio', { name: '20 ST' }).click();
  const background = (selector: string) =>
    page
      .locator(selector)
      .first()
      .evaluate((element) => getComputedStyle(element).backgroundColor);
  const pool = await background('[data-cell="10.20.20.120 pool"]');
  expect(pool).not.toBe(await background('[data-cell="10.20.20.200 free"]'));
  await page.goto(`/site/${site}/gear`);
  const parked = page.getByRole('option', { name: /parked/ }).first();
  await expect(parked).toBeVisible();
  const drawn = await parked.evaluate((port) =>
    [...port.querySelectorAll('span')].map((part) => getComputedStyle(part).backgroundImage).join(' '),
  );
  expect(drawn).toContain('gradient');
  const chosen = page.getByRole('radio', { name: 'faces' });
  expect(await chosen.evaluate((element) => getComputedStyle(element).outlineStyle)).toBe('solid');
  expect(await violations(page)).toEqual([]);
});

test('at 200 % zoom every station fits, and its details are a drawer', async ({ page, request }) => {
  // 1280 by 800 at 200 % is 640 by 400 of what the page counts in.
  await page.setViewportSize({ width: 640, height: 400 });
  const site = await demoSite(request, '3-creamery');
  for (const station of STATIONS) {
    await page.goto(`/site/${site}/${station}`);
    await expect(page.getByRole('toolbar', { name: 'Tabs' })).toBeVisible();
    await expect(page.getByRole('heading', { level: 2 }).first()).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth), station).toBeLessThanOrEqual(640);
  }
});
