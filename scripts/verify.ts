import { openDatabase } from '../src/db/connection';
import { listSites } from '../src/db/sites';
import { verifySite } from '../src/server/verify';

/** Replays the journal of every site, or of those named, and says where it does not lead to the stored plan. */
async function main() {
  const pool = openDatabase(process.env.DATABASE_URL!, 2);
  const named = process.argv.slice(2);
  const sites = named.length > 0 ? named : (await listSites(pool)).map(({ id }) => id);
  let wrong = 0;
  for (const site of sites) {
    const found = await verifySite(pool, site);
    const text = !found
      ? 'there is no such site'
      : found.wrong || `change ${found.revision}, ${found.entries} entries replayed`;
    if (!found || found.wrong) wrong++;
    console.log(`${!found || found.wrong ? 'WRONG' : 'good '} ${site}: ${text}`);
  }
  console.log(`${sites.length} sites, ${wrong} wrong`);
  await pool.end();
  process.exitCode = wrong > 0 ? 1 : 0;
}

main().catch((error) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
