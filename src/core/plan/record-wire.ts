import type * as z from 'zod';
import { type WrongInput, decoded, encoded } from './plain-issue';
import { type AnyRecord, type TableName, kinds } from './records';
import { Refusal } from './refusal';
import { fieldName } from './words';

/** One record and its JSON, each way through the schema of its kind, which checks every field. */

type AnySchema = z.ZodType<AnyRecord, Record<string, unknown>>;
/** The schema of a kind that is known at run time only. */
export const schemaOf = (table: TableName): AnySchema => kinds[table].schema as unknown as AnySchema;

function refusal(table: TableName, { path, message, named }: WrongInput): Refusal {
  const field = String(path[0] ?? '');
  const place = field ? fieldName(table, field) : `The ${kinds[table].word}`;
  return new Refusal('bad-input', named ? message : `${place}: ${message}`, [], path);
}

/** Encodes one record; a Refusal names the field and what is wrong with its value. */
export function toWire(table: TableName, record: AnyRecord): Record<string, unknown> {
  const written = encoded(schemaOf(table), record);
  if ('wrong' in written) throw refusal(table, written.wrong);
  return written.value;
}

/** Decodes one record; a Refusal names the field and what is wrong with its value. */
export function fromWire(table: TableName, wire: unknown): AnyRecord {
  const read = decoded(schemaOf(table), wire);
  if ('wrong' in read) throw refusal(table, read.wrong);
  return read.value;
}

const sound = new WeakSet<AnyRecord>();
/** Refuses a record that its kind does not allow, as toWire does. Records never change, so each is looked at once. */
export function requireShape(table: TableName, record: AnyRecord): void {
  if (sound.has(record)) return;
  toWire(table, record);
  sound.add(record);
}
