import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { startApplication, stopApplication } from './lib/application.mjs';
import { pause, root } from './lib/paths.mjs';
import { entry } from './lib/say.mjs';
import { requireModules, requirePackages } from './lib/setup.mjs';

/** Sheets of documents beside each other, as another program draws them. */
async function sheets(page, documents, folder) {
  const drawn = [];
  for (const [at, ...numbers] of documents) {
    const file = path.join(folder, `document${drawn.length}.pdf`);
    fs.writeFileSync(file, await (await page.request.get(at, { timeout: 120_000 })).body());
    for (const number of numbers) {
      const out = `${file}-${number}`;
      spawnSync(
        'pdftoppm',
        ['-r', '96', '-f', number, '-l', number, '-singlefile', '-png', file, out].map(String),
      );
      drawn.push(fs.readFileSync(`${out}.png`).toString('base64'));
    }
  }
  const images = drawn.map((png) => `<img src="data:image/png;base64,${png}">`).join('');
  await page.setContent(
    `<style>body{margin:0;height:100vh;background:#8b958f;display:flex;gap:12px;padding:12px;box-sizing:border-box;justify-content:center;align-items:center}
    img{min-width:0;max-height:100%;object-fit:contain;flex:0 1 auto}</style>${images}`,
  );
}

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
  {
    name: 'book-day',
    path: '/',
    act: (page, folder) => sheets(page, [['/api/sites/3creamery/book', 1, 4, 9]], folder),
  },
  {
    name: 'labels-day',
    path: '/',
    act: (page, folder) =>
      sheets(
        page,
        [
          ['/api/sites/2clinic/labels?what=ports&grid=a4-24&base=http://192.0.2.10:4380', 1],
          ['/api/sites/2clinic/labels?what=cables&grid=a4-24&base=http://192.0.2.10:4380', 1],
        ],
        folder,
      ),
  },
  {
    name: 'compare-day',
    path: '/site/2clinic/segments',
    act: async (page) => {
      const renamed = { Cameras: 'Cameras and doors', Servers: 'Machine room', Voice: 'Telephones' };
      for (const [at, [old, now]] of Object.entries(renamed).entries()) {
        const name = page.getByLabel(`Name of ${old}`, { exact: true });
        await name.fill(now);
        await name.press('Enter');
        await page
          .getByRole('status')
          .filter({ hasText: `change ${at + 1} saved` })
          .waitFor();
      }
      await page.goto('/site/2clinic/history');
      await page.getByRole('link', { name: 'Compare change 0 with now' }).click();
      await page.getByRole('region', { name: 'Segment', exact: true }).waitFor();
    },
  },
  { name: 'logbook-day', path: '/site/2clinic/commission?list=log' },
];

entry(async () => {
  await requirePackages([
    'mariadb-server-core',
    'mariadb-client-core',
    'chromium-headless-shell',
    'poppler-utils',
  ]);
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
      await act?.(page, folder);
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
