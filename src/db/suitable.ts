import type { Pool } from 'mysql2/promise';
import { rows } from './connection';

/** Is a database one that this program can keep plans in? Each fault with the line that mends it. */

/** The oldest MariaDB whose statements are used. */
const OLDEST = [10, 6] as const;
/** So large a packet has to be, in bytes: a change of a whole plan goes in one. */
const PACKET = 64 * 1024 * 1024;
const NEEDED = ['SELECT', 'INSERT', 'UPDATE', 'DELETE', 'CREATE', 'ALTER', 'INDEX', 'DROP', 'REFERENCES'];

export interface Facts {
  readonly version: string;
  readonly sqlMode: string;
  readonly packet: number;
  readonly charset: string;
  readonly database: string;
  readonly grants: readonly string[];
}

export async function factsOf(pool: Pool): Promise<Facts> {
  const [first] = await rows(
    pool,
    `SELECT VERSION(), @@GLOBAL.sql_mode, @@GLOBAL.max_allowed_packet, DATABASE(),
       (SELECT default_character_set_name FROM information_schema.schemata WHERE schema_name = DATABASE())`,
  );
  const [version, sqlMode, packet, database, charset] = first as [string, string, number, string, string];
  const grants = (await rows(pool, 'SHOW GRANTS')).map(([line]) => line as string);
  return { version, sqlMode, packet: Number(packet), charset, database, grants };
}

/** What is wrong, each in one line; empty when it will do. */
export function faultsOf({ version, sqlMode, packet, charset, database, grants }: Facts): string[] {
  const faults: string[] = [];
  const [major = 0, minor = 0] = version.split('.').map(Number);
  if (!/mariadb/i.test(version) || major < OLDEST[0] || (major === OLDEST[0] && minor < OLDEST[1]))
    faults.push(`It is ${version}; MariaDB ${OLDEST.join('.')} or newer is needed. Install it.`);
  if (!/STRICT_(TRANS|ALL)_TABLES/.test(sqlMode))
    faults.push(
      `sql_mode is “${sqlMode}”, which cuts texts in silence. Put under [mariadbd]: sql_mode = STRICT_TRANS_TABLES`,
    );
  if (packet < PACKET)
    faults.push(
      `max_allowed_packet is ${packet} bytes, too few for a large change. Put under [mariadbd]: max_allowed_packet = 256M`,
    );
  if (charset !== 'utf8mb4')
    faults.push(
      `The database ${database} is in ${charset}, which does not hold every text. Run: ALTER DATABASE \`${database}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin`,
    );
  const missing = NEEDED.filter((right) => !isGranted(grants, database, right));
  if (missing.length > 0)
    faults.push(
      `Its user may not ${missing.join(', ')}. Run: GRANT ${missing.join(', ')} ON \`${database}\`.* TO that user`,
    );
  return faults;
}

/** Does a line of SHOW GRANTS give a right on the database? Its name may be a pattern, with signs escaped. */
function isGranted(grants: readonly string[], database: string, right: string): boolean {
  return grants.some((line) => {
    const [, rights = '', name = ''] = /^GRANT (.+?) ON (\S+)\.\* TO/.exec(line) ?? [];
    const on = name.replaceAll('`', '').replaceAll('\\', '');
    if (on !== '*' && on !== database && !matches(on, database)) return false;
    return rights === 'ALL PRIVILEGES' || rights.split(', ').includes(right);
  });
}
const matches = (pattern: string, name: string): boolean =>
  new RegExp(
    `^${pattern
      .replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
      .replaceAll('%', '.*')
      .replaceAll('_', '.')}$`,
  ).test(name);
