import { fieldOf } from './kinds/fields';
import { type Looked, portsText } from './kinds/kind';
import { titleOfPort } from './kinds/port';
import type { Plan } from './plan';
import { type AnyRecord, type Port, type TableName, kinds, tableNames } from './records';
import { references } from './references';
import { standardService } from './standard-services';

/** Plain words for records and fields, as used in labels, differences and refusals. */

export { portsText };

/** Names as people order them: sw-2 before sw-10. */
export const { compare: byName } = new Intl.Collator('en', { numeric: true });

/** A field as its kind calls it. */
export function fieldName(table: TableName, field: string): string {
  const shape = kinds[table].fields as Readonly<Record<string, Parameters<typeof fieldOf>[0]>>;
  return (shape[field] && fieldOf(shape[field])?.label) ?? field;
}

/** A wire value as a person would write it. */
export function wireText(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.length === 0 ? 'none' : value.map(wireText).join(', ');
  if (typeof value === 'object')
    return Object.values(value as Record<string, unknown>)
      .map(wireText)
      .join(' ');
  return String(value);
}

const looked = (plan: Plan): Looked => plan as unknown as Looked;

/** A port as people say it: SW-A 7; the inner port by what it is; the only socket of an end device by its name. */
export const portTitle = (plan: Plan, port: Pick<Port, 'device' | 'number'>): string =>
  titleOfPort(looked(plan), port);

/** What a person calls a record: the segment’s name, the host’s name, the subnet’s prefix. */
export const recordTitle = (plan: Plan, table: TableName, record: AnyRecord): string =>
  (kinds[table].title as (record: AnyRecord, plan: Looked) => string)(record, looked(plan));

const isTable = (word: string): word is TableName => (tableNames as readonly string[]).includes(word);

/** A wire value of a field in words, other records by what people call them. */
export function fieldText(plan: Plan, table: TableName, field: string, value: unknown): string {
  // What only a rule of its kind knows of is called by its plural.
  const to =
    references[table].find((reference) => reference.field === field)?.to ??
    tableNames.find((name) => `${name}s` === field);
  const named = (id: string, from: TableName): string => {
    const record = plan[from].get(id);
    return record ? recordTitle(plan, from, record) : (standardService(id)?.name ?? id);
  };
  const words = (item: unknown): unknown => {
    if (typeof item === 'string') return to && item !== '' ? named(item, to) : item;
    if (Array.isArray(item)) return item.map(words);
    if (typeof item !== 'object' || item === null) return item;
    // One of several kinds of record, under the name of its kind.
    return Object.entries(item).map(([key, part]) =>
      isTable(key) && typeof part === 'string' ? named(part, key) : words(part),
    );
  };
  return wireText(words(value));
}
