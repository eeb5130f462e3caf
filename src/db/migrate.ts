import { createHash } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import type { Pool } from 'mysql2/promise';
import { rows, run, withConnection } from './connection';

const folder = path.join(process.cwd(), 'src/db/migrations');

/**
 * Runs the migrations this database has not had, in order, each recorded when it is through. A named lock lets two
 * processes start at once: the second waits and finds nothing left to do. A recorded migration whose text changed
 * since is an error, because nobody can say what this database holds.
 */
export const migrate = (pool: Pool): Promise<string[]> =>
  withConnection(pool, async (connection) => {
    const [[locked]] = (await rows(connection, "SELECT GET_LOCK('dianome-migrate', 60)")) as [[number]];
    if (locked !== 1)
      throw new Error('another process has been migrating this database for a minute; try again');
    try {
      await run(
        connection,
        `CREATE TABLE IF NOT EXISTS migration (
           name VARCHAR(100) NOT NULL PRIMARY KEY, digest CHAR(64) NOT NULL, at DATETIME(3) NOT NULL)`,
      );
      const done = new Map(
        (await rows(connection, 'SELECT name, digest FROM migration')) as [string, string][],
      );
      const ran: string[] = [];
      for (const name of readdirSync(folder)
        .filter((file) => file.endsWith('.sql'))
        .sort()) {
        const sql = readFileSync(path.join(folder, name), 'utf8');
        const digest = createHash('sha256').update(sql).digest('hex');
        const known = done.get(name);
        if (known === digest) continue;
        if (known)
          throw new Error(`migration ${name} was changed after this database had it; restore its text`);
        for (const statement of sql.split(/;\s*\n/).filter((part) => part.trim()))
          await connection.query(statement);
        await run(connection, 'INSERT INTO migration VALUES (?, ?, UTC_TIMESTAMP(3))', [name, digest]);
        ran.push(name);
      }
      return ran;
    } finally {
      await rows(connection, "SELECT RELEASE_LOCK('dianome-migrate')");
    }
  });
