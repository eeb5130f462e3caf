import mysql, { type Pool, type PoolConnection } from 'mysql2/promise';

export type Connection = PoolConnection;
/** Values of a prepared statement. */
export type Bind = string | number | bigint | boolean | Buffer | null;

const holder = globalThis as typeof globalThis & { dianomeDatabase?: Pool };

/** Opens a pool; times are UTC, rows come as arrays of plain values, dates as text. */
export const openDatabase = (url: string, connections = 8): Pool =>
  mysql.createPool({
    uri: url,
    timezone: 'Z',
    dateStrings: true,
    charset: 'utf8mb4_bin',
    connectionLimit: connections,
    maxPreparedStatements: 500,
  });

/** The pool of this process, from DATABASE_URL. Kept across module reloads. */
export function database(): Pool {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set; start the application with npm start');
  return (holder.dianomeDatabase ??= openDatabase(url));
}

/** Runs `work` on one connection of the pool and gives it back. */
export async function withConnection<T>(
  pool: Pool,
  work: (connection: Connection) => Promise<T>,
): Promise<T> {
  const connection = await pool.getConnection();
  try {
    return await work(connection);
  } finally {
    connection.release();
  }
}

/** A transaction that commits when `work` resolves and rolls back when it throws. */
export const transaction = <T>(
  pool: Pool,
  begin: 'READ COMMITTED' | 'SNAPSHOT',
  work: (connection: Connection) => Promise<T>,
): Promise<T> =>
  withConnection(pool, async (connection) => {
    const level = begin === 'SNAPSHOT' ? 'REPEATABLE READ' : 'READ COMMITTED';
    await connection.query(`SET TRANSACTION ISOLATION LEVEL ${level}`);
    await connection.query(
      begin === 'SNAPSHOT' ? 'START TRANSACTION WITH CONSISTENT SNAPSHOT' : 'START TRANSACTION',
    );
    try {
      const result = await work(connection);
      await connection.query('COMMIT');
      return result;
    } catch (error) {
      // A connection that cannot roll back is broken; the server rolls back when it closes.
      await connection.query('ROLLBACK').catch(() => connection.destroy());
      throw error;
    }
  });

/** Rows of a prepared statement, each an array in the order of the columns. */
export async function rows(
  connection: Connection | Pool,
  sql: string,
  values: readonly Bind[] = [],
): Promise<unknown[][]> {
  const [result] = await connection.execute({ sql, rowsAsArray: true }, values as Bind[]);
  return result as unknown as unknown[][];
}

/** Rows changed by a prepared statement. */
export async function run(
  connection: Connection | Pool,
  sql: string,
  values: readonly Bind[] = [],
): Promise<number> {
  const [result] = await connection.execute(sql, values as Bind[]);
  return (result as { affectedRows: number }).affectedRows;
}

/** 1451 and 1452: a row something still points at, or a pointer to nothing. 1062: an id or a seed that exists. */
export const isConflictOfRows = (error: unknown): boolean =>
  [1451, 1452, 1062].includes((error as { readonly errno?: number }).errno ?? 0);
