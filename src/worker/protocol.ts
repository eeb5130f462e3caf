import type {
  BenchView,
  Diagnosis,
  Observed,
  OrderEdit,
  RunSheet,
  TestPlan,
  WireBenchAction,
  Worksheet,
} from '@/core/commission';
import type { NoProposal, Part, ProposalSheet, Weakness } from '@/core/brief';
import type { Finding } from '@/core/findings';
import type { AskedTable, Import } from '@/core/imports';
import type { Run } from '@/core/log';
import type { BandProposal, Wishes } from '@/core/model/wireless';
import type { Step, WireStep } from '@/core/plan';
import type { Fault, Ranked, Impact } from '@/core/rehearse';

/** A run with what was said of its steps, and what was moved in its order by hand. */
export interface RunAsked extends Pick<Run, 'id' | 'results'> {
  readonly edits: readonly OrderEdit[];
}

/** Long work on the plan as it is when asked for. */
export type Job =
  | { readonly kind: 'single-faults' }
  | { readonly kind: 'what-if'; readonly faults: readonly Fault[] }
  | { readonly kind: 'channels'; readonly wishes: Wishes }
  | { readonly kind: 'order'; readonly edits: readonly OrderEdit[] }
  | { readonly kind: 'run'; readonly run: RunAsked }
  /** Pretend boxes after what was done to them. */
  | { readonly kind: 'bench'; readonly actions: readonly WireBenchAction[] }
  /** The tests of the site when it is set up. */
  | { readonly kind: 'tests' }
  /** What would explain what came of them. */
  | { readonly kind: 'diagnosis'; readonly observed: readonly Observed[] }
  /** The whole first plan of the brief, and what it could be otherwise; with what was accepted of it earlier. */
  | { readonly kind: 'proposals'; readonly accepted: readonly WireStep[] }
  /** What would become of tables that are brought in; `seed` makes the ids of what is new. */
  | { readonly kind: 'import'; readonly tables: readonly AskedTable[]; readonly seed: string }
  /** What happens to each of them when a single box or cable fails. */
  | { readonly kind: 'weaknesses' }
  /** What would change where some parts of one of them are accepted. */
  | { readonly kind: 'acceptance'; readonly key: string; readonly parts: readonly Part[] };
export type JobResult =
  | { readonly kind: 'single-faults'; readonly ranked: readonly Ranked[] }
  | { readonly kind: 'what-if'; readonly impact: Impact }
  | { readonly kind: 'channels'; readonly proposals: readonly BandProposal[] }
  | { readonly kind: 'order'; readonly sheet: Worksheet }
  | ({ readonly kind: 'run' } & RunSheet)
  | { readonly kind: 'bench'; readonly view: BenchView }
  | { readonly kind: 'tests'; readonly tests: TestPlan }
  | { readonly kind: 'diagnosis'; readonly diagnosis: Diagnosis }
  | { readonly kind: 'proposals'; readonly sheets: readonly ProposalSheet[] | NoProposal }
  | { readonly kind: 'import'; readonly read: Import }
  | { readonly kind: 'weaknesses'; readonly byKey: ReadonlyMap<string, Weakness> }
  | { readonly kind: 'acceptance'; readonly steps: readonly WireStep[] };

/** The plan as it was at a change, as the server answered it. */
export interface FormerText {
  readonly revision: number;
  readonly text: string;
}

/** What is not checked, with why; and whether each subject is told as it is begun the first time. */
export interface Watching {
  readonly leftOut: ReadonlyMap<string, string>;
  readonly closely: boolean;
}

/**
 * What the page and its worker say to each other. The page hands over the very text its plan came from and
 * then every step it applies, numbered, so both hold the same plan without asking the server twice.
 */
export type ToWorker =
  | ({ readonly type: 'load'; readonly plan: string; readonly steps: readonly Step[] } & Watching)
  | { readonly type: 'advance'; readonly sequence: number; readonly steps: readonly Step[] }
  /** With the plans that boxes were set up by, where the job is about how they are now. */
  | {
      readonly type: 'run';
      readonly id: number;
      readonly job: Job;
      readonly formers: readonly FormerText[];
    }
  | { readonly type: 'cancel' };

export type FromWorker =
  | { readonly type: 'begun'; readonly subject: string }
  | { readonly type: 'all'; readonly findings: readonly Finding[] }
  | {
      readonly type: 'diff';
      readonly sequence: number;
      readonly removed: readonly string[];
      readonly added: readonly Finding[];
    }
  | { readonly type: 'progress'; readonly id: number; readonly done: number; readonly of: number }
  | { readonly type: 'result'; readonly id: number; readonly result: JobResult };
