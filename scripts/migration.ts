import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { draftMigration } from '../src/db/draft';

/** Drafts the SQL migration that brings the database up to the kinds, as the next file in src/db/migrations. */
const folder = path.join(process.cwd(), 'src/db/migrations');
const files = readdirSync(folder)
  .filter((name) => name.endsWith('.sql'))
  .sort();

/** Tables and columns as the migrations there leave them. */
const tables = new Map<string, Set<string>>();
for (const file of files)
  for (const statement of readFileSync(path.join(folder, file), 'utf8').split(/;\s*\n/)) {
    const created = /^\s*CREATE TABLE (?:IF NOT EXISTS )?(\w+) \(\n([\s\S]*)\n\)/.exec(statement);
    if (created)
      tables.set(created[1]!, new Set(created[2]!.split('\n').map((line) => line.trim().split(' ')[0]!)));
    const added = /^\s*ALTER TABLE (\w+) ADD COLUMN (?:IF NOT EXISTS )?(\w+)/.exec(statement);
    if (added) tables.get(added[1]!)!.add(added[2]!);
    const renamed = /^\s*RENAME TABLE IF EXISTS (\w+) TO (\w+)/.exec(statement);
    if (renamed) {
      tables.set(renamed[2]!, tables.get(renamed[1]!)!);
      tables.delete(renamed[1]!);
    }
    const column = /^\s*ALTER TABLE (\w+) CHANGE COLUMN IF EXISTS (\w+) (\w+)/.exec(statement);
    if (column && tables.get(column[1]!)!.delete(column[2]!)) tables.get(column[1]!)!.add(column[3]!);
  }

const sql = draftMigration(tables);
if (sql === '') console.log('Nothing to do: the migrations hold everything the kinds do.');
else {
  const name = `${String(Number(files.at(-1)!.slice(0, 3)) + 1).padStart(3, '0')}-${process.argv[2] ?? 'kinds'}.sql`;
  writeFileSync(path.join(folder, name), sql);
  console.log(
    `Drafted src/db/migrations/${name}. Read it, give new columns of old tables a default, then commit it.`,
  );
}
