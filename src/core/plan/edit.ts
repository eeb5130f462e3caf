import * as z from 'zod';
import { overtaken } from './meanwhile';
import { operation } from './operation';
import { type AnyRecord, type TableName, kinds, tableNames } from './records';
import { isEdited } from './references';
import { fromWire, toWire } from './record-wire';
import { Refusal } from './refusal';
import type { Definition } from './kinds/kind';
import { requireOwnName } from './unique';
import { fieldName, recordTitle, wireText } from './words';

const editable = tableNames.filter(
  (table) => (kinds[table] as { readonly edited?: boolean }).edited !== false,
);
const refusedBy = (table: TableName) => kinds[table].refused as Definition<z.ZodRawShape>['refused'];

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
    if ('name' in set) requireOwnName(draft.plan, table, String(set.name), id);
    draft.put(table, id, after as never);
    const next = toWire(table, after);
    const parts = Object.keys(set).map(
      (field) => `${fieldName(table, field)} ${wireText(wire[field])} → ${wireText(next[field])}`,
    );
    return `${title}: ${parts.join(', ')}`;
  },
);
