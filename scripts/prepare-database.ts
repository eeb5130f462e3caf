import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import * as z from 'zod';
import { newEntrySchema } from '../src/core/log';
import { readPlanFile } from '../src/core/formats';
import type { Pool } from 'mysql2/promise';
import { openDatabase, rows, withConnection } from '../src/db/connection';
import { addToLog } from '../src/db/log';
import { migrate } from '../src/db/migrate';
import { createSite, deleteSite, listSites } from '../src/db/sites';
import { factsOf, faultsOf } from '../src/db/suitable';

/** Looks whether the database will do, migrates it, resets it with --fresh, and loads the demo sites with their logbooks when it holds no site. */
async function main() {
  const pool = openDatabase(process.env.DATABASE_URL!);
  try {
    await rows(pool, 'SELECT 1');
  } catch (error) {
    throw new Error(`The database does not answer: ${(error as Error).message}`);
  }
  const faults = faultsOf(await factsOf(pool));
  if (faults.length > 0) throw new Error(['The database will not do:', ...faults].join('\n  '));
  // Of two that start at once the second waits, and finds nothing left to do.
  await withConnection(pool, async (connection) => {
    await rows(connection, "SELECT GET_LOCK('dianome-prepare', 300)");
    await prepare(pool);
    await rows(connection, "SELECT RELEASE_LOCK('dianome-prepare')");
  });
  await pool.end();
}

/** The tables, and what is in them at the start. */
async function prepare(pool: Pool): Promise<void> {
  await migrate(pool);
  if (process.argv.includes('--fresh'))
    for (const site of await listSites(pool)) await deleteSite(pool, site.id);
  const [[count]] = (await rows(pool, 'SELECT COUNT(*) FROM site')) as [[number]];
  if (Number(count) === 0) {
    const folder = path.join(process.cwd(), 'demo');
    for (const file of readdirSync(folder)
      .filter((name) => name.endsWith('.json'))
      .sort()) {
      const plan = readPlanFile(readFileSync(path.join(folder, file), 'utf8'));
      const id = path.basename(file, '.json').replace(/[^a-z0-9]/g, '');
      await createSite(pool, id, plan, new Date().toISOString());
      const book = JSON.parse(readFileSync(path.join(folder, 'log', file), 'utf8')) as unknown;
      const now = Date.now();
      await addToLog(pool, id, { entries: z.array(newEntrySchema).parse(book), sent: now, now });
    }
  }
}

main().catch((error) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
