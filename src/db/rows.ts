import { type Step, type Plan, planOf, type AnyRecord, type TableName, tableNames } from '../core/plan';
import type { FieldColumns } from './columns';
import { type Bind, type Connection, rows, run } from './connection';
import { type TableMap, tables } from './tables';

/** Reading and writing the rows of the plan, driven by the table map. */

const namesOf = (columns: readonly FieldColumns[]) => columns.flatMap((column) => column.names);

function readFields(
  columns: readonly FieldColumns[],
  row: readonly unknown[],
  from: number,
): Record<string, unknown> {
  const fields: Record<string, unknown> = {};
  let at = from;
  for (const column of columns) {
    fields[column.field] = column.read(row, at);
    at += column.names.length;
  }
  return fields;
}

const writeFields = (columns: readonly FieldColumns[], record: Record<string, unknown>): Bind[] =>
  columns.flatMap((column) => column.write(record[column.field] as never));

/** The records of one table of a site. */
async function readTable(connection: Connection, siteId: string, map: TableMap): Promise<AnyRecord[]> {
  const main = await rows(
    connection,
    `SELECT id, ${namesOf(map.columns).join(', ')} FROM ${map.sql} WHERE site_id = ?`,
    [siteId],
  );
  const lists = new Map<string, Record<string, unknown[]>>();
  const empty = () => Object.fromEntries(map.children.map((child) => [child.field, [] as unknown[]]));
  for (const child of map.children) {
    const found = await rows(
      connection,
      `SELECT owner_id, ${namesOf(child.columns).join(', ')} FROM ${child.sql} WHERE site_id = ? ORDER BY owner_id, pos`,
      [siteId],
    );
    for (const row of found) {
      const owner = row[0] as string;
      if (!lists.has(owner)) lists.set(owner, empty());
      lists.get(owner)![child.field]!.push(child.item(readFields(child.columns, row, 1)));
    }
  }
  return main.map((row) => {
    const id = row[0] as string;
    const children = map.children.length ? (lists.get(id) ?? empty()) : {};
    return { id, ...readFields(map.columns, row, 1), ...children } as unknown as AnyRecord;
  });
}

/** Loads a whole plan on one connection; the caller holds a consistent snapshot. */
export async function readPlan(connection: Connection, siteId: string): Promise<Plan> {
  const lists: Partial<Record<TableName, AnyRecord[]>> = {};
  for (const table of tableNames) lists[table] = await readTable(connection, siteId, tables[table]);
  return planOf(lists as never);
}

/** Rows per INSERT: keeps far below the 65,535 placeholders of a prepared statement. */
const BATCH = 400;

async function insertRows(
  connection: Connection,
  sql: string,
  columns: readonly string[],
  list: readonly Bind[][],
  over = '',
): Promise<void> {
  for (let at = 0; at < list.length; at += BATCH) {
    const batch = list.slice(at, at + BATCH);
    const marks = `(${columns.map(() => '?').join(',')})`;
    await run(
      connection,
      `INSERT INTO ${sql} (${columns.join(', ')}) VALUES ${batch.map(() => marks).join(',')}${over}`,
      batch.flat(),
    );
  }
}

async function insertChildren(
  connection: Connection,
  siteId: string,
  map: TableMap,
  records: readonly AnyRecord[],
): Promise<void> {
  for (const child of map.children) {
    const list = records.flatMap((record) =>
      ((record as unknown as Record<string, unknown>)[child.field] as unknown[]).map((item, pos): Bind[] => [
        siteId,
        record.id,
        pos,
        ...writeFields(child.columns, child.values(item as never)),
      ]),
    );
    await insertRows(connection, child.sql, ['site_id', 'owner_id', 'pos', ...namesOf(child.columns)], list);
  }
}

const rowsOf = (siteId: string, map: TableMap, records: readonly AnyRecord[]): Bind[][] =>
  records.map((record) => [siteId, record.id, ...writeFields(map.columns, record as never)]);

async function insertRecords(
  connection: Connection,
  siteId: string,
  table: TableName,
  records: readonly AnyRecord[],
): Promise<void> {
  const map = tables[table];
  const list = rowsOf(siteId, map, records);
  await insertRows(connection, map.sql, ['site_id', 'id', ...namesOf(map.columns)], list);
  await insertChildren(connection, siteId, map, records);
}

/** Writes records over those of the same ids, many in a statement. */
async function updateRecords(
  connection: Connection,
  siteId: string,
  table: TableName,
  records: readonly AnyRecord[],
): Promise<void> {
  const map = tables[table];
  const names = namesOf(map.columns);
  const over = ` ON DUPLICATE KEY UPDATE ${names.map((name) => `${name} = VALUES(${name})`).join(', ')}`;
  await insertRows(connection, map.sql, ['site_id', 'id', ...names], rowsOf(siteId, map, records), over);
  for (const child of map.children)
    for (let at = 0; at < records.length; at += BATCH) {
      const batch = records.slice(at, at + BATCH);
      const marks = batch.map(() => '?').join(',');
      const ids = batch.map(({ id }) => id);
      await run(connection, `DELETE FROM ${child.sql} WHERE site_id = ? AND owner_id IN (${marks})`, [
        siteId,
        ...ids,
      ]);
    }
  await insertChildren(connection, siteId, map, records);
}

async function deleteRecords(
  connection: Connection,
  siteId: string,
  table: TableName,
  ids: readonly string[],
): Promise<void> {
  for (let at = 0; at < ids.length; at += BATCH) {
    const batch = ids.slice(at, at + BATCH);
    const marks = batch.map(() => '?').join(',');
    await run(connection, `DELETE FROM ${tables[table].sql} WHERE site_id = ? AND id IN (${marks})`, [
      siteId,
      ...batch,
    ]);
  }
}

const byTable = (steps: readonly Step[], table: TableName) => steps.filter((step) => step.table === table);

/**
 * Writes net steps: insertions with parents first, then updates, then deletions with children first, so that every
 * reference holds at every statement.
 */
export async function writeSteps(
  connection: Connection,
  siteId: string,
  steps: readonly Step[],
): Promise<void> {
  for (const table of tableNames) {
    const added = byTable(steps, table).filter((step) => step.before === null && step.after !== null);
    await insertRecords(
      connection,
      siteId,
      table,
      added.map((step) => step.after!),
    );
  }
  for (const table of tableNames) {
    const changed = byTable(steps, table).filter((step) => step.before !== null && step.after !== null);
    await updateRecords(
      connection,
      siteId,
      table,
      changed.map((step) => step.after!),
    );
  }
  for (const table of [...tableNames].reverse()) {
    const removed = byTable(steps, table).filter((step) => step.after === null && step.before !== null);
    await deleteRecords(
      connection,
      siteId,
      table,
      removed.map((step) => step.id),
    );
  }
}

/** Writes every record of a plan for a site that has none yet. */
export async function writePlan(connection: Connection, siteId: string, plan: Plan): Promise<void> {
  for (const table of tableNames)
    await insertRecords(connection, siteId, table, [...(plan[table].values() as Iterable<AnyRecord>)]);
}
