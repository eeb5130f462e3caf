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
  'commission',
  'commission?list=log',
  'commission?list=found',
  'findings',
  'brief',
  'handover',
  'history',
];

/** What an element of the page says that breaks a rule; by night only what depends on colour is asked again. */
async function violations(page: Page, byNight = true): Promise<string[]> {
  // Panes have said how wide they are.
  await expect(page.locator('[role=separator]:not([aria-valuenow])')).toHaveCount(0);
  await page.evaluate(axe);
  return page.evaluate(async (alsoByNight) => {
    interface Violation {
      readonly id: string;
      readonly impact: string;
      readonly nodes: readonly { readonly html: string; readonly failureSummary: string }[];
    }
    const { run } = (
      window as never as { axe: { run: (options: object) => Promise<{ violations: Violation[] }> } }
    ).axe;
    const { dataset } = document.documentElement;
    const given = dataset.theme;
    const found: string[] = [];
    const look = async (theme: string, options: object) => {
      dataset.theme = theme;
      // A colour on its way from one theme to the other is none of either.
      const changing = document.getAnimations().filter((one) => one instanceof CSSTransition);
      await Promise.all(changing.map(({ finished }) => finished.catch(() => undefined)));
      for (const { id, impact, nodes } of (await run(options)).violations)
        if (impact === 'serious' || impact === 'critical')
          found.push(
            `${id} by ${theme} ×${nodes.length}: ${nodes[0]!.html.slice(0, 160)} ${nodes[0]!.failureSummary.slice(0, 200)}`,
          );
    };
    await look('day', { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] });
    if (alsoByNight)
      await look('night', { runOnly: { type: 'rule', values: ['color-contrast', 'link-in-text-block'] } });
    dataset.theme = given;
    return found;
  }, byNight);
}

/** What is brought on the screen of a station before it is looked through; what it looks through itself on the way it tells. */
type Look = (page: Page, found: (where: string) => Promise<void>) => Promise<void>;
const LOOKS: Readonly<Record<string, Look>> = {
  segments: async (page, found) => {
    await page.getByLabel('Name of Cameras').click();
    await expect(page.getByRole('heading', { name: '140 CM Cameras' })).toBeVisible();
    await found('a segment');
    await page.getByRole('button', { name: /Add segment/ }).click();
  },
  brief: async (page, found) => {
    const needs = page.getByRole('region', { name: 'What has to be connected' });
    await needs.getByLabel('Number', { exact: true }).fill('12');
    await needs.getByLabel('Place', { exact: true }).fill('Annex');
    await needs.getByRole('button', { name: 'Add', exact: true }).click();
    await needs.getByRole('button', { name: 'More about workstations' }).click();
    await found('a need');
    await needs.getByRole('button', { name: 'Paste a table…' }).click();
    await page.getByRole('dialog').getByLabel('Rows').fill('4\tcameras\tYard');
    await found('a pasted table');
    await page.keyboard.press('Escape');
    await page.getByRole('radio', { name: 'habits' }).click();
    await found('habits');
    await page.getByRole('radio', { name: 'proposal' }).click();
    await expect(page.getByRole('table', { name: 'Alternatives' })).toBeVisible();
  },
  rehearse: async (page, found) => {
    await expect(page.getByText('2 of 12 not as expected')).toBeVisible();
    await found('Questions');
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
      await found(tab);
    }
  },
  // The page takes the tab from its address.
  'rehearse?view=exercise': async (page, found) => {
    await expect(page.getByRole('button', { name: 'Set the exercise' })).toBeVisible();
    await found('exercises');
    await page.getByRole('button', { name: 'Set the exercise' }).click();
    await page.getByRole('button', { name: /^A hint for 1 point/ }).click();
    await found('an exercise');
    await page.getByRole('button', { name: 'Hand in' }).click();
    await page.getByRole('button', { name: 'Hand it in' }).click();
    await expect(page.getByRole('region', { name: 'Report', exact: true })).toBeVisible();
  },
  addresses: async (page) => {
    await page.getByRole('radio', { name: '140 CM' }).click();
    await expect(page.getByRole('article').first()).toBeVisible();
  },
  guards: async (page, found) => {
    await found('what ports say');
    await page.getByRole('radio', { name: 'who is let in' }).click();
    await expect(page.getByRole('region', { name: 'Ways in' })).toBeVisible();
    await found('who is let in');
    await page.getByRole('radio', { name: 'telephones' }).click();
    await expect(page.getByRole('list', { name: 'How it starts' })).toBeVisible();
    await found('telephones');
    await page.getByRole('radio', { name: 'hardening' }).click();
    await expect(page.getByRole('region', { name: /^Hardening of/ })).toBeVisible();
  },
  policy: async (page) => {
    await page.getByRole('gridcell', { name: /^Office to Exchange/ }).click();
    await expect(page.getByRole('region', { name: 'Chosen cells' })).toBeVisible();
    const bar = page.getByRole('region', { name: 'Probe' });
    await bar.getByLabel('from').fill('printer-01');
    await bar.getByLabel('to', { exact: true }).fill('pasteuriser');
    await bar.getByRole('button', { name: 'Show the way' }).click();
  },
  internet: async (page) => {
    await page.getByRole('button', { name: 'tcp 443' }).click();
    await page.getByLabel('Which device').fill('historian');
    await expect(page.getByRole('list', { name: 'Ways in' })).toBeVisible();
  },
  commission: async (page, found) => {
    await expect(page.getByRole('list', { name: 'The order' })).toBeVisible();
    await found('order');
    for (const view of ['settings', 'kit', 'boxes now', 'practice', 'tests']) {
      await page.getByRole('radio', { name: view, exact: true }).click();
      if (view === 'practice') await expect(page.getByRole('list', { name: 'Pretend boxes' })).toBeVisible();
      if (view === 'tests') await expect(page.getByRole('list', { name: 'The tests' })).toBeVisible();
      await found(view);
    }
  },
  'commission?list=found': async (page) => {
    const form = page.getByRole('form', { name: 'What the site shows' });
    await form
      .getByRole('textbox')
      .fill(
        '10.44.20.250 dev lan0 lladdr 00:00:5e:00:53:f2 STALE\n192.168.1.5 dev lan0 lladdr 00:00:5e:00:53:f3 STALE',
      );
    await form.getByRole('button', { name: 'Put it beside the plan' }).click();
    await expect(page.getByRole('table', { name: 'As found' }).getByRole('row')).toHaveCount(3);
  },
  'commission?list=log': async (page, found) => {
    await page.getByRole('button', { name: 'Sign as customer' }).click();
    await page.getByRole('button', { name: 'Write something down' }).click();
    await found('logbook');
    await page.getByRole('button', { name: 'Start a run' }).click();
    await page.getByRole('button', { name: 'Start', exact: true }).click();
    await page.getByRole('button', { name: 'I sit there' }).click();
    await page.getByRole('button', { name: 'It differs' }).click();
  },
  gear: async (page, found) => {
    await page.getByRole('option', { name: /^sw-c 3:/ }).click();
    await expect(page.getByRole('heading', { name: 'sw-c 3' })).toBeVisible();
    for (const view of ['table', 'map', 'faces']) {
      await page.getByRole('radio', { name: view, exact: true }).click();
      if (view !== 'faces') await found(view);
    }
  },
};
const SHEETS = ['schedule', 'ports', 'rules', 'settings', 'book', 'compare?with=2clinic'];

