import type { Device } from '../plan';
import { hostNames } from '../model/hosts';
import type { KeyedDraft } from './keyed';

/** Gives names that no device has, and to each the one it had. */
export class Names {
  private readonly taken: Set<string>;
  private readonly patterns = new Map<string, Generator<string, never>>();

  constructor(private readonly draft: KeyedDraft) {
    this.taken = new Set([...draft.plan.device.values()].map(({ name }) => name.toLowerCase()));
  }

  private isFree(name: string): boolean {
    return !this.taken.has(name.toLowerCase());
  }

  private keep(name: string): string {
    this.taken.add(name.toLowerCase());
    return name;
  }

  /** A name for the device of a key: the one it had, else the first of these that is free. */
  give(key: string, names: Iterator<string, unknown>): string {
    const had = this.draft.was('device', key);
    if (had && (this.isFree(had.name) || this.draft.plan.device.get(had.id))) return this.keep(had.name);
    for (;;) {
      const name = names.next().value as string;
      if (this.isFree(name)) return this.keep(name);
    }
  }

  /** The names of a kind in a segment go on where the last one was taken. */
  byPattern(code: string, kind: Device['kind']): Generator<string, never> {
    const key = `${code} ${kind}`;
    let names = this.patterns.get(key);
    if (!names) this.patterns.set(key, (names = hostNames(this.draft.plan, code, kind)));
    return names;
  }
}

export function* numbered(stem: string): Generator<string, never> {
  for (let n = 1; ; n++) yield `${stem}-${n}`;
}
