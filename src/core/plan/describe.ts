import { type Change, applySteps } from './change';
import { type Plan } from './plan';
import { toWire } from './record-wire';
import { equal } from './equal';
import { type TableName, kinds } from './records';
import { byName, fieldName, fieldText, recordTitle } from './words';

/** One line of a change as a person reviews it: what, which field, from, to. */
export interface FieldDifference {
  readonly table: TableName;
  readonly id: string;
  readonly what: string;
  /** What a record of this kind is called, where `what` does not say it. */
  readonly word: string;
  readonly kind: 'added' | 'removed' | 'changed';
  readonly field: string;
  readonly before: string;
  readonly after: string;
}

const hidden = new Set(['id', 'rank']);

/** Lists what a change does to the plan, one line per record added or removed and per field changed. */
export function describeChange(plan: Plan, change: Change): FieldDifference[] {
  const applied = applySteps(plan, change.steps);
  const after = applied.ok ? applied.plan : plan;
  return change.steps.flatMap((step): FieldDifference[] => {
    const { table, id } = step;
    if (step.before === null || step.after === null) {
      const record = (step.after ?? step.before)!;
      const what = recordTitle(step.after ? after : plan, table, record);
      const kind = step.after ? 'added' : 'removed';
      return [{ table, id, what, word: wordBeside(table, what), kind, field: '', before: '', after: '' }];
    }
    const was = toWire(table, step.before);
    const is = toWire(table, step.after);
    const what = recordTitle(plan, table, step.before);
    return Object.keys(is)
      .filter((field) => !hidden.has(field) && !equal(was[field], is[field]))
      .map((field) => ({
        table,
        id,
        what,
        word: wordBeside(table, what),
        kind: 'changed',
        field: fieldName(table, field),
        ...inWords(
          (value, at) => fieldText(at === 'before' ? plan : after, table, field, value),
          was[field],
          is[field],
        ),
      }));
  });
}

const wordBeside = (table: TableName, what: string): string => {
  const { word } = kinds[table];
  return what.toLowerCase().startsWith(word.toLowerCase()) ? '' : word;
};

/** So many of a list are shown; of a longer one, what came and what went. */
const SHOWN = 3;

function inWords(
  text: (value: unknown, at: 'before' | 'after') => string,
  was: unknown,
  is: unknown,
): Pick<FieldDifference, 'before' | 'after'> {
  const plain = { before: text(was, 'before'), after: text(is, 'after') };
  if (!isSet(was) || !isSet(is) || Math.max(was.length, is.length) <= SHOWN) return plain;
  const names = (items: readonly string[], at: 'before' | 'after') =>
    items
      .map((item) => text(item, at))
      .sort(byName)
      .join(', ');
  const went = names(
    was.filter((item) => !is.includes(item)),
    'before',
  );
  const came = names(
    is.filter((item) => !was.includes(item)),
    'after',
  );
  // The same in another order.
  if (!went && !came) return plain;
  const said = [went && `no longer ${went}`, came && `also ${came}`].filter(Boolean).join(', ');
  return { before: `${was.length} in all`, after: `${said}: ${is.length} in all` };
}

const isSet = (value: unknown): value is readonly string[] =>
  Array.isArray(value) &&
  value.every((item) => typeof item === 'string') &&
  new Set(value).size === value.length;
