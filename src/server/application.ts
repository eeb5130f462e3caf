import type { Pool } from 'mysql2/promise';
import { database } from '../db/connection';
import { Commits } from './commit';
import { Counting } from './counting';
import { Plans } from './plans';
import { Streams } from './streams';
import { Workers } from './workers';

/** What this process holds for all requests. Kept across module reloads. */
export interface Application {
  readonly pool: Pool;
  readonly plans: Plans;
  readonly commits: Commits;
  readonly workers: Workers;
  readonly counting: Counting;
  readonly streams: Streams;
}

const holder = globalThis as typeof globalThis & { dianome?: Application };

function opened(): Application {
  const pool = database();
  const plans = new Plans(pool);
  const workers = new Workers(process.env.DATABASE_URL!);
  return {
    pool,
    plans,
    commits: new Commits(pool, plans),
    workers,
    counting: new Counting(pool, workers),
    streams: new Streams(pool),
  };
}

export const application = (): Application => (holder.dianome ??= opened());
