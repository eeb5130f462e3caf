import { type Change, type Step, applySteps, fittedLabel, netSteps } from './change';
import { type Plan, recordIn, withRecords } from './plan';
import type { AnyRecord, RecordOf, TableName } from './records';
import { missing } from './refusal';

/**
 * A plan being edited by an operation: looks like the plan with the edits made so far, and collects them as steps.
 * Ids of new records come from the seed of the change, so that running the operation again gives the same ids.
 */
export class Draft {
  private readonly steps: Step[] = [];
  /** What was put since somebody looked at the plan. It is put in at once: record by record copies more. */
  private readonly pending = new Map<TableName, Map<string, AnyRecord | null>>();
  private made = 0;

  constructor(
    private current: Plan,
    private readonly seed: string,
  ) {}

  get plan(): Plan {
    if (this.pending.size > 0) {
      this.current = withRecords(this.current, this.pending);
      this.pending.clear();
    }
    return this.current;
  }

  private get<T extends TableName>(table: T, id: string): RecordOf<T> | null {
    const pending = this.pending.get(table)?.get(id);
    return (
      pending === undefined ? (recordIn(this.current, table, id) ?? null) : pending
    ) as RecordOf<T> | null;
  }

  newId(): string {
    return `${this.seed}${(this.made++).toString(36)}`;
  }

  /** The record, or a refusal that it is gone. */
  need<T extends TableName>(table: T, id: string): RecordOf<T> {
    const record = this.get(table, id);
    if (!record) throw missing(table, id);
    return record;
  }

  insert<T extends TableName>(table: T, record: Omit<RecordOf<T>, 'id'>): RecordOf<T> {
    const whole = { id: this.newId(), ...record } as unknown as RecordOf<T>;
    this.put(table, whole.id, whole);
    return whole;
  }

  update<T extends TableName>(table: T, id: string, fields: Partial<RecordOf<T>>): RecordOf<T> {
    const record = { ...this.need(table, id), ...fields };
    this.put(table, id, record);
    return record;
  }

  remove(table: TableName, id: string): void {
    this.need(table, id);
    this.put(table, id, null);
  }

  put<T extends TableName>(table: T, id: string, after: RecordOf<T> | null): void {
    this.steps.push({ table, id, before: this.get(table, id), after } as Step);
    let records = this.pending.get(table);
    if (!records) this.pending.set(table, (records = new Map()));
    records.set(id, after as AnyRecord | null);
  }

  /** Puts many records, each to what its step ends with; the steps fit the plan as it is. */
  putAll(steps: readonly Step[]): void {
    const applied = applySteps(this.plan, steps);
    if (!applied.ok)
      throw new RangeError(`${applied.failed.table} ${applied.failed.id} is not as its step says`);
    for (const step of steps) this.steps.push(step);
    this.current = applied.plan;
  }

  change(label: string): Change {
    return { label: fittedLabel(label), steps: netSteps(this.steps) };
  }
}
