import type { Plan } from './plan';
import { type AnyRecord, type TableName, kinds } from './records';
import { badInput } from './refusal';

/** Names by which people tell the records of a kind apart. Small and capital letters are one. */

type Named = AnyRecord & { readonly name: string };

/** The record that is called so, but for one. */
export const namedSo = (plan: Plan, table: TableName, name: string, but?: string): Named | undefined =>
  ([...plan[table].values()] as Named[]).find(
    (other) => other.id !== but && other.name.toLowerCase() === name.trim().toLowerCase(),
  );

/** Refuses a name that another record of a kind has, where no two may be called the same. */
export function requireOwnName(plan: Plan, table: TableName, name: string, but?: string): void {
  const { word, uniqueName } = kinds[table] as { readonly word: string; readonly uniqueName?: boolean };
  if (!uniqueName || !namedSo(plan, table, name, but)) return;
  const article = /^[aeiou]/i.test(word) ? 'an' : 'a';
  throw badInput(`There is ${article} ${word} ${name} already; write another name.`, 'name');
}
