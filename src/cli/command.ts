/** A command of the command line: what it is given and what it says. */

export interface Given {
  /** What stands after the name of the command, without switches. */
  readonly words: readonly string[];
  /** `--json` and the like; with a value where it takes one. */
  readonly switches: ReadonlyMap<string, string>;
  /** The day it is, as 2026-12-31. */
  readonly today: string;
}

export interface Said {
  /** 0: as it should be. 1: something was found. Whoever misuses it gets 2. */
  readonly code: 0 | 1;
  /** For people. */
  readonly text: string;
  /** For programs. */
  readonly json: unknown;
}

export interface Command {
  /** How it is written, after its name. */
  readonly usage: string;
  readonly about: string;
  /** Its switches, and what each takes; empty for nothing. */
  readonly takes: Readonly<Record<string, string>>;
  readonly run: (given: Given) => Said | Promise<Said>;
}
