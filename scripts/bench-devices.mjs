import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { root } from './lib/paths.mjs';
import { entry } from './lib/say.mjs';
import { requireModules } from './lib/setup.mjs';

/** Pretend boxes of a plan on the command line: `npm run bench-devices -- plan.json`. */
entry(async () => {
  await requireModules();
  const tsx = path.join(root, 'node_modules/tsx/dist/cli.mjs');
  const { status } = spawnSync(
    process.execPath,
    [tsx, path.join(root, 'scripts/bench-devices.ts'), ...process.argv.slice(2)],
    { stdio: 'inherit' },
  );
  process.exitCode = status ?? 1;
});
