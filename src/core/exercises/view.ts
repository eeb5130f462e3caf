import { type Plan, badInput } from '../plan';
import { type PlantedFault, fallout, soundPlan } from './draw';
import { complaintOf, costOf, hintCosts, hintsOf, pointsOfFault, stands } from './hints';
import type { Level } from './kind';
import type { ExerciseReport } from './report';
import { Readings } from './trials';

/** An exercise as it is kept, and what of it whoever solves it may see. */

export interface Kept {
  /** The site it was made of: it may be gone, or be another by now. */
  readonly original: { readonly id: string; readonly name: string; readonly revision: number };
  readonly seed: number;
  readonly level: Level;
  readonly learner: string;
  readonly faults: readonly PlantedFault[];
  /** How many hints were taken of each fault. */
  readonly hints: readonly number[];
  readonly startedAt: string;
  readonly endedAt: string | null;
  readonly report: ExerciseReport | null;
}

export interface ExerciseView extends Omit<Kept, 'faults' | 'hints'> {
  readonly complaints: readonly {
    readonly text: string;
    /** Is there still reason to complain? */
    readonly stands: boolean;
    readonly hints: readonly string[];
    /** What the next hint costs; null when there is none left. */
    readonly nextCost: number | null;
  }[];
  /** What can still be earned. */
  readonly points: number;
  readonly of: number;
}

/** What is shown of an exercise that is handed in: all there is to say stands in its report. */
export function endedView(
  { faults: _faults, hints: _hints, ...shown }: Kept,
  report: ExerciseReport,
): ExerciseView {
  const complaints = report.faults.map(({ complaint, mended }) => ({
    text: complaint,
    stands: mended === 'no',
    hints: [],
    nextCost: null,
  }));
  return { ...shown, complaints, points: report.points, of: report.of };
}

/** What is shown of an exercise: never what was done, except by the hints that were taken. `start`: the plan it began with. */
export function exerciseView(kept: Kept, start: Plan, now: Plan, today: string): ExerciseView {
  const { faults, hints, ...shown } = kept;
  const sound = new Readings(soundPlan(start, faults), today);
  const present = new Readings(now, today);
  const complaints = faults.map((fault, at) => {
    const alone = fallout(sound, fault, today)!;
    const complaint = complaintOf(fault, alone, kept.level);
    const taken = hints[at] ?? 0;
    return {
      text: complaint.text,
      stands: stands(sound, present, complaint),
      hints: hintsOf(fault, alone).slice(0, taken),
      nextCost: hintCosts[taken] ?? null,
    };
  });
  const of = pointsOfFault * faults.length;
  return { ...shown, complaints, points: of - hints.reduce((sum, taken) => sum + costOf(taken), 0), of };
}

/** The hints taken once one more of a fault is. Throws a Refusal when there is none left, or no such fault. */
export function withHint(
  { faults, hints }: Pick<Kept, 'faults' | 'hints'>,
  fault: number,
): readonly number[] {
  if (fault >= faults.length)
    throw badInput(
      `There is no complaint ${fault + 1} in this exercise; it has ${faults.length}. Name one of those.`,
      'fault',
    );
  const taken = hints[fault] ?? 0;
  if (taken >= hintCosts.length)
    throw badInput(
      `All hints of complaint ${fault + 1} are taken: the last one says what was done.`,
      'fault',
    );
  return faults.map((_, at) => (hints[at] ?? 0) + (at === fault ? 1 : 0));
}
