import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { readPlanFile } from '../src/core/formats';
import { openDatabase, rows } from '../src/db/connection';
import { migrate } from '../src/db/migrate';
import { createSite, deleteSite, listSites } from '../src/db/sites';

/** Migrates the database, resets it with --fresh, and loads the demo sites when it holds no site. */
async function main() {
  const pool = openDatabase(process.env.DATABASE_URL!);
  try {
    await rows(pool, 'SELECT 1');
  } catch (error) {
    throw new Error(`The database does not answer: ${(error as Error).message}`);
  }
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
      await createSite(
        pool,
        path.basename(file, '.json').replace(/[^a-z0-9]/g, ''),
        plan,
        new Date().toISOString(),
      );
    }
  }
  await pool.end();
}

main().catch((error) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
