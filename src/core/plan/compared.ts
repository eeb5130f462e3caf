import { alignedTo } from './aligned';
import { stepsBetween } from './between';
import { type FieldDifference, describeChange } from './describe';
import { groupBy } from './memo';
import type { Plan } from './plan';
import { type TableName, kinds, tableNames } from './records';
import { byName } from './words';

/** Two plans side by side: what is otherwise, kind by kind. */

export interface ComparedKind {
  readonly table: TableName;
  /** What one of it is called. */
  readonly word: string;
  readonly added: readonly string[];
  readonly removed: readonly string[];
  readonly changed: readonly FieldDifference[];
}

/** What is otherwise in the second plan, whoever drew it, in the order of the kinds. */
export function compared(from: Plan, to: Plan): ComparedKind[] {
  const steps = stepsBetween(from, alignedTo(from, to));
  const lines = groupBy(describeChange(from, { label: '', steps }), ({ table }) => table);
  return tableNames.flatMap((table): ComparedKind[] => {
    const own = lines.get(table);
    if (!own) return [];
    const named = (kind: FieldDifference['kind']) =>
      own.flatMap((line) => (line.kind === kind ? [line.what] : [])).sort(byName);
    return [
      {
        table,
        word: kinds[table].word,
        added: named('added'),
        removed: named('removed'),
        changed: own.filter(({ kind }) => kind === 'changed'),
      },
    ];
  });
}
