import { runCommand } from '../src/cli/main';
import { today } from '../src/today';

void runCommand(process.argv.slice(2), today()).then(({ code, out, error }) => {
  if (out !== '') process.stdout.write(`${out}\n`);
  if (error !== '') process.stderr.write(`${error}\n`);
  process.exitCode = code;
});
