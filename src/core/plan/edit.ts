import * as z from 'zod';
import { overtaken } from './meanwhile';
import { operation } from './operation';
import { type AnyRecord, type TableName, kinds, tableNames } from './records';
import { isEdited } from './references';
import { decoded } from './plain-issue';
import { Refusal } from './refusal';
import type { Definition } from './kinds/kind';
import { fieldName, recordTitle, wireText } from './words';

const editable = tableNames.filter(
  (table) => (kinds[table] as { readonly edited?: boolean }).edited !== false,
);
type AnySchema = z.ZodType<AnyRecord, Record<string, unknown>>;
/** The schema of a kind that is known at run time only. */
export const schemaOf = (table: TableName): AnySchema => kinds[table].schema as unknown as AnySchema;

const refusedBy = (table: TableName) => kinds[table].refused as Definition<z.ZodRawShape>['refused'];

export const toWire = (table: TableName, record: AnyRecord): Record<string, unknown> =>
  schemaOf(table).encode(record);

/** Decodes one record; a Refusal names the field and what is wrong with its value. */
export function fromWire(table: TableName, wire: unknown): AnyRecord {
  const read = decoded(schemaOf(table), wire);
  if ('value' in read) return read.value;
  const { path, message, named } = read.wrong;
  const field = String(path[0] ?? '');
  const place = field ? fieldName(table, field) : `The ${kinds[table].word}`;
  throw new Refusal('bad-input', named ? message : `${place}: ${message}`, [], path);
}

/**
 * Sets fields of one record. `seen` holds the values the user had in view: if somebody changed one of them since, to
 * something else than is set here, the edit is refused with both values instead of overwriting. References and ids have
 * operations of their own.
 */
export const edit = operation(
  'edit',
  z.strictObject({
    table: z.enum(editable as [TableName, ...TableName[]]),
    id: z.string(),
    set: z.record(z.string(), z.unknown()),
    seen: z.record(z.string(), z.unknown()).default({}),
  }),
  (draft, { table, id, set, seen }) => {
    const record = draft.need(table, id) as AnyRecord;
    const wire = toWire(table, record);
    for (const field of Object.keys(set))
      if (!isEdited(table, field))
        throw new Refusal('bad-input', `A ${table} has no field “${field}” to edit.`, [], [field]);
    const title = recordTitle(draft.plan, table, record);
    for (const [field, value] of Object.entries(seen))
      if (overtaken(wire[field], value, field in set ? set[field] : value))
        throw new Refusal(
          'changed',
          `${title}: ${fieldName(table, field)} was ${wireText(value)} when you edited it and is ${wireText(wire[field])} now.`,
          [{ table, id }],
          [field],
        );
    const after = fromWire(table, { ...wire, ...set });
    const refused = refusedBy(table)?.(after, draft.plan as never);
    if (refused && refused.field in set)
      throw new Refusal('bad-input', refused.message, [{ table, id }], [refused.field]);
    draft.put(table, id, after as never);
    const next = toWire(table, after);
    const parts = Object.keys(set).map(
      (field) => `${fieldName(table, field)} ${wireText(wire[field])} → ${wireText(next[field])}`,
    );
    return `${title}: ${parts.join(', ')}`;
  },
);
