import type { ExerciseView } from '@/core/exercises';
import type { Plan } from '@/core/plan';
import type { Conflict } from './pending';
import type { Findings } from './worker-client';

/**
 * Where what was typed is: `saved` on the server, `saving` on its way; `offline`: the server is not reached; `trouble`: it is
 * reached and cannot save; `deleted`: there is no such site any more. In the last three it is kept in this browser.
 */
export type SaveState = 'saved' | 'saving' | 'offline' | 'trouble' | 'deleted';

/** What was done last in this window. */
export interface Outcome {
  /** Counted from 1, so that the same thing done twice is told twice. */
  readonly number: number;
  /** The records it touched. */
  readonly touched: readonly string[];
  /** What takes it back; null where nothing changed. */
  readonly back: 'undo' | 'redo' | null;
}

export interface SiteState {
  readonly status: 'loading' | 'ready' | 'missing' | 'failed';
  readonly problem: string;
  readonly plan: Plan;
  readonly revision: number;
  readonly saving: SaveState;
  /** Why the server cannot save, in its own words. */
  readonly trouble: string;
  /** How many changes the server has not confirmed. */
  readonly unsaved: number;
  readonly findings: Findings;
  readonly findingsReady: boolean;
  /** Why there are no findings; empty while they are worked out. */
  readonly findingsFailed: string;
  /** What the last change did, in one line. */
  readonly lastChange: string;
  /** Null before anything was done here. */
  readonly outcome: Outcome | null;
  readonly conflicts: readonly Conflict[];
  /** The exercise this site is; null for a site that is none. */
  readonly exercise: ExerciseView | null;
}

/** While faults are being looked for, nothing tells where they are. */
export const isSolving = ({ exercise }: Pick<SiteState, 'exercise'>): boolean =>
  exercise !== null && exercise.endedAt === null;
