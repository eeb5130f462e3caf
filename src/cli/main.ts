import { Refusal } from '../core/plan';
import type { Command, Given } from './command';
import { check } from './check';
import { compare } from './compare';
import { exported } from './export';
import { Misuse } from './files';
import { probe } from './probe';
import { proposal } from './propose';

/** The command line: the same core without a server, for scripts and for checks of plans that are kept as files. */

const commands: Readonly<Record<string, Command>> = {
  check,
  probe,
  export: exported,
  propose: proposal,
  compare,
};

export const usage = (): string =>
  [
    'npm run dianome -- COMMAND …   (--json for programs; exit code 0 as it should be, 1 something found, 2 misused)',
    ...Object.entries(commands).map(
      ([name, command]) => `\n  ${name} ${command.usage}\n      ${command.about}`,
    ),
  ].join('\n');

/** Words and switches apart: `--to folder` and `--to=folder`. */
function given(command: Command, args: readonly string[], today: string): Given {
  const words: string[] = [];
  const switches = new Map<string, string>();
  for (let at = 0; at < args.length; at++) {
    const arg = args[at]!;
    if (!arg.startsWith('--')) {
      words.push(arg);
      continue;
    }
    const [name = '', ...rest] = arg.slice(2).split('=');
    const takes = name === 'json' ? '' : command.takes[name];
    if (takes === undefined) throw new Misuse(`There is no --${name} here.`);
    const value = rest.length > 0 ? rest.join('=') : takes === '' ? '' : args[++at];
    if (value === undefined) throw new Misuse(`--${name} takes a ${takes}.`);
    switches.set(name, value);
  }
  return { words, switches, today };
}

export interface Outcome {
  readonly code: number;
  readonly out: string;
  readonly error: string;
}

/** Runs one command. Whatever is wrong with what it was given is said, and nothing is half done. */
export async function runCommand(args: readonly string[], today: string): Promise<Outcome> {
  const [name = '', ...rest] = args;
  const command = Object.hasOwn(commands, name) ? commands[name] : undefined;
  if (name === '' || name === 'help' || name === '--help') return { code: 0, out: usage(), error: '' };
  try {
    if (!command) throw new Misuse(`There is no command ${name}.`);
    const asked = given(command, rest, today);
    const { code, text, json } = await command.run(asked);
    return { code, out: asked.switches.has('json') ? JSON.stringify(json, null, 2) : text, error: '' };
  } catch (error) {
    if (!(error instanceof Misuse || error instanceof Refusal)) throw error;
    const how = command ? `npm run dianome -- ${name} ${command.usage}` : usage();
    return { code: 2, out: '', error: `${error.message}\n${how}` };
  }
}
