import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { startDatabase, stopDatabase } from './lib/mariadb.mjs';
import { root } from './lib/paths.mjs';
import { entry } from './lib/say.mjs';
import { requireModules, requirePackages } from './lib/setup.mjs';

/** Runs the benchmark on a database of its own. */
entry(async () => {
  await requirePackages(['mariadb-server-core', 'mariadb-client-core']);
  await requireModules();
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'dianome-bench-'));
  try {
    const { url } = await startDatabase(folder);
    const tsx = path.join(root, 'node_modules/tsx/dist/cli.mjs');
    const env = { ...process.env, DATABASE_URL: url };
    for (const script of [
      'main.ts',
      'findings.ts',
      'many.ts',
      'rehearse.ts',
      'air.ts',
      'guards.ts',
      'commission.ts',
      'brief.ts',
      'book.ts',
      'extreme.ts',
      'load.ts',
    ]) {
      const { status } = spawnSync(process.execPath, [tsx, `scripts/bench/${script}`], {
        cwd: root,
        env,
        stdio: 'inherit',
      });
      process.exitCode ||= status ?? 1;
    }
  } finally {
    await stopDatabase(folder);
    fs.rmSync(folder, { recursive: true, force: true });
  }
});
