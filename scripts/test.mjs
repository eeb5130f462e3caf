import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { startApplication, stopApplication } from './lib/application.mjs';
import { startDatabase, stopDatabase } from './lib/mariadb.mjs';
import { readOr, requireNode, root } from './lib/paths.mjs';
import { Stop, entry } from './lib/say.mjs';
import { KERNEL, READERS, requireBuild, requireModules, requirePackages } from './lib/setup.mjs';

/** Everything: lint, unit, database and browser tests, each on data and ports of its own. The last line is the total. */
const total = { passed: 0, failed: 0 };
const count = (passed, failed) => {
  total.passed += passed;
  total.failed += failed;
};
const step = (title) => console.log(`\n== ${title}`);
const node = (args, env = {}) =>
  spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });

function jest(project, folder, env) {
  step(`${project} tests`);
  const report = path.join(folder, `${project}.json`);
  const args = [
    'node_modules/jest/bin/jest.js',
    '--selectProjects',
    project,
    '--json',
    '--outputFile',
    report,
  ];
  const { status } = node(args, env);
  const result = JSON.parse(readOr(report, '{"numPassedTests":0,"numFailedTests":1}'));
  const broken = result.numRuntimeErrorTestSuites ?? 0;
  count(result.numPassedTests, Math.max(result.numFailedTests + broken, status === 0 ? 0 : 1));
}

async function browserTests(folder) {
  step('browser tests');
  const report = path.join(folder, 'browser.json');
  const { url, child } = await startApplication(path.join(folder, 'app'));
  try {
    const env = { DIANOME_URL: url, PLAYWRIGHT_JSON: report };
    const { status } = node(
      [
        'node_modules/@playwright/test/cli.js',
        'test',
        '--output',
        path.join(folder, 'browser'),
        ...process.argv.slice(2),
      ],
      env,
    );
    const { stats } = JSON.parse(readOr(report, '{"stats":{"expected":0,"unexpected":1,"flaky":0}}'));
    count(stats.expected + stats.flaky, Math.max(stats.unexpected, status === 0 ? 0 : 1));
    if (stats.flaky > 0)
      console.log(`\n${stats.flaky} passed only at the second try; the list above names them`);
  } finally {
    await stopApplication(child);
  }
}

entry(async () => {
  requireNode();
  await requirePackages([
    'mariadb-server-core',
    'mariadb-client-core',
    'mariadb-client',
    'chromium-headless-shell',
    ...KERNEL,
    ...READERS,
  ]);
  await requireModules();
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'dianome-test-'));
  try {
    step('lint');
    const lint = node(['scripts/lint.mjs']).status === 0;
    count(lint ? 1 : 0, lint ? 0 : 1);
    jest('unit', folder, {});
    const data = path.join(folder, 'db');
    const { url } = await startDatabase(data);
    jest('db', folder, { TEST_DATABASE_URL: url });
    await stopDatabase(data);
    await requireBuild();
    await browserTests(folder);
  } catch (error) {
    console.error(error instanceof Stop ? error.message : error);
    count(0, 1);
  } finally {
    fs.rmSync(folder, { recursive: true, force: true });
  }
  console.log(`\n${total.passed} passed, ${total.failed} failed`);
  process.exit(total.failed === 0 && total.passed > 0 ? 0 : 1);
});