for (const station of ['', ...STATIONS, 'rehearse?view=exercise', ...SHEETS])
  test(`no serious accessibility violations by day or night: ${station || 'list of sites'}`, async ({
    page,
    request,
  }) => {
    const site = await demoSite(request, '3-creamery');
    const all: Record<string, string[]> = {};
    const found = async (where: string) => {
      all[where] = await violations(page);
    };
    await page.goto(station === '' ? '/' : `/site/${site}/${station}`);
    await expect(page.getByRole('heading').first()).toBeVisible();
    if (station === '')
      await expect(page.getByRole('link', { name: 'Saltmarsh Creamery' }).first()).toBeVisible();
    await LOOKS[station]?.(page, found);
    await found('at last');
    expect(Object.entries(all).filter(([, list]) => list.length > 0)).toEqual([]);
  });

for (const station of [...STATIONS, ...SHEETS])
  test(`on a phone and at 200 % zoom nothing is wider than the screen: ${station}`, async ({
    page,
    request,
  }) => {
    await page.setViewportSize({ width: 390, height: 844 });
    const site = await demoSite(request, '3-creamery');
    await page.goto(`/site/${site}/${station}`);
    await expect(
      SHEETS.includes(station)
        ? page.getByRole('table').or(page.getByRole('region')).first()
        : page.getByRole('toolbar', { name: 'Tabs' }),
    ).toBeVisible();
    const width = () => page.evaluate(() => document.documentElement.scrollWidth);
    expect(await width()).toBeLessThanOrEqual(390);
    if (SHEETS.includes(station)) return;
    // 1280 by 800 at 200 % is 640 by 400 of what the page counts in; the details of a station are a drawer.
    await page.setViewportSize({ width: 640, height: 400 });
    await expect(page.getByRole('toolbar', { name: 'Tabs' })).toBeVisible();
    await expect(page.getByRole('heading', { level: 2 }).first()).toBeVisible();
    expect(await width()).toBeLessThanOrEqual(640);
  });

test('on a phone: thumb tabs and cards', async ({ page, request }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const site = await demoSite(request, '2-clinic');
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
  // Colours that are forced are those of neither theme.
  expect(await violations(page, false)).toEqual([]);
});
