import * as z from 'zod';
import type { Step } from './change';
import { fromWire, requireShape, schemaOf } from './record-wire';
import { plainCodec } from './plain-codec';
import { type Plan, planOf } from './plan';
import { type AnyRecord, type TableName, tableNames } from './records';
import { upcastStep } from './upcast';

/** Plans and steps as JSON: every record through its schema's codecs, tables and ids in a fixed order. */

export interface WireStep {
  readonly table: TableName;
  readonly id: string;
  readonly before: Record<string, unknown> | null;
  readonly after: Record<string, unknown> | null;
}

export const wireStepSchema = z.preprocess(
  upcastStep,
  z.strictObject({
    table: z.enum(tableNames as [TableName, ...TableName[]]),
    id: z.string(),
    before: z.record(z.string(), z.unknown()).nullable(),
    after: z.record(z.string(), z.unknown()).nullable(),
  }),
);

const turns = (way: 'encode' | 'decode') =>
  Object.fromEntries(tableNames.map((table) => [table, plainCodec(schemaOf(table), way)])) as Readonly<
    Record<TableName, (value: unknown) => never>
  >;
const plain = { encode: turns('encode'), decode: turns('decode') };

/** A step as JSON. A Refusal names what is wrong with what a record becomes. */
export function encodeStep({ table, id, before, after }: Step): WireStep {
  if (after) requireShape(table, after);
  const written = (record: AnyRecord | null) => record && plain.encode[table](record);
  return { table, id, before: written(before), after: written(after) };
}

/**
 * Decodes a step, also one that an earlier version wrote; throws a Refusal that names the field when a record has the wrong
 * shape.
 */
export function decodeStep(written: WireStep): Step {
  const { table, id, before, after } = upcastStep(written) as WireStep;
  return { table, id, before: before && fromWire(table, before), after: after && fromWire(table, after) };
}

export type WirePlan = { readonly [T in TableName]?: readonly Record<string, unknown>[] };

/** The plan as lists of wire records, each list in ascending order of ids, so that equal plans give equal text. */
export function encodePlan(plan: Plan): WirePlan {
  const entries = tableNames.map((table) => {
    const records = [...(plan[table].values() as Iterable<AnyRecord>)].sort((a, b) => (a.id < b.id ? -1 : 1));
    return [table, records.map(plain.encode[table])];
  });
  return Object.fromEntries(entries) as WirePlan;
}

/** Decodes a plan this very version wrote itself, unchecked. Lists from anywhere else go through planOfLists. */
export function decodePlan(wire: WirePlan): Plan {
  const entries = tableNames.map((table) => [table, (wire[table] ?? []).map(plain.decode[table])]);
  return planOf(Object.fromEntries(entries));
}
