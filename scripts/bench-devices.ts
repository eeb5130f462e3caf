import { readFileSync } from 'node:fs';
import path from 'node:path';
import readline from 'node:readline';
import { SpokenBench } from '../src/core/commission';
import { readPlanFile } from '../src/core/formats';

/** Pretend boxes that take commands from a terminal, or from a file that is piped in. */
const file = process.argv[2] ?? path.join(import.meta.dirname, '../demo/1-row-house.json');
const bench = (() => {
  try {
    return new SpokenBench(readPlanFile(readFileSync(file, 'utf8')));
  } catch (error) {
    console.error(`${file} is no plan that can be read: ${(error as Error).message}`);
    process.exit(2);
  }
})();
const isTyped = process.stdin.isTTY;
const lines = readline.createInterface({ input: process.stdin, output: process.stdout, terminal: isTyped });
if (isTyped) console.log(`The boxes of ${path.basename(file)}, as they come.\n${bench.answer('help')}`);
lines.setPrompt('bench> ');
if (isTyped) lines.prompt();
lines.on('line', (line) => {
  if (line.trim() === 'quit') return lines.close();
  console.log(isTyped ? bench.answer(line) : `> ${line}\n${bench.answer(line)}`);
  if (isTyped) lines.prompt();
});
// Whoever scripts it sees whether the network was set up.
lines.on('close', () => (process.exitCode = isTyped || bench.isFinished() ? 0 : 1));
