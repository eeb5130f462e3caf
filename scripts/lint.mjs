import { spawn } from 'node:child_process';
import path from 'node:path';
import { root } from './lib/paths.mjs';
import { requireModules } from './lib/setup.mjs';

/** Types, lint with import direction, formatting. Every one runs, so that one run shows all there is to mend. */
await requireModules();
/** Tells all it said when it has ended, so that what runs beside it does not write in between. */
const tool = (name, ...args) =>
  new Promise((done) => {
    const child = spawn(path.join(root, 'node_modules/.bin', name), args, { cwd: root });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (said += text));
    child.on('error', (error) => (said += `${error.message}\n`));
    child.on('close', (code) => {
      process.stdout.write(said);
      done(code === 0);
    });
  });
const typesThenFormatting = async () => ({
  types: (await tool('next', 'typegen')) && (await tool('tsc', '--noEmit')),
  formatting: await tool('prettier', '--check', '--log-level', 'warn', '.'),
});
const [lint, others] = await Promise.all([tool('eslint', '.', '--max-warnings', '0'), typesThenFormatting()]);
const results = { ...others, lint };
for (const [what, good] of Object.entries(results)) console.log(`${what}: ${good ? 'good' : 'FAILED'}`);
process.exit(Object.values(results).every(Boolean) ? 0 : 1);
