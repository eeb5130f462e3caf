import { defineConfig } from '@playwright/test';

/** The address of the application under test comes from scripts/test.mjs, which starts it on a port of its own. */
export default defineConfig({
  testDir: 'e2e',
  timeout: 240_000,
  expect: { timeout: 45_000 },
  workers: 2,
  // A shared machine stands still for seconds at times. A test that needed its second try is named at the end.
  retries: 1,
  fullyParallel: true,
  forbidOnly: true,
  reporter: [['list'], ['json', { outputFile: process.env.PLAYWRIGHT_JSON ?? 'test-results/results.json' }]],
  use: {
    baseURL: process.env.DIANOME_URL,
    viewport: { width: 1280, height: 800 },
    // Recorded only where a test needs its second try: a trace costs each test a good part of its time.
    trace: 'on-first-retry',
    // A page kept by the browser would stand between a test and the server; the test of that allows it.
    serviceWorkers: 'block',
    launchOptions: {
      executablePath: '/usr/bin/chromium-headless-shell',
      args: ['--no-sandbox', '--disable-background-networking', '--disable-sync'],
    },
  },
});
