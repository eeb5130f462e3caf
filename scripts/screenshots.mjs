import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { startApplication, stopApplication } from './lib/application.mjs';
import { pause, root } from './lib/paths.mjs';
import { entry } from './lib/say.mjs';
import { requireModules, requirePackages } from './lib/setup.mjs';

/** Sets an exercise with two faults and takes two hints. */
async function exercise(page) {
  await page.getByRole('tab', { name: 'Faults to find' }).click();
  await page.getByRole('radio', { name: 'middling' }).click();
  await page.getByRole('radio', { name: '2 faults' }).click();
  await page.getByLabel('Number').fill('32');
  await page.getByRole('button', { name: 'Set the exercise' }).click();
  for (const cost of ['1 point', '2 points'])
    await page.getByRole('button', { name: new RegExp(`^A hint for ${cost} on complaint 1`) }).click();
  await page.getByRole('button', { name: /^A hint for 3 points on complaint 1/ }).waitFor();
}

/** What the gateway of the clinic may show: a stranger, somebody at the address of another, and somebody in another network. */
const neighbours = [
  '10.20.20.10 dev lan0 lladdr 00:00:5e:00:53:f1 REACHABLE',
  '10.20.20.15 dev lan0 lladdr 00:00:5e:00:53:0e REACHABLE',
  '10.20.30.77 dev lan0 lladdr 00:00:5e:00:53:f2 STALE',
  '10.20.40.1 dev lan0 lladdr 02:00:5e:10:00:01 REACHABLE',
  '10.20.80.44 dev lan0 lladdr 00:00:5e:00:53:10 STALE',
  '192.168.1.5 dev lan0 lladdr 00:00:5e:00:53:f8 STALE',
  'fe80::1 dev lan0 lladdr 00:00:5e:00:53:f8 STALE',
].join('\n');

