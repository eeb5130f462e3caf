import { runCommand } from '../src/cli/main';
import { today } from '../src/today';

const { code, out, error } = runCommand(process.argv.slice(2), today());
if (out !== '') process.stdout.write(`${out}\n`);
if (error !== '') process.stderr.write(`${error}\n`);
process.exitCode = code;
