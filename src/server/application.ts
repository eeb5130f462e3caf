import type { Pool } from 'mysql2/promise';
import { database } from '../db/connection';
import { Counting } from './counting';
import { Streams } from './streams';
import { Workers } from './workers';
import { Writer } from './writer';

/** What this process holds for all requests. Kept across module reloads. */
export interface Application {
  readonly pool: Pool;
  readonly writer: Writer;
  readonly workers: Workers;
  readonly counting: Counting;
  readonly streams: Streams;
}

const holder = globalThis as typeof globalThis & { dianome?: Application };

function opened(): Application {
  const pool = database();
  const url = process.env.DATABASE_URL!;
  const workers = new Workers(url);
  return {
    pool,
    writer: new Writer(url),
    workers,
    counting: new Counting(pool, workers),
    streams: new Streams(pool),
  };
}

export const application = (): Application => (holder.dianome ??= opened());