/** Makes docs/screenshots from the demo data, on a server and database of its own. */
const shots = [
  { name: 'sites-day', path: '/' },
  {
    name: 'proposal-day',
    path: '/site/4library/brief?part=proposal',
    act: (page) =>
      page
        .getByText(/\d+ of \d+ tried/)
        .first()
        .waitFor(),
  },
  {
    name: 'segments-day',
    path: '/site/3creamery/segments',
    act: (page) => page.getByLabel('Name of Cameras').click(),
  },
  {
    name: 'addresses-day',
    path: '/site/2clinic/addresses',
    act: (page) => page.getByRole('radio', { name: '20 ST' }).click(),
  },
  {
    name: 'gear-day',
    path: '/site/3creamery/gear',
    act: async (page) => {
      await page.getByRole('option', { name: /^sw-a 5:/ }).click();
      await page.keyboard.press('Shift+ArrowRight');
    },
  },
  {
    name: 'gear-map-day',
    path: '/site/3creamery/gear',
    act: async (page) => {
      await page.getByRole('radio', { name: 'map', exact: true }).click();
      await page.getByTitle('Pasteuriser cell').click();
    },
  },
  {
    name: 'floor-day',
    path: '/site/3creamery/wireless?show=floor',
    act: (page) => page.getByRole('button', { name: /^ap-03, / }).click(),
  },
  {
    name: 'guards-day',
    path: '/site/3creamery/guards',
    act: (page) => page.getByRole('button', { name: 'sw-e', exact: true }).click(),
  },
  {
    name: 'order-day',
    path: '/site/3creamery/commission',
    act: (page) =>
      page
        .getByText(/^parachute: /)
        .nth(1)
        .scrollIntoViewIfNeeded(),
  },
  {
    name: 'internet-day',
    path: '/site/3creamery/internet',
    act: (page) => page.getByRole('region', { name: 'Uplink mobile' }).getByRole('button').first().click(),
  },
  {
    name: 'policy-day',
    path: '/site/3creamery/policy',
    act: (page) => page.getByRole('gridcell', { name: /^Cold store to Pasteuriser/ }).click(),
  },
  {
    name: 'probe-day',
    path: '/site/3creamery/policy',
    act: async (page) => {
      const bar = page.getByRole('region', { name: 'Probe' });
      await bar.getByLabel('from').fill('printer-01');
      await bar.getByLabel('to', { exact: true }).fill('pasteuriser');
      await bar.getByLabel('for').fill('OPC UA');
      await bar.getByRole('button', { name: 'Show the way' }).click();
    },
  },
  {
    name: 'tree-reasons-night',
    path: '/site/3creamery/rehearse',
    theme: 'night',
    act: async (page) => {
      await page.getByRole('tab', { name: 'Spanning trees' }).click();
      await page.getByRole('button', { name: 'sw-b 9', exact: true }).click();
      await page
        .getByRole('region', { name: 'Ports of this tree' })
        .evaluate((element) => element.scrollIntoView());
    },
  },
  { name: 'exercise-day', path: '/site/3creamery/rehearse', act: exercise },
  { name: 'findings-day', path: '/site/3creamery/findings' },
  {
    name: 'run-phone',
    path: '/site/1rowhouse/commission',
    width: 390,
    height: 844,
    act: async (page) => {
      await page.getByRole('button', { name: 'Start a run' }).click();
      await page.getByLabel('Name').fill('cellar on Monday');
      await page.getByRole('button', { name: 'Start', exact: true }).click();
      await page.getByRole('button', { name: 'I sit there' }).click();
      for (const count of [2, 3, 4, 5]) {
        await page.getByRole('button', { name: 'Done and seen' }).click();
        await page
          .getByRole('list', { name: 'Entries, newest first' })
          .getByRole('listitem')
          .nth(count - 1)
          .waitFor();
      }
    },
  },
  {
    name: 'tests-day',
    path: '/site/2clinic/commission?list=tests',
    act: async (page) => {
      await page
        .getByRole('button', { name: /^Differs: Plug in a laptop/ })
        .nth(2)
        .click();
      await page.getByRole('combobox', { name: 'Where do you land?' }).click();
      await page.getByRole('option', { name: 'no address comes' }).click();
      await page.getByLabel('What comes of it?').fill('no offer within a minute');
      await page.getByRole('button', { name: 'It differs' }).click();
      await page.getByRole('list', { name: 'The next test' }).waitFor();
      await page.getByRole('button', { name: 'What would explain it' }).click();
    },
  },
  { name: 'logbook-day', path: '/site/2clinic/commission?list=log' },
  {
    name: 'found-day',
    path: '/site/2clinic/commission?list=found',
    act: async (page) => {
      await page.getByRole('form', { name: 'What the site shows' }).getByRole('textbox').fill(neighbours);
      await page.getByRole('button', { name: 'Put it beside the plan' }).click();
      await page.getByRole('table', { name: 'As found' }).waitFor();
    },
  },
];

entry(async () => {
  await requirePackages(['mariadb-server-core', 'mariadb-client-core', 'chromium-headless-shell']);
  await requireModules();
  const { chromium } = await import('@playwright/test');
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'dianome-shots-'));
  const { url, child } = await startApplication(folder);
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-background-networking', '--disable-sync'],
  });
  // Only those that are named, or all.
  const named = process.argv.slice(2);
  try {
    for (const { name, path: at, theme = 'day', width = 1280, height = 800, act } of shots.filter(
      ({ name: one }) => named.length === 0 || named.includes(one),
    )) {
      const context = await browser.newContext({
        viewport: { width, height },
        baseURL: url,
      });
      await context.addInitScript((value) => {
        localStorage.setItem('dianome.author', 'Ada');
        localStorage.setItem('dianome.theme', value);
      }, theme);
      const page = await context.newPage();
      // What is reckoned may take a while on a busy machine.
      page.setDefaultTimeout(180_000);
      await page.goto(at);
      const settled = () =>
        page.waitForFunction(
          () => !/Loading|Checking|Drawing the map|\bcounting/.test(document.body.innerText),
        );
      await settled();
      await page.getByRole('heading').first().waitFor();
      await act?.(page);
      await settled();
      await page.evaluate(() => document.fonts.ready);
      await page.waitForLoadState('domcontentloaded');
      await pause(300);
      await page.screenshot({ path: path.join(root, 'docs/screenshots', `${name}.png`) });
      await context.close();
      console.log(`docs/screenshots/${name}.png`);
    }
  } finally {
    await browser.close();
    await stopApplication(child);
    fs.rmSync(folder, { recursive: true, force: true });
  }
});
