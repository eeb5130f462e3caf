import { gzipSync } from 'node:zlib';
import { demoSite, expect, test } from './site';

/** What a page may load before it stands still, in kB compressed: today's sizes with a little air, so that growth is seen. */
const MOST: Readonly<Record<string, number>> = {
  list: 300,
  brief: 440,
  segments: 495,
  addresses: 505,
  gear: 465,
  internet: 460,
  policy: 475,
  rehearse: 520,
  handover: 410,
  findings: 415,
  history: 405,
};

test('no page loads more program than it did', async ({ browser, request, baseURL }) => {
  test.setTimeout(120_000);
  const site = await demoSite(request, '3-creamery');
  const sizes: Record<string, number> = {};
  for (const station of Object.keys(MOST)) {
    const context = await browser.newContext({ serviceWorkers: 'block', baseURL: baseURL! });
    await context.addInitScript(() => localStorage.setItem('dianome.author', 'Ada'));
    const page = await context.newPage();
    const scripts: Promise<number>[] = [];
    page.on('response', (response) => {
      if (response.request().resourceType() === 'script')
        scripts.push(response.body().then((body) => gzipSync(body).length));
    });
    await page.goto(station === 'list' ? '/' : `/site/${site}/${station}`);
    await expect(page.getByRole('heading').first()).toBeVisible();
    await page.waitForLoadState('networkidle');
    sizes[station] = (await Promise.all(scripts)).reduce((sum, size) => sum + size, 0) / 1000;
    await context.close();
  }
  const over = Object.entries(sizes).filter(([station, size]) => size > MOST[station]!);
  expect(over, JSON.stringify(sizes)).toEqual([]);
});
