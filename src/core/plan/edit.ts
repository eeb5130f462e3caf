import { z } from 'zod';
import { equal } from './equal';
import { type Operation, operation } from './operation';
import { type AnyRecord, type TableName, recordSchemas, references } from './records';
import { Refusal } from './refusal';
import { fieldName, recordTitle, wireText } from './words';

const editable = [
  'site',
  'lan',
  'vlan',
  'device',
  'interface',
  'box',
  'profile',
  'aggregate',
  'port',
  'cable',
  'bridge',
  'instance',
  'treePort',
  'subnet',
  'pool',
  'exclusion',
  'address',
  'uplink',
  'forward',
  'offer',
  'route',
  'tunnel',
  'translation',
  'voiceBox',
  'zone',
  'service',
  'rule',
  'question',
] as const;

export const toWire = (table: TableName, record: AnyRecord): Record<string, unknown> =>
  recordSchemas[table].encode(record as never) as Record<string, unknown>;

/** Decodes one record; a Refusal names the field and what is wrong with its value. */
export function fromWire(table: TableName, wire: unknown): AnyRecord {
  const parsed = recordSchemas[table].safeDecode(wire as never);
  if (parsed.success) return parsed.data as AnyRecord;
  const issue = parsed.error.issues[0]!;
  throw new Refusal('bad-input', plainIssue(table, issue), [], issue.path as (string | number)[]);
}

/** Zod's own messages name no field; ours already do. */
function plainIssue(table: TableName, issue: z.core.$ZodIssue): string {
  const field = String(issue.path[0] ?? '');
  if (issue.code === 'invalid_value' || issue.code === 'invalid_type' || issue.code === 'unrecognized_keys')
    return `${field ? fieldName(table, field) : `The ${table}`}: ${issue.message}`;
  return issue.message;
}

/**
 * Sets fields of one record. `seen` holds the values the user had in view: if somebody changed one of them since, the
 * edit is refused with both values instead of overwriting. References and ids have operations of their own.
 */
export const edit: Operation = operation(
  'edit',
  z.strictObject({
    table: z.enum(editable),
    id: z.string(),
    set: z.record(z.string(), z.unknown()),
    seen: z.record(z.string(), z.unknown()).default({}),
  }),
  (draft, { table, id, set, seen }) => {
    const record = draft.need(table, id) as AnyRecord;
    const wire = toWire(table, record);
    for (const field of Object.keys(set))
      if (
        !(field in wire) ||
        field === 'id' ||
        (field in references[table] && field !== 'servedBy' && field !== 'dns')
      )
        throw new Refusal('bad-input', `A ${table} has no field “${field}” to edit.`, [], [field]);
    const title = recordTitle(draft.plan, table, record);
    for (const [field, value] of Object.entries(seen))
      if (!equal(wire[field], value))
        throw new Refusal(
          'changed',
          `${title}: ${fieldName(table, field)} was ${wireText(value)} when you edited it and is ${wireText(wire[field])} now.`,
          [{ table, id }],
          [field],
        );
    const after = fromWire(table, { ...wire, ...set });
    draft.put(table, id, after as never);
    const next = toWire(table, after);
    const parts = Object.keys(set).map(
      (field) => `${fieldName(table, field)} ${wireText(wire[field])} → ${wireText(next[field])}`,
    );
    return `${title}: ${parts.join(', ')}`;
  },
);
