import { put } from '../testing/gear';
import { drawPlan, withEveryKind } from '../testing/kinds';
import { done } from '../testing/plans';
import type { Plan } from './plan';
import { type AnyRecord, type TableName, kinds, tableNames } from './records';

const unique = tableNames.filter((table) => 'uniqueName' in kinds[table]);
const recordsOf = (plan: Plan, table: TableName) => [...plan[table].values()] as AnyRecord[];
const nameOf = (plan: Plan, table: TableName, id: string) =>
  (plan[table].get(id) as { readonly name: string }).name;

/** A site with at least two records of a kind, called no 1, no 2 and so on. */
function numbered(table: TableName): Plan {
  for (let seed = 1; ; seed++) {
    const plan = withEveryKind(drawPlan(seed), seed);
    const records = recordsOf(plan, table);
    if (records.length < 2) continue;
    return records.reduce(
      (now, record, i) => put(now, table, record as never, { name: `no ${i + 1}` } as never),
      plan,
    );
  }
}

describe.each(unique)('the name of each is its own: %s', (table) => {
  const plan = numbered(table);
  const [one, two] = recordsOf(plan, table).map(({ id }) => id);
  const rename = (to: Plan, id: string, name: string) => done(to, 'edit', { table, id, set: { name } });

  test('another’s is refused, whatever its case', () => {
    expect(() => rename(plan, two!, ' No 1')).toThrow(/^There is an? .* No 1 already; write another name/);
    expect(nameOf(rename(plan, one!, 'NO 1'), table, one!)).toBe('NO 1');
  });
  test('one that is there twice, as a file may bring it, is no bar to who changes it', () => {
    const twice = put(plan, table, plan[table].get(two!) as never, { name: 'no 1' } as never);
    expect(nameOf(rename(twice, two!, 'another'), table, two!)).toBe('another');
  });
});
