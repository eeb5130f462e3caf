import { readFileSync } from 'node:fs';
import { readPlanFile } from '../core/formats';
import { type Plan, Refusal } from '../core/plan';

/** What a command is given: refused with what is wrong and how to write it. */
export class Misuse extends Error {}

/** A plan file. A dash is what is piped in. */
export function planIn(path: string | undefined, what = 'a plan file'): Plan {
  if (path === undefined) throw new Misuse(`Name ${what}.`);
  let text: string;
  try {
    text = readFileSync(path === '-' ? 0 : path, 'utf8');
  } catch (error) {
    throw new Misuse(`${path} cannot be read: ${(error as NodeJS.ErrnoException).code ?? String(error)}.`);
  }
  try {
    return readPlanFile(text);
  } catch (error) {
    if (error instanceof Refusal) throw new Misuse(`${path}: ${error.message}`);
    throw error;
  }
}
