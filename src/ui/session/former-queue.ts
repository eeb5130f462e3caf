import type { WireCall } from '@/core/plan';
import type { Left } from './kept-here';
import type { Conflict, KeptPending } from './pending';

interface Former {
  readonly seed: string;
  readonly kind: 'change' | 'undo' | 'redo';
  readonly call: WireCall;
  readonly label: string;
}

/**
 * What an earlier version of this program left unsaved in the window: its changes, and its undos as texts to decide about, since
 * they did not say which change they were of.
 */
export function formerQueue(site: string): Left {
  const key = `dianome.queue.${site}`;
  try {
    const found = JSON.parse(sessionStorage.getItem(key) ?? '[]') as Former[];
    sessionStorage.removeItem(key);
    const queue = found
      .filter(({ kind }) => kind === 'change')
      .map(({ seed, call, label }): KeptPending => ({ kind: 'change', seed, call, label, reviewed: false }));
    const conflicts = found
      .filter(({ kind }) => kind !== 'change')
      .map(({ seed, call, label }): Conflict => ({
        seed,
        call,
        label,
        why: 'The program was updated before this was saved.',
        between: [],
      }));
    return { queue, conflicts };
  } catch {
    return { queue: [], conflicts: [] };
  }
}
