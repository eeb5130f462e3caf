import type { Pool } from 'mysql2/promise';
import { encodePlan } from '../core/plan';
import { drawPlan } from '../core/testing/kinds';
import { rows } from './connection';
import { draftMigration, draftedTables } from './draft';
import { deleteSite } from './sites';
import { stored, storedSite, testDatabase } from '../server/testing';

let pool: Pool;
beforeAll(async () => {
  pool = await testDatabase();
});
afterAll(() => pool.end());

/** Columns and foreign keys as the database has them. */
async function described() {
  const columns = (await rows(
    pool,
    `SELECT table_name, column_name, data_type, column_type, is_nullable, character_maximum_length
       FROM information_schema.columns WHERE table_schema = DATABASE()`,
  )) as [string, string, string, string, string, bigint | number | null][];
  const keys = (await rows(
    pool,
    `SELECT u.table_name, u.column_name, u.referenced_table_name, r.delete_rule
       FROM information_schema.key_column_usage u
       JOIN information_schema.referential_constraints r
         ON r.constraint_schema = u.constraint_schema AND r.constraint_name = u.constraint_name
            AND r.table_name = u.table_name
      WHERE u.table_schema = DATABASE() AND u.column_name <> 'site_id'`,
  )) as [string, string, string, string][];
  return { columns, keys };
}

const LARGEST: Readonly<Record<string, number>> = { tinyint: 255, smallint: 65_535, int: 2 ** 32 - 1 };
/** What a type can hold: the largest number, or the length of a text; the family besides. */
function capacity(type: string): { readonly family: string; readonly most: number } {
  const word = type.toLowerCase().split(/[ (]/)[0]!;
  if (word === 'boolean') return { family: 'number', most: 1 };
  if (word in LARGEST) return { family: 'number', most: LARGEST[word]! };
  if (word === 'text') return { family: 'text', most: 16_000 };
  if (word === 'mediumtext') return { family: 'text', most: 16_000_000 };
  if (word === 'varchar' || word === 'char')
    return { family: 'text', most: Number(/\((\d+)\)/.exec(type)![1]) };
  return { family: word, most: 0 };
}

describe('the tables of the kinds', () => {
  test('are in the database with every column, wide enough, and no column besides', async () => {
    const { columns } = await described();
    const wrong: string[] = [];
    for (const table of draftedTables()) {
      const there = new Map(
        columns.filter(([name]) => name === table.name).map((column) => [column[1], column]),
      );
      for (const { name, type, nullable } of table.columns) {
        const found = there.get(name);
        if (!found) {
          wrong.push(`${table.name}.${name} is missing`);
          continue;
        }
        const [, , data, full, isNullable, length] = found;
        const wanted = capacity(type);
        const has = capacity(data === 'tinyint' && wanted.most === 1 ? 'boolean' : full);
        const most = has.family === 'text' ? Number(length) : has.most;
        if (has.family !== wanted.family || most < wanted.most)
          wrong.push(`${table.name}.${name} is ${full}, and ${type} is needed`);
        if ((isNullable === 'YES') !== nullable)
          wrong.push(`${table.name}.${name} is nullable: ${isNullable}`);
      }
      const own = new Set(['site_id', 'id', 'owner_id', 'pos', ...table.columns.map(({ name }) => name)]);
      for (const name of there.keys()) if (!own.has(name)) wrong.push(`${table.name}.${name} is of no field`);
    }
    expect(wrong).toEqual([]);
  });

  test('refer to each other as the kinds do, and only lists go with their record', async () => {
    const { keys } = await described();
    const has = new Set(keys.map((key) => key.join(' ')));
    const wanted = draftedTables().flatMap(({ name, owner, keys: own }) => [
      ...(owner === null ? [] : [`${name} owner_id ${owner} CASCADE`]),
      ...own.map(({ column, to }) => `${name} ${column} ${to} RESTRICT`),
    ]);
    expect(wanted.filter((key) => !has.has(key))).toEqual([]);
  });

  test('leave no migration to be drafted', async () => {
    const { columns } = await described();
    const there = new Map<string, Set<string>>();
    for (const [table, column] of columns)
      there.set(table, (there.get(table) ?? new Set<string>()).add(column));
    expect(draftMigration(there)).toBe('');
    there.delete('uplink');
    expect(draftMigration(there)).toContain('CREATE TABLE uplink (\n  site_id');
    there.get('vlan')!.delete('colour');
    expect(draftMigration(there)).toContain('ALTER TABLE vlan ADD COLUMN colour');
  });

  test('hold records of every kind, each field filled and empty, and give them back', async () => {
    const written = new Set<string>();
    const wanted = draftedTables();
    for (let seed = 1; seed <= 30; seed++) {
      const plan = drawPlan(seed, 6);
      const id = await storedSite(pool, plan);
      expect(encodePlan((await stored(pool, id)).plan)).toEqual(encodePlan(plan));
      for (const { name, columns } of wanted) {
        const counted = columns.map((column) => `COUNT(${column.name})`);
        const [counts] = await rows(
          pool,
          `SELECT COUNT(*), ${counted.join(', ') || '0'} FROM ${name} WHERE site_id = ?`,
          [id],
        );
        if (Number(counts![0]) > 0) written.add(name);
        columns.forEach((column, i) => {
          if (Number(counts![i + 1]) > 0) written.add(`${name}.${column.name}`);
        });
      }
      expect(await deleteSite(pool, id)).toBe(true);
    }
    const never = wanted.flatMap(({ name, columns }) =>
      [name, ...columns.map((column) => `${name}.${column.name}`)].filter((key) => !written.has(key)),
    );
    expect(never).toEqual([]);
  });
});
