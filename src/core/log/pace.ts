import type { Pace } from '../commission';
import { type Log, writtenAt } from './fold';

/** A longer pause than this is no work, in seconds. */
const PAUSE = 30 * 60;
/** So many are needed before the middle one says anything. */
const ENOUGH = 3;

/** How long entries took in the runs of a site, from one to the next; what was done with several ports at once counts once. */
export function paceOf({ runs }: Pick<Log, 'runs'>): Pace {
  const taken = new Map<Parameters<Pace['get']>[0], number[]>();
  for (const { begun, results } of runs) {
    let before = Date.parse(writtenAt(begun));
    for (const entry of results) {
      const at = Date.parse(writtenAt(entry));
      const seconds = (at - before) / 1000;
      before = at;
      const { body } = entry;
      if (seconds <= 0 || seconds > PAUSE || (body.kind === 'result' && body.outcome !== 'done')) continue;
      const kind = body.kind === 'sit' ? 'sit' : body.steps[0]!.setting.kind;
      taken.set(kind, [...(taken.get(kind) ?? []), seconds]);
    }
  }
  const middle = (all: readonly number[]) => all.toSorted((a, b) => a - b)[Math.floor(all.length / 2)]!;
  return new Map(
    [...taken].filter(([, all]) => all.length >= ENOUGH).map(([kind, all]) => [kind, middle(all)]),
  );
}
