import type { Station } from '../findings';
import { type Port, type Step, Draft, type Plan } from '../plan';

/** What can be put wrong in a network for somebody to find. */

/** 1: seen by looking at the place. 2: by asking the right question. 3: by putting two answers side by side. */
export const levels = [1, 2, 3] as const;
export type Level = (typeof levels)[number];
export const levelWords: Readonly<Record<Level, string>> = { 1: 'easy', 2: 'middling', 3: 'hard' };

/** How many faults an exercise may have. */
export const mostFaults = 3;

/** One place in a plan where a kind of fault can be put. */
export interface Spot {
  /** What was done, for the report: a whole sentence. */
  readonly told: string;
  /** The end devices nearest to it, by id: they are asked first what became of them. */
  readonly near: readonly string[];
  readonly edit: (draft: Draft) => void;
}

export interface FaultKind {
  readonly id: string;
  readonly level: Level;
  /** The station at which it is seen and mended. */
  readonly station: Station;
  /** What whoever complains knows to have happened before: "since …". */
  readonly since: string;
  readonly spots: (plan: Plan) => readonly Spot[];
  /** The same at a socket of a segment whether anything is plugged in or not; where nothing is, nobody notices it. */
  readonly spotsAt?: (plan: Plan, port: Port) => readonly Spot[];
}

/** The steps that put a fault into a plan. Records it makes get ids that begin with `seed`. */
export function stepsOf(plan: Plan, spot: Spot, seed: string): readonly Step[] {
  const draft = new Draft(plan, seed);
  spot.edit(draft);
  return draft.change('').steps;
}
