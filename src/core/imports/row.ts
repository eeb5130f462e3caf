import { perform } from '../edit';
import { type Plan, type Step, type WireCall, type Work, applySteps } from '../plan';
import type { Columns } from '../edit';

/** A row of a table that is brought in. */
export interface ReadRow {
  /** Line in its table, from 1. */
  readonly line: number;
  /** `there`: the plan says it already. */
  readonly verdict: 'good' | 'repaired' | 'refused' | 'there';
  /** What was repaired or is changed; of a refused row why. */
  readonly why: readonly string[];
  /** As it was understood, under the heads of its kind. */
  readonly cells: readonly string[];
}

export type Cells = readonly (readonly string[])[];

/** A kind of table that can be brought in. */
export interface TableKind {
  readonly id: string;
  readonly title: string;
  readonly columns: readonly { readonly id: string; readonly title: string }[];
  /** Of what is shown of each row. */
  readonly heads: readonly string[];
  readonly guess: (cells: Cells) => Columns<string>;
  /** Reads rows against the plan as the rows before them left it, and takes what is good. */
  readonly read: (
    taking: Taking,
    cells: Cells,
    columns: Columns<string>,
    ofProgram: boolean,
  ) => Work<ReadRow[]>;
}

/** A plan while rows are taken into it, each as the operation that somebody would use. */
export class Taking {
  readonly steps: Step[] = [];
  private made = 0;

  constructor(
    public plan: Plan,
    private readonly seed: string,
  ) {}

  /** Throws a Refusal, and leaves everything as it was. */
  take(...calls: readonly WireCall[]): void {
    let { plan } = this;
    const steps: Step[] = [];
    for (const call of calls) {
      const change = perform(plan, call, `${this.seed}${(this.made++).toString(36)}x`);
      const applied = applySteps(plan, change.steps);
      if (!applied.ok) throw new Error(`${call.operation} does not fit the plan it was made on`);
      ({ plan } = applied);
      steps.push(...change.steps);
    }
    this.plan = plan;
    this.steps.push(...steps);
  }
}

/** What becomes of a row, said while it is read. */
export class Reading {
  readonly repaired: string[] = [];
  readonly refused: string[] = [];
  changed: string[] = [];

  row(line: number, cells: readonly string[], there = false): ReadRow {
    const { repaired, refused, changed } = this;
    const verdict =
      refused.length > 0 ? 'refused' : repaired.length > 0 ? 'repaired' : there ? 'there' : 'good';
    return { line, verdict, why: refused.length > 0 ? refused : [...repaired, ...changed], cells };
  }
}
