import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { root } from './lib/paths.mjs';
import { requireModules } from './lib/setup.mjs';

/** Types, lint with import direction, formatting. Every one runs, so that one run shows all there is to mend. */
await requireModules();
const tool = (name, ...args) =>
  spawnSync(path.join(root, 'node_modules/.bin', name), args, { cwd: root, stdio: 'inherit' }).status === 0;
const results = {
  types: tool('next', 'typegen') && tool('tsc', '--noEmit'),
  lint: tool('eslint', '.', '--max-warnings', '0'),
  formatting: tool('prettier', '--check', '--log-level', 'warn', '.'),
};
for (const [what, good] of Object.entries(results)) console.log(`${what}: ${good ? 'good' : 'FAILED'}`);
process.exit(Object.values(results).every(Boolean) ? 0 : 1);
