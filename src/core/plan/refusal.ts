import { type TableName, kinds } from './records';

export interface RecordRef {
  readonly table: TableName;
  readonly id: string;
}

export type RefusalCode =
  | 'bad-input' // a field's value makes no sense; `path` names the field
  | 'missing' // a record the input speaks of is not in the plan
  | 'changed' // the value the user saw is no longer the value in the plan
  | 'no-room' // nothing free is large enough
  | 'in-use'; // something hangs on it and was not named

/** Why an operation will not do what it was asked: plain words, and the records and field it is about. */
export class Refusal extends Error {
  constructor(
    readonly code: RefusalCode,
    message: string,
    readonly records: readonly RecordRef[] = [],
    readonly path: readonly (string | number)[] = [],
  ) {
    super(message);
    this.name = 'Refusal';
  }
}

export const missing = (table: TableName, id: string): Refusal =>
  new Refusal('missing', `This ${kinds[table].word} is no longer in the plan; somebody removed it.`, [
    { table, id },
  ]);

/** A refusal of one field of an input. */
export const badInput = (message: string, field: string): Refusal =>
  new Refusal('bad-input', message, [], [field]);
