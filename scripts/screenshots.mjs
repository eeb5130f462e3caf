import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { spawn } from 'node:child_process';
import { freePort, pause, root } from './lib/paths.mjs';
import { entry } from './lib/say.mjs';
import { requireModules, requirePackages } from './lib/setup.mjs';

/** Makes docs/screenshots from the demo data, on a server and database of its own. */
const shots = [
  { name: 'sites-day', path: '/' },
  {
    name: 'segments-day',
    path: '/site/3creamery/segments',
    act: (page) => page.getByLabel('Name of Cameras').click(),
  },
  {
    name: 'segments-night',
    path: '/site/3creamery/segments',
    theme: 'night',
    act: (page) => page.getByLabel('Name of Exchange').click(),
  },
  { name: 'fit-day', path: '/site/3creamery/segments', act: (page) => page.keyboard.press('f') },
  {
    name: 'addresses-day',
    path: '/site/2clinic/addresses',
    act: (page) => page.getByRole('button', { name: '20 ST' }).click(),
  },
  {
    name: 'addresses-night',
    path: '/site/2clinic/addresses',
    theme: 'night',
    act: (page) => page.getByRole('button', { name: '50 CM' }).click(),
  },
  { name: 'findings-day', path: '/site/3creamery/findings' },
  { name: 'findings-night', path: '/site/3creamery/findings', theme: 'night' },
  { name: 'schedule-day', path: '/site/2clinic/schedule' },
  { name: 'segments-phone', path: '/site/1rowhouse/segments', width: 390, height: 844 },
];

entry(async () => {
  await requirePackages(['mariadb-server-core', 'mariadb-client-core', 'chromium']);
  await requireModules();
  const { chromium } = await import('@playwright/test');
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'dianome-shots-'));
  const port = await freePort();
  const env = { ...process.env, PORT: String(port), DIANOME_DATA_DIR: folder };
  delete env.DATABASE_URL;
  const server = spawn(process.execPath, ['scripts/start.mjs'], {
    cwd: root,
    env,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let said = '';
  server.stdout.on('data', (chunk) => (said += chunk));
  while (!said.includes('is ready')) {
    if (server.exitCode !== null) throw new Error(said);
    await pause(100);
  }
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-background-networking', '--disable-sync'],
  });
  try {
    for (const { name, path: at, theme = 'day', width = 1280, height = 800, act } of shots) {
      const context = await browser.newContext({
        viewport: { width, height },
        baseURL: `http://127.0.0.1:${port}`,
      });
      await context.addInitScript((value) => {
        localStorage.setItem('dianome.author', 'Ada');
        localStorage.setItem('dianome.theme', value);
      }, theme);
      const page = await context.newPage();
      await page.goto(at);
      await page.getByText(/Loading|Checking/).waitFor({ state: 'hidden' });
      await page.getByRole('heading').first().waitFor();
      await act?.(page);
      await page.evaluate(() => document.fonts.ready);
      await page.waitForLoadState('domcontentloaded');
      await pause(300);
      await page.screenshot({ path: path.join(root, 'docs/screenshots', `${name}.png`) });
      await context.close();
      console.log(`docs/screenshots/${name}.png`);
    }
  } finally {
    await browser.close();
    server.kill('SIGINT');
    while (server.exitCode === null && server.signalCode === null) await pause(100);
    fs.rmSync(folder, { recursive: true, force: true });
  }
});
