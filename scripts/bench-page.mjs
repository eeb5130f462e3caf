import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { startApplication, stopApplication } from './lib/application.mjs';
import { root } from './lib/paths.mjs';
import { entry } from './lib/say.mjs';
import { requireModules, requirePackages } from './lib/setup.mjs';

/** Runs the benchmark of the page in Chromium, on an application with data of its own. */
entry(async () => {
  await requirePackages(['mariadb-server-core', 'mariadb-client-core', 'chromium-headless-shell']);
  await requireModules();
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'dianome-bench-page-'));
  const { url, child } = await startApplication(path.join(folder, 'app'));
  try {
    const tsx = path.join(root, 'node_modules/tsx/dist/cli.mjs');
    const { status } = spawnSync(process.execPath, [tsx, 'scripts/bench/page.ts'], {
      cwd: root,
      env: { ...process.env, DIANOME_URL: url },
      stdio: 'inherit',
    });
    process.exitCode = status ?? 1;
  } finally {
    await stopApplication(child);
    fs.rmSync(folder, { recursive: true, force: true });
  }
});
