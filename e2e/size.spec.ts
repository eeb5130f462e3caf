import { gzipSync } from 'node:zlib';
import type { Page, Response } from '@playwright/test';
import { demoSite, expect, test } from './site';

/** What a page may load before it stands still, in kB compressed: today's sizes with a little air, so that growth is seen. */
const MOST: Readonly<Record<string, number>> = {
  list: 242,
  brief: 474,
  segments: 530,
  addresses: 530,
  gear: 492,
  wireless: 483,
  guards: 462,
  internet: 487,
  policy: 504,
  rehearse: 542,
  commission: 508,
  handover: 436,
  findings: 442,
  history: 433,
};

/** Compressed kB of the scripts a page asks for until its network rests. */
async function scriptsOf(page: Page, path: string): Promise<number> {
  const scripts: Promise<number>[] = [];
  const count = (response: Response) => {
    if (response.request().resourceType() === 'script')
      scripts.push(response.body().then((body) => gzipSync(body).length));
  };
  page.on('response', count);
  await page.goto(path);
  await expect(page.getByRole('heading').first()).toBeVisible();
  await page.waitForLoadState('networkidle');
  // What is fetched ahead of need after that would outlive the page.
  page.off('response', count);
  return (await Promise.all(scripts)).reduce((sum, size) => sum + size, 0) / 1000;
}

for (const [station, most] of Object.entries(MOST))
  test(`${station} loads no more program than it did`, async ({ page, request }) => {
    const path = station === 'list' ? '/' : `/site/${await demoSite(request, '3-creamery')}/${station}`;
    expect(await scriptsOf(page, path)).toBeLessThanOrEqual(most);
  });
