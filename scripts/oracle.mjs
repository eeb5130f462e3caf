import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { root } from './lib/paths.mjs';
import { entry } from './lib/say.mjs';
import { KERNEL, requireModules, requirePackages } from './lib/setup.mjs';

/** Compares the rehearsal with the kernel on networks drawn at random: `npm run oracle -- 1000 1` for 1,000 from seed 1. */
entry(async () => {
  await requirePackages(KERNEL);
  await requireModules();
  const tsx = path.join(root, 'node_modules/tsx/dist/cli.mjs');
  const { status } = spawnSync(process.execPath, [tsx, 'scripts/oracle.ts', ...process.argv.slice(2)], {
    cwd: root,
    stdio: 'inherit',
  });
  process.exitCode = status ?? 1;
});
