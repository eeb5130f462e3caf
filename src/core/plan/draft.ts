import { type Change, type Step, applySteps, fittedLabel, netSteps } from './change';
import { type Plan, recordIn, withRecord } from './plan';
import type { AnyRecord, RecordOf, TableName } from './records';
import { missing } from './refusal';

/**
 * A plan being edited by an operation: looks like the plan with the edits made so far, and collects them as steps.
 * Ids of new records come from the seed of the change, so that running the operation again gives the same ids.
 */
export class Draft {
  private readonly steps: Step[] = [];
  private made = 0;

  constructor(
    private current: Plan,
    private readonly seed: string,
  ) {}

  get plan(): Plan {
    return this.current;
  }

  newId(): string {
    return `${this.seed}${(this.made++).toString(36)}`;
  }

  /** The record, or a refusal that it is gone. */
  need<T extends TableName>(table: T, id: string): RecordOf<T> {
    const record = recordIn(this.current, table, id) as RecordOf<T> | undefined;
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
    const before = (recordIn(this.current, table, id) as RecordOf<T> | undefined) ?? null;
    this.steps.push({ table, id, before, after } as Step);
    this.current = withRecord(this.current, table, id, after as AnyRecord | null);
  }

  /** Puts many records, each to what its step ends with; the steps fit the plan as it is. */
  putAll(steps: readonly Step[]): void {
    const applied = applySteps(this.current, steps);
    if (!applied.ok)
      throw new RangeError(`${applied.failed.table} ${applied.failed.id} is not as its step says`);
    for (const step of steps) this.steps.push(step);
    this.current = applied.plan;
  }

  change(label: string): Change {
    return { label: fittedLabel(label), steps: netSteps(this.steps) };
  }
}
